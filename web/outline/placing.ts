// placing.ts — maps that move, turn, scale and mirror shapes, about a place that stays.
import { type Matrix, multiply, rotation, scaling, translation } from '../../core/index.ts';
import { linesOf, snapped } from '../controls/in-line.ts';
import type { Area, Place } from './choosing.ts';

/** Lines that what is dragged comes to when they are near. */
export interface Guides {
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** What is near, in user units. */
  readonly reach: number;
}

/** What a drag to a place makes of the chosen shapes. */
export type Placing = (to: Place, event: { shiftKey: boolean; altKey: boolean }, guides: Guides) => Matrix;

/** Sides and middles of areas. */
export const guidesOf = (areas: readonly Area[], reach: number): Guides => ({
  x: areas.flatMap(({ minX, maxX }) => linesOf(minX, maxX)),
  y: areas.flatMap(({ minY, maxY }) => linesOf(minY, maxY)),
  reach,
});

const about = (matrix: Matrix, { x, y }: Place): Matrix =>
  multiply(translation(x, y), multiply(matrix, translation(-x, -y)));

export const movedBy = (x: number, y: number): Matrix => translation(x, y);
/** A move that brings sides or middle of an area in line with what they are near. */
export function movedInLine({ minX, minY, maxX, maxY }: Area, x: number, y: number, { reach, ...to }: Guides): Matrix {
  const along = (by: number, low: number, high: number, others: readonly number[]) =>
    by === 0 ? 0 : snapped(by, { own: linesOf(low, high), others }, reach);
  return movedBy(along(x, minX, maxX, to.x), along(y, minY, maxY, to.y));
}

/** @param degrees clockwise on the screen, where y runs down */
export const turnedBy = (degrees: number, middle: Place): Matrix => about(rotation((degrees * Math.PI) / 180), middle);
export const scaledBy = (x: number, y: number, fixed: Place): Matrix => about(scaling(x, y), fixed);

export const middleOf = ({ minX, minY, maxX, maxY }: Area): Place => ({ x: (minX + maxX) / 2, y: (minY + maxY) / 2 });

/** Corners of an area from the top left on, clockwise. */
export const cornersOf = ({ minX, minY, maxX, maxY }: Area): Place[] => [
  { x: minX, y: minY },
  { x: maxX, y: minY },
  { x: maxX, y: maxY },
  { x: minX, y: maxY },
];

/** Below this share of a size nothing is left to be seen. */
const LEAST = 1e-3;

/**
 * A corner dragged from one place to another, the one across from it fixed: both ways alike, or each by itself. Near a guide it
 * comes to it.
 */
export function scaledTo(area: Area, corner: number, to: Place, isFree: boolean, guides: Guides): Matrix {
  const corners = cornersOf(area);
  const [own, fixed] = [corners[corner]!, corners[(corner + 2) % 4]!];
  const inLine = (at: number, others: readonly number[]) => at + snapped(0, { own: [at], others }, guides.reach);
  const share = (at: number, from: number, end: number) => (end === from ? 1 : (at - from) / (end - from));
  const held = (v: number) => (Math.abs(v) < LEAST ? LEAST : v);
  if (isFree) {
    const [x, y] = [share(inLine(to.x, guides.x), fixed.x, own.x), share(inLine(to.y, guides.y), fixed.y, own.y)];
    return scaledBy(held(x), held(y), fixed);
  }
  // As far as the hand went along the diagonal, or as far as a guide that one of its ways is nearer to.
  const [dx, dy] = [own.x - fixed.x, own.y - fixed.y];
  const along = ((to.x - fixed.x) * dx + (to.y - fixed.y) * dy) / (dx * dx + dy * dy || 1);
  const [x, y] = [fixed.x + along * dx, fixed.y + along * dy];
  const [offX, offY] = [inLine(x, guides.x) - x, inLine(y, guides.y) - y];
  const isByX = offX !== 0 && (offY === 0 || Math.abs(offX) <= Math.abs(offY));
  const factor = isByX ? share(x + offX, fixed.x, own.x) : offY === 0 ? along : share(y + offY, fixed.y, own.y);
  return scaledBy(held(factor), held(factor), fixed);
}

/** With Shift in steps of this. */
const STEP_DEG = 15;

/** What is nearer than this to such a step comes to it without Shift as well. */
const NEAR_DEG = 2;

/** @param near whether it comes to round angles: always, when it is near one, or never */
export function turnedTo(middle: Place, from: Place, to: Place, near: 'always' | 'near' | 'never'): Matrix {
  const angle = (at: Place) => (Math.atan2(at.y - middle.y, at.x - middle.x) * 180) / Math.PI;
  const by = angle(to) - angle(from);
  const round = Math.round(by / STEP_DEG) * STEP_DEG;
  const isRound = near === 'always' || (near === 'near' && Math.abs(by - round) <= NEAR_DEG);
  return turnedBy(isRound ? round : by, middle);
}

/** Guides that an area stands on after a map, where the map leaves it upright. */
export function guidesMet(
  { minX, minY, maxX, maxY }: Area,
  [a, b, c, d, e, f]: Matrix,
  guides: Guides,
): Omit<Guides, 'reach'> {
  if (b !== 0 || c !== 0) return { x: [], y: [] };
  const near = 1e-6 * guides.reach;
  const met = (own: readonly number[], others: readonly number[]) =>
    [...new Set(others)].filter((line) => own.some((each) => Math.abs(each - line) <= near));
  return {
    x: met(linesOf(a * minX + e, a * maxX + e), guides.x),
    y: met(linesOf(d * minY + f, d * maxY + f), guides.y),
  };
}

export const printed = (matrix: Matrix): string => `matrix(${matrix.join(' ')})`;

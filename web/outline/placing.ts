// placing.ts — maps that move, turn, scale and mirror shapes, about a place that stays.
import { type Matrix, multiply, rotation, scaling, translation } from '../../core/index.ts';
import type { Area, Place } from './choosing.ts';

/** What a drag to a place makes of the chosen shapes. */
export type Placing = (to: Place, event: { shiftKey: boolean; altKey: boolean }) => Matrix;

const about = (matrix: Matrix, { x, y }: Place): Matrix =>
  multiply(translation(x, y), multiply(matrix, translation(-x, -y)));

export const movedBy = (x: number, y: number): Matrix => translation(x, y);
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
 * A corner dragged from one place to another, the one across from it fixed: both ways alike, or each by itself.
 */
export function scaledTo(area: Area, corner: number, to: Place, isFree: boolean): Matrix {
  const corners = cornersOf(area);
  const [own, fixed] = [corners[corner]!, corners[(corner + 2) % 4]!];
  const share = (at: number, from: number, end: number) => (end === from ? 1 : (at - from) / (end - from));
  const [x, y] = [share(to.x, fixed.x, own.x), share(to.y, fixed.y, own.y)];
  const held = (v: number) => (Math.abs(v) < LEAST ? LEAST : v);
  if (isFree) return scaledBy(held(x), held(y), fixed);
  // As far as the hand went along the diagonal.
  const [dx, dy] = [own.x - fixed.x, own.y - fixed.y];
  const along = ((to.x - fixed.x) * dx + (to.y - fixed.y) * dy) / (dx * dx + dy * dy || 1);
  return scaledBy(held(along), held(along), fixed);
}

/** With Shift in steps of this. */
const STEP_DEG = 15;

export function turnedTo(middle: Place, from: Place, to: Place, inSteps: boolean): Matrix {
  const angle = (at: Place) => (Math.atan2(at.y - middle.y, at.x - middle.x) * 180) / Math.PI;
  const by = angle(to) - angle(from);
  return turnedBy(inSteps ? Math.round(by / STEP_DEG) * STEP_DEG : by, middle);
}

export const printed = (matrix: Matrix): string => `matrix(${matrix.join(' ')})`;

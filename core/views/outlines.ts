// outlines.ts — shapes as the Outline station shows them.
import type { Drawing, Shape } from '../drawing.ts';
import type { EditOutcome } from '../edits/apply.ts';
import { roughBounds } from '../outline/corners.ts';
import { facesBetween, placeInside } from '../outline/faces.ts';
import { meanThickness } from '../outline/measure.ts';
import { printPath } from '../path/print.ts';
import type { Path } from '../path/types.ts';
import type { ShapeView } from './shape.ts';

/** Decimals of coordinates that go to the page and come back from it. */
const DIGITS = 6;

/** A shape in user units of its source, y down. */
export interface OutlineShape extends ShapeView {
  readonly box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };
  /** Of a stroke, or of a filled shape on average. */
  readonly thickness: number;
  /** Points between its lines and curves. */
  readonly points: number;
}

export interface OutlineView {
  /** Equal keys, equal shapes. */
  readonly key: string;
  readonly shapes: readonly OutlineShape[];
  readonly sheet: Drawing['sheet'];
  /** Of the edits that are on. */
  readonly outcomes: readonly EditOutcome[];
}

export interface Face {
  /** Path data, in user units. */
  readonly d: string;
  readonly place: readonly [x: number, y: number];
}

/** What an action would change. */
export interface Preview {
  readonly gone: readonly string[];
  readonly made: readonly OutlineShape[];
  readonly said: string;
}

/** The box of nothing, which makes no other box larger. */
const NOWHERE = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };

export function outlineShape({ id, name, path, fillRule, stroke, colour }: Shape): OutlineShape {
  const half = stroke ? stroke.width / 2 : 0;
  const { minX, minY, maxX, maxY } = roughBounds([path]) ?? NOWHERE;
  return {
    id,
    name,
    d: printPath(path, DIGITS),
    fillRule,
    stroke: stroke ?? null,
    colour,
    box: { minX: minX - half, minY: minY - half, maxX: maxX + half, maxY: maxY + half },
    thickness: stroke?.width ?? meanThickness(path),
    points: path.filter(([letter]) => letter !== 'Z').length,
  };
}

/** What an action does to a drawing: shapes that go, and those that come in their place. */
export function previewOf(before: Drawing, after: Drawing, said: string): Preview {
  const [was, is] = [new Set(before.shapes), new Set(after.shapes)];
  return {
    gone: before.shapes.flatMap((shape) => (is.has(shape) ? [] : [shape.id])),
    made: after.shapes.filter((shape) => !was.has(shape)).map(outlineShape),
    said,
  };
}

/** Faces that lines enclose together, each with a place inside it. */
export function facesOfLines(lines: readonly Path[]): Face[] {
  return facesBetween(lines).flatMap((path) => {
    const place = placeInside(path);
    return place ? [{ d: printPath(path, DIGITS), place }] : [];
  });
}

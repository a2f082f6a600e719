// drawing.ts — what every reader makes of a source: shapes with curves, in paint order.
import type { Warning } from './base/errors.ts';
import type { Path } from './path/types.ts';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const JOINS = ['round', 'mitre', 'bevel'] as const;
export const CAPS = ['round', 'butt', 'square'] as const;

export interface Stroke {
  /** In the path's units, > 0. */
  readonly width: number;
  readonly join: (typeof JOINS)[number];
  readonly cap: (typeof CAPS)[number];
  /** A mitre longer than this many widths is cut to a bevel. */
  readonly mitreLimit: number;
  /** Lengths of dashes and gaps in turn; none for an unbroken stroke. */
  readonly dashes: readonly number[];
  /** How far into the dashes the stroke begins. */
  readonly dashOffset: number;
}

/** A pen with a round tip. */
export const roundStroke = (width: number): Stroke => ({
  width,
  join: 'round',
  cap: 'round',
  mitreLimit: 4,
  dashes: [],
  dashOffset: 0,
});

/** The stroke on a sheet `scale` times as large. */
export const scaledStroke = (stroke: Stroke, scale: number): Stroke => ({
  ...stroke,
  width: stroke.width * scale,
  dashes: stroke.dashes.map((dash) => dash * scale),
  dashOffset: stroke.dashOffset * scale,
});

export type FillRule = 'nonzero' | 'evenodd';

/** One filled shape or stroke, in user units of the outermost viewport, y down. */
export interface Shape {
  /** Stable under edits elsewhere in the file: from the element's id, else its place among its siblings. */
  readonly id: string;
  readonly name: string;
  /** Id of the nearest group above that has one, else ''. */
  readonly group: string;
  /** Titles or ids of all groups above that have one, the outermost first. */
  readonly within?: readonly string[];
  readonly path: Path;
  readonly fillRule: FillRule;
  /** `#rrggbb` */
  readonly colour: string;
  /** 0–1, > 0 */
  readonly opacity: number;
  /** The shape it was made of, where an edit made several of one. */
  readonly from?: string;
  /** Set where a stroke along the path is drawn, in place of a filled shape. */
  readonly stroke?: Stroke;
}

export interface LeftOut {
  readonly what: string;
  readonly count: number;
  /** The first place it was met. */
  readonly where: string;
}

/** Where something stands in a drawing, to be read: `/g1/circle2` as “circle 2 in g 1”, an id as it is. */
export function whereWords(where: string): string {
  if (where === '') return 'the root';
  if (!/^[/#]/.test(where)) return where;
  const words = (part: string) => (part.startsWith('#') ? `“${part.slice(1)}”` : part.replace(/\d+$/, ' $&'));
  return where.split('/').filter(Boolean).reverse().map(words).join(' in ');
}

export interface Drawing {
  /** In paint order: later ones lie on top. */
  readonly shapes: readonly Shape[];
  /** Ids of shapes that are known to be the ground the drawing lies on. */
  readonly ground?: readonly string[];
  /** Whether the groups of shapes are layers of the file, which stay apart. */
  readonly areGroupsLayers?: boolean;
  /** The sheet: the outermost viewport in user units. */
  readonly sheet: Box;
  /** Millimetres in one user unit when width or height carry a physical unit, else null. */
  readonly mmPerUnit: number | null;
  readonly leftOut: readonly LeftOut[];
  readonly warnings: readonly Warning[];
}

/** A sheet with nothing on it. */
export function emptyDrawing(width: number, height: number): Drawing {
  const sheet = { x: 0, y: 0, width, height };
  return { shapes: [], sheet, mmPerUnit: null, leftOut: [], warnings: [] };
}

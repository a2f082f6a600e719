// drawing.ts — what every reader makes of a source: shapes with curves, in paint order.
import type { Warning } from './errors.ts';
import type { Stroke } from './outline/stroke.ts';
import type { Path } from './path/types.ts';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export type FillRule = 'nonzero' | 'evenodd';

/** One filled shape or stroke, in user units of the outermost viewport, y down. */
export interface Shape {
  /** Stable under edits elsewhere in the file: from the element's id, else its place among its siblings. */
  readonly id: string;
  readonly name: string;
  /** Id of the nearest group above that has one, else ''. */
  readonly group: string;
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

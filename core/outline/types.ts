// types.ts — what outlines are once curves have become chords.

/** Flat [x0, y0, x1, y1 …] in sheet units, y up, not closed by a repeated point. */
export type Ring = Float64Array;

/** One closed region: outer ring counter-clockwise, holes clockwise, so the inside is always on the left. */
export interface Region {
  readonly outer: Ring;
  readonly holes: readonly Ring[];
}

export interface Bounds {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

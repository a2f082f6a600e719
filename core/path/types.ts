// types.ts — curves as they are kept: absolute commands, arcs and quadratics already raised to cubics.

/** One absolute path command. `Z` closes to the last `M`. */
export type Segment =
  | readonly ['M', number, number]
  | readonly ['L', number, number]
  | readonly ['C', number, number, number, number, number, number]
  | readonly ['Z'];

/** Starts with `M` unless empty. */
export type Path = readonly Segment[];

/** Affine map x' = a·x + c·y + e, y' = b·x + d·y + f (the order of SVG's `matrix()`). */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

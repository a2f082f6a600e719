// way.ts — places along a path, by their distance from its beginning.
import { at, type Contour, contoursOf, directionAt, type Piece } from './cubic.ts';
import { lengthOf, parameterAt } from './length.ts';
import type { Path } from './types.ts';

/** A contour to walk along. */
export interface Way {
  readonly pieces: readonly Piece[];
  readonly lengths: readonly number[];
  readonly length: number;
  readonly isClosed: boolean;
}

/** Null for a contour that has no length. */
export function wayAlong({ pieces, isClosed }: Contour): Way | null {
  const lengths = pieces.map((piece) => lengthOf(piece));
  const length = lengths.reduce((sum, v) => sum + v, 0);
  return length > 0 ? { pieces, lengths, length, isClosed } : null;
}

/** Along the longest contour of some paths; null where none has a length. */
export function longestWay(paths: readonly Path[]): Way | null {
  const ways = paths.flatMap((path) => contoursOf(path).flatMap((contour) => wayAlong(contour) ?? []));
  return ways.length > 0 ? ways.reduce((best, way) => (way.length > best.length ? way : best)) : null;
}

/** Where one is after a distance, and the direction (of length 1) one walks in; beyond the ends at the ends. */
export function placeOn({ pieces, lengths, length }: Way, distance: number) {
  let rest = Math.min(length, Math.max(0, distance));
  let i = 0;
  while (i + 1 < pieces.length && rest > lengths[i]!) rest -= lengths[i++]!;
  const { cubic } = pieces[i]!;
  const t = parameterAt(pieces[i]!, rest);
  const [ux, uy] = directionAt(cubic, t) ?? [1, 0];
  return { x: at(cubic, 0, t), y: at(cubic, 1, t), ux, uy };
}

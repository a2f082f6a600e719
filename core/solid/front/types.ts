// types.ts — a flat front before and after it is divided into faces.
import { floats, uints } from '../../base/arrays.ts';

/** What bounds a front: edges between some of the points, as pairs of point numbers, the inside on their left. */
export interface FlatOutline {
  /** Flat x, y. */
  readonly points: Float64Array;
  readonly edges: Uint32Array;
}

export interface FlatMesh {
  /** New points, flat x, y; numbered on from those of the outline. */
  readonly added: readonly number[] | Float64Array;
  /** Convex faces, counter-clockwise: face i is corners[starts[i]] … corners[starts[i + 1] − 1]. */
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  /** New points on the outline: those on edge i, from its first point to its second. Its other side has to have them too. */
  readonly splits: ReadonlyMap<number, readonly number[]>;
}

export const triangleStarts = (corners: number) => uints(corners / 3 + 1, (i) => 3 * i);

/** An outline without the points that no edge uses; places[new point] → old point. */
export function compacted({ points, edges }: FlatOutline): FlatOutline & { readonly places: Uint32Array } {
  const number = new Int32Array(points.length / 2).fill(-1);
  const places: number[] = [];
  for (let i = 0; i < edges.length; i++) if (number[edges[i]!]! < 0) number[edges[i]!] = places.push(edges[i]!) - 1;
  return {
    points: floats(2 * places.length, (i) => points[2 * places[i >> 1]! + (i % 2)]!),
    edges: edges.map((point) => number[point]!),
    places: Uint32Array.from(places),
  };
}

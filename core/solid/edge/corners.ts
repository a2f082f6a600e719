// corners.ts — what becomes of corners that point inward: moved, they run ahead, the further the sharper they are. Such a
// corner may be rounded, or cut where it would run too far ahead. Then it is several corners in one place, with edges
// without length between them that grow as the outline moves.
import { uints } from '../../base/arrays.ts';
import { cornerSpeed, type Lines } from './lines.ts';

export const CORNERS = ['mitred', 'rounded'] as const;

export interface CornerStyle {
  readonly corners: (typeof CORNERS)[number];
  /** A mitred corner that would run ahead by more than this many reaches is cut square, ≥ 1. */
  readonly mitreLimit: number;
}

/** Facets of a rounded corner turn by this much at most. */
const FACET = Math.PI / 8;

/** How far apart corners in one place are put where they have to be told apart, as a share of the extent. */
const APART = 2e-8;

/** How many edges every corner of an outline gets, by the number of the corner. */
export function facetsOf(next: Uint32Array, { nx, ny }: Lines, { corners, mitreLimit }: CornerStyle): Uint8Array {
  const facets = new Uint8Array(next.length);
  for (const [edge, corner] of next.entries()) {
    const cross = nx[edge]! * ny[corner]! - ny[edge]! * nx[corner]!;
    if (cross >= 0) continue;
    const turn = Math.atan2(-cross, nx[edge]! * nx[corner]! + ny[edge]! * ny[corner]!);
    if (corners === 'rounded') facets[corner] = Math.ceil(turn / FACET) - 1;
    else if (1 > mitreLimit * Math.cos(turn / 2)) facets[corner] = 1;
  }
  return facets;
}

/** An outline with all its corners; those that were added come behind the others. */
export interface Cornered {
  /** Flat x, y; corners in one place have equal coordinates. */
  readonly points: Float64Array;
  /** The same with all corners apart, as the outline has them a moment later. */
  readonly parted: Float64Array;
  /** The corner that follows each one; edge i leaves corner i. */
  readonly next: Uint32Array;
  readonly lines: Lines;
  /** The corner of the rim in whose place each one lies. */
  readonly rimOf: Uint32Array;
}

export function cornered(rim: Float64Array, next: Uint32Array, lines: Lines, facets: Uint8Array): Cornered {
  const n = next.length;
  const count = n + facets.reduce((sum, more) => sum + more, 0);
  const room = () => new Float64Array(count);
  const all = { nx: room(), ny: room(), offset: room() };
  all.nx.set(lines.nx);
  all.ny.set(lines.ny);
  all.offset.set(lines.offset);
  const points = new Float64Array(2 * count);
  points.set(rim);
  const follow = new Uint32Array(count);
  follow.set(next);
  const rimOf = uints(count, (i) => i);
  let fresh = n;
  for (let edge = 0; edge < n; edge++) {
    const corner = next[edge]!;
    const more = facets[corner]!;
    if (more === 0) continue;
    const [x, y] = [rim[2 * corner]!, rim[2 * corner + 1]!];
    const [ax, ay, bx, by] = [lines.nx[edge]!, lines.ny[edge]!, lines.nx[corner]!, lines.ny[corner]!];
    const [start, turn] = [Math.atan2(ay, ax), Math.atan2(ax * by - ay * bx, ax * bx + ay * by)];
    // New corners begin the new edges; the old one comes last, because the edge behind it is known by it.
    let before = edge;
    for (let k = 1; k <= more; k++, fresh++) {
      const angle = start + (turn * k) / (more + 1);
      rimOf[fresh] = corner;
      points[2 * fresh] = x;
      points[2 * fresh + 1] = y;
      all.nx[fresh] = Math.cos(angle);
      all.ny[fresh] = Math.sin(angle);
      all.offset[fresh] = Math.cos(angle) * x + Math.sin(angle) * y;
      follow[before] = fresh;
      before = fresh;
    }
    follow[before] = corner;
  }
  const parted = points.slice();
  for (let edge = 0; edge < count; edge++) {
    const corner = follow[edge]!;
    if (edge < n && rimOf[corner]! === corner) continue;
    const [vx, vy] = cornerSpeed(all, edge, corner);
    parted[2 * corner]! += APART * vx;
    parted[2 * corner + 1]! += APART * vy;
  }
  return { points, parted, next: follow, lines: all, rimOf };
}

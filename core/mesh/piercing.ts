// piercing.ts — whether two closed meshes share space, whichever way they stand to each other.
import type { Point } from '../geometry/rigid.ts';
import { cross, difference, dot } from '../geometry/vectors.ts';
import { crossingsOf } from './crossings.ts';
import { boxOfPoints } from './place.ts';
import { triangleIndices } from './triangles.ts';
import type { Mesh } from './types.ts';
import { weldExact } from './weld.ts';

/** Where two meshes run through each other. */
export interface Piercing {
  /** Pairs of triangles that do; 0 where one lies wholly within the other. */
  readonly pairs: number;
  readonly at: Point;
}

/** Null for meshes that share no space; such as only touch share none. */
export function piercingOf(a: Mesh, b: Mesh): Piercing | null {
  const shared = sharedBox(a, b);
  if (!shared) return null;
  const positions = new Float64Array(a.positions.length + b.positions.length);
  positions.set(a.positions);
  positions.set(b.positions, a.positions.length);
  const { remap } = weldExact(positions);
  const welded = new Float64Array(positions.length);
  for (const [i, point] of remap.entries()) welded.set(positions.subarray(3 * i, 3 * i + 3), 3 * point);
  const own = within(a, 0, remap, welded, shared);
  const others = within(b, a.positions.length / 3, remap, welded, shared);
  const indices = Uint32Array.from([...own, ...others]);
  const first = own.length / 3;
  let pairs = 0;
  let at: Point | null = null;
  const found = crossingsOf(welded, indices);
  for (let k = 0; k < found.length; k += 2) {
    const [s, t] = [found[k]!, found[k + 1]!];
    if (s >= first || t < first) continue;
    pairs++;
    at ??= meetingOf(cornersOf(welded, indices, s), cornersOf(welded, indices, t));
  }
  if (at) return { pairs, at };
  for (const [inner, outer] of [
    [a, b],
    [b, a],
  ] as const) {
    const [x, y, z] = inner.positions;
    if (isInside(outer, [x!, y!, z!])) return { pairs: 0, at: [x!, y!, z!] };
  }
  return null;
}

interface Box {
  readonly min: readonly number[];
  readonly max: readonly number[];
}

/** What the boxes of both have in common; null for nothing. */
function sharedBox(a: Mesh, b: Mesh): Box | null {
  const [own, other] = [boxOfPoints([a.positions]), boxOfPoints([b.positions])];
  const min = own.min.map((v, k) => Math.max(v, other.min[k]!));
  const max = own.max.map((v, k) => Math.min(v, other.max[k]!));
  return min.every((v, k) => v < max[k]!) ? { min, max } : null;
}

/** The triangles of a mesh that come near a box, three points each. @param from the number of its first point */
function within(mesh: Mesh, from: number, remap: Uint32Array, p: Float64Array, { min, max }: Box): number[] {
  const indices = triangleIndices(mesh);
  const result: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const triangle = [0, 1, 2].map((k) => remap[from + indices[t + k]!]!);
    const isNear = [0, 1, 2].every((k) => {
      const values = triangle.map((point) => p[3 * point + k]!);
      return Math.min(...values) <= max[k]! && Math.max(...values) >= min[k]!;
    });
    if (isNear) result.push(...triangle);
  }
  return result;
}

type Triangle = readonly [Point, Point, Point];

const cornersOf = (p: Float64Array, indices: Uint32Array, t: number): Triangle =>
  [0, 1, 2].map((k) => {
    const i = 3 * indices[3 * t + k]!;
    return [p[i]!, p[i + 1]!, p[i + 2]!] as const;
  }) as unknown as Triangle;

/** A point that two triangles have in common: where a side of one goes through the other; of two in one plane, a corner. */
function meetingOf(s: Triangle, t: Triangle): Point {
  for (const [cut, by] of [
    [s, t],
    [t, s],
  ] as const) {
    const normal = cross(difference(by[1], by[0]), difference(by[2], by[0]));
    for (const k of [0, 1, 2] as const) {
      const [from, to] = [cut[k], cut[(k + 1) % 3]!];
      const [a, b] = [dot(difference(from, by[0]), normal), dot(difference(to, by[0]), normal)];
      if (a * b >= 0) continue;
      const share = a / (a - b);
      const at = from.map((v, axis) => v + share * (to[axis]! - v)) as unknown as Point;
      const isIn = [0, 1, 2].every((m) => {
        const [p, q] = [by[m]!, by[(m + 1) % 3]!];
        return dot(cross(difference(q, p), difference(at, p)), normal) >= 0;
      });
      if (isIn) return at;
    }
  }
  return s[0];
}

/** Whether a closed mesh goes once around a point: its solid angle there (Van Oosterom & Strackee 1983) is that of a whole sphere. */
function isInside(mesh: Mesh, [x, y, z]: Point): boolean {
  const indices = triangleIndices(mesh);
  const { positions: p } = mesh;
  let angle = 0;
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => {
      const i = 3 * indices[t + k]!;
      return [p[i]! - x, p[i + 1]! - y, p[i + 2]! - z] as const;
    }) as [Point, Point, Point];
    const [la, lb, lc] = [Math.hypot(...a), Math.hypot(...b), Math.hypot(...c)];
    angle += 2 * Math.atan2(dot(a, cross(b, c)), la * lb * lc + dot(a, b) * lc + dot(b, c) * la + dot(c, a) * lb);
  }
  return Math.abs(angle) > 2 * Math.PI;
}

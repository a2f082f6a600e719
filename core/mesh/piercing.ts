// piercing.ts — whether two closed meshes share space, whichever way they stand to each other.
import type { Point } from '../geometry/rigid.ts';
import { cross, difference, dot } from '../geometry/vectors.ts';
import { areaWithin, cornersOf, type Surface, surfaceOf, type Triangle } from './area-within.ts';
import { crossingsOf } from './crossings.ts';
import { boxOfPoints } from './place.ts';
import type { Mesh } from './types.ts';
import { weldExact } from './weld.ts';

/** Where two meshes run through each other. */
export interface Piercing {
  /** Pairs of triangles that do; 0 where one lies wholly within the other. */
  readonly pairs: number;
  /** Of the faces of both that lie within the other one. */
  readonly area: number;
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
  const [first, second] = [surfaceOf(a), surfaceOf(b)];
  const [own, others] = [near(first, shared), near(second, shared)];
  const from = a.positions.length / 3;
  const both: Surface = {
    positions: welded,
    indices: Uint32Array.from([...own, ...others.map((i) => from + i)], (i) => remap[i]!),
  };
  let pairs = 0;
  let at: Point | null = null;
  const found = crossingsOf(welded, both.indices);
  for (let k = 0; k < found.length; k += 2) {
    const [s, t] = [found[k]!, found[k + 1]!];
    if (s >= own.length / 3 || t < own.length / 3) continue;
    pairs++;
    at ??= meetingOf(cornersOf(both, s), cornersOf(both, t));
  }
  at ??= pointWithin(a, second) ?? pointWithin(b, first);
  if (!at) return null;
  const area = areaWithin({ ...first, indices: own }, second) + areaWithin({ ...second, indices: others }, first);
  return { pairs, area, at };
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

/** The triangles of a surface that come near a box. */
function near({ positions: p, indices }: Surface, { min, max }: Box): Uint32Array {
  const result: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const triangle = indices.subarray(t, t + 3);
    const isNear = [0, 1, 2].every((axis) => {
      const values = Array.from(triangle, (point) => p[3 * point + axis]!);
      return Math.min(...values) <= max[axis]! && Math.max(...values) >= min[axis]!;
    });
    if (isNear) result.push(...triangle);
  }
  return Uint32Array.from(result);
}

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

/** The first point of a body, where it lies within another one. */
function pointWithin({ positions: [x, y, z] }: Mesh, outer: Surface): Point | null {
  const point: Point = [x!, y!, z!];
  return isInside(outer, point) ? point : null;
}

/** Whether a closed surface goes once around a point: its solid angle there (Van Oosterom & Strackee 1983) is that of a whole sphere. */
function isInside(surface: Surface, point: Point): boolean {
  let angle = 0;
  for (let t = 0; t < surface.indices.length / 3; t++) {
    const [a, b, c] = cornersOf(surface, t).map((corner) => difference(corner, point)) as [Point, Point, Point];
    const [la, lb, lc] = [Math.hypot(...a), Math.hypot(...b), Math.hypot(...c)];
    angle += 2 * Math.atan2(dot(a, cross(b, c)), la * lb * lc + dot(a, b) * lc + dot(b, c) * la + dot(c, a) * lb);
  }
  return Math.abs(angle) > 2 * Math.PI;
}

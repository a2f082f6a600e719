// area-within.ts — how much of a surface lies within a closed body.
import type { Point } from '../geometry/rigid.ts';
import { cross, difference, dot } from '../geometry/vectors.ts';
import { ringArea } from '../outline/measure.ts';
import { BoxTree } from './box-tree.ts';
import { triangleIndices } from './triangles.ts';
import type { Mesh } from './types.ts';

/** Triangles, counter-clockwise as seen from outside. */
export interface Surface {
  /** Flat x, y, z. */
  readonly positions: ArrayLike<number>;
  /** Point indices, three a triangle. */
  readonly indices: Uint32Array;
}

export const surfaceOf = (mesh: Mesh): Surface => ({ positions: mesh.positions, indices: triangleIndices(mesh) });

export type Triangle = readonly [Point, Point, Point];

/** @param t number of the triangle */
export const cornersOf = ({ positions: p, indices }: Surface, t: number): Triangle =>
  [0, 1, 2].map((k) => {
    const i = 3 * indices[3 * t + k]!;
    return [p[i]!, p[i + 1]!, p[i + 2]!] as const;
  }) as unknown as Triangle;

/** u along the longest side of a triangle, v across it. */
type Flat = readonly [u: number, v: number];

/**
 * Area of the triangles that lies within a closed body. In the plane of each triangle the body's section is the sum of the strips
 * under the sides of its outline, those that run back counted as positive and those that run forth as negative, as in the
 * trapezium rule for the area of a polygon; so the area is the sum of what the triangle has in common with each strip, and no point
 * has to be found to lie inside or outside. What lies in one plane with a face of the body counts where the body is beneath it.
 * @param body closed
 */
export function areaWithin(surface: Surface, body: Surface): number {
  const tree = new BoxTree(body.positions, body.indices);
  let area = 0;
  for (let t = 0; t < surface.indices.length / 3; t++) area += sharedWith(body, tree, cornersOf(surface, t));
  return area;
}

function sharedWith(body: Surface, tree: BoxTree, corners: Triangle): number {
  const [origin, end, top] = fromLongestSide(corners);
  const along = difference(end, origin);
  const normal = cross(along, difference(top, origin));
  const [width, twice] = [Math.hypot(...along), Math.hypot(...normal)];
  if (twice === 0) return 0;
  const across = cross(normal, along);
  const flat = (point: Point): Flat => {
    const from = difference(point, origin);
    return [dot(from, along) / width, dot(from, across) / (twice * width)];
  };
  const triangle: readonly Flat[] = [[0, 0], [width, 0], flat(top)];
  const offset = dot(normal, origin);
  let area = 0;
  tree.eachAt(normal, offset, (t) => {
    const side = sectionOf(cornersOf(body, t), normal, offset);
    if (side) area += underSide(triangle, flat(side[0]), flat(side[1]));
  });
  // Rounding must not make less than nothing of it, nor more than all.
  return Math.min(Math.max(area, 0), twice / 2);
}

/** The same triangle, its longest side first. */
function fromLongestSide([a, b, c]: Triangle): Triangle {
  const [ab, bc, ca] = [difference(b, a), difference(c, b), difference(a, c)].map((side) => dot(side, side)) as [
    number,
    number,
    number,
  ];
  if (ab >= bc && ab >= ca) return [a, b, c];
  return bc >= ca ? [b, c, a] : [c, a, b];
}

/** Where a triangle of a body goes through a plane, the inside of the body on its left. A corner in the plane counts as above it. */
function sectionOf(corners: readonly Point[], normal: Point, offset: number): [from: Point, to: Point] | null {
  const heights = corners.map((corner) => dot(normal, corner) - offset);
  let [from, to]: [Point | null, Point | null] = [null, null];
  for (let k = 0; k < 3; k++) {
    const next = (k + 1) % 3;
    const [isAbove, isNextAbove] = [heights[k]! >= 0, heights[next]! >= 0];
    if (isAbove === isNextAbove) continue;
    const share = heights[k]! / (heights[k]! - heights[next]!);
    const at = corners[k]!.map((v, axis) => v + share * (corners[next]![axis]! - v)) as unknown as Point;
    if (isAbove) from = at;
    else to = at;
  }
  return from && to && [from, to];
}

/** What a triangle that stands on v = 0 has in common with the strip under a side; negative where the side runs forth. */
function underSide(triangle: readonly Flat[], from: Flat, to: Flat): number {
  const sign = to[0] < from[0] ? 1 : -1;
  const [[left, low], [right, high]] = sign > 0 ? [to, from] : [from, to];
  if (left === right || (low <= 0 && high <= 0) || right <= 0 || left >= triangle[1]![0]) return 0;
  const slope = (high - low) / (right - left);
  let rest = cutOff(triangle, ([u]) => u - left);
  rest = cutOff(rest, ([u]) => right - u);
  rest = cutOff(rest, ([u, v]) => low + slope * (u - left) - v);
  return sign * ringArea(Float64Array.from(rest.flat()));
}

/** What is left of a convex polygon where a linear measure is not negative (Sutherland & Hodgman 1974). */
function cutOff(polygon: readonly Flat[], measure: (point: Flat) => number): Flat[] {
  return polygon.flatMap((point, k) => {
    const next = polygon[(k + 1) % polygon.length]!;
    const [own, other] = [measure(point), measure(next)];
    const kept: Flat[] = own >= 0 ? [point] : [];
    if (own * other >= 0) return kept;
    const share = own / (own - other);
    kept.push([point[0] + share * (next[0] - point[0]), point[1] + share * (next[1] - point[1])]);
    return kept;
  });
}

// close.ts — open rims closed by flat caps. Rims in one plane are capped together, so that one inside another stays a hole.

import { tryInside } from '../../geometry/triangulate.ts';
import { dot, unit } from '../../geometry/vectors.ts';
import { areaVector, type Face, facesByEdge, type Step } from './faces.ts';

/** Rims lie in one plane when they are no further from it than this share of the mesh's size. */
const IN_PLANE = 1e-6;
/** And face the same way to this cosine. */
const SAME_WAY = 1 - 1e-6;

type Vector = readonly [x: number, y: number, z: number];

interface Rim {
  /** As the cap runs along it. */
  readonly points: readonly number[];
  /** Twice the area, along the normal of the cap. */
  readonly area: Vector;
}

/**
 * @returns the faces with those of the caps; `changed` is how many those are. A rim that crosses itself, seen along its normal, is
 * left open.
 */
export function closeRims(faces: readonly Face[], positions: Float64Array): Step {
  const at = (point: number): Vector => [positions[3 * point]!, positions[3 * point + 1]!, positions[3 * point + 2]!];
  const size = positions.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const left = rimsOf(faces, positions.length / 3).map(
    (points): Rim => ({ points, area: areaVector(points, positions) }),
  );
  left.sort((a, b) => dot(b.area, b.area) - dot(a.area, a.area));
  const made: Face[] = [];
  while (left.length > 0) {
    const first = left.shift()!;
    const normal = unit(first.area);
    const height = dot(normal, at(first.points[0]!));
    const isFlat = ({ points }: Rim) => points.every((p) => Math.abs(dot(normal, at(p)) - height) <= IN_PLANE * size);
    const together = isFlat(first)
      ? left.filter((rim) => Math.abs(dot(unit(rim.area), normal)) >= SAME_WAY && isFlat(rim))
      : [];
    const caps = capped([first, ...together], normal, at);
    if (caps) for (const rim of together) left.splice(left.indexOf(rim), 1);
    made.push(...(caps ?? capped([first], normal, at) ?? []));
  }
  return { faces: [...faces, ...made], changed: made.length };
}

/** Rings of points along open edges, against the way of the faces there. */
function rimsOf(faces: readonly Face[], points: number): number[][] {
  const edges = facesByEdge(faces, points);
  const next = new Map<number, number[]>();
  for (const [key, own] of edges) {
    const [from, to] = [Math.floor(key / points), key % points];
    if (own.length !== 1 || edges.has(to * points + from)) continue;
    next.set(to, [...(next.get(to) ?? []), from]);
  }
  const rims: number[][] = [];
  for (const start of next.keys()) {
    for (let first = next.get(start)!.pop(); first !== undefined; first = next.get(start)!.pop()) {
      const rim = [start];
      let point = first;
      while (point !== start) {
        rim.push(point);
        const onward = next.get(point)?.pop();
        if (onward === undefined) break;
        point = onward;
      }
      if (point === start && rim.length > 2) rims.push(rim);
    }
  }
  return rims;
}

function capped(rims: readonly Rim[], normal: Vector, at: (point: number) => Vector): Face[] | null {
  const points = rims.flatMap((rim) => rim.points);
  const [u, v] = basisFor(normal);
  const flat = Float64Array.from(points.flatMap((point) => [dot(u, at(point)), dot(v, at(point))]));
  const edges: number[] = [];
  let begin = 0;
  for (const rim of rims) {
    const count = rim.points.length;
    for (let i = 0; i < count; i++) edges.push(begin + i, begin + ((i + 1) % count));
    begin += count;
  }
  const inside = tryInside(flat, Uint32Array.from(edges));
  if (!inside || inside.corners.length === 0) return null;
  return Array.from({ length: inside.corners.length / 3 }, (_, t) => ({
    corners: [0, 1, 2].map((k) => points[inside.corners[3 * t + k]!]!),
    side: 0,
    edge: -1,
  }));
}

/** Two directions across a normal, from which it is reached by a left turn. */
function basisFor([x, y, z]: Vector): [Vector, Vector] {
  const u = unit(Math.abs(x) < 0.5 ? [0, z, -y] : [-z, 0, x]);
  return [u, [y * u[2] - z * u[1], z * u[0] - x * u[2], x * u[1] - y * u[0]]];
}

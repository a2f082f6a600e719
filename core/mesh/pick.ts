// pick.ts — the face and the edge of a mesh that somebody points at, and the line of edges that goes on from it.
import type { Point } from '../geometry/rigid.ts';
import { difference, dot, unit } from '../geometry/vectors.ts';
import { edgeKey } from './marks.ts';
import { facesByEdge, facesOf } from './tidy/faces.ts';
import { trianglesOf } from './triangles.ts';
import type { Mesh } from './types.ts';

type Edge = readonly [a: number, b: number];

/** The face that comes nearest to a point; −1 for a mesh without faces. */
export function faceNear(mesh: Mesh, point: Point): number {
  const { indices, faces } = trianglesOf(mesh);
  const [a, b, c] = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ] as [Vector, Vector, Vector];
  let nearest = Infinity;
  let found = -1;
  for (let t = 0; t < faces.length; t++) {
    set(a, mesh, indices[3 * t]!);
    set(b, mesh, indices[3 * t + 1]!);
    set(c, mesh, indices[3 * t + 2]!);
    const distance = fromTriangle(point, a, b, c);
    if (distance < nearest) [nearest, found] = [distance, faces[t]!];
  }
  return found;
}

/** The edge of a face that comes nearest to a point. */
export function edgeNear({ positions, starts, corners }: Mesh, face: number, point: Point): Edge {
  const [from, to] = [starts[face]!, starts[face + 1]!];
  let nearest = Infinity;
  let found: Edge = [corners[to - 1]!, corners[from]!];
  for (let c = from, b = to - 1; c < to; b = c++) {
    const edge: Edge = [corners[b]!, corners[c]!];
    const distance = fromSegment(point, vectorOf(positions, edge[0]), vectorOf(positions, edge[1]));
    if (distance < nearest) [nearest, found] = [distance, edge];
  }
  return found;
}

/** An edge that goes on turns by less than this; further on is a corner. */
const GOES_ON = Math.cos(Math.PI / 4);

/**
 * The line that an edge is part of: from either end on along the straightest edge between the same two sides, up to the next
 * corner, or once around.
 */
export function lineThrough(mesh: Mesh, edge: Edge): Edge[] {
  const { positions, sides } = mesh;
  const points = positions.length / 3;
  const faces = facesOf(mesh);
  const byEdge = facesByEdge(faces, points);
  /** Of the faces on both sides. */
  const kindOf = ([a, b]: Edge) =>
    [byEdge.get(a * points + b), byEdge.get(b * points + a)]
      .map((own) => (own ? sides[own[0]!]! : -1))
      .sort()
      .join();
  const around = new Map<number, number[]>();
  const kind = kindOf(edge);
  for (const key of byEdge.keys()) {
    const ends: Edge = [Math.floor(key / points), key % points];
    if (kindOf(ends) !== kind) continue;
    for (const [a, b] of [ends, [ends[1], ends[0]]] as const) {
      const known = around.get(a);
      if (!known) around.set(a, [b]);
      else if (!known.includes(b)) known.push(b);
    }
  }
  const seen = new Set([edgeKey(...edge, points)]);
  const onward = ([from, at]: Edge): Edge[] => {
    const way = directionOf(positions, from, at);
    const cosine = (to: number) => dot(way, directionOf(positions, at, to));
    const next = around
      .get(at)!
      .reduce((best, to) => (to !== from && (best < 0 || cosine(to) > cosine(best)) ? to : best), -1);
    if (next < 0 || cosine(next) < GOES_ON || seen.has(edgeKey(at, next, points))) return [];
    seen.add(edgeKey(at, next, points));
    return [[at, next]];
  };
  const line: Edge[] = [edge];
  for (const start of [edge, [edge[1], edge[0]]] as const) {
    for (let [next] = onward(start); next; [next] = onward(next)) line.push(next);
  }
  return line;
}

type Vector = [number, number, number];

const vectorOf = (p: Float64Array, point: number): Vector => [p[3 * point]!, p[3 * point + 1]!, p[3 * point + 2]!];

function set(v: Vector, { positions: p }: Mesh, point: number): void {
  v[0] = p[3 * point]!;
  v[1] = p[3 * point + 1]!;
  v[2] = p[3 * point + 2]!;
}

const directionOf = (p: Float64Array, from: number, to: number): Point =>
  unit(difference(vectorOf(p, to), vectorOf(p, from)));

function fromSegment(p: Point, a: Point, b: Point): number {
  const way = difference(b, a);
  const off = difference(p, a);
  const share = Math.min(1, Math.max(0, dot(off, way) / (dot(way, way) || 1)));
  return Math.hypot(...difference(off, [share * way[0], share * way[1], share * way[2]]));
}

/** Distance from a triangle: from its plane where the point lies over it, else from the nearest of its sides. */
function fromTriangle(p: Point, a: Point, b: Point, c: Point): number {
  const [u, v, off] = [difference(b, a), difference(c, a), difference(p, a)];
  const [uu, uv, vv, ou, ov] = [dot(u, u), dot(u, v), dot(v, v), dot(off, u), dot(off, v)];
  const whole = uu * vv - uv * uv;
  // Barycentric coordinates of what lies under the point (Ericson 2005, Real-Time Collision Detection, 3.4).
  const s = (vv * ou - uv * ov) / whole;
  const t = (uu * ov - uv * ou) / whole;
  if (whole > 0 && s >= 0 && t >= 0 && s + t <= 1) {
    return Math.hypot(...difference(off, [s * u[0] + t * v[0], s * u[1] + t * v[1], s * u[2] + t * v[2]]));
  }
  return Math.min(fromSegment(p, a, b), fromSegment(p, b, c), fromSegment(p, c, a));
}

// flat.ts — flat neighbours become one polygon, and points that then change nothing go. What surrounds a hole is cut in two,
// so that every face stays one simple polygon without bridges.
import { faceNormalsOf } from '../normals.ts';
import type { Mesh } from '../types.ts';
import { across, areaVector, type Face, facesByEdge, meshOf, type Step } from './faces.ts';

/**
 * @param degrees faces whose normals differ by no more than this from the first one's are flat neighbours
 * @param mesh where the points are
 * @param mayGo whether faces may become one across an edge, of two points
 */
export function mergeFlat(
  faces: readonly Face[],
  mesh: Mesh,
  degrees: number,
  mayGo: (a: number, b: number) => boolean = () => true,
): Step {
  const points = mesh.positions.length / 3;
  const edges = facesByEdge(faces, points);
  const normals = faceNormalsOf(meshOf(faces, mesh));
  const limit = Math.cos((degrees * Math.PI) / 180) - 1e-12;
  const isFlatTo = (f: number, g: number) =>
    normals[3 * f]! * normals[3 * g]! +
      normals[3 * f + 1]! * normals[3 * g + 1]! +
      normals[3 * f + 2]! * normals[3 * g + 2]! >=
    limit;
  const areAlike = (f: number, g: number) => faces[f]!.side === faces[g]!.side && isFlatTo(f, g);
  const neighboursOf = (f: number) =>
    faces[f]!.corners.map((to, k) => {
      const from = faces[f]!.corners.at(k - 1)!;
      return mayGo(from, to) ? across(edges, points, from, to) : NONE;
    });

  /** Faces that hang together within `among`, from one on; `isOne` says which may come along. */
  const gathered = (first: number, isOne: (f: number) => boolean): number[] => {
    const found = new Set([first]);
    for (const f of found) for (const g of neighboursOf(f)) if (g >= 0 && !found.has(g) && isOne(g)) found.add(g);
    return [...found];
  };
  const merged: Face[] = [];
  let farthest = 0;
  const cutter = new Cutter(faces, mesh.positions, points);
  const taken = new Uint8Array(faces.length);
  for (const first of faces.keys()) {
    if (taken[first]) continue;
    const flat = gathered(first, (g) => !taken[g] && areAlike(first, g));
    for (const f of flat) taken[f] = 1;
    const waiting = [flat];
    while (waiting.length > 0) {
      const part = waiting.pop()!;
      const ring = part.length === 1 ? faces[part[0]!]!.corners : cutter.ringOf(part);
      if (ring) {
        const whole = { ...faces[part[0]!]!, corners: ring };
        merged.push(whole);
        if (part.length > 1) farthest = Math.max(farthest, bulgeOf(whole, mesh.positions));
      } else {
        for (const half of cutter.halves(part)) {
          const rest = new Set(half);
          for (const f of half) {
            if (!rest.has(f)) continue;
            const piece = gathered(f, (g) => rest.has(g));
            for (const g of piece) rest.delete(g);
            waiting.push(piece);
          }
        }
      }
    }
  }
  return { faces: merged, changed: faces.length - merged.length, farthest };
}

const NONE = -1;

/** How far the corners of a face lie from the plane through their middle, across its normal. */
function bulgeOf({ corners }: Face, p: Float64Array): number {
  const normal = areaVector(corners, p);
  const length = Math.hypot(...normal) || 1;
  const heights = corners.map((c) => normal.reduce((sum, v, k) => sum + v * p[3 * c + k]!, 0) / length);
  const middle = heights.reduce((total, v) => total + v, 0) / heights.length;
  return heights.reduce((most, v) => Math.max(most, Math.abs(v - middle)), 0);
}

/** Boundaries of sets of faces that hang together, and ways to cut those that no single ring bounds. */
class Cutter {
  private readonly faces: readonly Face[];
  private readonly positions: Float64Array;
  private readonly points: number;

  constructor(faces: readonly Face[], positions: Float64Array, points: number) {
    this.faces = faces;
    this.positions = positions;
    this.points = points;
  }

  /** The corners around a set of faces; null where those are no single ring that passes every point once. */
  ringOf(part: readonly number[]): number[] | null {
    const next = this.boundary(part);
    if (!next) return null;
    const [first] = next.keys();
    const ring: number[] = [];
    for (let point = first!; ring.length === 0 || point !== first; point = next.get(point)!) ring.push(point);
    return ring.length === next.size ? ring : null;
  }

  /** The point that follows each one on the boundary; null where a point is passed twice. */
  private boundary(part: readonly number[]): Map<number, number> | null {
    const open = new Map<number, readonly [number, number]>();
    for (const f of part) {
      const { corners } = this.faces[f]!;
      for (const [k, to] of corners.entries()) {
        const from = corners.at(k - 1)!;
        if (!open.delete(to * this.points + from)) open.set(from * this.points + to, [from, to]);
      }
    }
    const next = new Map<number, number>();
    for (const [from, to] of open.values()) {
      if (next.has(from)) return null;
      next.set(from, to);
    }
    return next;
  }

  /** A set of faces in two, along the longer side of its extent; one by one where that parts nothing. */
  halves(part: readonly number[]): number[][] {
    const middles = part.map((f) => {
      const { corners } = this.faces[f]!;
      return [0, 1, 2].map((k) => corners.reduce((sum, p) => sum + this.positions[3 * p + k]!, 0) / corners.length);
    });
    const extent = (k: number) => {
      const values = middles.map((middle) => middle[k]!);
      return values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b));
    };
    const axis = [0, 1, 2].reduce((best, k) => (extent(k) > extent(best) ? k : best), 0);
    const sorted = middles.map((middle) => middle[axis]!).sort((a, b) => a - b);
    const limit = sorted[sorted.length >> 1]!;
    const [low, high] = [true, false].map((isLow) => part.filter((_, i) => middles[i]![axis]! < limit === isLow));
    return low!.length > 0 && high!.length > 0 ? [low!, high!] : part.map((f) => [f]);
  }
}

/**
 * Drops points between two faces that lie on the line between their neighbours.
 * @param tolerance how far from that line they may lie
 */
export function dropStraight(faces: readonly Face[], positions: Float64Array, tolerance: number): Step {
  const lines = new Map<number, Line>();
  const rest = withoutStraight(faces, positions, tolerance, lines);
  let farthest = 0;
  for (const point of lines.keys()) {
    const [a, b] = [0, 1].map((way) => endOf(point, way, lines, positions));
    farthest = Math.max(farthest, fromLine(positions, point, a!, b!).away);
  }
  return { faces: rest, changed: lines.size, farthest };
}

/** The points that one lay between when it was dropped. */
type Line = readonly [a: number, b: number];

/** The point that stayed, at one end of the line that a dropped one lies on. */
function endOf(point: number, way: number, lines: ReadonlyMap<number, Line>, p: Float64Array): number {
  let [from, at] = [point, lines.get(point)![way]!];
  for (let line = lines.get(at); line; line = lines.get(at)) {
    const along = (to: number) =>
      [0, 1, 2].reduce((s, k) => s + (p[3 * to + k]! - p[3 * at + k]!) * (p[3 * at + k]! - p[3 * from + k]!), 0);
    [from, at] = [at, along(line[0]) > along(line[1]) ? line[0] : line[1]];
  }
  return at;
}

/** @param lines takes what is dropped */
function withoutStraight(
  faces: readonly Face[],
  positions: Float64Array,
  tolerance: number,
  lines: Map<number, Line>,
): readonly Face[] {
  // The points before and after each point, once for every face that has it.
  const beside = new Map<number, [number, number][]>();
  for (const { corners } of faces) {
    for (const [k, point] of corners.entries()) {
      const pair: [number, number] = [corners.at(k - 1)!, corners[(k + 1) % corners.length]!];
      const known = beside.get(point);
      if (known) known.push(pair);
      else beside.set(point, [pair]);
    }
  }
  const sizes = new Map<Face, number>(faces.map((face) => [face, face.corners.length]));
  const facesAt = new Map<number, Face[]>();
  for (const face of faces) {
    for (const point of face.corners) {
      const known = facesAt.get(point);
      if (known) known.push(face);
      else facesAt.set(point, [face]);
    }
  }
  const dropped = new Set<number>();
  for (const [point, pairs] of beside) {
    const [first, second] = pairs;
    if (pairs.length !== 2 || first![0] !== second![1] || first![1] !== second![0]) continue;
    const [a, b] = first!;
    // One after the other, so that what is dropped is measured against points that stay.
    if (dropped.has(a) || dropped.has(b) || !isBetween(positions, point, a, b, tolerance)) continue;
    const own = facesAt.get(point)!;
    if (own.some((face) => sizes.get(face)! <= 3)) continue;
    for (const face of own) sizes.set(face, sizes.get(face)! - 1);
    dropped.add(point);
    lines.set(point, [a, b]);
  }
  if (dropped.size === 0) return faces;
  const rest = faces.map((face) => ({ ...face, corners: face.corners.filter((point) => !dropped.has(point)) }));
  return withoutStraight(rest, positions, tolerance, lines);
}

function isBetween(p: Float64Array, point: number, a: number, b: number, tolerance: number): boolean {
  const { along, length, away } = fromLine(p, point, a, b);
  return along > 0 && along < length && away <= tolerance;
}

/** Where a point lies on the line from a to b, and how far from it. */
function fromLine(p: Float64Array, point: number, a: number, b: number) {
  const way = [0, 1, 2].map((k) => p[3 * b + k]! - p[3 * a + k]!) as [number, number, number];
  const off = [0, 1, 2].map((k) => p[3 * point + k]! - p[3 * a + k]!) as [number, number, number];
  const length = Math.hypot(...way);
  const along = (way[0] * off[0] + way[1] * off[1] + way[2] * off[2]) / length;
  return { along, length, away: Math.hypot(...off.map((v, k) => v - (along / length) * way[k]!)) };
}

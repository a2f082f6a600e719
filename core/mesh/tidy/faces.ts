// faces.ts — a mesh taken apart into faces that can be changed one by one, and put together again.
import type { Mesh } from '../types.ts';

export interface Face {
  /** Point numbers, counter-clockwise seen from outside. */
  readonly corners: readonly number[];
  readonly side: number;
  /** The outline edge it follows, −1 for none. */
  readonly edge: number;
}

/** What a step of tidying leaves, and how much it changed. */
export interface Step {
  readonly faces: readonly Face[];
  readonly changed: number;
  /** How far the surface moved at most, in units of the mesh; not given where it stayed. */
  readonly farthest?: number;
}

export function facesOf({ starts, corners, sides, flow }: Mesh): Face[] {
  return Array.from(sides, (side, f) => ({
    corners: Array.from(corners.subarray(starts[f], starts[f + 1])),
    side,
    edge: flow ? flow.edges[f]! : -1,
  }));
}

/** A mesh of the faces, with only the points that they use, in the order in which those were. */
export function meshOf(faces: readonly Face[], { positions, flow }: Mesh): Mesh {
  const used = new Int32Array(positions.length / 3).fill(-1);
  for (const { corners } of faces) for (const point of corners) used[point] = 0;
  const kept: number[] = [];
  for (const [point, mark] of used.entries()) if (mark === 0) used[point] = kept.push(point) - 1;
  const starts = new Uint32Array(faces.length + 1);
  for (const [f, { corners }] of faces.entries()) starts[f + 1] = starts[f]! + corners.length;
  const all = new Uint32Array(starts[faces.length]!);
  for (const [f, { corners }] of faces.entries())
    for (const [k, p] of corners.entries()) all[starts[f]! + k] = used[p]!;
  return {
    positions: Float64Array.from(
      { length: 3 * kept.length },
      (_, i) => positions[3 * kept[Math.floor(i / 3)]! + (i % 3)]!,
    ),
    starts,
    corners: all,
    sides: Uint8Array.from(faces, ({ side }) => side),
    ...(flow && {
      flow: {
        ...flow,
        edges: Int32Array.from(faces, ({ edge }) => edge),
        across: Float64Array.from(kept, (point) => flow.across[point]!),
      },
    }),
  };
}

/** Whether every edge is run through once either way. */
export function isClosed(faces: readonly Face[], points: number): boolean {
  const edges = facesByEdge(faces, points);
  for (const [key, own] of edges) {
    if (own.length !== 1 || edges.get((key % points) * points + Math.floor(key / points))?.length !== 1) return false;
  }
  return faces.length > 0;
}

/** Of what is closed; positive when faces point outward. */
export function volumeOf(faces: readonly Face[], p: Float64Array): number {
  let volume = 0;
  const origin = faces[0]?.corners[0] ?? 0;
  eachTriangle(faces, (a, b, c) => {
    const at = (point: number) =>
      [0, 1, 2].map((k) => p[3 * point + k]! - p[3 * origin + k]!) as [number, number, number];
    const [[ax, ay, az], [bx, by, bz], [cx, cy, cz]] = [at(a), at(b), at(c)];
    volume += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
  });
  return volume;
}

/** Twice the area of a ring of points, along its normal (Newell's method: Sutherland, Sproull, Schumacker 1974). */
export function areaVector(ring: readonly number[], p: Float64Array): [x: number, y: number, z: number] {
  const sum: [number, number, number] = [0, 0, 0];
  for (const [i, b] of ring.entries()) {
    const a = ring.at(i - 1)!;
    for (const k of [0, 1, 2] as const) {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      sum[k] += (p[3 * a + u]! - p[3 * b + u]!) * (p[3 * a + v]! + p[3 * b + v]!);
    }
  }
  return sum;
}

export function eachTriangle(faces: readonly Face[], visit: (a: number, b: number, c: number) => void): void {
  for (const { corners } of faces) {
    for (let k = 2; k < corners.length; k++) visit(corners[0]!, corners[k - 1]!, corners[k]!);
  }
}

/** The faces at each directed edge, by from · points + to. */
export function facesByEdge(faces: readonly Face[], points: number): Map<number, number[]> {
  const found = new Map<number, number[]>();
  for (const [f, { corners }] of faces.entries()) {
    for (const [k, to] of corners.entries()) {
      const key = corners.at(k - 1)! * points + to;
      const known = found.get(key);
      if (known) known.push(f);
      else found.set(key, [f]);
    }
  }
  return found;
}

/** The one face on the other side of an edge; −1 where there is none, or more than one. */
export function across(
  edges: ReadonlyMap<number, readonly number[]>,
  points: number,
  from: number,
  to: number,
): number {
  const [own, other] = [edges.get(from * points + to), edges.get(to * points + from)];
  return own?.length === 1 && other?.length === 1 ? other[0]! : -1;
}

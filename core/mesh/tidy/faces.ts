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

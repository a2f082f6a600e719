// marks.ts — edges of a mesh that were marked by hand: hard, soft, or gone, because the flat faces on both sides are joined. A mark
// knows its edge again by where it lies, so that it holds on a mesh that is made anew with another depth, base or material.
import type { Point } from '../geometry/rigid.ts';
import { faceCount, type Mesh } from './types.ts';

export const MARK_KINDS = ['hard', 'soft', 'joined'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** A point of a mesh: x and y in units of the source, and its height as a share of the mesh's whole height. */
export type MarkEnd = [x: number, y: number, share: number];
export type EdgePlace = [from: MarkEnd, to: MarkEnd];

export interface Mark {
  readonly is: MarkKind;
  readonly at: EdgePlace;
}

/** Of two points, whichever comes first; what {@link Mesh.marked} is kept by. */
export const edgeKey = (a: number, b: number, points: number): number => Math.min(a, b) * points + Math.max(a, b);

/** Every edge once, as its two points. */
function edgesOf(mesh: Mesh): [a: number, b: number][] {
  const { starts, corners } = mesh;
  const points = mesh.positions.length / 3;
  const found = new Map<number, [number, number]>();
  for (let f = 0; f < faceCount(mesh); f++) {
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from, b = to - 1; c < to; b = c++) {
      const ends: [number, number] = [corners[b]!, corners[c]!];
      found.set(edgeKey(...ends, points), ends);
    }
  }
  return [...found.values()];
}

/** How points of a mesh and ends of marks say the same place. */
export class MarkFrame {
  private readonly positions: Float64Array;
  private readonly scale: number;
  private readonly low: number;
  private readonly height: number;

  /** @param scale units of the mesh in one of the source */
  constructor({ positions }: Mesh, scale: number) {
    let [low, high] = [Infinity, -Infinity];
    for (let i = 2; i < positions.length; i += 3) {
      low = Math.min(low, positions[i]!);
      high = Math.max(high, positions[i]!);
    }
    [this.positions, this.scale, this.low, this.height] = [positions, scale, low, high - low || 1];
  }

  endAt(point: number): MarkEnd {
    const { positions: p, scale, low, height } = this;
    return [p[3 * point]! / scale, p[3 * point + 1]! / scale, (p[3 * point + 2]! - low) / height];
  }

  /** The middle of an edge in the mesh. */
  middleOf([[ax, ay, az], [bx, by, bz]]: EdgePlace): Point {
    const { scale, low, height } = this;
    return [((ax + bx) / 2) * scale, ((ay + by) / 2) * scale, low + ((az + bz) / 2) * height];
  }
}

/** How far beside its place, seen from the front, an edge may lie: a share of its own length there, or of the mesh's size. */
const BESIDE = 1e-3;
const BESIDE_AT_LEAST = 1e-5;
/** By how much the shares of both ends together may differ: the share of an edge follows from the depth. */
const MOST_SHARES = 1;

/** The marked edges of a mesh by their {@link edgeKey}; marks that are not among them have lost their edge. */
export function markedEdges(mesh: Mesh, marks: readonly Mark[], scale: number): Map<number, Mark> {
  const result = new Map<number, Mark>();
  if (marks.length === 0) return result;
  const frame = new MarkFrame(mesh, scale);
  const edges = edgesOf(mesh)
    .map((ends) => ({ ends, at: [frame.endAt(ends[0]), frame.endAt(ends[1])] as EdgePlace }))
    .sort((a, b) => middle(a.at) - middle(b.at));
  const size = edges.reduce((most, { at }) => Math.max(most, Math.abs(at[0][0]), Math.abs(at[0][1])), 0);
  for (const mark of marks) {
    const [from, to] = mark.at;
    const beside = Math.max(BESIDE_AT_LEAST * size, BESIDE * Math.hypot(from[0] - to[0], from[1] - to[1]));
    let nearest = Infinity;
    let found = -1;
    for (let i = firstFrom(edges, middle(mark.at) - beside); i < edges.length; i++) {
      const { at } = edges[i]!;
      if (middle(at) > middle(mark.at) + beside) break;
      const cost = Math.min(apart(from, to, at[0], at[1], beside), apart(from, to, at[1], at[0], beside));
      if (cost < nearest) [nearest, found] = [cost, i];
    }
    if (found >= 0) result.set(edgeKey(...edges[found]!.ends, mesh.positions.length / 3), mark);
  }
  return result;
}

const middle = ([[from], [to]]: EdgePlace): number => (from + to) / 2;

/** The first edge whose middle lies at x or after it. @param edges sorted by their middles */
function firstFrom(edges: readonly { readonly at: EdgePlace }[], x: number): number {
  let [low, high] = [0, edges.length];
  while (low < high) {
    const at = (low + high) >> 1;
    if (middle(edges[at]!.at) < x) low = at + 1;
    else high = at;
  }
  return low;
}

/** How unlike two edges lie; infinite for edges that are not the same. */
function apart(from: MarkEnd, to: MarkEnd, a: MarkEnd, b: MarkEnd, beside: number): number {
  const across = Math.max(Math.hypot(a[0] - from[0], a[1] - from[1]), Math.hypot(b[0] - to[0], b[1] - to[1]));
  const shares = Math.abs(a[2] - from[2]) + Math.abs(b[2] - to[2]);
  return across <= beside && shares <= MOST_SHARES ? across / beside + shares : Infinity;
}

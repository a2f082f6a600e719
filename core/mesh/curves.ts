// curves.ts — which faces lie along one curve of an outline, and how far the curve turns from the chords that stand for it.
import { floats } from '../base/arrays.ts';
import type { Flow, Mesh } from './types.ts';

const NONE = -1;

/** Directions along the outlines of a mesh, as the curves have them and not their chords. */
export class Curves {
  private readonly flow: Flow;
  private readonly crease: number;
  private readonly before: Int32Array;
  /** The edge at which the stretch without corners that each edge belongs to begins. */
  private readonly run: Int32Array;
  /** How far each edge has turned since its run began. */
  private readonly turned: Float64Array;
  /** Cosine and sine of what the curve turns at the beginning and at the end of each edge; 0 and 0 until they are asked for. */
  private readonly turns: Float64Array;

  /** @param crease turns sharper than this are corners, radians */
  constructor(flow: Flow, crease: number) {
    this.flow = flow;
    this.crease = crease + 1e-9;
    const n = flow.next.length;
    this.turns = new Float64Array(4 * n);
    this.before = new Int32Array(n).fill(NONE);
    for (let edge = 0; edge < n; edge++) this.before[flow.next[edge]!] = edge;
    const corners = floats(n, (edge) => this.cornerAfter(edge));
    const isCorner = (edge: number) => Math.abs(corners[edge]!) > this.crease;
    this.run = new Int32Array(n).fill(NONE);
    this.turned = new Float64Array(n);
    const follow = (first: number) => {
      this.run[first] = first;
      for (let edge = first; ; ) {
        const after = flow.next[edge]!;
        if (this.run[after]! >= 0) return;
        this.run[after] = isCorner(edge) ? after : this.run[edge]!;
        this.turned[after] = isCorner(edge) ? 0 : this.turned[edge]! + this.turnAfter(edge);
        edge = after;
      }
    };
    // Runs begin at corners; an outline without any is one run, which also closes.
    for (let edge = 0; edge < n; edge++) {
      if (isCorner(edge) && this.run[flow.next[edge]!]! < 0) follow(flow.next[edge]!);
    }
    for (let edge = 0; edge < n; edge++) if (this.run[edge]! < 0) follow(edge);
  }

  /**
   * Whether two faces lie along one curve: no corner between them, and no ridge, where an outline meets itself from the
   * other side. Faces that follow no outline always may.
   */
  areAlong(f: number, g: number): boolean {
    const { edges, next } = this.flow;
    const [a, b] = [edges[f]!, edges[g]!];
    if (a === b || a < 0 || b < 0) return true;
    if (this.run[a] !== this.run[b]) return false;
    if (next[a] === b || next[b] === a) return true;
    // A run that closes has turned once around where it began.
    const apart = Math.abs(this.turned[a]! - this.turned[b]!) % (2 * Math.PI);
    return Math.min(apart, 2 * Math.PI - apart) <= this.crease;
  }

  /** Of the last {@link bend}: by how much the curve turns left from its edge there. */
  cos = 1;
  sin = 0;

  /**
   * Finds by how much the curve turns left, at one of its points, from the edge that a face follows.
   * @param around the first `count` of these have the point too, this one among them
   * @returns whether it does
   */
  bend(face: number, point: number, around: Uint32Array, count: number, { positions }: Mesh): boolean {
    const { edges, next, bends, points } = this.flow;
    const edge = edges[face]!;
    if (!bends || edge < 0) return false;
    const start = bends[2 * edge]!;
    const end = bends[2 * edge + 1]!;
    if (start === 0 && end === 0) return false;
    let isStart = false;
    let isEnd = false;
    for (let k = 0; k < count; k++) {
      const other = edges[around[k]!];
      if (other === this.before[edge]) isStart = true;
      if (other === next[edge]) isEnd = true;
    }
    if (isStart !== isEnd) {
      // All rows of faces along an edge ask this.
      const at = 4 * edge + (isStart ? 0 : 2);
      if (this.turns[at] === 0 && this.turns[at + 1] === 0) {
        const angle = isStart ? start : end;
        this.turns[at] = Math.cos(angle);
        this.turns[at + 1] = Math.sin(angle);
      }
      this.cos = this.turns[at]!;
      this.sin = this.turns[at + 1]!;
      return true;
    }
    const from = 2 * edge;
    const to = 2 * next[edge]!;
    const dx = points[to]! - points[from]!;
    const dy = points[to + 1]! - points[from + 1]!;
    const px = positions[3 * point]! - points[from]!;
    const py = positions[3 * point + 1]! - points[from + 1]!;
    const share = Math.min(1, Math.max(0, (px * dx + py * dy) / (dx * dx + dy * dy)));
    const angle = start + share * (end - start);
    this.cos = Math.cos(angle);
    this.sin = Math.sin(angle);
    return true;
  }

  /** By how much the outline turns left from one chord to the next. */
  private turnAfter(edge: number): number {
    const { points: p, next } = this.flow;
    const [a, b] = [next[edge]!, next[next[edge]!]!];
    const [ux, uy] = [p[2 * a]! - p[2 * edge]!, p[2 * a + 1]! - p[2 * edge + 1]!];
    const [vx, vy] = [p[2 * b]! - p[2 * a]!, p[2 * b + 1]! - p[2 * a + 1]!];
    return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  }

  /** By how much its curves turn left in the point after an edge. */
  private cornerAfter(edge: number): number {
    const { bends, next } = this.flow;
    const turn = this.turnAfter(edge);
    return bends ? turn - bends[2 * edge + 1]! + bends[2 * next[edge]!]! : turn;
  }
}

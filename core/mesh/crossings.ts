// crossings.ts — where a mesh runs through itself: bounding-volume tree for the candidates, exact tests for the verdict.
import { orient2d, orient3d } from 'robust-predicates';

/** Leaves hold this many triangles; smaller trees cost more than they save. */
const LEAF = 4;

/**
 * Pairs of triangles that pierce or overlap each other. Touching is not crossing: common points and edges do not count,
 * nor does a point that only rests on a face.
 * @param positions flat x, y, z
 * @param indices three point indices a triangle; equal positions must have equal indices
 * @returns flat pairs of triangle numbers, the smaller one first
 */
export function crossingsOf(positions: ArrayLike<number>, indices: Uint32Array): number[] {
  const tree = new Tree(positions, indices);
  const test = new PairTest(positions, indices);
  const pairs: number[] = [];
  tree.eachPair((s, t) => {
    if (test.cross(s, t)) pairs.push(Math.min(s, t), Math.max(s, t));
  });
  return pairs;
}

class Tree {
  /** Triangle numbers, so ordered that every node owns one run. */
  private readonly order: Uint32Array;
  /** minX, minY, minZ, maxX, maxY, maxZ a triangle. */
  private readonly boxes: Float64Array;
  private readonly nodes: { box: Float64Array; from: number; to: number; left: number; right: number }[] = [];

  constructor(p: ArrayLike<number>, indices: Uint32Array) {
    const count = indices.length / 3;
    this.order = Uint32Array.from({ length: count }, (_, i) => i);
    this.boxes = new Float64Array(6 * count);
    for (let t = 0; t < count; t++) {
      for (let axis = 0; axis < 3; axis++) {
        const [a, b, c] = [0, 1, 2].map((k) => p[3 * indices[3 * t + k]! + axis]!) as [number, number, number];
        this.boxes[6 * t + axis] = Math.min(a, b, c);
        this.boxes[6 * t + 3 + axis] = Math.max(a, b, c);
      }
    }
    if (count > 0) this.build(0, count);
  }

  private build(from: number, to: number): number {
    const box = Float64Array.of(Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity);
    for (let i = from; i < to; i++) {
      const t = 6 * this.order[i]!;
      for (let k = 0; k < 3; k++) {
        box[k] = Math.min(box[k]!, this.boxes[t + k]!);
        box[k + 3] = Math.max(box[k + 3]!, this.boxes[t + k + 3]!);
      }
    }
    const node = { box, from, to, left: -1, right: -1 };
    const index = this.nodes.push(node) - 1;
    if (to - from > LEAF) {
      const axis = [0, 1, 2].reduce((best, k) => (box[k + 3]! - box[k]! > box[best + 3]! - box[best]! ? k : best), 0);
      const middle = (t: number) => this.boxes[6 * t + axis]! + this.boxes[6 * t + 3 + axis]!;
      this.order.subarray(from, to).sort((s, t) => middle(s) - middle(t));
      const half = (from + to) >> 1;
      node.left = this.build(from, half);
      node.right = this.build(half, to);
    }
    return index;
  }

  eachPair(visit: (s: number, t: number) => void): void {
    if (this.nodes.length === 0) return;
    const stack: [number, number][] = [[0, 0]];
    while (stack.length > 0) {
      const [m, n] = stack.pop()!;
      const [a, b] = [this.nodes[m]!, this.nodes[n]!];
      if (m !== n && !meet(a.box, 0, b.box, 0)) continue;
      if (a.left < 0 && b.left < 0) this.leafPairs(a, b, m === n, visit);
      else if (m === n) stack.push([a.left, a.left], [a.right, a.right], [a.left, a.right]);
      else if (b.left < 0 || (a.left >= 0 && a.to - a.from > b.to - b.from)) stack.push([a.left, n], [a.right, n]);
      else stack.push([m, b.left], [m, b.right]);
    }
  }

  private leafPairs(
    a: { from: number; to: number },
    b: { from: number; to: number },
    same: boolean,
    visit: (s: number, t: number) => void,
  ): void {
    for (let i = a.from; i < a.to; i++) {
      for (let j = same ? i + 1 : b.from; j < b.to; j++) {
        const [s, t] = [this.order[i]!, this.order[j]!];
        if (meet(this.boxes, 6 * s, this.boxes, 6 * t)) visit(s, t);
      }
    }
  }
}

function meet(a: Float64Array, i: number, b: Float64Array, j: number): boolean {
  for (let k = 0; k < 3; k++) {
    if (a[i + k]! > b[j + k + 3]! || b[j + k]! > a[i + k + 3]!) return false;
  }
  return true;
}

type Triple = readonly [number, number, number];

class PairTest {
  private readonly p: ArrayLike<number>;
  private readonly indices: Uint32Array;

  constructor(positions: ArrayLike<number>, indices: Uint32Array) {
    this.p = positions;
    this.indices = indices;
  }

  cross(s: number, t: number): boolean {
    const a = this.corners(s);
    const b = this.corners(t);
    const shared = a.filter((point) => b.includes(point)).length;
    if (shared === 3) return true;
    // Proper crossing needs each triangle to have corners strictly on both sides of the other's plane.
    const [low, high] = this.sides(a, b);
    if (low === 0 && high === 0) return this.overlapInPlane(a, b, shared);
    if (shared === 2 || low >= 0 || high <= 0) return false;
    const [lowest, highest] = this.sides(b, a);
    if (lowest >= 0 || highest <= 0) return false;
    return this.pierces(a, b) || this.pierces(b, a);
  }

  /** Lowest and highest of the sides of `plane` on which the corners of `t` lie. */
  private sides(plane: Triple, t: Triple): [number, number] {
    const p = plane.includes(t[0]) ? 0 : this.side(plane, t[0]);
    const q = plane.includes(t[1]) ? 0 : this.side(plane, t[1]);
    const r = plane.includes(t[2]) ? 0 : this.side(plane, t[2]);
    return [Math.min(p, q, r), Math.max(p, q, r)];
  }

  private corners(t: number): Triple {
    return [this.indices[3 * t]!, this.indices[3 * t + 1]!, this.indices[3 * t + 2]!];
  }

  /** Sign of the volume of a, b, c, d. */
  private volume(a: number, b: number, c: number, d: number): number {
    const { p } = this;
    const [i, j, k, l] = [3 * a, 3 * b, 3 * c, 3 * d];
    const [ax, ay, az, bx, by, bz] = [p[i]!, p[i + 1]!, p[i + 2]!, p[j]!, p[j + 1]!, p[j + 2]!];
    const [cx, cy, cz, dx, dy, dz] = [p[k]!, p[k + 1]!, p[k + 2]!, p[l]!, p[l + 1]!, p[l + 2]!];
    return Math.sign(orient3d(ax, ay, az, bx, by, bz, cx, cy, cz, dx, dy, dz));
  }

  private side([a, b, c]: Triple, point: number): number {
    return this.volume(a, b, c, point);
  }

  /** Whether an edge of `a` passes from one side of `b` to the other, through its inside or an edge, not a corner. */
  private pierces(a: Triple, b: Triple): boolean {
    for (let k = 0; k < 3; k++) {
      const from = a[k]!;
      const to = a[(k + 1) % 3]!;
      if (b.includes(from) || b.includes(to)) continue;
      if (this.side(b, from) * this.side(b, to) >= 0) continue;
      const turns = [0, 1, 2].map((m) => this.volume(from, to, b[m]!, b[(m + 1) % 3]!));
      const sum = turns[0]! + turns[1]! + turns[2]!;
      if (Math.abs(sum) >= 2 && turns.every((turn) => turn * sum >= 0)) return true;
    }
    return false;
  }

  /** Two triangles of one plane: seen along the axis in which they are largest. */
  private overlapInPlane(a: Triple, b: Triple, shared: number): boolean {
    const { p } = this;
    const [u, v] = this.flattest(a);
    const turn = (i: number, j: number, k: number) =>
      Math.sign(orient2d(p[3 * i + u]!, p[3 * i + v]!, p[3 * j + u]!, p[3 * j + v]!, p[3 * k + u]!, p[3 * k + v]!));
    const wind = (t: Triple): Triple => (turn(...t) < 0 ? [t[0], t[2], t[1]] : t);
    const [s, t] = [wind(a), wind(b)];
    if (shared === 2) {
      const rest = t.find((point) => !s.includes(point))!;
      const k = s.findIndex((point) => !t.includes(point));
      return turn(s[(k + 1) % 3]!, s[(k + 2) % 3]!, rest) > 0;
    }
    // Disjoint exactly when some edge has the whole other triangle on its outer side.
    const separates = (x: Triple, y: Triple) =>
      [0, 1, 2].some((k) => y.every((point) => turn(x[k]!, x[(k + 1) % 3]!, point) <= 0));
    return !separates(s, t) && !separates(t, s);
  }

  private flattest([a, b, c]: Triple): [number, number] {
    const { p } = this;
    const area = (u: number, v: number) =>
      Math.abs(
        (p[3 * b + u]! - p[3 * a + u]!) * (p[3 * c + v]! - p[3 * a + v]!) -
          (p[3 * b + v]! - p[3 * a + v]!) * (p[3 * c + u]! - p[3 * a + u]!),
      );
    const [xy, yz, zx] = [area(0, 1), area(1, 2), area(2, 0)];
    if (xy >= yz && xy >= zx) return [0, 1];
    return yz >= zx ? [1, 2] : [2, 0];
  }
}

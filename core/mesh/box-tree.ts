// box-tree.ts — the triangles of a mesh in boxes in boxes: which of them come near each other, or near a plane.
import { uints } from '../base/arrays.ts';
import type { Point } from '../geometry/rigid.ts';

/** Leaves hold this many triangles; smaller trees cost more than they save. */
const LEAF = 4;

/** Node n has the triangles order[starts[n]] … order[ends[n] − 1], and children lefts[n] and lefts[n] + 1. */
export class BoxTree {
  private readonly order: Uint32Array;
  /** minX, minY, minZ, maxX, maxY, maxZ a triangle. */
  private readonly boxes: Float64Array;
  /** The same, one a node. */
  private readonly around: Float64Array;
  private readonly starts: Uint32Array;
  private readonly ends: Uint32Array;
  /** The first of two children, which follow each other; 0 for none. */
  private readonly lefts: Uint32Array;

  constructor(p: ArrayLike<number>, indices: Uint32Array) {
    const count = indices.length / 3;
    this.order = uints(count, (i) => i);
    this.boxes = new Float64Array(6 * count);
    for (let t = 0; t < count; t++) {
      const [i, j, k] = [3 * indices[3 * t]!, 3 * indices[3 * t + 1]!, 3 * indices[3 * t + 2]!];
      for (let axis = 0; axis < 3; axis++) {
        this.boxes[6 * t + axis] = Math.min(p[i + axis]!, p[j + axis]!, p[k + axis]!);
        this.boxes[6 * t + 3 + axis] = Math.max(p[i + axis]!, p[j + axis]!, p[k + axis]!);
      }
    }
    // Halving ends at leaves of at least LEAF / 2 triangles.
    const most = 4 * Math.ceil(count / LEAF) + 1;
    this.around = new Float64Array(6 * most);
    this.starts = new Uint32Array(most);
    this.ends = new Uint32Array(most);
    this.lefts = new Uint32Array(most);
    if (count === 0) return;
    this.ends[0] = count;
    for (let node = 0, nodes = 1; node < nodes; node++) if (this.fill(node, nodes)) nodes += 2;
  }

  /** Sets the box of a node, and halves it where it is large. @param next number of its first child */
  private fill(node: number, next: number): boolean {
    const [from, to] = [this.starts[node]!, this.ends[node]!];
    const { around, boxes, order } = this;
    const at = 6 * node;
    around.fill(Infinity, at, at + 3).fill(-Infinity, at + 3, at + 6);
    for (let i = from; i < to; i++) {
      const t = 6 * order[i]!;
      for (let k = 0; k < 3; k++) {
        if (boxes[t + k]! < around[at + k]!) around[at + k] = boxes[t + k]!;
        if (boxes[t + k + 3]! > around[at + k + 3]!) around[at + k + 3] = boxes[t + k + 3]!;
      }
    }
    if (to - from <= LEAF) return false;
    let axis = 0;
    for (const k of [1, 2]) {
      if (around[at + k + 3]! - around[at + k]! > around[at + axis + 3]! - around[at + axis]!) axis = k;
    }
    const half = (from + to) >> 1;
    this.part(from, to, half, axis);
    this.lefts[node] = next;
    [this.starts[next], this.ends[next], this.starts[next + 1], this.ends[next + 1]] = [from, half, half, to];
    return true;
  }

  /** Puts the triangles with the lower middles along an axis before `half` (Hoare 1961, "Find"). */
  private part(from: number, to: number, half: number, axis: number): void {
    const { order, boxes } = this;
    const middle = (i: number) => boxes[6 * order[i]! + axis]! + boxes[6 * order[i]! + 3 + axis]!;
    let [low, high] = [from, to - 1];
    while (low < high) {
      const pivot = middle((low + high) >> 1);
      let [i, j] = [low, high];
      while (i <= j) {
        while (middle(i) < pivot) i++;
        while (middle(j) > pivot) j--;
        if (i > j) break;
        const kept = order[i]!;
        order[i++] = order[j]!;
        order[j--] = kept;
      }
      if (half <= j) high = j;
      else if (half >= i) low = i;
      else return;
    }
  }

  eachPair(visit: (s: number, t: number) => void): void {
    if (this.order.length === 0) return;
    const { lefts, starts, ends } = this;
    const sizeOf = (n: number) => ends[n]! - starts[n]!;
    const stack = [0, 0];
    while (stack.length > 0) {
      const [n, m] = [stack.pop()!, stack.pop()!];
      if (m !== n && !meet(this.around, 6 * m, this.around, 6 * n)) continue;
      const [a, b] = [lefts[m]!, lefts[n]!];
      if (a === 0 && b === 0) this.leafPairs(m, n, visit);
      else if (m === n) stack.push(a, a, a + 1, a + 1, a, a + 1);
      else if (b === 0 || (a !== 0 && sizeOf(m) > sizeOf(n))) stack.push(a, n, a + 1, n);
      else stack.push(m, b, m, b + 1);
    }
  }

  /** Triangles whose boxes a plane touches. @param normal of any length @param offset its product with a point of the plane */
  eachAt(normal: Point, offset: number, visit: (t: number) => void): void {
    if (this.order.length === 0) return;
    const stack = [0];
    while (stack.length > 0) {
      const node = stack.pop()!;
      if (!touches(this.around, 6 * node, normal, offset)) continue;
      const left = this.lefts[node]!;
      if (left !== 0) stack.push(left, left + 1);
      else {
        for (let i = this.starts[node]!; i < this.ends[node]!; i++) {
          const t = this.order[i]!;
          if (touches(this.boxes, 6 * t, normal, offset)) visit(t);
        }
      }
    }
  }

  private leafPairs(m: number, n: number, visit: (s: number, t: number) => void): void {
    for (let i = this.starts[m]!; i < this.ends[m]!; i++) {
      for (let j = m === n ? i + 1 : this.starts[n]!; j < this.ends[n]!; j++) {
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

function touches(boxes: Float64Array, i: number, normal: Point, offset: number): boolean {
  let [middle, reach] = [-offset, 0];
  for (let k = 0; k < 3; k++) {
    middle += (normal[k]! * (boxes[i + k]! + boxes[i + k + 3]!)) / 2;
    reach += (Math.abs(normal[k]!) * (boxes[i + k + 3]! - boxes[i + k]!)) / 2;
  }
  return Math.abs(middle) <= reach;
}

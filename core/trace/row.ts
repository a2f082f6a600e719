// row.ts — a row of points that curves are fitted to, and how far they may stray from each of them.
import type { Run, Vec } from '../path/fit.ts';
import { distanceToSegment } from '../path/flatten.ts';

/** How far a curve may stray from the points of a row, px: from all of them alike, or from each. */
export type Smooth = number | Float32Array;

/**
 * A row of points. A closed one is kept four times, the first of them before point 0, so that every run is in one piece;
 * an open one goes no further than its ends.
 */
export class Row {
  readonly count: number;
  readonly isClosed: boolean;
  readonly all: Run & { readonly tightness: Float32Array };
  /** Number of point 0 in `all`. */
  readonly zero: number;

  /** @param points flat x, y, about one a pixel */
  constructor(points: Float64Array, isClosed: boolean, smooth: Smooth) {
    this.count = points.length / 2;
    this.isClosed = isClosed;
    this.zero = isClosed ? this.count : 0;
    const length = (isClosed ? 4 : 1) * this.count;
    const [xs, ys, tightness] = [new Float64Array(length), new Float64Array(length), new Float32Array(length)];
    for (let i = 0, k = 0; i < length; i++) {
      xs[i] = points[2 * k]!;
      ys[i] = points[2 * k + 1]!;
      tightness[i] = 1 / (typeof smooth === 'number' ? smooth : smooth[k]!);
      if (++k === this.count) k = 0;
    }
    this.all = { xs, ys, tightness };
  }

  /** Distance of a place from the row around point i. */
  distanceFrom({ x, y }: Vec, i: number): number {
    let nearest = Infinity;
    for (let k = i - 2; k < i + 2; k++) {
      const [a, b] = [this.at(k), this.at(k + 1)];
      nearest = Math.min(nearest, distanceToSegment(x, y, a.x, a.y, b.x, b.y));
    }
    return nearest;
  }

  at(i: number): Vec {
    const k = this.within(i);
    return { x: this.all.xs[k]!, y: this.all.ys[k]! };
  }

  /** How far a curve may stray from point i, px. */
  smoothAt(i: number): number {
    return 1 / this.all.tightness[this.within(i)]!;
  }

  private within(i: number): number {
    if (this.isClosed) return ((i % this.count) + this.count) % this.count;
    return Math.min(this.count - 1, Math.max(0, i));
  }
}

// contours.ts — where ink ends, to a small fraction of a pixel. Marching squares over pixel centres finds the boundary and
// its connections; the grey of the pixels along it says where within a pixel the edge runs.
import type { Grey } from '../picture/types.ts';

/** Flat x, y in pixels, y down, closed without a repeated point, about one point a pixel. Ink lies on the right. */
export type Contour = Float64Array;

/** Between its two sides an edge is sharp when the grey changes by this share of the full range within two pixels. */
const SHARP = 0.9;

/**
 * Closed contours of everything darker than `level`.
 * @param level grey at the boundary, 0 … 1
 * @returns outer boundaries and holes, told apart by their direction; the area beyond the picture counts as paper
 */
export function contours(grey: Grey, level: number): Contour[] {
  const field = new Field(grey, level);
  const rings: Contour[] = [];
  for (const start of field.starts()) rings.push(field.follow(start));
  return rings;
}

/**
 * Crossings are numbered by the grid edge they lie on: 2·node for the edge to the right of a node, 2·node + 1 for the one
 * below it. Nodes are pixel centres with a frame of paper around.
 */
class Field {
  private readonly grey: Grey;
  private readonly level: number;
  private readonly columns: number;
  private readonly rows: number;
  /** 1 where a node is ink. */
  private readonly ink: Uint8Array;
  private readonly seen: Uint8Array;

  constructor(grey: Grey, level: number) {
    this.grey = grey;
    this.level = level;
    this.columns = grey.width + 2;
    this.rows = grey.height + 2;
    this.ink = new Uint8Array(this.columns * this.rows);
    for (let y = 0; y < grey.height; y++) {
      for (let x = 0; x < grey.width; x++) {
        if (grey.values[y * grey.width + x]! < level) this.ink[(y + 1) * this.columns + x + 1] = 1;
      }
    }
    this.seen = new Uint8Array(2 * this.ink.length);
  }

  /** A crossing of every contour not followed yet: always one where ink begins to the right of paper. */
  *starts(): Generator<number> {
    for (let node = 0; node + 1 < this.ink.length; node++) {
      if (!this.ink[node] && this.ink[node + 1] && !this.seen[2 * node]) yield 2 * node;
    }
  }

  /** Walks from cell to cell with the ink on the right. */
  follow(start: number): Contour {
    const points: number[] = [];
    let crossing = start;
    // A start has paper on its left and ink on its right: with ink on the right hand the way leads up.
    let [cellX, cellY] = [(start / 2) % this.columns, Math.floor(start / 2 / this.columns) - 1];
    for (;;) {
      if (crossing % 2 === 0) this.seen[crossing] = 1;
      this.place(crossing, points);
      const next = this.exit(cellX, cellY, crossing);
      if (next === start) break;
      crossing = next;
      const node = Math.floor(next / 2);
      const [x, y] = [node % this.columns, Math.floor(node / this.columns)];
      // The cell beyond the crossing: a horizontal grid edge has cells above and below, an upright one left and right.
      if (next % 2 === 0) [cellX, cellY] = [x, cellY === y ? y - 1 : y];
      else [cellX, cellY] = [cellX === x ? x - 1 : x, y];
    }
    return dedupe(points);
  }

  /** The crossing by which the contour leaves a cell that it entered by another. */
  private exit(x: number, y: number, entry: number): number {
    const node = y * this.columns + x;
    const [a, b, c, d] = [node, node + 1, node + this.columns + 1, node + this.columns];
    const top = 2 * a;
    const right = 2 * b + 1;
    const bottom = 2 * d;
    const left = 2 * a + 1;
    const code = this.ink[a]! * 8 + this.ink[b]! * 4 + this.ink[c]! * 2 + this.ink[d]!;
    if (code === 5 || code === 10) {
      // Two opposite corners are ink: they are joined when the cell's mean is ink, everywhere by the same rule.
      const joined = this.value(a) + this.value(b) + this.value(c) + this.value(d) < 4 * this.level;
      const aWithB = (code === 10) === joined;
      // Pairs of crossings that belong together: around b and d, or around a and c.
      if (aWithB) return { [top]: right, [right]: top, [bottom]: left, [left]: bottom }[entry]!;
      return { [top]: left, [left]: top, [bottom]: right, [right]: bottom }[entry]!;
    }
    const crossed = [
      this.ink[a] !== this.ink[b] ? top : -1,
      this.ink[b] !== this.ink[c] ? right : -1,
      this.ink[d] !== this.ink[c] ? bottom : -1,
      this.ink[a] !== this.ink[d] ? left : -1,
    ];
    return crossed.find((crossing) => crossing >= 0 && crossing !== entry)!;
  }

  private value(node: number): number {
    const [x, y] = [(node % this.columns) - 1, Math.floor(node / this.columns) - 1];
    return this.at(x, y);
  }

  /** Grey of a pixel, paper beyond the picture. */
  private at(x: number, y: number): number {
    const { width, height, values } = this.grey;
    return x < 0 || y < 0 || x >= width || y >= height ? 1 : values[y * width + x]!;
  }

  /** Pushes the place of the edge near a crossing. */
  private place(crossing: number, points: number[]): void {
    const node = Math.floor(crossing / 2);
    const [x, y] = [(node % this.columns) - 1, Math.floor(node / this.columns) - 1];
    const [x2, y2] = crossing % 2 === 0 ? [x + 1, y] : [x, y + 1];
    const [v, w] = [this.at(x, y), this.at(x2, y2)];
    const { level } = this;
    const nearer = Math.abs(v - level) <= Math.abs(w - level);
    const [px, py] = nearer ? [x, y] : [x2, y2];
    const precise = this.foot(px, py);
    if (precise) {
      points.push(...precise);
      return;
    }
    const t = (level - v) / (w - v);
    points.push(x + 0.5 + t * (x2 - x), y + 0.5 + t * (y2 - y));
  }

  /**
   * Where a sharp straight edge passes a pixel of this grey: its foot as seen from the pixel's centre. Coverage of a unit
   * square by a half-plane is a trapezoid's integral in the distance; this is its inverse. Null where the edge is soft, or
   * something else is near.
   */
  private foot(x: number, y: number): [number, number] | null {
    const n = (dx: number, dy: number) => this.at(x + dx, y + dy);
    // Scharr's kernel, whose direction errs least.
    let gx = 3 * (n(1, -1) - n(-1, -1)) + 10 * (n(1, 0) - n(-1, 0)) + 3 * (n(1, 1) - n(-1, 1));
    let gy = 3 * (n(-1, 1) - n(-1, -1)) + 10 * (n(0, 1) - n(0, -1)) + 3 * (n(1, 1) - n(1, -1));
    const length = Math.hypot(gx, gy);
    if (length < 1e-6) return null;
    gx /= length;
    gy /= length;
    const [a, b] = Math.abs(gx) >= Math.abs(gy) ? [Math.abs(gx), Math.abs(gy)] : [Math.abs(gy), Math.abs(gx)];
    const [dark, light] = [this.sample(x - 1.5 * gx, y - 1.5 * gy), this.sample(x + 1.5 * gx, y + 1.5 * gy)];
    if (!(light - dark >= SHARP)) return null;
    const paper = Math.min(1, Math.max(0, (n(0, 0) - dark) / (light - dark)));
    const d = distanceFor(paper, a, b);
    return [x + 0.5 - d * gx, y + 0.5 - d * gy];
  }

  /** Bilinear, in pixel numbers. */
  private sample(x: number, y: number): number {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [x - i, y - j];
    const mix = (p: number, q: number, t: number) => p + t * (q - p);
    return mix(mix(this.at(i, j), this.at(i + 1, j), u), mix(this.at(i, j + 1), this.at(i + 1, j + 1), u), v);
  }
}

/**
 * Signed distance of a unit square's centre from the edge of a half-plane that covers `share` of it; positive for more
 * than a half. @param a larger, @param b smaller component of the unit normal
 */
export function distanceFor(share: number, a: number, b: number): number {
  const more = Math.max(share, 1 - share);
  const sign = share >= 0.5 ? 1 : -1;
  const flat = (a - b) / 2;
  // Up to `flat` the edge crosses two opposite sides, beyond it cuts off a corner.
  const d = (more - 0.5) * a <= flat ? (more - 0.5) * a : (a + b) / 2 - Math.sqrt(2 * a * b * (1 - more));
  return sign * d;
}

/** Crossings that share a pixel give one point twice, neighbours nearly so; even steps make directions steady. */
const SAME = 0.5;

function dedupe(points: readonly number[]): Contour {
  const kept: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i]!, points[i + 1]!];
    const n = kept.length;
    if (n === 0 || Math.hypot(x - kept[n - 2]!, y - kept[n - 1]!) > SAME) kept.push(x, y);
  }
  while (kept.length > 2 && Math.hypot(kept[0]! - kept.at(-2)!, kept[1]! - kept.at(-1)!) <= SAME) kept.length -= 2;
  return Float64Array.from(kept);
}

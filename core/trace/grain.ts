// grain.ts — how noisy a picture is where it is flat.
import type { Planes } from './planes.ts';

/** Normally distributed values lie within this many standard deviations at the quantile that is looked at. */
const QUANTILE = 0.75;
const AT_QUANTILE = 1.15;
/** Luma that changes by more than this from a pixel to the next but one is an edge. */
const EDGE = 40;
/** Pixels this near to an edge hold some of it; those up to `BESIDE` are where compression rings. */
const [WITHIN, BESIDE] = [3, 8];
/** Fewer pixels than this say nothing. */
const TELLING = 64;

/**
 * Standard deviation of the noise in flat places, in bytes of luma: of grain, or of what compression left there, which is more beside
 * edges, and of grain that compression or a lens has smoothed, which is seen on means of four pixels. The kernel is that of Immerkær,
 * “Fast noise variance estimation” (1996), which is blind to whatever bends evenly; the quantile leaves out what is no noise.
 */
export function noiseIn(planes: Planes): number {
  const { width, height, y } = planes;
  const distances = distancesFromEdges(y, width, height);
  const beside = deviationIn(y, width, height, (i) => distances[i]! >= WITHIN && distances[i]! <= BESIDE);
  const all = deviationIn(y, width, height, (i) => distances[i]! >= WITHIN);
  const [columns, rows] = [width >> 1, height >> 1];
  const means = new Float32Array(columns * rows);
  const first = (i: number) => 2 * Math.floor(i / columns) * width + 2 * (i % columns);
  for (let i = 0; i < means.length; i++) {
    const at = first(i);
    means[i] = (y[at]! + y[at + 1]! + y[at + width]! + y[at + width + 1]!) / 4;
  }
  // Independent noise is half as much in means of four.
  const smoothed = 2 * deviationIn(means, columns, rows, (i) => distances[first(i)]! > BESIDE);
  return Math.max(all, beside, smoothed);
}

function deviationIn(y: Float32Array, width: number, height: number, isFlat: (i: number) => boolean): number {
  const bends = new Bends();
  for (let row = 1; row + 1 < height; row++) {
    for (let column = 1; column + 1 < width; column++) {
      const i = row * width + column;
      if (!isFlat(i)) continue;
      const [a, b] = [i - width, i + width];
      const bend =
        y[a - 1]! - 2 * y[a]! + y[a + 1]! - 2 * (y[i - 1]! - 2 * y[i]! + y[i + 1]!) + y[b - 1]! - 2 * y[b]! + y[b + 1]!;
      bends.add(bend);
    }
  }
  return bends.deviation();
}

/** Bins of what the kernel gives: so many to a byte, up to all that noise makes of it. */
const [PER_BYTE, BINS] = [8, 4096];

class Bends {
  private readonly counts = new Uint32Array(BINS);
  private total = 0;

  add(bend: number): void {
    this.counts[Math.min(BINS - 1, Math.floor(Math.abs(bend) * PER_BYTE))]!++;
    this.total++;
  }

  /** Of the noise that would bend so. */
  deviation(): number {
    if (this.total < TELLING) return 0;
    let [bin, below] = [0, this.counts[0]!];
    while (below <= QUANTILE * this.total) below += this.counts[++bin]!;
    return bin / PER_BYTE / AT_QUANTILE / 6;
  }
}

/** Steps to the nearest edge, along rows, columns and diagonals, in two sweeps (Rosenfeld & Pfaltz 1966). */
function distancesFromEdges(y: Float32Array, width: number, height: number): Uint16Array {
  const far = 0xffff;
  const d = new Uint16Array(width * height).fill(far);
  for (let row = 0, i = 0; row < height; row++) {
    for (let column = 0; column < width; column++, i++) {
      const across = column > 0 && column + 1 < width ? Math.abs(y[i + 1]! - y[i - 1]!) : 0;
      const down = row > 0 && row + 1 < height ? Math.abs(y[i + width]! - y[i - width]!) : 0;
      if (across > EDGE || down > EDGE) d[i] = 0;
    }
  }
  const lower = (i: number, j: number) => {
    if (d[j]! < far && d[j]! + 1 < d[i]!) d[i] = d[j]! + 1;
  };
  for (let row = 0, i = 0; row < height; row++) {
    for (let column = 0; column < width; column++, i++) {
      if (column > 0) lower(i, i - 1);
      if (row === 0) continue;
      lower(i, i - width);
      if (column > 0) lower(i, i - width - 1);
      if (column + 1 < width) lower(i, i - width + 1);
    }
  }
  for (let row = height - 1, i = width * height - 1; row >= 0; row--) {
    for (let column = width - 1; column >= 0; column--, i--) {
      if (column + 1 < width) lower(i, i + 1);
      if (row + 1 === height) continue;
      lower(i, i + width);
      if (column + 1 < width) lower(i, i + width + 1);
      if (column > 0) lower(i, i + width - 1);
    }
  }
  return d;
}

// noise.ts — how far the points of a boundary jump to and fro about a smooth curve, which is how far fitted curves have to
// be allowed to stray.

/** A third difference of four values with independent errors has √20 times the error of one. */
const DIFFERENCE = Math.sqrt(20);
/** Straight edges along the grid are exact in any case, so the upper end of the differences counts: this quantile … */
const QUANTILE = 0.75;
/** … of the absolute values of a normal distribution, in standard deviations. */
const AT_QUANTILE = 1.15;
/** Points that are looked at, at the most. */
const SAMPLES = 600;

/**
 * Standard deviation of the points across their boundary, px. Third differences leave out whatever bends evenly.
 * @param rows flat x, y, about one point a pixel
 */
export function noiseOf(rows: readonly Float64Array[]): number {
  const total = rows.reduce((sum, row) => sum + row.length / 2, 0);
  const step = Math.max(1, Math.ceil(total / SAMPLES));
  const jumps: number[] = [];
  for (const row of rows) {
    for (let i = 0; i + 7 < row.length; i += 2 * step) {
      const [dx, dy] = [row[i + 6]! - row[i]!, row[i + 7]! - row[i + 1]!];
      const length = Math.hypot(dx, dy);
      if (length < 1) continue;
      const x = row[i + 6]! - 3 * row[i + 4]! + 3 * row[i + 2]! - row[i]!;
      const y = row[i + 7]! - 3 * row[i + 5]! + 3 * row[i + 3]! - row[i + 1]!;
      jumps.push(Math.abs(x * dy - y * dx) / length);
    }
  }
  if (jumps.length === 0) return 0;
  jumps.sort((a, b) => a - b);
  return jumps[Math.floor(QUANTILE * jumps.length)]! / AT_QUANTILE / DIFFERENCE;
}

/** The least that a curve may stray: edges are not known any better. */
const LEAST_SMOOTH = 0.08;
const MOST_SMOOTH = 0.6;
/** Neighbouring points stray alike, so that a whole bow of them strays this many standard deviations. */
const SPREAD = 15;

/** Fewer points than this say nothing about noise: their corners would be taken for it. */
const TELLING = 256;

/** How far curves may stray from boundaries as noisy as these, px. */
export function smoothFor(rows: readonly Float64Array[]): number {
  const total = rows.reduce((sum, row) => sum + row.length / 2, 0);
  if (total < TELLING) return LEAST_SMOOTH;
  return Math.min(MOST_SMOOTH, Math.max(LEAST_SMOOTH, SPREAD * noiseOf(rows)));
}

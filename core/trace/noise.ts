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

/** How far four points in a row are from lying on a curve that bends evenly, px across it; null where they hardly go on. */
function jumpAt(row: Float64Array, i: number): number | null {
  const [dx, dy] = [row[i + 6]! - row[i]!, row[i + 7]! - row[i + 1]!];
  const length = Math.hypot(dx, dy);
  if (length < 1) return null;
  const x = row[i + 6]! - 3 * row[i + 4]! + 3 * row[i + 2]! - row[i]!;
  const y = row[i + 7]! - 3 * row[i + 5]! + 3 * row[i + 3]! - row[i + 1]!;
  return Math.abs(x * dy - y * dx) / length;
}

/** Standard deviation of the points that jump like this, px. */
function deviationOf(jumps: Float64Array): number {
  if (jumps.length === 0) return 0;
  jumps.sort();
  return jumps[Math.floor(QUANTILE * jumps.length)]! / AT_QUANTILE / DIFFERENCE;
}

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
      const jump = jumpAt(row, i);
      if (jump !== null) jumps.push(jump);
    }
  }
  return deviationOf(Float64Array.from(jumps));
}

/** The least that a curve may stray: edges are not known any better. */
const LEAST_SMOOTH = 0.08;
const MOST_SMOOTH = 0.6;
/** Neighbouring points stray alike, so that a whole bow of them strays this many standard deviations: in clean pictures, … */
const SPREAD = 12;
/** … and in those that compression or a camera has spoilt, whose edges are means over several pixels. */
const SPREAD_SPOILT = 29;

const smoothBy = (noise: number, isClean: boolean): number =>
  Math.min(MOST_SMOOTH, Math.max(LEAST_SMOOTH, (isClean ? SPREAD : SPREAD_SPOILT) * noise));

/** Fewer points than this say nothing about noise: their corners would be taken for it. */
const TELLING = 256;

/** How far curves may stray from boundaries as noisy as these, px. */
export function smoothFor(rows: readonly Float64Array[], isClean: boolean): number {
  const total = rows.reduce((sum, row) => sum + row.length / 2, 0);
  return total < TELLING ? LEAST_SMOOTH : smoothBy(noiseOf(rows), isClean);
}

/** Whether hardly any of the jumps is more than the least smooth allows for. */
function isSharp(jumps: Float64Array, isClean: boolean): boolean {
  const least = (LEAST_SMOOTH / (isClean ? SPREAD : SPREAD_SPOILT)) * AT_QUANTILE * DIFFERENCE;
  let large = 0;
  for (const jump of jumps) if (jump > least) large++;
  return large < (1 - QUANTILE) * jumps.length;
}

/** What is small strays by no more than this share of the way around it: it would lose its shape. */
const SMALL = 1 / 300;

/** Noise is measured over so many points, anew after so many. */
const [WINDOW, STEP] = [128, 32];

/**
 * How far a curve may stray from each point of a boundary, px: what is noisy in one place does not loosen what is sharp in
 * another.
 * @param others what a boundary too short to tell may stray, px
 */
export function smoothAlong(row: Float64Array, others: number, isClean: boolean): number | Float32Array {
  const count = row.length / 2;
  if (count < TELLING) return Math.max(LEAST_SMOOTH, Math.min(others, SMALL * count));
  const jumps = Float64Array.from({ length: count }, (_, i) =>
    2 * i + 7 < row.length ? (jumpAt(row, 2 * i) ?? 0) : 0,
  );
  const last = Math.ceil(count / STEP);
  const smooths = Float64Array.from({ length: last + 1 }, (_, k) => {
    const from = Math.max(0, Math.min(count - WINDOW, k * STEP - WINDOW / 2));
    const window = jumps.subarray(from, from + WINDOW);
    // Most are that sharp, and need no sorting.
    return isSharp(window, isClean) ? LEAST_SMOOTH : smoothBy(deviationOf(window.slice()), isClean);
  });
  return Float32Array.from({ length: count }, (_, i) => {
    const k = Math.floor(i / STEP);
    const t = i / STEP - k;
    return (1 - t) * smooths[k]! + t * smooths[k + 1]!;
  });
}

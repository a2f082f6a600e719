// monotone.ts — a smooth curve through points that never overshoots them (Fritsch & Carlson 1980, "Monotone piecewise cubic
// interpolation"; slopes after Steffen 1990, "A simple method for monotonic interpolation in one dimension").

/**
 * @param points x never falling; where it stands still, the curve breaks
 * @returns y by x
 */
export function monotoneCurve(points: readonly (readonly [x: number, y: number])[]): (x: number) => number {
  const n = points.length;
  const secant = (i: number) => {
    const [a, b] = [points[i], points[i + 1]];
    return a && b && b[0] > a[0] ? (b[1] - a[1]) / (b[0] - a[0]) : null;
  };
  const slopes = points.map((_, i) => {
    const [before, after] = [secant(i - 1), secant(i)];
    if (before === null || after === null) return before ?? after ?? 0;
    const [h, k] = [points[i]![0] - points[i - 1]![0], points[i + 1]![0] - points[i]![0]];
    const mean = (before * k + after * h) / (h + k);
    return (Math.sign(before) + Math.sign(after)) * Math.min(Math.abs(before), Math.abs(after), Math.abs(mean) / 2);
  });
  return (x) => {
    let i = 0;
    while (i + 2 < n && points[i + 1]![0] <= x) i++;
    const [[x0, y0], [x1, y1]] = [points[i]!, points[i + 1]!];
    const h = x1 - x0;
    if (!(h > 0)) return y1;
    const t = Math.min(1, Math.max(0, (x - x0) / h));
    const [m0, m1] = [slopes[i]! * h, slopes[i + 1]! * h];
    // Hermite's basis.
    return y0 * (1 + 2 * t) * (1 - t) ** 2 + m0 * t * (1 - t) ** 2 + y1 * t * t * (3 - 2 * t) + m1 * t * t * (t - 1);
  };
}

// reverse.ts — a row of points the other way round.

/** @param points flat x, y; not modified */
export function reversed(points: Float64Array): Float64Array {
  const result = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    result[i] = points[points.length - 2 - i]!;
    result[i + 1] = points[points.length - 1 - i]!;
  }
  return result;
}

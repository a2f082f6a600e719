// median.ts — the middle of a row of numbers.
export function median(values: readonly number[]): number {
  return values.toSorted((a, b) => a - b)[values.length >> 1]!;
}

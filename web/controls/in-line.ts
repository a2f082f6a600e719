// in-line.ts — what is dragged comes to what it is nearly in line with.

/** For one axis: where lines of what is dragged stood, and where those of everything else are. */
export interface SnapLines {
  readonly own: readonly number[];
  readonly others: readonly number[];
}

/** The sides and the middle of something along an axis. */
export const linesOf = (low: number, high: number): number[] => [low, (low + high) / 2, high];

/** A shift, or the one nearest to it within `reach` that brings something in line. */
export function snapped(by: number, { own, others }: SnapLines, reach: number): number {
  let [best, distance] = [by, reach];
  for (const line of own) {
    for (const other of others) {
      const apart = Math.abs(line + by - other);
      if (apart < distance) [best, distance] = [other - line, apart];
    }
  }
  return best;
}

// figures.ts — numbers that read well.

/** Rounded down to two figures, so that start values read well. */
export function roundFigure(v: number): number {
  const digit = 10 ** (Math.floor(Math.log10(v)) - 1);
  return Number((Math.floor(v / digit + 1e-9) * digit).toPrecision(2));
}

/** Digits that are kept of sums and products, so that lengths that were typed come back as they were. */
const DIGITS = 12;

export const asTyped = (v: number): number => Number(v.toPrecision(DIGITS));

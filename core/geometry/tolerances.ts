// tolerances.ts — from where on rounding is taken for nothing.

/** A triangle is without area below this share of the squared size: 1e-6 of the size high on a base of 2e-6. */
export const ZERO_AREA = 1e-12;

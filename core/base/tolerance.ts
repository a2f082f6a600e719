// tolerance.ts — how closely curves are followed where nobody has said.
import { roundFigure } from './figures.ts';

/** Curves are followed within this share of the longest side. */
export const TOLERANCE_SHARE = 1e-4;

/** A tolerance that suits something of this size: nothing of it is seen, and no point is there for nothing. */
export const toleranceFor = (size: number): number => Math.max(1e-6, roundFigure(size * TOLERANCE_SHARE));

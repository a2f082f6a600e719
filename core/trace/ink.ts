// ink.ts — a two-tone picture to closed outlines with holes.

import { withDefaults } from '../options.ts';
import { ringArea } from '../outline/measure.ts';
import type { Path } from '../path/types.ts';
import type { Grey } from '../picture/types.ts';
import { boundariesOf, inkLabels } from './boundary.ts';
import { type TracedOutline, traceOutline } from './outline.ts';
import { GreyTones } from './place.ts';

export interface InkOptions {
  /** Grey at which ink ends, 0 … 1. */
  level?: number;
  /** Smallest piece that is kept, and smallest hole, in square px. */
  detail?: number;
  /** Turns sharper than this are corners, degrees. */
  cornerDeg?: number;
  /** How far a curve may stray from the picture, px. */
  smooth?: number;
}
export const INK_DEFAULTS: Required<InkOptions> = { level: 0.5, detail: 4, cornerDeg: 25, smooth: 0.08 };

export interface InkTrace {
  /** Outlines and holes in one path, to be filled by the even-odd rule; px, y down. */
  readonly path: Path;
  readonly outlines: number;
  /** Lines and curves. */
  readonly pieces: number;
}

export function traceInk(grey: Grey, options: InkOptions = {}): InkTrace {
  const traced = inkOutlines(grey, options);
  return {
    path: traced.flatMap(({ path }) => path),
    outlines: traced.length,
    pieces: traced.reduce((sum, { pieces }) => sum + pieces, 0),
  };
}

/** Boundaries of ink, each with the ink on its right, y down. */
export function inkContours(grey: Grey, level: number): Float64Array[] {
  const tones = new GreyTones(grey, level);
  const { chains } = boundariesOf(inkLabels(grey.values, grey.width, grey.height, level), () => tones);
  return chains.map(({ points }) => points);
}

/** Outer boundaries and holes, told apart by their direction. */
export function inkOutlines(grey: Grey, options: InkOptions = {}): TracedOutline[] {
  const { level, detail, cornerDeg, smooth } = withDefaults(INK_DEFAULTS, options);
  return inkContours(grey, level)
    .filter((ring) => Math.abs(ringArea(ring)) >= detail)
    .map((ring) => traceOutline(ring, { smooth, corner: (cornerDeg * Math.PI) / 180 }));
}

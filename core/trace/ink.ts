// ink.ts — a two-tone picture to closed outlines with holes.

import { withDefaults } from '../options.ts';
import { ringArea } from '../outline/measure.ts';
import type { Path } from '../path/types.ts';
import type { Grey } from '../picture/types.ts';
import { contours } from './contours.ts';
import { traceOutline } from './outline.ts';

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
  const { level, detail, cornerDeg, smooth } = withDefaults(INK_DEFAULTS, options);
  const traced = contours(grey, level)
    .filter((ring) => Math.abs(ringArea(ring)) >= detail)
    .map((ring) => traceOutline(ring, { smooth, corner: (cornerDeg * Math.PI) / 180 }));
  return {
    path: traced.flatMap(({ path }) => path),
    outlines: traced.length,
    pieces: traced.reduce((sum, { pieces }) => sum + pieces, 0),
  };
}

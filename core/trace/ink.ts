// ink.ts — a two-tone picture to closed outlines with holes.

import { withDefaults } from '../options.ts';
import { ringArea } from '../outline/measure.ts';
import type { Path } from '../path/types.ts';
import type { Grey } from '../picture/types.ts';
import { boundariesOf, inkLabels, type LabelMap } from './boundary.ts';
import { smoothFor } from './noise.ts';
import { type TracedOutline, traceOutline } from './outline.ts';
import { GreyTones, pushMiddle, pushPlace } from './place.ts';
import { smoothedStaircase } from './staircase.ts';

export interface InkOptions {
  /** Grey at which ink ends, 0 … 1. */
  level?: number;
  /** Smallest piece that is kept, and smallest hole, in square px. */
  detail?: number;
  /** Turns sharper than this are corners, degrees. */
  cornerDeg?: number;
  /** How far a curve may stray from the picture, px; null takes what the noise of its edges asks for. */
  smooth?: number | null;
}
export const INK_DEFAULTS: Required<InkOptions> = { level: 0.5, detail: 4, cornerDeg: 25, smooth: null };

export interface InkTrace {
  /** Outlines and holes in one path, to be filled by the even-odd rule; px, y down. */
  readonly path: Path;
  readonly outlines: number;
  /** Lines and curves. */
  readonly pieces: number;
}

export function traceInk(grey: Grey, options: InkOptions = {}): InkTrace {
  const { outlines: traced } = tracedInk(grey, options);
  return {
    path: traced.flatMap(({ path }) => path),
    outlines: traced.length,
    pieces: traced.reduce((sum, { pieces }) => sum + pieces, 0),
  };
}

/** Boundaries of ink, each with the ink on its right, y down; whether they come from pixels without greys. */
export function inkContours(grey: Grey, level: number): { contours: Float64Array[]; isStaircase: boolean } {
  const tones = new GreyTones(grey, level);
  const map = inkLabels(grey, level);
  const isStaircase = hasTwoTones(grey, map);
  const { chains } = boundariesOf(map, () => tones, isStaircase ? pushMiddle : pushPlace);
  return { contours: chains.map(({ points }) => (isStaircase ? smoothedStaircase(points) : points)), isStaircase };
}

/** A picture has two tones when no more than this share of the pixels along its edges is grey. */
const GREY_SHARE = 0.02;

function hasTwoTones({ width, height, values }: Grey, { changes, columns }: LabelMap): boolean {
  let greys = 0;
  for (const node of changes) {
    const y = Math.floor(node / columns) - 1;
    const x = (node % columns) - 1;
    for (const u of [x, x + 1]) {
      if (u < 0 || u >= width || y >= height) continue;
      const v = values[y * width + u]!;
      if (v > 0.02 && v < 0.98) greys++;
    }
  }
  return greys <= GREY_SHARE * changes.length;
}

/** Curves through a smoothed staircase know no more than about this, px. */
const STAIRCASE_SMOOTH = 0.2;

export interface InkOutline extends TracedOutline {
  /** Its boundary through the pixels. */
  readonly points: Float64Array;
  /** In square px: positive for an outer boundary, negative for a hole. */
  readonly area: number;
}

/** Outer boundaries and holes, and how many were left out as too small. */
export function tracedInk(grey: Grey, options: InkOptions = {}): { outlines: InkOutline[]; dropped: number } {
  const { level, detail, cornerDeg, smooth } = withDefaults(INK_DEFAULTS, options);
  const { contours, isStaircase } = inkContours(grey, level);
  const kept = contours.filter((ring) => Math.abs(ringArea(ring)) >= detail);
  const fitted = {
    smooth: smooth ?? (isStaircase ? STAIRCASE_SMOOTH : smoothFor(kept)),
    corner: (cornerDeg * Math.PI) / 180,
  };
  const outlines = kept.map((points) => ({ ...traceOutline(points, fitted), points, area: ringArea(points) }));
  return { outlines, dropped: contours.length - kept.length };
}

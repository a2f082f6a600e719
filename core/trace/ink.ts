// ink.ts — a two-tone picture to closed outlines with holes.
import { withDefaults } from '../base/options.ts';
import { ringArea } from '../outline/measure.ts';
import type { Path } from '../path/types.ts';
import type { Grey } from '../picture/types.ts';
import { boundariesOf, inkLabels, type LabelMap } from './boundary.ts';
import { smoothAlong, smoothFor } from './noise.ts';
import { circleThrough, type OutlineOptions, type TracedOutline, traceOutline } from './pieces.ts';
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

export interface InkContours {
  /** Each with the ink on its right, y down. */
  readonly contours: readonly Float64Array[];
  /** Where pixels have no greys, the middles of the pixel sides that the contours were smoothed from. */
  readonly stairs: readonly Float64Array[] | null;
  readonly isClean: boolean;
}

export function inkContours(grey: Grey, level: number): InkContours {
  const map = inkLabels(grey, level);
  const isClean = isCleanBeside(grey, level, map);
  const tones = new GreyTones(grey, level, isClean);
  const isStaircase = hasTwoTones(grey, map);
  const { chains } = boundariesOf(map, () => tones, isStaircase ? pushMiddle : pushPlace);
  const contours = chains.map(({ points }) => points);
  return isStaircase
    ? { contours: contours.map(smoothedStaircase), stairs: contours, isClean }
    : { contours, stairs: null, isClean };
}

/** Pixels this far from an edge hold none of it, and where they are clean the next one is like them, to so many greys. */
const [BESIDE, ALIKE] = [3, 1.5 / 255];
/** Clean pictures have no more than this share of edges beside which it is not. */
const UNLIKE_SHARE = 0.25;

/** Whether both tones are even beside the edges between them: compression rings there, and paper has its grain. */
function isCleanBeside(
  { width, height, values }: Grey,
  level: number,
  { changes, columns, labels }: LabelMap,
): boolean {
  let [looked, unlike] = [0, 0];
  for (const node of changes) {
    const [x, y] = [(node % columns) - 1, Math.floor(node / columns) - 1];
    if (x < 1 || x + 2 >= width || y < 1 || y + 1 >= height) continue;
    for (const u of [x, x + 1]) {
      const i = y * width + u;
      const [across, down] = [values[i + 1]! - values[i - 1]!, values[i + width]! - values[i - width]!];
      // Away from the edge, along a row or a column: within the ink it gets darker.
      const isInk = labels[node + u - x] === 1;
      const isAcross = Math.abs(across) >= Math.abs(down);
      const toLight = Math.sign(isAcross ? across : down) * (isAcross ? 1 : width);
      const away = isInk ? -toLight : toLight;
      const line = isAcross ? u : y;
      const end = line + (BESIDE + 1) * Math.sign(away);
      if (away === 0 || end < 0 || end >= (isAcross ? width : height)) continue;
      const [near, far] = [values[i + BESIDE * away]!, values[i + (BESIDE + 1) * away]!];
      if (near < level !== isInk || far < level !== isInk) continue;
      looked++;
      if (Math.abs(near - far) > ALIKE) unlike++;
    }
  }
  return unlike <= UNLIKE_SHARE * looked;
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

/** The middle of a pixel's side lies at most this far from an edge that runs through the pixels beside it, px. */
const STAIR_HEIGHT = Math.SQRT1_2;
/** Values of the shortest staircase that can be told to be round. */
const ROUND_FROM = 64;
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
  const { contours, stairs, isClean } = inkContours(grey, level);
  const kept = contours.map((points, i) => ({ points, area: ringArea(points), stair: stairs?.[i] }));
  const large = kept.filter(({ area, points }) => Math.abs(area) >= detail && points.length >= 6);
  const fixed = smooth ?? (stairs ? STAIRCASE_SMOOTH : null);
  const others = smoothFor(
    large.map(({ points }) => points),
    isClean,
  );
  const optionsFor = (points: Float64Array): OutlineOptions => ({
    smooth: fixed ?? smoothAlong(points, others, isClean),
    corner: (cornerDeg * Math.PI) / 180,
  });
  const outlines = large.map(({ points, area, stair }) => ({
    ...((stair && stair.length > ROUND_FROM && circleThrough(stair, STAIR_HEIGHT)) ||
      traceOutline(points, optionsFor(points))),
    points,
    area,
  }));
  return { outlines, dropped: contours.length - large.length };
}

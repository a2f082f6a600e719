// place.ts — where an edge runs, to a small fraction of a pixel: the grey of the pixels along it says how much of each it
// leaves covered.
import type { Grey } from '../picture/types.ts';

/** How much of each pixel belongs to the lighter of two neighbouring tones; `level` is where the edge between them lies. */
export interface Tones {
  readonly level: number;
  /** Whether grain, compression and scanning have left no traces: what a pixel next to an edge has is all there is. */
  readonly isClean: boolean;
  /** 1 where all is light, 0 where all is dark. Defined beyond the picture too. */
  at(x: number, y: number): number;
}

/** The tones of a grey picture on a sheet of paper. */
export class GreyTones implements Tones {
  readonly level: number;
  readonly isClean: boolean;
  private readonly width: number;
  private readonly height: number;
  private readonly values: Float32Array;

  constructor({ width, height, values }: Grey, level: number, isClean = false) {
    this.width = width;
    this.height = height;
    this.values = values;
    this.level = level;
    this.isClean = isClean;
  }

  at(x: number, y: number): number {
    return x < 0 || y < 0 || x >= this.width || y >= this.height ? 1 : this.values[y * this.width + x]!;
  }
}

/** Pushes the place of the edge between two pixels that lie side by side or one above the other. */
export type PushPlace = (tones: Tones, x: number, y: number, x2: number, y2: number, points: number[]) => void;

/** The middle of the side that two pixels share. */
export const pushMiddle: PushPlace = (_, x, y, x2, y2, points) => {
  points.push((x + x2 + 1) / 2, (y + y2 + 1) / 2);
};

/** An edge is sharp when the tone changes by this share of the full range within three pixels. */
const SHARP = 0.97;

/** Where the tones of the pixels put the edge. */
export const pushPlace: PushPlace = (tones, x, y, x2, y2, points) => {
  const { level } = tones;
  const [v, w] = [tones.at(x, y), tones.at(x2, y2)];
  const isFirst = Math.abs(v - level) <= Math.abs(w - level);
  if (pushFoot(tones, isFirst ? x : x2, isFirst ? y : y2, points)) return;
  // Both tones may lie on one side of the level where a third colour is near.
  const t = v === w ? 0.5 : Math.min(1, Math.max(0, (level - v) / (w - v)));
  const at = { x: x + t * (x2 - x), y: y + t * (y2 - y) };
  if (!tones.isClean && pushStep(tones, at, points)) return;
  points.push(at.x + 0.5, at.y + 0.5);
};

/**
 * Pushes where a sharp straight edge passes a pixel of this tone: its foot as seen from the pixel's centre. Coverage of a
 * unit square by a half-plane is a trapezoid's integral in the distance; this is its inverse. False where the edge is soft,
 * or something else is near.
 */
function pushFoot(tones: Tones, x: number, y: number, points: number[]): boolean {
  const nw = tones.at(x - 1, y - 1);
  const n = tones.at(x, y - 1);
  const ne = tones.at(x + 1, y - 1);
  const west = tones.at(x - 1, y);
  const east = tones.at(x + 1, y);
  const sw = tones.at(x - 1, y + 1);
  const s = tones.at(x, y + 1);
  const se = tones.at(x + 1, y + 1);
  // Scharr's kernel, whose direction errs least.
  let gx = 3 * (ne - nw) + 10 * (east - west) + 3 * (se - sw);
  let gy = 3 * (sw - nw) + 10 * (s - n) + 3 * (se - ne);
  const length = Math.sqrt(gx * gx + gy * gy);
  if (length < 1e-6) return false;
  gx /= length;
  gy /= length;
  const own = tones.at(x, y);
  let dark = sample(tones, x - 1.5 * gx, y - 1.5 * gy);
  let light = sample(tones, x + 1.5 * gx, y + 1.5 * gy);
  if (!(light - dark >= SHARP)) {
    if (!tones.isClean) return false;
    // Across a line two pixels wide the tone comes back before it is far enough away; what lies next to the pixel has it all.
    dark = Math.min(nw, n, ne, west, own, east, sw, s, se);
    light = Math.max(nw, n, ne, west, own, east, sw, s, se);
    if (!(light - dark >= SHARP)) return false;
  }
  const share = Math.min(1, Math.max(0, (own - dark) / (light - dark)));
  const [p, q] = [Math.abs(gx), Math.abs(gy)];
  const d = distanceFor(share, Math.max(p, q), Math.min(p, q));
  points.push(x + 0.5 - d * gx, y + 0.5 - d * gy);
  return true;
}

/** A soft edge is followed this far to either side of where it seems to be, in such steps, px. */
const [REACH, FINE] = [2, 0.5];
/** Tones at its ends are this near to those of the two sides, and it has moved no further than this, px. */
const [PLATEAU, MOST_MOVE] = [0.25, 0.9];
/** Where a level lies further than this from the middle of a step, an edge at another height of it is meant. */
const OFF_MIDDLE = 0.1;

/**
 * Pushes where a soft or spoilt edge runs: a step of any even softness lies where the sum of its tones along the normal puts it,
 * taken over three lines side by side, in which grain and ringing are less. False where there is no such step.
 * @param at where neighbouring pixels put it, in pixel numbers
 */
function pushStep(tones: Tones, { x: px, y: py }: { x: number; y: number }, points: number[]): boolean {
  // The slope over five pixels each way, as a mean of bilinear samples around the place.
  let gx = 0;
  let gy = 0;
  for (let k = -1; k <= 1; k++) {
    gx += sample(tones, px + 1.25, py + k) - sample(tones, px - 1.25, py + k);
    gy += sample(tones, px + k, py + 1.25) - sample(tones, px + k, py - 1.25);
  }
  const length = Math.hypot(gx, gy);
  if (length < 0.5) return false;
  gx /= length;
  gy /= length;
  const toneAt = (d: number) => {
    const [u, s] = [px + d * gx, py + d * gy];
    return (sample(tones, u, s) + sample(tones, u - gy, s + gx) + sample(tones, u + gy, s - gx)) / 3;
  };
  const [dark, light] = [toneAt(-REACH), toneAt(REACH)];
  if (dark > PLATEAU || light < 1 - PLATEAU || Math.abs(tones.level - (dark + light) / 2) > OFF_MIDDLE) return false;
  let sum = 0;
  for (let d = -REACH + FINE / 2; d < REACH; d += FINE) sum += toneAt(d) - dark;
  // All light from the place on is half of them.
  const move = REACH - (FINE * sum) / (light - dark);
  if (Math.abs(move) > MOST_MOVE) return false;
  points.push(px + 0.5 + move * gx, py + 0.5 + move * gy);
  return true;
}

/** Bilinear, in pixel numbers. */
function sample(tones: Tones, x: number, y: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const u = x - i;
  const v = y - j;
  const a = tones.at(i, j);
  const b = tones.at(i + 1, j);
  const c = tones.at(i, j + 1);
  const d = tones.at(i + 1, j + 1);
  const top = a + u * (b - a);
  return top + v * (c + u * (d - c) - top);
}

/**
 * Signed distance of a unit square's centre from the edge of a half-plane that covers `share` of it; positive for more
 * than a half. @param a larger, @param b smaller component of the unit normal
 */
export function distanceFor(share: number, a: number, b: number): number {
  const more = Math.max(share, 1 - share);
  const sign = share >= 0.5 ? 1 : -1;
  const flat = (a - b) / 2;
  // Up to `flat` the edge crosses two opposite sides, beyond it cuts off a corner.
  const d = (more - 0.5) * a <= flat ? (more - 0.5) * a : (a + b) / 2 - Math.sqrt(2 * a * b * (1 - more));
  return sign * d;
}

// difference.ts — where a picture and what was traced from it disagree, pixel by pixel.
import type { Shape } from '../drawing.ts';
import { coverOf, movedShape } from '../outline/cover.ts';
import { boundsOf, ringsOf } from '../outline/measure.ts';
import { labDistance, labOf, luma } from '../picture/colour.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { drawnPixels } from '../picture/drawn.ts';
import { greyOf, histogramOf } from '../picture/grey.ts';
import { otsu, setLevel } from '../picture/steps/threshold.ts';
import type { Picture, Prepared } from '../picture/types.ts';
import type { TraceSettings } from './settings.ts';

export interface Difference {
  readonly width: number;
  readonly height: number;
  /** For each pixel 0 where they agree, 1 where the outlines miss what the picture has, 2 where they add to it. */
  readonly map: Uint8Array;
  readonly missing: number;
  readonly added: number;
  /** Pixels that either of them takes as drawn. */
  readonly drawn: number;
}

/** Colours further apart than this are different ones. */
const UNLIKE = 0.14;

/**
 * Compares form at the centres of pixels, whatever colours the shapes have. With ink: which side of its edge they are on. With
 * tones and colours: whether they have the colour that the picture mostly has under the shape that lies there.
 * @param shapes in paint order, in pixels of the source, without those that were discarded
 * @param isByHand for shapes that were not traced, of which one may cover several colours: whether anything is drawn there
 */
export function differenceOf(
  prepared: Prepared,
  shapes: readonly Shape[],
  settings: TraceSettings,
  isByHand = false,
): Difference {
  const { width, height } = prepared.picture;
  const painted = paint(prepared, shapes);
  const map = new Uint8Array(width * height);
  let [missing, added, drawn] = [0, 0, 0];
  const set = (i: number, wanted: boolean, has: boolean, isSame: boolean) => {
    if (wanted || has) drawn++;
    if (isSame) return;
    map[i] = wanted ? 1 : 2;
    if (wanted) missing++;
    else added++;
  };
  if (settings.mode === 'ink' || settings.mode === 'centreline') {
    const grey = greyOf(prepared.picture, settings.ink);
    const level = setLevel(prepared, settings.ink) ?? otsu(histogramOf(grey)).level;
    for (let i = 0; i < map.length; i++) {
      const [wanted, has] = [grey.values[i]! < level, painted[i]! > 0];
      set(i, wanted, has, wanted === has);
    }
    return { width, height, map, missing, added, drawn };
  }
  if (isByHand) {
    const isDrawn = drawnPixels(prepared.picture);
    for (let i = 0; i < map.length; i++) {
      const [wanted, has] = [isDrawn(i % width, Math.floor(i / width)), painted[i]! > 0];
      set(i, wanted, has, wanted === has);
    }
    return { width, height, map, missing, added, drawn };
  }
  const { data } = prepared.picture;
  const labs = coloursUnder(painted, data, shapes.length).map((rgb) => labOf(...rgb));
  const greys = settings.mode === 'tones';
  for (let i = 0; i < map.length; i++) {
    const top = painted[i]!;
    const [r, g, b] = [data[4 * i]!, data[4 * i + 1]!, data[4 * i + 2]!];
    const wanted = data[4 * i + 3]! > 127 && (top > 0 || !isLight(r, g, b));
    const v = Math.round(255 * luma(r, g, b));
    const isAlike = () => labDistance(greys ? labOf(v, v, v) : labOf(r, g, b), labs[top - 1]!) <= UNLIKE;
    set(i, wanted, top > 0, top > 0 ? wanted && isAlike() : !wanted);
  }
  return { width, height, map, missing, added, drawn };
}

/** The colour in the middle of those that the picture has under each shape, channel by channel. */
function coloursUnder(painted: Uint32Array, data: Picture['data'], shapes: number): [number, number, number][] {
  const starts = new Uint32Array(shapes + 2);
  for (const n of painted) starts[n + 1]!++;
  for (let n = 1; n < starts.length; n++) starts[n]! += starts[n - 1]!;
  const pixels = new Uint32Array(painted.length);
  const next = starts.slice();
  for (const [i, n] of painted.entries()) pixels[next[n]!++] = i;
  return Array.from({ length: shapes }, (_, shape) => {
    const own = pixels.subarray(starts[shape + 1], starts[shape + 2]);
    const middle = (channel: number) =>
      Uint8Array.from(own, (i) => data[4 * i + channel]!).sort()[own.length >> 1] ?? 0;
    return [middle(0), middle(1), middle(2)];
  });
}

/** Paper, which need not be covered. */
const isLight = (r: number, g: number, b: number) => luma(r, g, b) > 0.85;

/** Number of the topmost shape at each pixel's centre, counted from 1; 0 where there is none. */
function paint({ picture: { width, height }, frame }: Prepared, shapes: readonly Shape[]): Uint32Array {
  const top = new Uint32Array(width * height);
  const toPixels = [1 / frame.scale, 0, 0, 1 / frame.scale, -frame.x / frame.scale, -frame.y / frame.scale] as const;
  for (const [n, shape] of shapes.entries()) {
    const regions = coverOf(movedShape(shape, toPixels), 0.05);
    // Only rows and columns the shape spans.
    const rings = ringsOf(regions);
    const box = boundsOf(rings);
    if (!box) continue;
    const { minX, minY, maxX, maxY } = box;
    const [x0, y0] = [Math.max(0, Math.floor(minX)), Math.max(0, Math.floor(minY))];
    const [w, h] = [Math.min(width, Math.ceil(maxX)) - x0, Math.min(height, Math.ceil(maxY)) - y0];
    if (w <= 0 || h <= 0) continue;
    const shifted = rings.map((ring) => ring.map((v, i) => v - (i % 2 === 0 ? x0 : y0)));
    const { values } = renderCoverage(shifted, w, h);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) if (values[y * w + x]! < 0.5) top[(y0 + y) * width + x0 + x] = n + 1;
    }
  }
  return top;
}

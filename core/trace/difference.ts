// difference.ts — where a picture and what was traced from it disagree, pixel by pixel.
import type { Shape } from '../drawing.ts';
import { coverOf, movedShape } from '../outline/cover.ts';
import { boundsOf, ringsOf } from '../outline/measure.ts';
import { labDistance, labOf, luma, rgbOfHex } from '../picture/colour.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { greyOf, histogramOf } from '../picture/grey.ts';
import { otsu, setLevel } from '../picture/steps/threshold.ts';
import type { Prepared } from '../picture/types.ts';
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
 * Compares pixel centres: with ink, which side of the edge they are on; with tones and colours, whether they have the
 * colour that is painted there.
 * @param shapes in paint order, in pixels of the source, without those that were discarded
 */
export function differenceOf(prepared: Prepared, shapes: readonly Shape[], settings: TraceSettings): Difference {
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
  const { data } = prepared.picture;
  const labs = shapes.map(({ colour }) => labOf(...rgbOfHex(colour)));
  const greys = settings.mode === 'tones';
  for (let i = 0; i < map.length; i++) {
    const [wanted, top] = [data[4 * i + 3]! > 127, painted[i]!];
    const [r, g, b] = [data[4 * i]!, data[4 * i + 1]!, data[4 * i + 2]!];
    const v = Math.round(255 * luma(r, g, b));
    const isSame =
      top > 0
        ? wanted && labDistance(greys ? labOf(v, v, v) : labOf(r, g, b), labs[top - 1]!) <= UNLIKE
        : !wanted || isLight(r, g, b);
    set(i, wanted, top > 0, isSame);
  }
  return { width, height, map, missing, added, drawn };
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

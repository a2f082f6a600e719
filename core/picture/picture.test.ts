// Colours and steps of the preparation, against published values and what the steps promise.
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import { greyRows, painting, reds } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { labOf, labOfLinear, rgbOf, toEncoded, toLinear } from './colour.ts';
import { componentsOf } from './components.ts';
import { drawnArea } from './drawn.ts';
import { greyOf, histogramOf } from './grey.ts';
import { applyAction, prepare, type StepAction, unprepared } from './prepare.ts';
import { otsu } from './steps/threshold.ts';
import type { Picture } from './types.ts';

const stepped = (picture: Picture, action: StepAction) => applyAction(unprepared(picture), action);
const disc = (cx: number, cy: number, r: number) => flatten(ellipsePath(cx, cy, r, r), 0.001)[0]!;

describe('colours', () => {
  it('follow the sRGB transfer (IEC 61966-2-1: linear below 0.04045, exponent 2.4 above)', () => {
    // Mid grey 0.5 and byte 188 are handbook values; the rest follows from the formula.
    expect(toLinear(0.04045)).toBeCloseTo(0.04045 / 12.92, 12);
    expect(toLinear(0.5)).toBeCloseTo(0.21404, 5);
    expect(Math.round(255 * toEncoded(0.5))).toBe(188);
    for (const v of [0, 0.001, 0.02, 0.3, 0.9, 1]) expect(toEncoded(toLinear(v))).toBeCloseTo(v, 10);
  });

  // Björn Ottosson, "A perceptual color space for image processing" (2020): table of XYZ and OKLab pairs, three decimals.
  it.each([
    [
      [0.95, 1, 1.089],
      [1, 0, 0],
    ],
    [
      [1, 0, 0],
      [0.45, 1.236, -0.019],
    ],
    [
      [0, 1, 0],
      [0.922, -0.671, 0.263],
    ],
    [
      [0, 0, 1],
      [0.153, -1.415, -0.449],
    ],
  ])('turn XYZ %j into OKLab %j', ([x, y, z], expected) => {
    // XYZ to linear sRGB: the inverse of the matrix in IEC 61966-2-1.
    const linear = [
      3.2404542 * x! - 1.5371385 * y! - 0.4985314 * z!,
      -0.969266 * x! + 1.8760108 * y! + 0.041556 * z!,
      0.0556434 * x! - 0.2040259 * y! + 1.0572252 * z!,
    ];
    const lab = labOfLinear(linear[0]!, linear[1]!, linear[2]!);
    for (const [i, value] of expected.entries()) expect(lab[i]).toBeCloseTo(value, 2);
  });

  it('come back from OKLab', () => {
    for (const [r, g, b] of [
      [0, 0, 0],
      [255, 255, 255],
      [31, 92, 87],
      [201, 89, 63],
    ] as const)
      expect(rgbOf(labOf(r, g, b))).toEqual([r, g, b]);
  });
});

describe('Otsu’s threshold', () => {
  // The worked example of A. Greensted, "Otsu Thresholding" (The Lab Book Pages): 6 × 6 pixels of six greys. Its table has
  // the least within-class variance, 0.4909, with levels 0–2 dark and 3–5 light.
  const histogram = [8, 7, 2, 6, 9, 4];

  it('parts the worked example where its table does', () => {
    const { bin, between } = otsu(histogram);
    expect(bin).toBe(2);
    const mean = histogram.reduce((sum, n, i) => sum + n * i, 0) / 36;
    const whole = histogram.reduce((sum, n, i) => sum + n * (i - mean) ** 2, 0) / 36;
    expect(whole - between).toBeCloseTo(0.4909, 3);
  });

  it('says how well the classes part, and nothing of a single tone', () => {
    expect(otsu([50, 0, 0, 50]).separation).toBeCloseTo(1, 10);
    expect(otsu([0, 0, 100, 0])).toMatchObject({ between: 0, separation: 0 });
    // Between the means of two peaks, whatever their sizes.
    expect(otsu([0, 90, 0, 0, 0, 0, 0, 0, 0, 10, 0]).level).toBeCloseTo(0.5, 10);
  });
});

describe('parts of a map', () => {
  it('hold together by sides, by corners where asked', () => {
    const map = Uint8Array.of(1, 0, 1, 0, 1, 0, 1, 0, 1);
    expect(componentsOf(map, 3, 3).areas).toHaveLength(9);
    const { areas, labels } = componentsOf(map, 3, 3, (label) => label === 1);
    expect([...areas].filter((_, i) => labels[i] === 1)).toEqual([5]);
  });

  it('agree with a flood fill on random maps', () => {
    let state = 7;
    const random = () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state / 2 ** 32;
    };
    for (let round = 0; round < 60; round++) {
      const [width, height] = [3 + Math.floor(14 * random()), 3 + Math.floor(14 * random())];
      const map = Uint8Array.from({ length: width * height }, () => Math.floor(3 * random()));
      const isDiagonal = (label: number) => label === 1;
      const { of } = componentsOf(map, width, height, isDiagonal);
      expect(new Set(Array.from(of, (part, i) => `${part} ${flood(map, width, height, i, isDiagonal)}`)).size).toBe(
        new Set(of).size,
      );
    }
  });
});

/** The first pixel, in reading order, that a flood from `start` reaches. */
function flood(
  map: Uint8Array,
  width: number,
  height: number,
  start: number,
  isDiagonal: (label: number) => boolean,
): number {
  const seen = new Set([start]);
  for (const i of seen) {
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        if (dx !== 0 && dy !== 0 && !isDiagonal(map[start]!)) continue;
        const [x, y] = [(i % width) + dx, Math.floor(i / width) + dy];
        if (x >= 0 && y >= 0 && x < width && y < height && map[y * width + x] === map[start]) seen.add(y * width + x);
      }
    }
  }
  return Math.min(...seen);
}

describe('steps', () => {
  const small = greyRows([10, 20, 30], [40, 50, 60]);

  it('crop to whole pixels, and remember where that was', () => {
    const { picture, frame } = stepped(small, {
      do: 'crop',
      area: { x: 0.34, y: 0, width: 0.66, height: 0.5 },
      ratio: null,
    });
    expect(reds(picture)).toEqual([[20, 30]]);
    expect(frame).toEqual({ scale: 1, x: 1, y: 0 });
  });

  it('flip and rotate pixel for pixel, about the middle', () => {
    expect(reds(stepped(small, { do: 'flip', way: 'across' }).picture)).toEqual([
      [30, 20, 10],
      [60, 50, 40],
    ]);
    expect(reds(stepped(small, { do: 'flip', way: 'upside-down' }).picture)[0]).toEqual([40, 50, 60]);
    const { picture, frame } = stepped(small, { do: 'rotate', by: 90 });
    expect(reds(picture)).toEqual([
      [40, 10],
      [50, 20],
      [60, 30],
    ]);
    expect(frame).toEqual({ scale: 1, x: 0.5, y: -0.5 });
    const round = [90, 90, 90, 90] as const;
    const turned = round.reduce((done, by) => applyAction(done, { do: 'rotate', by }), unprepared(small));
    expect(reds(turned.picture)).toEqual(reds(small));
    expect(reds(stepped(small, { do: 'rotate', by: 180 }).picture)).toEqual([
      [60, 50, 40],
      [30, 20, 10],
    ]);
  });

  it('straighten: a bar turned by 7° and back again stands upright', () => {
    const bar = painting(80, 80, '#ffffff', [[[rectangle(30, 10, 20, 60)], '#000000']]);
    const turned = stepped(bar, { do: 'straighten', by: 7 });
    const back = applyAction(turned, { do: 'straighten', by: -7 });
    // The middle of the picture stays where it was, so that the ink has the same mass about the same place.
    const ink = (picture: Picture) => greyOf(picture).values.reduce((sum, v) => sum + 1 - v, 0);
    expect(ink(back.picture)).toBeCloseTo(1200, -1);
    const { frame, picture } = back;
    const at = (x: number, y: number) =>
      picture.data[4 * (Math.floor(y - frame.y) * picture.width + Math.floor(x - frame.x))]!;
    expect([at(33, 40), at(47, 40), at(27, 40), at(53, 40)].map((v) => v > 128)).toEqual([false, false, true, true]);
  });

  it('resample: a ramp stays a ramp, a flat tone stays flat, ×5 is five times the pixels', () => {
    const flat = stepped(greyRows([90, 90, 90], [90, 90, 90]), { do: 'resample', factor: 5 });
    expect(flat.picture).toMatchObject({ width: 15, height: 10 });
    expect(flat.frame.scale).toBeCloseTo(0.2, 12);
    expect(new Set(reds(flat.picture).flat())).toEqual(new Set([90]));
    const ramp = stepped(greyRows(Array.from({ length: 32 }, (_, i) => 8 * i)), { do: 'resample', factor: 2 }).picture;
    // Between the ends the filter gives the ramp back: pixel i lies at (i + 0.5) / 2 − 0.5 of the old ones.
    for (let i = 8; i < 56; i++) expect(Math.abs(reds(ramp)[0]![i]! - 8 * ((i + 0.5) / 2 - 0.5))).toBeLessThan(1.5);
  });

  it('resample down keeps the mean, and refuses what would be too large', () => {
    const fine = painting(96, 96, '#ffffff', [[[disc(48, 48, 30)], '#000000']]);
    const mean = (picture: Picture) =>
      greyOf(picture).values.reduce((sum, v) => sum + v, 0) / greyOf(picture).values.length;
    expect(mean(stepped(fine, { do: 'resample', factor: 0.25 }).picture)).toBeCloseTo(mean(fine), 2);
    const wide = { width: 8000, height: 1000, data: new Uint8ClampedArray(4 * 8_000_000) };
    expect(() => stepped(wide, { do: 'resample', factor: 3 })).toThrow(
      /would make 24000 × 3000 pixels; ×2\.23 is the most/,
    );
  });

  it('levels: black, white and gamma, in encoded values or in light', () => {
    const levels = (space: 'encoded' | 'linear', gamma = 1) =>
      reds(
        stepped(greyRows([0, 51, 128, 204, 255]), { do: 'levels', black: 0.2, white: 0.8, gamma, space }).picture,
      )[0];
    expect(levels('encoded')).toEqual([0, 0, 128, 255, 255]);
    // Half way with gamma 2 is √½ of white.
    expect(levels('encoded', 2)![2]).toBe(Math.round(255 * Math.sqrt((128 / 255 - 0.2) / 0.6)));
    const light = (toLinear(128 / 255) - toLinear(0.2)) / (toLinear(0.8) - toLinear(0.2));
    expect(levels('linear')![2]).toBe(Math.round(255 * toEncoded(light)));
  });

  it('threshold keeps the greys and the level; what follows carries the level along', () => {
    const scan = greyRows([40, 40, 200, 200], [40, 120, 200, 200]);
    const { picture, level } = stepped(scan, { do: 'threshold', level: null });
    expect(reds(picture)).toEqual(reds(scan));
    expect(level! * 255).toBeGreaterThan(110);
    const set = applyAction(unprepared(scan), { do: 'threshold', level: 0.3 });
    expect(applyAction(set, { do: 'invert' }).level).toBeCloseTo(0.7, 12);
    expect(applyAction(set, { do: 'levels', black: 0.2, white: 0.4, gamma: 1, space: 'encoded' }).level).toBeCloseTo(
      0.5,
      12,
    );
  });

  it('remove the ground from the border inward: what it encloses stays, fringes become part transparent', () => {
    const ring = painting(60, 60, '#f4f0e6', [
      [[disc(30.3, 30.3, 22)], '#20344a'],
      [[disc(30.3, 30.3, 10)], '#f4f0e6'],
    ]);
    const { data } = stepped(ring, { do: 'ground', by: 'colour', reach: 0.08 }).picture;
    const alpha = (x: number, y: number) => data[4 * (y * 60 + x) + 3]!;
    expect([alpha(2, 2), alpha(30, 12), alpha(30, 30)]).toEqual([0, 255, 255]);
    // The covered area of the disc with its hole still enclosed: π · 22².
    const sum = data.reduce((total, v, i) => total + (i % 4 === 3 ? v / 255 : 0), 0);
    expect(Math.abs(sum - Math.PI * 484)).toBeLessThan(0.01 * Math.PI * 484);
  });

  it('remove what is faint', () => {
    const { picture } = stepped(
      { width: 3, height: 1, data: Uint8ClampedArray.of(9, 9, 9, 60, 9, 9, 9, 191, 9, 9, 9, 255) },
      { do: 'ground', by: 'alpha', reach: 0.5 },
    );
    expect([picture.data[3], picture.data[7], picture.data[11]]).toEqual([0, 127, 255]);
  });

  const dirty = painting(60, 60, '#e8e8e8', [
    [[disc(30, 30, 15)], '#202020'],
    [[disc(30, 30, 1.6)], '#e8e8e8'],
    [[disc(8, 8, 1.6)], '#202020'],
    [[rectangle(50, 40, 8, 12)], '#202020'],
  ]);
  const darkAt =
    ({ picture }: { picture: Picture }) =>
    (x: number, y: number) =>
      picture.data[4 * (y * 60 + x)]! < 128;

  it('despeckle by area: specks go, pinholes are filled, everything else stays', () => {
    const dark = darkAt(stepped(dirty, { do: 'specks', ink: 20, holes: 20 }));
    expect([dark(8, 8), dark(30, 30), dark(30, 20), dark(53, 45)]).toEqual([false, true, true, true]);
    const kept = darkAt(stepped(dirty, { do: 'specks', ink: 2, holes: 2 }));
    expect([kept(8, 8), kept(30, 30)]).toEqual([true, false]);
  });

  it('pick one part by a region', () => {
    const dark = darkAt(stepped(dirty, { do: 'part', area: { x: 0.2, y: 0.2, width: 0.55, height: 0.55 } }));
    expect([dark(8, 8), dark(30, 20), dark(53, 45)]).toEqual([false, true, false]);
  });

  it('soften: a step becomes the integral of a Gaussian', () => {
    const step = greyRows(...Array.from({ length: 9 }, () => [...new Array(12).fill(0), ...new Array(12).fill(255)]));
    const [row] = reds(stepped(step, { do: 'soften', radius: 1.5 }).picture).slice(4);
    // Φ(x / σ) at x = ±0.5, ±1.5, ±2.5 px for σ = 1.5: standard tables give 0.6306, 0.8413, 0.9522.
    for (const [i, share] of [0.6306, 0.8413, 0.9522].entries()) {
      expect(row![12 + i]! / 255).toBeCloseTo(share, 1);
      expect(row![11 - i]! / 255).toBeCloseTo(1 - share, 1);
    }
  });

  it('run in order; those that are off are passed over', () => {
    const steps = [
      { id: 'a', on: true, action: { do: 'crop', area: { x: 0, y: 0, width: 0.67, height: 1 }, ratio: null } },
      { id: 'b', on: false, action: { do: 'invert' } },
      { id: 'c', on: true, action: { do: 'flip', way: 'across' } },
    ] as const;
    const shares: number[] = [];
    expect(reds(prepare(small, steps, (share) => shares.push(share)).picture)).toEqual([
      [20, 10],
      [50, 40],
    ]);
    expect(shares).toEqual([0.5, 1]);
  });
});

describe('greys', () => {
  it('take transparency as paper, or as what there is', () => {
    const white = { width: 2, height: 1, data: Uint8ClampedArray.of(255, 255, 255, 255, 0, 0, 0, 0) };
    expect([...greyOf(white, 'dark').values]).toEqual([1, 1]);
    expect([...greyOf(white, 'opaque').values]).toEqual([0, 1]);
    expect(greyOf(white, 'light').values[0]).toBeCloseTo(0, 6);
    expect(histogramOf(greyOf(white))[255]).toBe(2);
  });
});

describe('what is drawn', () => {
  it('is boxed, on light and dark grounds, and where the ground is clear', () => {
    for (const [ground, ink, alpha] of [
      [245, 20, 255],
      [15, 240, 255],
      [0, 0, 0],
    ] as const) {
      const data = new Uint8ClampedArray(4 * 20 * 10);
      for (let i = 0; i < 200; i++) {
        const isDrawn = i % 20 >= 4 && i % 20 < 9 && i / 20 >= 3 && i / 20 < 5;
        const v = isDrawn ? ink : ground;
        data.set([v, v, v, isDrawn ? 255 : alpha], 4 * i);
      }
      expect(drawnArea({ width: 20, height: 10, data })).toEqual({ x: 0.2, y: 0.3, width: 0.25, height: 0.2 });
    }
    expect(drawnArea({ width: 2, height: 2, data: new Uint8ClampedArray(16).fill(255) })).toBeNull();
  });
});

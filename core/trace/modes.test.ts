// The flat colours of pictures that were painted with known ones.
import { describe, expect, it } from 'vitest';
import { hexOf, rgbOfHex } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { rectangle, regularPolygon } from '../testing/shapes.ts';
import { settledLabels } from './labels.ts';
import { flatColours, merged } from './modes.ts';
import { planesOf, rgbOfShade, shadeOf } from './planes.ts';
import { withThinColours } from './thin-colours.ts';

const found = (picture: Picture) =>
  flatColours(planesOf(picture, false), 64).modes.map(({ shade }) => rgbOfShade(shade));
const names = (picture: Picture) => found(picture).map(hexOf).toSorted();

describe('flat colours', () => {
  it('are two that differ by a little in a clean picture', () => {
    const pale = painting(100, 80, '#ffffff', [[[regularPolygon(7, 25.3, 0.2, 50, 40)], '#e8f1f2']]);
    expect(names(pale)).toEqual(['#e8f1f2', '#ffffff']);
  });

  it('need a few pixels that are flat all around, whatever their share of the sheet', () => {
    const spot = (side: number) => painting(400, 300, '#ffffff', [[[rectangle(100, 100, side, side)], '#20344a']]);
    expect(names(spot(4))).toEqual(['#20344a', '#ffffff']);
    expect(names(spot(2))).toEqual(['#ffffff']);
  });

  it('are none along edges, sharp or soft, nor made by noise', () => {
    const flag = painting(160, 120, '#f4efe2', [
      [[rectangle(20.3, 20.4, 120.2, 40.3)], '#2f6f60'],
      [[rectangle(20.3, 60.7, 120.2, 40.1)], '#20344a'],
    ]);
    for (const picture of [flag, softened(flag, 1), softened(flag, 2)]) {
      expect(names(picture)).toEqual(['#20344a', '#2f6f60', '#f4efe2']);
    }
    for (const deviation of [2, 6, 10]) {
      const colours = found(noisy(flag, deviation));
      expect(colours).toHaveLength(3);
      for (const colour of ['#20344a', '#2f6f60', '#f4efe2'].map(rgbOfHex)) {
        const nearest = Math.min(...colours.map((rgb) => Math.hypot(...rgb.map((v, c) => v - colour[c]!))));
        // A mean over hundreds of pixels, and what is cut off at white.
        expect(nearest).toBeLessThan(4);
      }
    }
  });

  it('are not the middle of a soft edge between two that are alike', () => {
    const pale = painting(160, 120, '#ffffff', [[[regularPolygon(9, 40.3, 0.1, 80, 60)], '#e1e8ed']]);
    expect(found(noisy(softened(pale, 2), 6))).toHaveLength(2);
  });

  it('are the tones of a picture that is flat nowhere, and grain on a sheet is none', () => {
    const sheet = painting(160, 120, '#8c8c8c', []);
    expect(found(noisy(sheet, 16))).toHaveLength(1);
    // Waves of 70 bytes in grain of 16: any mean over a neighbourhood of the noise comes to their middle.
    const waves = structuredClone(sheet);
    for (let i = 0; i < 160 * 120; i++) {
      const tone = 140 + 70 * Math.sin((i % 160) / 13);
      waves.data.set([tone, tone, tone], 4 * i);
    }
    const tones = found(noisy(waves, 16)).map(([red]) => red);
    expect(Math.max(...tones) - Math.min(...tones)).toBeGreaterThan(100);
  });

  it('become fewer by joining those whose union adds the least: Ward’s weights', () => {
    const modes = [
      { shade: [0, 0, 0], core: 1000 },
      { shade: [10, 0, 0], core: 1000 },
      { shade: [50, 0, 0], core: 10 },
      { shade: [100, 0, 0], core: 1000 },
    ] as const;
    // 10·1000/1010 · 40² = 15,842 against 1000·1000/2000 · 10² = 50,000.
    expect(merged(modes, 3).map(({ core }) => core)).toEqual([1000, 1010, 1000]);
    expect(merged(modes, 3)[1]!.shade[0]).toBeCloseTo((10 * 1000 + 50 * 10) / 1010, 9);
    expect(merged(modes, 1)).toHaveLength(1);
  });

  it('are measured in bytes that come back as the same colours', () => {
    for (const hex of ['#000000', '#ffffff', '#1f5c57', '#ff0000', '#0000ff', '#7f3fbf']) {
      expect(hexOf(rgbOfShade(shadeOf(rgbOfHex(hex))))).toBe(hex);
    }
  });
});

describe('a picture that is flat nowhere', () => {
  const grain = noisy(painting(96, 64, '#808080', []), 70);

  it('has the colours that most of its pixels have', () => {
    expect(flatColours(planesOf(grain, false), 64).modes.length).toBeGreaterThan(0);
  });

  it('has no thin lines: the crests of grain are none', () => {
    const planes = planesOf(grain, false);
    const { modes, cores } = flatColours(planes, 64);
    const shades = modes.map(({ shade }) => shade);
    expect(withThinColours(planes, settledLabels(planes, cores, shades), shades).shades).toEqual(shades);
  });
});

// One surface is one piece: shadows, gradients and falling light have no edges, two colours side by side have.
import { describe, expect, it } from 'vitest';
import type { Picture } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { traceFlats } from './flats.ts';

const coloursOf = (picture: Picture) =>
  traceFlats(picture, {
    isGrey: false,
    count: null,
    picked: [],
    layering: 'stacked',
    detail: 4,
    corner: 0.44,
    smooth: null,
  }).colours;

/** Every pixel made darker by a share of its place. */
const shaded = (picture: Picture, light: (x: number, y: number) => number): Picture => ({
  ...picture,
  data: picture.data.map((v, i) =>
    i % 4 === 3 ? v : v * light((i >> 2) % picture.width, Math.floor((i >> 2) / picture.width)),
  ),
});

describe('one surface', () => {
  it('a card on paper and its soft shadow: the shadow is a part of the paper, or one rim', () => {
    const shadow = softened(
      softened(
        painting(
          200,
          160,
          '#eef1f4',
          [[rectangle(54, 44, 100, 80), '#a0a4a8']].map(([ring, colour]) => [[ring as Float64Array], colour as string]),
        ),
        8,
      ),
      8,
    );
    const [card] = [painting(200, 160, '#000000', [[[rectangle(46, 36, 100, 80)], '#2c7a6b']])];
    const data = shadow.data.slice();
    for (let i = 0; i < 200 * 160; i++) {
      const [x, y] = [i % 200, Math.floor(i / 200)];
      if (x >= 46 && x < 146 && y >= 36 && y < 116) data.set(card!.data.subarray(4 * i, 4 * i + 4), 4 * i);
    }
    const colours = coloursOf({ ...shadow, data });
    expect(colours.length).toBeLessThanOrEqual(3);
    expect(colours.map(({ colour }) => colour)).toContain('#2c7a6b');
  });

  it('never takes all of a picture: one that is nothing but a soft change keeps its tones', () => {
    const dusk = shaded(painting(240, 160, '#f0d8b0', []), (_, y) => 1 - y / 220);
    expect(coloursOf(dusk).length).toBeGreaterThan(1);
  });

  it('a wall on which the light falls off, with grain', () => {
    const wall = noisy(
      shaded(painting(240, 160, '#cfc8b8', [[[rectangle(60, 40, 90, 70)], '#963427']]), (x) => 1 - x / 900),
      3,
    );
    expect(coloursOf(wall)).toHaveLength(2);
  });
});

describe('two colours', () => {
  it('that differ by little stay two where an edge parts them, wide or thin, alone or beside a third', () => {
    // Eleven bytes of luma apart.
    const near = painting(200, 160, '#ffffff', [
      [[rectangle(20, 20, 80, 120)], '#e7d7a8'],
      [[rectangle(100, 20, 80, 120)], '#d9cb9f'],
      [[rectangle(40, 40, 3, 80)], '#d9cb9f'],
      [[rectangle(120, 60, 40, 6)], '#e7d7a8'],
    ]);
    const colours = coloursOf(near);
    expect(colours.map(({ colour }) => colour).sort()).toEqual(['#d9cb9f', '#e7d7a8', '#ffffff']);
    expect(colours.find(({ colour }) => colour === '#d9cb9f')!.pieces).toHaveLength(2);
  });

  it('that meet only in specks stay two: what rings beside an edge looks like white in near-white', () => {
    const sign = painting(240, 160, '#ffffff', [
      [[rectangle(20, 20, 200, 120)], '#ff822d'],
      [[rectangle(50, 40, 24, 80)], '#fcf2ff'],
      [[rectangle(110, 40, 24, 80)], '#fcf2ff'],
      [[rectangle(170, 40, 24, 80)], '#fcf2ff'],
    ]);
    const data = sign.data.slice();
    // Swells to white and back within a stroke, without an edge.
    for (let y = 60; y < 80; y++) {
      for (let x = 50; x < 74; x++) {
        const swell = Math.max(0, 1 - Math.hypot(x - 62, y - 70) / 9);
        for (let c = 0; c < 3; c++) {
          const i = 4 * (240 * y + x) + c;
          data[i] = data[i]! + swell * (255 - data[i]!);
        }
      }
    }
    expect(coloursOf({ ...sign, data }).map(({ colour }) => colour)).toContain('#fcf2ff');
  });

  it('in narrow bands between others stay apart', () => {
    const bands = painting(200, 120, '#ffffff', [
      [[rectangle(20, 20, 160, 30)], '#20344a'],
      [[rectangle(20, 50, 160, 6)], '#5a4a8a'],
      [[rectangle(20, 56, 160, 6)], '#4a3a78'],
      [[rectangle(20, 62, 160, 30)], '#c9593f'],
    ]);
    expect(coloursOf(bands)).toHaveLength(5);
  });
});

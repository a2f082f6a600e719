// The light on a sheet of paper, against the light it was made with.
import { describe, expect, it } from 'vitest';
import { noisy, painting } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { nearPaper, type Paper, smoothPaper } from './paper.ts';
import { unprepared } from './prepare.ts';
import { light as evened } from './steps/light.ts';
import type { Picture } from './types.ts';

const [WIDTH, HEIGHT] = [256, 192];

const lit = (picture: Picture, light: (x: number, y: number) => number): Picture => ({
  ...picture,
  data: picture.data.map((v, i) => {
    const pixel = i >> 2;
    return i % 4 === 3 ? v : v * light(((pixel % WIDTH) + 0.5) / WIDTH, (Math.floor(pixel / WIDTH) + 0.5) / HEIGHT);
  }),
});

/** Bars of ink on paper of luma 240. */
const SCAN = painting(WIDTH, HEIGHT, '#f0f0f0', [
  [[rectangle(40, 30, 160, 24)], '#181818'],
  [[rectangle(60, 90, 30, 80)], '#181818'],
  [[rectangle(130, 80, 90, 90)], '#181818'],
]);

const middles = ({ side, columns, values }: Paper) =>
  Array.from(values, (value, i) => ({
    x: ((i % columns) + 0.5) * side,
    y: (Math.floor(i / columns) + 0.5) * side,
    value,
  })).filter(({ x, y }) => x < WIDTH && y < HEIGHT);

describe('light that falls off evenly', () => {
  it.each([
    ['from one side to a quarter', (x: number) => 1 - 0.75 * x],
    ['from a corner', (x: number, y: number) => 1 - 0.5 * Math.hypot(x, y)],
    ['about a bright place', (x: number, y: number) => 0.25 + 0.75 * Math.exp(-3 * ((x - 0.4) ** 2 + (y - 0.5) ** 2))],
  ])('%s is found to a few hundredths', (_, light) => {
    const paper = smoothPaper(noisy(lit(SCAN, light), 2));
    for (const { x, y, value } of middles(paper)) {
      expect(Math.abs(value / ((240 / 255) * light(x / WIDTH, y / HEIGHT)) - 1)).toBeLessThan(0.08);
    }
    expect(paper.isSpread).toBe(true);
  });

  it('is told from ink that covers half of the sheet', () => {
    const disc = Float64Array.from({ length: 240 }, (_, i) => {
      const angle = (2 * Math.PI * Math.floor(i / 2)) / 120;
      return i % 2 === 0 ? WIDTH / 2 + 105 * Math.cos(angle) : HEIGHT / 2 + 80 * Math.sin(angle);
    });
    const light = (x: number) => 1 - 0.75 * x;
    const paper = smoothPaper(noisy(lit(painting(WIDTH, HEIGHT, '#f0f0f0', [[[disc], '#181818']]), light), 2));
    expect(paper.dark / paper.light).toBeGreaterThan(0.2);
    expect(paper.dark / paper.light).toBeLessThan(0.33);
  });

  it('divided out leaves ink and paper with one tone each', () => {
    const { picture } = evened(unprepared(lit(SCAN, (x) => 1 - 0.75 * x)), { do: 'light', by: 'surface', window: 40 });
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const [was, is] = [SCAN.data[4 * i]!, picture.data[4 * i]!];
      if (was === 240 || was === 24) expect(Math.abs(is / 255 - was / 255)).toBeLessThan(0.08);
    }
  });
});

describe('shadows with borders', () => {
  it('are followed where ink is thinner than the window', () => {
    const light = (x: number) => (x < 0.5 ? 1 : 0.4);
    const thin = painting(WIDTH, HEIGHT, '#f0f0f0', [[[rectangle(20, 60, 216, 6)], '#181818']]);
    for (const { x, value } of middles(nearPaper(lit(thin, light), 32))) {
      // Away from the border by more than it is looked around.
      if (Math.abs(x - WIDTH / 2) > 48) expect(value / ((240 / 255) * light(x / WIDTH))).toBeCloseTo(1, 1);
    }
  });

  it('a picture that can be seen through all over has no paper, and nothing is divided by nothing', () => {
    const clear: Picture = { width: 40, height: 30, data: new Uint8ClampedArray(4 * 40 * 30) };
    for (const by of ['surface', 'near'] as const) {
      const { picture } = evened(unprepared(clear), { do: 'light', by, window: 16 });
      expect(picture.data.every((v) => v === 0)).toBe(true);
    }
  });
});

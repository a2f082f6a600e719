// How one begins with a picture: what is switched on by itself, and what is not.
import { describe, expect, it } from 'vitest';
import { scaled } from '../picture/steps/resample.ts';
import type { Picture } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { rectangle, regularPolygon } from '../testing/shapes.ts';
import { adviceFor, edgeWidth, lookAt } from './look.ts';
import { startFor } from './start.ts';

const MARK = painting(256, 192, '#f0f0f0', [
  [[rectangle(40, 30, 160, 24)], '#181818'],
  [[regularPolygon(5, 50, 20, 110, 125)], '#181818'],
]);
const dimmed = (picture: Picture, light: (x: number) => number): Picture => ({
  ...picture,
  data: picture.data.map((v, i) => (i % 4 === 3 ? v : v * light(((i >> 2) % picture.width) / picture.width))),
});
const kinds = (picture: Picture) => startFor(picture).prepare.map(({ action }) => action.do);

describe('what a picture is like', () => {
  it('edges are as wide as the blur that made them: √(2π) of its deviation, where its middle is steepest', () => {
    expect(edgeWidth(MARK)!).toBeLessThan(2);
    // A mean of seven pixels is a ramp of seven.
    expect(edgeWidth(softened(MARK, 3))!).toBeGreaterThan(5.5);
    expect(edgeWidth(softened(MARK, 3))!).toBeLessThan(8);
    expect(edgeWidth(painting(64, 64, '#808080', []))).toBe(null);
  });

  it('light that falls off is measured, and not seen in flat drawings with grey grounds', () => {
    expect(
      Math.abs(
        lookAt(
          noisy(
            dimmed(MARK, (x) => 1 - 0.6 * x),
            2,
          ),
        ).shading - 0.4,
      ),
    ).toBeLessThan(0.06);
    expect(lookAt(MARK).shading).toBe(1);
    const halves = painting(256, 192, '#f0f0f0', [
      [[rectangle(128, 0, 128, 192)], '#9a9a9a'],
      [[rectangle(40, 60, 160, 50)], '#181818'],
    ]);
    expect(lookAt(halves).shading).toBe(1);
  });

  it('advice is given for pages of text and for what has no edges', () => {
    const letters = Array.from({ length: 240 }, (_, i) =>
      rectangle(6 + 12 * (i % 20), 6 + 15 * Math.floor(i / 20), 7, 9),
    );
    expect(adviceFor(lookAt(painting(256, 192, '#ffffff', [[letters, '#111111']])))).toMatch(/page of text/);
    expect(adviceFor(lookAt(painting(64, 64, '#808080', [])))).toMatch(/edge/);
    expect(adviceFor(lookAt(MARK))).toBe(null);
  });
});

describe('what is switched on by itself', () => {
  it('nothing for a clean drawing, and nothing for a noisy one', () => {
    expect(startFor(MARK)).toMatchObject({ prepare: [], warnings: [], trace: { mode: 'ink' } });
    expect(kinds(noisy(MARK, 6))).toEqual([]);
  });

  it('uneven light is divided out of a scan, which is then ink, and that is said', () => {
    const start = startFor(
      noisy(
        dimmed(MARK, (x) => 1 - 0.75 * x),
        3,
      ),
    );
    expect(start.prepare.map(({ action }) => action.do)).toEqual(['light']);
    expect(start.trace.mode).toBe('ink');
    expect(start.warnings.map(({ message }) => message).join()).toMatch(/falls off to 2\d %.*Even out the light/);
  });

  it('specks are painted over up to the size above which hardly any part is', () => {
    const dirt = Array.from({ length: 120 }, (_, i) => {
      const [x, y] = [(37 * i) % 250, (91 * i) % 180];
      return rectangle(x, y, 1 + (i % 3), 1 + (i % 2));
    });
    const start = startFor(
      painting(256, 192, '#f0f0f0', [
        [[rectangle(90, 60, 100, 60)], '#181818'],
        [dirt, '#181818'],
      ]),
    );
    const [step] = start.prepare;
    expect(step!.action).toMatchObject({ do: 'specks' });
    expect(start.warnings.map(({ code }) => code)).toEqual(['start-specks']);
  });

  it('a large picture is made smaller as far as its soft edges allow', () => {
    const large = scaled(MARK, 8);
    const start = startFor(large);
    const [step] = start.prepare;
    if (step?.action.do !== 'resample') throw new Error('It was not resampled.');
    const pixels = start.prepared.picture.width * start.prepared.picture.height;
    expect(pixels).toBeGreaterThan(1.9e6);
    expect(pixels).toBeLessThan(4.1e6);
    expect(start.warnings[0]!.message).toMatch(/traced at [\d,]+ × [\d,]+ px/);
    expect(start.trace.mode).toBe('ink');
  });
});

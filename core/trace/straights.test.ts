// What is straight comes back straight, whatever else is in the picture.
import { describe, expect, it } from 'vitest';
import { ringsAreApart } from '../outline/apart.ts';
import { ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { strokeRegions } from '../outline/stroke.ts';
import type { Region } from '../outline/types.ts';
import { distanceToSegment, flatten } from '../path/flatten.ts';
import { parsePath } from '../path/parse.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { greyOf } from '../picture/grey.ts';
import type { Grey } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { rectangle } from '../testing/shapes.ts';
import { traceInk } from './ink.ts';
import { smoothAlong } from './noise.ts';
import { traceStroke } from './pieces.ts';

const line = (d: string, width: number): Region[] =>
  strokeRegions(
    parsePath(d).path,
    { width, cap: 'butt', join: 'mitre', mitreLimit: 4, dashes: [], dashOffset: 0 },
    0.001,
  );

const greyFrom = (regions: readonly Region[], width: number, height: number): Grey =>
  renderCoverage(ringsOf(regionsOf(ringsOf(regions), 'nonzero')), width, height);

const bars: Region[] = [rectangle(30, 40, 300, 20), rectangle(50, 60, 20, 200)].map((outer) => ({ outer, holes: [] }));
const ends = (path: ReturnType<typeof traceInk>['path']) => path.flatMap((s) => (s[0] === 'L' ? [[s[1], s[2]]] : []));
const simple = (path: ReturnType<typeof traceInk>['path']) => ringsAreApart(flatten(path, 0.05), 0);

describe('bars with a thin arc between them', () => {
  it('lines of the bars are exact, the arc has a few curves, and nothing crosses', () => {
    const { path, pieces } = traceInk(greyFrom([...bars, ...line('M70 160A100 100 0 0 0 170 60', 2)], 400, 300));
    // Eight corners of the bars, and each side of the arc in a few curves.
    expect(pieces).toBeLessThanOrEqual(22);
    expect(simple(path)).toBe(true);
    for (const [x, y] of [
      [30, 40],
      [330, 40],
      [330, 60],
      [70, 260],
      [50, 260],
      [50, 60],
      [30, 60],
    ])
      expect(ends(path).some(([u, v]) => Math.hypot(u! - x!, v! - y!) < 0.01)).toBe(true);
  });

  it('a tip that closes to nothing leaves the rest as it is', () => {
    const door = line('M170 60A100 100 0 0 1 270 160V60', 2);
    const { path, pieces } = traceInk(greyFrom([...bars, ...door], 400, 300));
    expect(pieces).toBeLessThanOrEqual(40);
    expect(simple(path)).toBe(true);
  });
});

describe('a line two pixels wide', () => {
  it.each([7, 23, 45, 71])('at %i° lies within 0.03 px of where it was drawn', (degrees) => {
    const [dx, dy] = [80 * Math.cos((degrees * Math.PI) / 180), 80 * Math.sin((degrees * Math.PI) / 180)];
    const { path } = traceInk(greyFrom(line(`M${100 - dx} ${100 - dy}L${100 + dx} ${100 + dy}`, 2), 200, 200));
    // Its ends are two pixels long, and too short to be told from round ones: looked at is the middle of each side.
    const [outline] = flatten(path, 0.01);
    const offs: number[] = [];
    for (let i = 0; i < outline!.length; i += 2) {
      const j = (i + 2) % outline!.length;
      const [x, y] = [(outline![i]! + outline![j]!) / 2 - 100, (outline![i + 1]! + outline![j + 1]!) / 2 - 100];
      if (Math.abs(x * dx + y * dy) / 80 < 70) offs.push((x * dy - y * dx) / 80);
    }
    expect(offs.map(Math.sign).toSorted()).toEqual([-1, 1]);
    for (const off of offs) expect(Math.abs(Math.abs(off) - 1)).toBeLessThan(0.03);
  });
});

describe('a soft scan with grain', () => {
  const scan = (regions: readonly Region[]) =>
    greyOf(noisy(softened(painting(400, 300, '#f4f0e8', [[ringsOf(regions), '#20242a']]), 1), 6));

  it('bars keep eight lines, where they were', () => {
    const { path, pieces } = traceInk(scan(regionsOf(ringsOf(bars), 'nonzero')));
    // Neither ink nor paper is black or white, and corners are rounded: the sides tell.
    for (const x of [30, 50, 70, 330]) expect(ends(path).some(([u]) => Math.abs(u! - x) < 0.1)).toBe(true);
    for (const y of [40, 60, 260]) expect(ends(path).some(([, v]) => Math.abs(v! - y) < 0.1)).toBe(true);
    expect(ends(path)).toHaveLength(8);
    expect(pieces).toBeLessThanOrEqual(12);
  });

  it('a turned rectangle has four lines or little more', () => {
    const turned = Float64Array.of(60, 40, 340, 89, 330, 145, 50, 96);
    expect(traceInk(scan([{ outer: turned, holes: [] }])).pieces).toBeLessThanOrEqual(8);
  });
});

describe('a line that turns off just before its end', () => {
  it('is not drawn on to that end', () => {
    // Found among painted scenes: five points aslant, then a line of thirty.
    const row = [40, 52, 38.8, 53.3, 37.6, 54.6, 36.6, 55.6, 35.6, 56.6];
    for (let k = 0; k < 30; k++) row.push(34.6 - k, 56.7 - 0.104 * k);
    const { path } = traceStroke(Float64Array.from(row), { smooth: 0.1, corner: 0.44 });
    const [drawn] = flatten(path, 0.01);
    for (let i = 0; i < row.length; i += 2) {
      const away = Array.from({ length: drawn!.length / 2 - 1 }, (_, k) =>
        distanceToSegment(
          row[i]!,
          row[i + 1]!,
          drawn![2 * k]!,
          drawn![2 * k + 1]!,
          drawn![2 * k + 2]!,
          drawn![2 * k + 3]!,
        ),
      );
      expect(Math.min(...away)).toBeLessThan(0.7);
    }
  });
});

describe('how far curves may stray', () => {
  it('more where a boundary is noisy, and no more than usual elsewhere', () => {
    // A straight row, the second half of it noisy by 0.02 px from a fixed sequence.
    let state = 3;
    const random = () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state / 2 ** 32 - 0.5;
    };
    const row = Float64Array.from({ length: 2000 }, (_, i) =>
      i % 2 === 0 ? i / 2 : i < 1000 ? 10 : 10 + 0.02 * Math.sqrt(12) * random(),
    );
    const smooth = smoothAlong(row, 0.5, true) as Float32Array;
    for (let i = 0; i < 400; i++) expect(smooth[i]).toBeCloseTo(0.08, 6);
    // Twelve standard deviations, as far as 128 points tell them.
    for (let i = 600; i < 930; i++) expect(Math.abs(smooth[i]! - 0.24)).toBeLessThan(0.12);
  });

  it('a short boundary takes what others need, and never so much that it loses its shape', () => {
    expect(smoothAlong(new Float64Array(400), 0.31, false)).toBe(0.31);
    expect(smoothAlong(new Float64Array(60), 0.31, false)).toBeCloseTo(0.1, 9);
  });
});

// Ink traced back from shapes rendered with exact coverage: against the shapes themselves.
import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../formats/svg/read.ts';
import { regionsArea, ringArea, ringLength, ringsOf } from '../outline/measure.ts';
import { sharedArea } from '../outline/overlap.ts';
import { regionsOf } from '../outline/regions.ts';
import type { Region, Ring } from '../outline/types.ts';
import { ellipsePath } from '../path/arc.ts';
import { fitCircle, fitCubic, fitLine } from '../path/fit.ts';
import { flatten } from '../path/flatten.ts';
import { scaling, transformPath } from '../path/matrix.ts';
import { parsePath } from '../path/parse.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { gridRings, reversed, ring } from '../testing/shapes.ts';
import { tracedInk, traceInk } from './ink.ts';

const trace = (rings: readonly Ring[], size = 128) => traceInk(renderCoverage(rings, size, size));
const regionsFrom = ({ path }: ReturnType<typeof traceInk>) => regionsOf(flatten(path, 0.002), 'evenodd');

/** Intersection over union. */
function overlap(a: readonly Region[], b: readonly Region[]): number {
  const shared = sharedArea(a, b);
  return shared / (regionsArea(a) + regionsArea(b) - shared);
}

const circle = (cx: number, cy: number, r: number) => flatten(ellipsePath(cx, cy, r, r), 0.0005)[0]!;

describe('shapes come back', () => {
  it.each([
    [64, 64, 40],
    [63.3, 64.9, 25.7],
    [30.5, 40.2, 6.3],
  ])('a circle at %f, %f with radius %f: within 0.05 px, in at most 8 pieces', (cx, cy, r) => {
    const traced = trace([circle(cx, cy, r)]);
    expect(traced.pieces).toBeLessThanOrEqual(8);
    const [only] = regionsFrom(traced);
    const xs = only!.outer.filter((_, i) => i % 2 === 0);
    const ys = only!.outer.filter((_, i) => i % 2 === 1);
    const { centre, radius } = fitCircle({ xs, ys }, 0, xs.length - 1);
    expect(Math.hypot(centre.x - cx, centre.y - cy)).toBeLessThan(0.05);
    expect(Math.abs(radius - r)).toBeLessThan(0.05);
  });

  it('an ellipse', () => {
    const ellipse = flatten(ellipsePath(64.2, 63.7, 50.3, 21.8), 0.0005)[0]!;
    const traced = trace([ellipse]);
    expect(traced.pieces).toBeLessThanOrEqual(10);
    // A mean stray of half the tolerance along 240 px of boundary around 3,445 px² costs 240 · 0.04 / 3445.
    expect(overlap(regionsFrom(traced), regionsOf([ellipse], 'nonzero'))).toBeGreaterThan(1 - (240 * 0.04) / 3445);
  });

  it('a ring: two circles that share their centre', () => {
    const traced = trace([circle(64, 64, 50), reversed(circle(64, 64, 30))]);
    expect([traced.outlines, traced.pieces]).toEqual([2, 16]);
    expect(regionsArea(regionsFrom(traced))).toBeCloseTo(Math.PI * (2500 - 900), -1);
  });

  it.each([0, 0.2, 0.5])('a star turned by %f: ten lines, every corner within 0.15 px', (turn) => {
    const values: number[] = [];
    for (let i = 0; i < 10; i++) {
      const radius = i % 2 === 0 ? 56 : 24;
      values.push(64 + radius * Math.cos(turn + (Math.PI * i) / 5), 64 + radius * Math.sin(turn + (Math.PI * i) / 5));
    }
    const traced = trace([Float64Array.from(values)]);
    expect(traced.path.map(([letter]) => letter).join('')).toBe('MLLLLLLLLLLZ');
    for (let i = 0; i < 10; i++) {
      const nearest = Math.min(
        ...traced.path.flatMap((s) =>
          s[0] === 'L' ? Math.hypot(s[1] - values[2 * i]!, s[2] - values[2 * i + 1]!) : [],
        ),
      );
      expect(nearest).toBeLessThan(0.15);
    }
  });

  it('a rectangle off the pixel grid: four lines at its true sides', () => {
    const { path } = trace([ring(10.3, 20.7, 90.6, 20.7, 90.6, 70.2, 10.3, 70.2)]);
    const ends = path.flatMap((s) => (s[0] === 'L' ? [[s[1], s[2]]] : []));
    expect(ends).toHaveLength(4);
    for (const [x, y] of ends) {
      expect(Math.min(Math.abs(x! - 10.3), Math.abs(x! - 90.6))).toBeLessThan(0.02);
      expect(Math.min(Math.abs(y! - 20.7), Math.abs(y! - 70.2))).toBeLessThan(0.02);
    }
  });

  it('a rounded rectangle: four lines and a curve or two a corner', () => {
    const rounded = flatten(
      parsePath('M30.4 20H98A16 16 0 0 1 114 36V92A16 16 0 0 1 98 108H30.4A16 16 0 0 1 14.4 92V36A16 16 0 0 1 30.4 20Z')
        .path,
      0.001,
    )[0]!;
    const traced = trace([rounded]);
    expect(traced.path.filter(([letter]) => letter === 'L')).toHaveLength(4);
    expect(traced.pieces).toBeLessThanOrEqual(12);
    expect(overlap(regionsFrom(traced), regionsOf([rounded], 'nonzero'))).toBeGreaterThan(0.9985);
  });

  it('small things and pinholes are left to their size', () => {
    const grey = renderCoverage([circle(40, 40, 20), reversed(circle(40, 40, 1)), circle(100, 100, 1)], 128, 128);
    expect(traceInk(grey, { detail: 0 }).outlines).toBe(3);
    expect(traceInk(grey, { detail: 5 }).outlines).toBe(1);
  });
});

describe('icons come back', () => {
  // @mdi/svg 7.4.47 (Apache-2.0), 40 icons spread over the set, rendered grey with exact coverage.
  const folder = 'bench/sets/node_modules/@mdi/svg/svg';
  const names = readdirSync(folder).sort();
  const icons = names.filter((_, i) => i % Math.floor(names.length / 40) === 7).slice(0, 40);
  const median = (values: number[]) => values.toSorted((a, b) => a - b)[values.length >> 1]!;

  it.each([
    [256, 0.995],
    [512, 0.999],
  ])('at %i px with a median overlap of %f, in few pieces', (size, least) => {
    const results = icons.map((name) => {
      const { shapes } = readSvg(readFileSync(`${folder}/${name}`, 'utf8'));
      const paths = shapes.map(({ path }) => transformPath(path, scaling(size / 24)));
      const original = regionsOf(
        paths.flatMap((path) => flatten(path, 0.005)),
        shapes[0]!.fillRule,
      );
      const traced = traceInk(renderCoverage(ringsOf(original), size, size));
      // Arcs of the original count as the eighths of an ellipse that they became.
      const pieces = paths.flat().filter(([letter]) => letter === 'L' || letter === 'C').length;
      return { overlap: overlap(original, regionsFrom(traced)), ratio: traced.pieces / pieces };
    });
    expect(median(results.map((result) => result.overlap))).toBeGreaterThan(least);
    expect(Math.min(...results.map((result) => result.overlap))).toBeGreaterThan(0.99);
    if (size === 512) expect(median(results.map((result) => result.ratio))).toBeLessThan(1.6);
  });
});

/** Area of the tips of a ring up to where they are a pixel wide: 1 / (4 · tan(θ/2)) for a tip of angle θ. */
function tipArea(ring: Ring): number {
  const n = ring.length / 2;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const [a, b, c] = [(i + n - 1) % n, i, (i + 1) % n];
    const [ux, uy] = [ring[2 * a]! - ring[2 * b]!, ring[2 * a + 1]! - ring[2 * b + 1]!];
    const [vx, vy] = [ring[2 * c]! - ring[2 * b]!, ring[2 * c + 1]! - ring[2 * b + 1]!];
    const half = Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) / 2;
    sum += 1 / (4 * Math.tan(Math.max(0.02, half)));
  }
  return sum;
}

describe('whatever is drawn', () => {
  it('comes back closed and with nearly its area', () => {
    fc.assert(
      fc.property(gridRings, (rings) => {
        const drawn = regionsOf(
          rings.map((points) => points.map((v) => 12 + 8 * v)),
          'evenodd',
        );
        const traced = traceInk(renderCoverage(ringsOf(drawn), 120, 120), { detail: 0 });
        for (const segment of traced.path) {
          for (const value of segment.slice(1) as number[]) expect(Number.isFinite(value)).toBe(true);
        }
        const starts = traced.path.filter(([letter]) => letter === 'M').length;
        expect(traced.path.filter(([letter]) => letter === 'Z')).toHaveLength(starts);
        // Sharp tips lose what is thinner than a pixel; everything else stays within a fraction of one.
        const tips = ringsOf(drawn).reduce((sum, points) => sum + tipArea(points), 0);
        const corners = ringsOf(drawn).reduce((sum, points) => sum + points.length / 2, 0);
        const perimeter = ringsOf(drawn).reduce((sum, points) => sum + ringLength(points), 0);
        const allowed = 1 + 4 * corners + 0.1 * perimeter + tips;
        expect(Math.abs(regionsArea(regionsFrom(traced)) - regionsArea(drawn))).toBeLessThan(allowed);
      }),
      { numRuns: 60 },
    );
  });

  it('comes back in simple rings, outlines one way and holes the other', () => {
    fc.assert(
      fc.property(gridRings, (rings) => {
        const drawn = regionsOf(
          rings.map((points) => points.map((v) => 12 + 8 * v)),
          'evenodd',
        );
        // What is thinner than a pixel all over has an area near nothing, whose sign is chance.
        for (const { path, area } of tracedInk(renderCoverage(ringsOf(drawn), 120, 120), { detail: 40 }).outlines) {
          const [only, ...others] = flatten(path, 0.05);
          expect(others).toEqual([]);
          // Wherever it crosses itself, even-odd and nonzero differ by what lies in the loop: hundredths of a pixel at most.
          const filled = (rule: 'evenodd' | 'nonzero') => regionsArea(regionsOf([only!], rule));
          expect(filled('nonzero') - filled('evenodd')).toBeLessThan(0.05);
          expect(Math.sign(ringArea(only!))).toBe(Math.sign(area));
        }
      }),
      { numRuns: 60 },
    );
  });

  it('is nothing where there is no ink, and the sheet where all is ink', () => {
    expect(traceInk({ width: 9, height: 9, values: new Float32Array(81).fill(1) })).toMatchObject({
      outlines: 0,
      pieces: 0,
    });
    const full = traceInk({ width: 20, height: 10, values: new Float32Array(200) });
    expect(Math.abs(ringArea(flatten(full.path, 0.01)[0]!))).toBeCloseTo(200, -1);
  });
});

describe('fits', () => {
  const sampled = (count: number, at: (t: number) => [number, number]) => {
    const points = Array.from({ length: count }, (_, i) => at(i / (count - 1)));
    return { xs: Float64Array.from(points, ([x]) => x), ys: Float64Array.from(points, ([, y]) => y) };
  };

  it('find a line and how far its points stray', () => {
    const { along, stray, sagitta } = fitLine(
      sampled(11, (t) => [3 * t, 4 * t + 0.01 * Math.cos(Math.PI * 10 * t)]),
      0,
      10,
    );
    expect(along.x).toBeCloseTo(0.6, 2);
    expect(along.y).toBeCloseTo(0.8, 2);
    expect(stray).toBeLessThan(0.02);
    expect(sagitta).toBeLessThan(0.01);
  });

  it('measure the bend of an arc: r − r·cos(α/2)', () => {
    const arc = sampled(41, (t) => [100 * Math.cos(0.1 * (t - 0.5)), 100 * Math.sin(0.1 * (t - 0.5))]);
    expect(fitLine(arc, 0, 40).sagitta).toBeCloseTo(100 - 100 * Math.cos(0.05), 2);
  });

  it('give back the cubic that points were taken from, 75 px long, within a tenth of a pixel', () => {
    const [p0, p1, p2, p3] = [
      { x: 0, y: 0 },
      { x: 10, y: 20 },
      { x: 40, y: 25 },
      { x: 50, y: 0 },
    ];
    const run = sampled(60, (t) => {
      const u = 1 - t;
      const mix = (a: number, b: number, c: number, d: number) =>
        u ** 3 * a + 3 * u * u * t * b + 3 * u * t * t * c + t ** 3 * d;
      return [mix(p0.x, p1.x, p2.x, p3.x), mix(p0.y, p1.y, p2.y, p3.y)];
    });
    const unit = (x: number, y: number) => ({ x: x / Math.hypot(x, y), y: y / Math.hypot(x, y) });
    const { points, stray } = fitCubic(run, {
      from: 0,
      to: 59,
      start: { at: p0, into: unit(10, 20) },
      end: { at: p3, into: unit(-10, 25) },
      enough: 0.08,
    });
    expect(stray).toBeLessThan(0.1);
    expect(Math.hypot(points[1].x - p1.x, points[1].y - p1.y)).toBeLessThan(1);
    expect(Math.hypot(points[2].x - p2.x, points[2].y - p2.y)).toBeLessThan(1);
  });
});

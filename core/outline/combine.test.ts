// Boolean operations on curves: identities that hold for all sets, closed forms, and a clipping library.
import { booleanOpWithPolyTree, ClipType, FillRule, type Path64, PolyTree64 } from 'clipper2-ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { contoursOf } from '../path/cubic.ts';
import { flatten } from '../path/flatten.ts';
import { parsePath } from '../path/parse.ts';
import type { Path, Segment } from '../path/types.ts';
import { type Combination, combine, combinedRegions, type Filled } from './combine.ts';
import { ringArea } from './measure.ts';

const filled = (path: Path | string): Filled => ({
  path: typeof path === 'string' ? parsePath(path).path : path,
  fillRule: 'nonzero',
});
const square = (x: number, y: number, side: number) => filled(`M${x} ${y}h${side}v${side}h${-side}z`);
const circle = (x: number, y: number, r: number) => filled(ellipsePath(x, y, r, r));
/** Contours that do not cross, holes the other way round, so that areas add up. */
const areaOf = (path: Path) => flatten(path, 1e-5).reduce((sum, ring) => sum + ringArea(ring), 0);
const area = (operands: Filled[], how: Combination) => areaOf(combine(operands, how));
const segments = (path: Path) => path.filter(([letter]) => letter === 'L' || letter === 'C').length;

type Place = [x: number, y: number, isCurved: boolean];

/** Blobs of a few lines and curves with handles anywhere. */
const blobs = (coordinate: fc.Arbitrary<number>): fc.Arbitrary<Filled> =>
  fc.array(fc.tuple(coordinate, coordinate, fc.boolean()), { minLength: 6, maxLength: 14 }).map((places) => {
    const [[x, y], ...rest] = places as [Place, ...Place[]];
    const path: Segment[] = [['M', x, y]];
    for (let i = 0; i + 2 < rest.length; i += 3) {
      const [[a, b, isCurved], [c, d], [e, f]] = rest.slice(i, i + 3) as [Place, Place, Place];
      path.push(isCurved ? ['C', a, b, c, d, e, f] : ['L', e, f]);
    }
    return { path: [...path, ['Z']], fillRule: 'evenodd' };
  });
/** On a coarse lattice, so that ends and edges coincide. */
const blob = blobs(fc.integer({ min: 0, max: 8 }));
/** In general position, which is what other libraries are sure of. */
const looseBlob = blobs(fc.integer({ min: 0, max: 79_999 }).map((v) => v / 9999));

describe('the areas of combined outlines', () => {
  it('obey |A∪B| = |A| + |B| − |A∩B|, and what follows for differences', () => {
    fc.assert(
      fc.property(blob, blob, (a, b) => {
        const [wholeA, wholeB] = [area([a], 'union'), area([b], 'union')];
        const common = area([a, b], 'intersect');
        expect(area([a, b], 'union')).toBeCloseTo(wholeA + wholeB - common, 2);
        expect(area([a, b], 'subtract')).toBeCloseTo(wholeA - common, 2);
        expect(area([a, b], 'exclude')).toBeCloseTo(wholeA + wholeB - 2 * common, 2);
      }),
      { numRuns: 150 },
    );
  });

  it('obey De Morgan’s laws inside a sheet', () => {
    const sheet = square(-20, -20, 48);
    fc.assert(
      fc.property(blob, blob, (a, b) => {
        const neither = area([sheet, a, b], 'subtract');
        const without = (s: Filled): Filled => ({ path: combine([sheet, s], 'subtract'), fillRule: 'nonzero' });
        expect(area([without(a), without(b)], 'intersect')).toBeCloseTo(neither, 1);
        const notBoth = area([sheet, { path: combine([a, b], 'intersect'), fillRule: 'nonzero' }], 'subtract');
        expect(area([without(a), without(b)], 'union')).toBeCloseTo(notBoth, 1);
      }),
      { numRuns: 60 },
    );
  });

  it('are those of a clipping library', () => {
    const types: [Combination, ClipType][] = [
      ['union', ClipType.Union],
      ['intersect', ClipType.Intersection],
      ['subtract', ClipType.Difference],
      ['exclude', ClipType.Xor],
    ];
    const scale = 1e6;
    const chords = ({ path }: Filled): Path64[] =>
      flatten(path, 1e-5).map((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) => ({
          x: Math.round(ring[2 * i]! * scale),
          y: Math.round(ring[2 * i + 1]! * scale),
        })),
      );
    fc.assert(
      fc.property(looseBlob, looseBlob, (a, b) => {
        for (const [how, type] of types) {
          const tree = new PolyTree64();
          booleanOpWithPolyTree(type, chords(a), chords(b), tree, FillRule.EvenOdd);
          expect(area([a, b], how)).toBeCloseTo(tree.area() / scale ** 2, 2);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('of two discs are those of lens and lune', () => {
    // Lens of two unit circles d apart: 2·acos(d/2) − (d/2)·√(4 − d²).
    const lens = 2 * Math.acos(0.5) - 0.5 * Math.sqrt(3);
    const discs = [circle(0, 0, 1), circle(1, 0, 1)];
    expect(area(discs, 'intersect')).toBeCloseTo(lens, 3);
    expect(area(discs, 'union')).toBeCloseTo(2 * Math.PI - lens, 3);
    expect(area(discs, 'subtract')).toBeCloseTo(Math.PI - lens, 3);
  });
});

describe('the curves of combined outlines', () => {
  it('are those that came in, cut where they meet', () => {
    const lens = combine([circle(0, 0, 1), circle(1, 0, 1)], 'intersect');
    expect(segments(lens)).toBeLessThanOrEqual(8);
    expect(lens.every(([letter]) => letter !== 'L')).toBe(true);
    // The circles meet at (1/2, ±√3/2); arcs of cubics are true to 4.3e-6.
    const corners = contoursOf(lens)[0]!.pieces.map(({ cubic }) => [cubic[0], cubic[1]] as const);
    for (const y of [Math.sqrt(3) / 2, -Math.sqrt(3) / 2]) {
      expect(Math.min(...corners.map(([u, v]) => Math.hypot(u - 0.5, v - y)))).toBeLessThan(1e-5);
    }
  });

  it('stay exactly what they were where nothing meets them', () => {
    const apart = filled('M0.1 0.2C3.3 0.7 4.1 2.9 2.2 5.3L0.7 4.1Z');
    const [first] = combinedRegions([apart, circle(20, 20, 3)], 'union').sort((p, q) => p.length - q.length);
    const numbers = (path: Path) => new Set(path.flatMap((s) => s.slice(1) as number[]));
    for (const number of numbers(apart.path)) expect(numbers(first!)).toContain(number);
  });

  it('of squares side by side have no corner where they join', () => {
    const path = combine([square(0, 0, 1), square(1, 0, 1)], 'union');
    expect(segments(path)).toBe(3);
    expect(areaOf(path)).toBe(2);
  });

  it('keep a corner on a straight side that was drawn there', () => {
    expect(segments(combine([filled('M0 0L1 0L2 0L2 2L0 2Z')], 'union'))).toBe(4);
  });
});

describe('odd operands', () => {
  it.each([
    ['coincident shapes', [circle(0, 0, 2), circle(0, 0, 2)], 'union', 4 * Math.PI],
    ['a shape taken from itself', [circle(0, 0, 2), circle(0, 0, 2)], 'subtract', 0],
    ['shapes that touch in a point', [square(0, 0, 1), square(1, 1, 1)], 'union', 2],
    ['shapes apart, intersected', [square(0, 0, 1), square(5, 5, 1)], 'intersect', 0],
    ['nothing', [filled('')], 'union', 0],
    ['a point', [filled('M1 1Z')], 'union', 0],
    ['a line there and back', [filled('M0 0L4 4Z')], 'union', 0],
    ['a hole filled exactly', [filled('M0 0h4v4h-4zM1 1v2h2v-2z'), square(1, 1, 2)], 'union', 16],
  ] as [string, Filled[], Combination, number][])('%s', (_, operands, how, expected) => {
    expect(area(operands, how)).toBeCloseTo(expected, 3);
  });
});

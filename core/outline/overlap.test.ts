// What regions share, beside the clipping of an independent library (clipper2-ts), and that what is told without cutting is what
// cutting tells.
import { Clipper, FillRule, type PathsD } from 'clipper2-ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import { rectangle } from '../testing/shapes.ts';
import { regionsArea, ringsOf } from './measure.ts';
import { boxesMeet, doOverlap, footprintOf, overlapArea } from './overlap.ts';
import { regionsOf } from './regions.ts';
import type { Region } from './types.ts';

const SHARE = 1e-4;
const disc = (x: number, y: number, r: number) => regionsOf(flatten(ellipsePath(x, y, r, r), 0.05), 'nonzero');
const ringOf = (x: number, y: number, r: number) =>
  regionsOf([...flatten(ellipsePath(x, y, r, r), 0.05), ...flatten(ellipsePath(x, y, r / 2, r / 2), 0.05)], 'evenodd');

/** By the library, in doubles. */
function libraryArea(a: readonly Region[], b: readonly Region[]): number {
  const paths = (regions: readonly Region[]): PathsD =>
    ringsOf(regions).map((ring) =>
      Array.from({ length: ring.length / 2 }, (_, i) => ({ x: ring[2 * i]!, y: ring[2 * i + 1]! })),
    );
  return Math.abs(Clipper.areaPathsD(Clipper.intersectD(paths(a), paths(b), FillRule.NonZero, 8)));
}

const shape = fc.record({
  x: fc.integer({ min: 0, max: 60 }),
  y: fc.integer({ min: 0, max: 60 }),
  r: fc.integer({ min: 1, max: 25 }),
  kind: fc.constantFrom('disc', 'square', 'ring'),
});
type Made = { x: number; y: number; r: number; kind: string };
const regionsFrom = ({ x, y, r, kind }: Made): Region[] =>
  kind === 'disc'
    ? disc(x, y, r)
    : kind === 'ring'
      ? ringOf(x, y, r)
      : regionsOf([rectangle(x - r, y - r, 2 * r, 2 * r)], 'nonzero');
const scene = fc.array(shape, { minLength: 1, maxLength: 5 });
/** Regions are disjoint, as a layer's are. */
const united = (shapes: readonly Made[]) => regionsOf(ringsOf(shapes.flatMap(regionsFrom)), 'positive');

describe('what two sets of regions share', () => {
  it('is what a clipping library finds', () => {
    fc.assert(
      fc.property(scene, scene, (some, others) => {
        const [a, b] = [united(some), united(others)];
        const expected = libraryArea(a, b);
        const least = SHARE * Math.min(regionsArea(a), regionsArea(b));
        const found = overlapArea(footprintOf(a), footprintOf(b), SHARE);
        if (Math.abs(expected - least) > 1e-3) expect(found).toBeCloseTo(expected > least ? expected : 0, 2);
      }),
    );
  });

  it('is told the same without cutting', () => {
    fc.assert(
      fc.property(scene, scene, (some, others) => {
        const [a, b] = [footprintOf(united(some)), footprintOf(united(others))];
        expect(doOverlap(a, b, SHARE)).toBe(overlapArea(a, b, SHARE) > 0);
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    ['side by side', disc(0, 0, 5), disc(10, 0, 5), false],
    [
      'wall to wall',
      regionsOf([rectangle(0, 0, 4, 4)], 'nonzero'),
      regionsOf([rectangle(4, 0, 4, 4)], 'nonzero'),
      false,
    ],
    [
      'corner to corner',
      regionsOf([rectangle(0, 0, 4, 4)], 'nonzero'),
      regionsOf([rectangle(4, 4, 4, 4)], 'nonzero'),
      false,
    ],
    ['the very same', disc(3, 3, 5), disc(3, 3, 5), true],
    ['one within the other', disc(0, 0, 9), disc(2, 1, 2), true],
    ['one within the hole of the other', ringOf(0, 0, 10), disc(0, 0, 4.9), false],
    ['one filling the hole of the other and a little more', ringOf(0, 0, 10), disc(0, 0, 5.1), true],
    [
      'crossing without a corner in each other',
      regionsOf([rectangle(0, 4, 12, 2)], 'nonzero'),
      regionsOf([rectangle(5, 0, 2, 12)], 'nonzero'),
      true,
    ],
  ])('%s', (_, a, b, isShared) => {
    expect(doOverlap(footprintOf(a), footprintOf(b), SHARE)).toBe(isShared);
    expect(doOverlap(footprintOf(b), footprintOf(a), SHARE)).toBe(isShared);
  });

  it('is nothing for nothing', () => {
    expect(doOverlap(footprintOf([]), footprintOf(disc(0, 0, 1)), SHARE)).toBe(false);
    expect(boxesMeet({ minX: 0, maxX: 1, minY: 0, maxY: 1 }, { minX: 1, maxX: 2, minY: 0, maxY: 1 })).toBe(false);
  });
});

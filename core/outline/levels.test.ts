// What rests on what, and what lies within what, against counting pair by pair.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle, region, regularPolygon, reversed } from '../testing/shapes.ts';
import { levelsOf, nestingOf } from './levels.ts';
import { footprintOf } from './overlap.ts';

interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
const boxes = fc.array(
  fc.record({ x: fc.nat(20), y: fc.nat(20), w: fc.integer({ min: 1, max: 8 }), h: fc.integer({ min: 1, max: 8 }) }),
  { maxLength: 14 },
);
const footprint = ({ x, y, w, h }: Box) => footprintOf([region(rectangle(x, y, w, h))]);
/** Closed intervals that share more than an end. */
const share = (a: number, la: number, b: number, lb: number) => Math.min(a + la, b + lb) > Math.max(a, b);

describe('levels', () => {
  it('of intervals on a line are those of their interval graph, coloured from the first on', () => {
    const intervals = boxes.map((all) => all.map((box) => ({ ...box, y: 0, h: 1 })));
    fc.assert(
      fc.property(intervals, (all) => {
        const brute: number[] = [];
        for (const [i, a] of all.entries()) {
          const below = brute.filter((_, j) => share(a.x, a.w, all[j]!.x, all[j]!.w));
          brute[i] = below.length > 0 ? Math.max(...below) + 1 : 0;
        }
        expect(
          levelsOf(
            all.map(footprint),
            all.map(() => true),
          ),
        ).toEqual(brute);
      }),
    );
  });

  it('of boxes part all that overlap, and each is as low as that allows', () => {
    fc.assert(
      fc.property(boxes, (all) => {
        const levels = levelsOf(
          all.map(footprint),
          all.map(() => true),
        );
        for (const [i, a] of all.entries()) {
          const below = levels.filter(
            (_, j) => j < i && share(a.x, a.w, all[j]!.x, all[j]!.w) && share(a.y, a.h, all[j]!.y, all[j]!.h),
          );
          expect(levels[i]).toBe(Math.max(-1, ...below) + 1);
        }
      }),
    );
  });

  it('do not count what is not built', () => {
    const one = footprintOf([region(rectangle(0, 0, 4, 4))]);
    expect(levelsOf([one, one, one], [true, false, true])).toEqual([0, 1, 1]);
  });
});

describe('nesting', () => {
  const ring = (outer: number, inner: number) =>
    footprintOf([region(regularPolygon(40, outer), reversed(regularPolygon(40, inner)))]);

  it('counts rings round rings, and what stands in a hole', () => {
    const target = [ring(10, 8), ring(6, 4), footprintOf([region(regularPolygon(40, 2))])];
    expect(nestingOf(target)).toEqual([0, 1, 2]);
    expect(nestingOf([...target].reverse())).toEqual([2, 1, 0]);
  });

  it('of boxes is counted pair by pair', () => {
    fc.assert(
      fc.property(boxes, (all) => {
        const isIn = (a: Box, b: Box) =>
          a.x >= b.x && a.y >= b.y && a.x + a.w <= b.x + b.w && a.y + a.h <= b.y + b.h && a.w * a.h < b.w * b.h;
        expect(nestingOf(all.map(footprint))).toEqual(all.map((a) => all.filter((b) => isIn(a, b)).length));
      }),
    );
  });
});

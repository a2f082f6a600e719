// Snapping: what is nearest is found, and in the stated order; the place on a curve is the nearest there is.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePath } from '../path/parse.ts';
import { linesOf, nearestOnLine } from '../path/points.ts';
import { heldTo, SnapField, type SnapWishes, snapParts } from './snap.ts';

const NOTHING: SnapWishes = { points: false, edges: false, alignment: false, grid: null, angle: null };
const fieldOf = (...ds: string[]) => new SnapField(snapParts(ds.map((d) => parsePath(d).path)));

describe('a place under the hand', () => {
  const field = fieldOf('M0 0L100 0L100 100', 'M0 50C0 90 60 90 60 50');

  it('goes to a point before it goes to an edge', () => {
    const wishes = { ...NOTHING, points: true, edges: true };
    expect(field.snap([98, 2], wishes, { reach: 5 })).toEqual({ at: [100, 0], to: 'point' });
    expect(field.snap([50, 2], wishes, { reach: 5 })).toEqual({ at: [50, 0], to: 'edge' });
    expect(field.snap([50, 9], wishes, { reach: 5 })).toEqual({ at: [50, 9], to: null });
  });

  it('leaves out what is being moved', () => {
    const own = fieldOf('M0 0L10 0', 'M0 3L10 3');
    expect(own.snap([0, 1], { ...NOTHING, points: true }, { reach: 5 }).at).toEqual([0, 0]);
    expect(own.snap([0, 1], { ...NOTHING, points: true }, { reach: 5, except: 0 }).at).toEqual([0, 3]);
  });

  it('goes to the place on a curve that is nearest', () => {
    const d = 'M0 50C0 90 60 90 60 50C60 20 90 10 99 40';
    const [line] = linesOf(parsePath(d).path);
    const curve = fieldOf(d);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (x, y) => {
          const found = curve.snap([x, y], { ...NOTHING, edges: true }, { reach: 12 });
          const best = nearestOnLine(line!, x, y)!;
          if (found.to === null) expect(best.distance).toBeGreaterThan(12 - 1e-6);
          else expect(Math.hypot(found.at[0] - x, found.at[1] - y)).toBeCloseTo(best.distance, 4);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('holds to round angles, then to neighbours and the grid, axis by axis', () => {
    const wishes: SnapWishes = { ...NOTHING, alignment: true, angle: 45, grid: { width: 10, through: [3, 3] } };
    const turned = field.snap([10, 11], wishes, { reach: 2, from: [0, 0] });
    expect(turned.to).toBe('angle');
    expect(turned.at[0]).toBeCloseTo(10.5, 9);
    expect(turned.at[1]).toBeCloseTo(10.5, 9);
    const level = field.snap([31, 34], wishes, { reach: 2, from: [0, 60], level: [[30, 0]] });
    expect(level).toEqual({ at: [30, 33], to: 'alignment' });
    expect(field.snap([22, 35.5], wishes, { reach: 2 })).toEqual({ at: [23, 35.5], to: 'grid' });
  });

  it('can be held to an angle from far away', () => {
    const [x, y] = heldTo([10, 3], [0, 0], 15);
    expect(Math.atan2(y, x)).toBeCloseTo(Math.PI / 12, 9);
    expect(heldTo([0, 0], [0, 0], 15)).toEqual([0, 0]);
  });
});

describe('an empty sheet', () => {
  it('has only its grid', () => {
    const wishes: SnapWishes = { ...NOTHING, points: true, edges: true, grid: { width: 5, through: [0, 0] } };
    expect(fieldOf().snap([4, 9], wishes, { reach: 2 })).toEqual({ at: [5, 10], to: 'grid' });
  });
});

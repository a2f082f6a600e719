// Profiles against the geometry their names stand for (mouldings: common practice), and the interpolation's published
// property: between two points it never leaves the range of their values (Fritsch & Carlson 1980).
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { monotoneCurve } from '../path/monotone.ts';
import { PROFILES, type ProfileCurve, profileRows } from './profile.ts';

const rowsOf = (profile: (typeof PROFILES)[number] | ProfileCurve, steps: number) => {
  const { insets, heights } = profileRows(profile, steps);
  return insets.map((inset, k) => [inset, heights[k]!] as const);
};

describe('every profile', () => {
  it.each(PROFILES)('%s leads from the wall to the front without ever turning back', (profile) => {
    for (const steps of [1, 2, 3, 8, 31]) {
      const rows = rowsOf(profile, steps);
      expect(rows[0]).toEqual([0, 0]);
      expect(rows.at(-1)).toEqual([1, 1]);
      for (const [k, [inset, height]] of rows.entries()) {
        if (k > 0) expect(inset).toBeGreaterThanOrEqual(rows[k - 1]![0]);
        expect(height).toBeGreaterThanOrEqual(0);
        expect(height).toBeLessThanOrEqual(1);
      }
    }
  });
});

describe('curved profiles', () => {
  it('lie on quarter circles, round about (1, 0) and cove about (0, 1)', () => {
    for (const [inset, height] of rowsOf('round', 7)) expect(Math.hypot(1 - inset, height)).toBeCloseTo(1, 12);
    for (const [inset, height] of rowsOf('cove', 7)) expect(Math.hypot(inset, 1 - height)).toBeCloseTo(1, 12);
  });

  it('turn once in an ogee, in its middle', () => {
    const rows = rowsOf('ogee', 10);
    expect(rows).toContainEqual([0.5, 0.5]);
    const bends = rows.slice(1, -1).map(([x, y], k) => {
      const [[px, py], [qx, qy]] = [rows[k]!, rows[k + 2]!];
      return Math.sign((x - px) * (qy - y) - (y - py) * (qx - x));
    });
    expect(bends.slice(0, 4).every((bend) => bend > 0)).toBe(true);
    expect(bends.slice(-4).every((bend) => bend < 0)).toBe(true);
  });

  it('rise to a half round and fall into a groove in a bead', () => {
    const rows = rowsOf('bead', 4);
    expect(rows[4]).toEqual([expect.closeTo(0.4, 12), 1]);
    expect(rows.slice(-3)).toEqual([
      [0.8, 0],
      [1, 0],
      [1, 1],
    ]);
  });
});

describe('stepped profiles', () => {
  it('have a tread and a riser a step', () => {
    expect(rowsOf('step', 2)).toEqual([
      [0, 0],
      [0.5, 0],
      [0.5, 0.5],
      [1, 0.5],
      [1, 1],
    ]);
  });
});

describe('drawn profiles', () => {
  const points: ProfileCurve['points'] = [
    [0.2, 0.6],
    [0.2, 0.3],
    [0.7, 0.4],
  ];

  it('go straight from point to point, or in steps along a smooth curve; upright pieces stay as they are', () => {
    expect(rowsOf({ points, isSmooth: false }, 5)).toEqual([[0, 0], ...points, [1, 1]]);
    const smooth = rowsOf({ points, isSmooth: true }, 5);
    expect(smooth).toHaveLength(1 + 5 + 1 + 5 + 5);
    for (const point of points) expect(smooth).toContainEqual(point);
  });

  it('never overshoot their points', () => {
    const unit = fc.integer({ min: 0, max: 100 }).map((v) => v / 100);
    fc.assert(
      fc.property(fc.array(fc.tuple(unit, unit), { minLength: 2, maxLength: 8 }), unit, (list, share) => {
        const sorted = list.toSorted((a, b) => a[0] - b[0]);
        const curve = monotoneCurve(sorted);
        for (const [i, [x1, y1]] of sorted.entries()) {
          const [x0, y0] = sorted[i - 1] ?? [x1, y1];
          if (!(x1 > x0)) continue;
          const y = curve(x0 + share * (x1 - x0) * 0.999);
          expect(y).toBeGreaterThanOrEqual(Math.min(y0, y1) - 1e-9);
          expect(y).toBeLessThanOrEqual(Math.max(y0, y1) + 1e-9);
        }
      }),
    );
  });
});

// Where lines that move inward meet.
import { describe, expect, it } from 'vitest';
import { type Lines, linesOf, linkedRings, nearestMeeting, offFrom } from './lines.ts';

const linesAround = (...ring: number[]): Lines => {
  const { points, next } = linkedRings([Float64Array.from(ring)]);
  return linesOf(points, next);
};

describe('the nearest meeting', () => {
  it('of the sides of a triangle is the centre of its incircle, at its radius', () => {
    // 3, 4, 5: the radius is (3 + 4 − 5) / 2.
    const [x, y, time] = nearestMeeting(linesAround(0, 0, 4, 0, 0, 3), [0, 1, 2], [1.3, 0.8, 0.9], 'squares');
    expect(x).toBeCloseTo(1, 5);
    expect(y).toBeCloseTo(1, 5);
    expect(time).toBeCloseTo(1, 5);
  });

  it('stays where it is in a direction of which the edges say nothing', () => {
    const [x, y, time] = nearestMeeting(linesAround(0, 0, 4, 0, 4, 2, 0, 2), [0, 2], [1.3, 0.9, 1], 'squares');
    expect([x, y, time].map((v) => Number(v.toFixed(5)))).toEqual([1.3, 1, 1]);
  });

  it('is no further off any edge than must be, however many others lie near', () => {
    // A square, and lines a tenth inside its left side: whatever happens, those two are a tenth apart.
    const square = linesAround(0, 0, 1, 0, 1, 1, 0, 1);
    const lines: Lines = {
      nx: Float64Array.of(...square.nx, 1, 1, 1),
      ny: Float64Array.of(...square.ny, 0, 0, 0),
      offset: Float64Array.of(...square.offset, 0.1, 0.1, 0.1),
    };
    const edges = [0, 1, 2, 3, 4, 5, 6];
    const place = nearestMeeting(lines, edges, [0.5, 0.5, 0.5], 'farthest');
    const off = edges.map((edge) => offFrom(lines, edge, place));
    expect(Math.max(...off)).toBeGreaterThanOrEqual(0.05);
    expect(Math.max(...off)).toBeLessThan(0.052);
  });
});

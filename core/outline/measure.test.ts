// Sizes of paths against closed forms.
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import { parsePath } from '../path/parse.ts';
import { meanThickness } from './measure.ts';

describe('the mean thickness', () => {
  it('of a band is that of the band, less a little for its ends', () => {
    // 2 · area / boundary = 2 · l · t / (2 · (l + t)).
    expect(meanThickness(parsePath('M0 0h100v2h-100z').path)).toBeCloseTo(200 / 102, 9);
    expect(meanThickness(parsePath('M0 0h100v20h-100z').path)).toBeCloseTo(2000 / 120, 9);
  });

  it('of a ring is its width, of a disc its radius', () => {
    const ring = [...ellipsePath(0, 0, 12, 12), ...parsePath('M10 0A10 10 0 1 0 -10 0A10 10 0 1 0 10 0Z').path];
    expect(meanThickness(ring)).toBeCloseTo(2, 1);
    expect(meanThickness(ellipsePath(5, 5, 3, 3))).toBeCloseTo(3, 1);
  });

  it('of nothing is nothing', () => {
    expect(meanThickness([])).toBe(0);
    expect(meanThickness(parsePath('M3 3').path)).toBe(0);
    expect(meanThickness(parsePath('M0 0L9 9').path)).toBe(0);
  });
});

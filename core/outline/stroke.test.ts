// Areas of strokes with round ends, which have closed forms.
import { describe, expect, it } from 'vitest';
import { ellipsePath } from '../path/arc.ts';
import type { Path } from '../path/types.ts';
import { regionsArea } from './measure.ts';
import { roundStroke, strokeRegions } from './stroke.ts';

const line = (...places: (readonly [number, number])[]): Path =>
  places.map(([x, y], i) => [i === 0 ? 'M' : 'L', x, y] as const);

describe('a stroke', () => {
  it('along a line covers w·L + πw²/4', () => {
    const area = regionsArea(strokeRegions(line([3, 4], [33, 44]), roundStroke(6), 0.001));
    expect(area).toBeCloseTo(6 * 50 + (Math.PI * 36) / 4, 1);
  });

  it('of no length is a dot of its width', () => {
    expect(regionsArea(strokeRegions(line([5, 5], [5, 5]), roundStroke(4), 0.0005))).toBeCloseTo(4 * Math.PI, 1);
  });

  it('round a circle covers 2πrw, with its hole left open', () => {
    const regions = strokeRegions(ellipsePath(20, 20, 15, 15), roundStroke(4), 0.001);
    expect(regions.map(({ holes }) => holes.length)).toEqual([1]);
    expect(regionsArea(regions)).toBeCloseTo(2 * Math.PI * 15 * 4, 0);
  });

  it('round a right angle covers the bars, less the square they share, and a quarter more at the corner', () => {
    const area = regionsArea(strokeRegions(line([0, 0], [20, 0], [20, 20]), roundStroke(2), 0.0005));
    // Two bars of 20 × 2 share 1 × 1; the corner's outer quarter and two half discs come to it.
    expect(area).toBeCloseTo(2 * 40 - 1 + (Math.PI / 4) * 1 + Math.PI, 1);
  });

  it('that crosses itself and turns back is one region', () => {
    const regions = strokeRegions(line([0, 0], [30, 0], [30, 20], [15, 20], [15, -10], [15, 20]), roundStroke(3), 0.01);
    expect(regions).toHaveLength(1);
  });
});

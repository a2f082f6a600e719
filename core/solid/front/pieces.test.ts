// Pieces of a front: each inside of what it is on, none over another.
import { describe, expect, it } from 'vitest';
import { regionsArea } from '../../outline/measure.ts';
import { sharedArea } from '../../outline/overlap.ts';
import type { Region } from '../../outline/types.ts';
import { type FrontPiece, piecesOn } from './pieces.ts';

const ring = (low: number, left: number, high: number, right: number) =>
  Float64Array.of(left, low, right, low, right, high, left, high);
const frame = (half: number, thick: number): Region => ({
  outer: ring(-half, -half, half, half),
  holes: [Float64Array.from([...ring(thick - half, thick - half, half - thick, half - thick)]).reverse()].map((hole) =>
    // Backwards are the points, not the numbers.
    Float64Array.from(hole, (_, i) => hole[i ^ 1]!),
  ),
});
const block = (low: number, left: number, high: number, right: number): Region => ({
  outer: ring(low, left, high, right),
  holes: [],
});
const PLATE = [block(-20, -20, 20, 20)];

function mustBeApart(pieces: readonly FrontPiece[]): void {
  for (const [i, a] of pieces.entries()) {
    for (const b of pieces.slice(i + 1)) expect(sharedArea([a.region], [b.region])).toBe(0);
    for (const on of a.on) {
      expect(sharedArea([a.region], [on.region])).toBeCloseTo(regionsArea([on.region]), 6);
    }
    mustBeApart(a.on);
  }
}
const areaOf = (pieces: readonly FrontPiece[], step: number): number =>
  pieces.reduce((sum, { region, step: own, on }) => {
    return sum + (own === step ? regionsArea([region]) : 0) + areaOf(on, step);
  }, 0);

describe('pieces of a front', () => {
  it('lie on the smallest that they are within, a margin inside', () => {
    const pieces = piecesOn(PLATE, [[block(-10, -10, 10, 10)], [block(-5, -5, 5, 5)], [block(-1, -1, 1, 1)]], 40);
    expect(pieces).toMatchObject([{ step: 0, on: [{ step: 1, on: [{ step: 2, on: [] }] }] }]);
    mustBeApart(pieces);
    expect(areaOf(pieces, 2)).toBeCloseTo(4, 6);
  });

  // A frame that reaches to where the grid of coordinates ends, which is at a power of two: made wider, it reached beyond.
  it('come over a rim and are cut there, also at the end of the grid', () => {
    const pieces = piecesOn(PLATE, [[frame(8, 2)], [block(-1, 3, 1, 8)]], 40);
    mustBeApart(pieces);
    expect(areaOf(pieces, 0)).toBeCloseTo(112, 6);
    // What lies in the frame’s opening, less the margin to the frame.
    expect(areaOf(pieces, 1)).toBeCloseTo(2 * (3 - 0.04), 6);
  });

  it('of one list that touch in a point stay two', () => {
    const pieces = piecesOn(PLATE, [[block(0, 0, 4, 4), block(-4, -4, 0, 0)]], 40);
    expect(pieces).toHaveLength(2);
    mustBeApart(pieces);
  });

  it('that do not lie on the front are none', () => {
    expect(piecesOn(PLATE, [[block(30, 30, 40, 40)]], 40)).toEqual([]);
  });
});

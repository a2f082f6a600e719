// Moved, turned, scaled and mirrored, on squares whose corners are known.
import { describe, expect, it } from 'vitest';
import { type Matrix, parsePath, printPath, transformPath } from '../../core/index.ts';
import { movedBy, scaledBy, scaledTo, turnedBy, turnedTo } from './placing.ts';

const area = { minX: 10, minY: 20, maxX: 14, maxY: 22 };
const mapped = (matrix: Matrix) => printPath(transformPath(parsePath('M10 20L14 20L14 22Z').path, matrix), 6);

describe('placing', () => {
  it('moves, turns clockwise as seen, and mirrors about the middle', () => {
    expect(mapped(movedBy(1, -2))).toBe(printPath(parsePath('M11 18L15 18L15 20Z').path, 6));
    expect(mapped(turnedBy(90, { x: 12, y: 21 }))).toBe(printPath(parsePath('M13 19L13 23L11 23Z').path, 6));
    expect(mapped(scaledBy(-1, 1, { x: 12, y: 21 }))).toBe(printPath(parsePath('M14 20L10 20L10 22Z').path, 6));
  });

  it('scales a dragged corner about the one across, both ways alike unless it is free', () => {
    expect(mapped(scaledTo(area, 2, { x: 18, y: 24 }, false))).toBe(
      printPath(parsePath('M10 20L18 20L18 24Z').path, 6),
    );
    expect(mapped(scaledTo(area, 2, { x: 18, y: 22 }, true))).toBe(printPath(parsePath('M10 20L18 20L18 22Z').path, 6));
    // Off the diagonal it goes as far as the hand went along it.
    const [, , , d] = scaledTo(area, 2, { x: 14 + 1, y: 22 - 2 }, false);
    expect(d).toBeCloseTo(1, 12);
  });

  it('turns after the hand, in steps of 15° where that is wished', () => {
    const [a, b] = turnedTo({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 1 }, false);
    expect([a, b]).toEqual([expect.closeTo(Math.SQRT1_2, 12), expect.closeTo(Math.SQRT1_2, 12)]);
    const [c] = turnedTo({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 0.3 }, true);
    expect(c).toBeCloseTo(Math.cos(Math.PI / 12), 12);
  });
});

// Moved, turned, scaled and mirrored, on squares whose corners are known.
import { describe, expect, it } from 'vitest';
import { type Matrix, parsePath, printPath, transformPath } from '../../core/index.ts';
import { guidesMet, guidesOf, movedBy, movedInLine, scaledBy, scaledTo, turnedBy, turnedTo } from './placing.ts';

const area = { minX: 10, minY: 20, maxX: 14, maxY: 22 };
const FREE = { x: [], y: [], reach: 1 };
const mapped = (matrix: Matrix) => printPath(transformPath(parsePath('M10 20L14 20L14 22Z').path, matrix), 6);

describe('placing', () => {
  it('moves, turns clockwise as seen, and mirrors about the middle', () => {
    expect(mapped(movedBy(1, -2))).toBe(printPath(parsePath('M11 18L15 18L15 20Z').path, 6));
    expect(mapped(turnedBy(90, { x: 12, y: 21 }))).toBe(printPath(parsePath('M13 19L13 23L11 23Z').path, 6));
    expect(mapped(scaledBy(-1, 1, { x: 12, y: 21 }))).toBe(printPath(parsePath('M14 20L10 20L10 22Z').path, 6));
  });

  it('scales a dragged corner about the one across, both ways alike unless it is free', () => {
    expect(mapped(scaledTo(area, 2, { x: 18, y: 24 }, false, FREE))).toBe(
      printPath(parsePath('M10 20L18 20L18 24Z').path, 6),
    );
    expect(mapped(scaledTo(area, 2, { x: 18, y: 22 }, true, FREE))).toBe(
      printPath(parsePath('M10 20L18 20L18 22Z').path, 6),
    );
    // Off the diagonal it goes as far as the hand went along it.
    const [, , , d] = scaledTo(area, 2, { x: 14 + 1, y: 22 - 2 }, false, FREE);
    expect(d).toBeCloseTo(1, 12);
  });

  it('turns after the hand, in steps of 15° where that is wished', () => {
    const [a, b] = turnedTo({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 1 }, 'never');
    expect([a, b]).toEqual([expect.closeTo(Math.SQRT1_2, 12), expect.closeTo(Math.SQRT1_2, 12)]);
    const [c] = turnedTo({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 0.3 }, 'always');
    expect(c).toBeCloseTo(Math.cos(Math.PI / 12), 12);
    // 44° and 42° of the hand: the one is meant to be 45°.
    const by = (degrees: number, near: 'near' | 'never') => {
      const at = (degrees * Math.PI) / 180;
      const [p, q] = turnedTo({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: Math.cos(at), y: Math.sin(at) }, near);
      return (Math.atan2(q, p) * 180) / Math.PI;
    };
    expect([by(44, 'near'), by(42, 'near'), by(44, 'never')]).toEqual([45, 42, 44].map((v) => expect.closeTo(v, 9)));
  });

  it('comes to sides and middles of others and of the sheet, and says to which', () => {
    // A sheet of 100 × 60, and a square whose left side lies at 50.
    const others = [
      { minX: 0, minY: 0, maxX: 100, maxY: 60 },
      { minX: 50, minY: 5, maxX: 60, maxY: 15 },
    ];
    const guides = guidesOf(others, 1);
    // Right side at 14 + 35.4: nearly at 50. Middle at 21 + 8.7: nearly in the middle of the sheet.
    const move = movedInLine(area, 35.4, 8.7, guides);
    expect(move).toEqual(movedBy(36, 9));
    expect(guidesMet(area, move, guides)).toEqual({ x: [50], y: [30] });
    expect(movedInLine(area, 20, 12, guides)).toEqual(movedBy(20, 12));
    expect(guidesMet(area, movedBy(20, 12), guides)).toEqual({ x: [], y: [] });
    // A way that the hand does not go stays as it is.
    expect(movedInLine({ ...area, minX: 49.5, maxX: 53.5 }, 0, 0, guides)).toEqual(movedBy(0, 0));
  });

  it('scales up to a guide, whichever of both ways is nearer to one', () => {
    const guides = guidesOf([{ minX: 50, minY: 60, maxX: 60, maxY: 62 }], 1);
    const [a, , , d] = scaledTo(area, 2, { x: 49.6, y: 39.8 }, false, guides);
    expect(10 + a * 4).toBeCloseTo(50, 9);
    expect(a).toBe(d);
    const [free, , , up] = scaledTo(area, 2, { x: 49.6, y: 40 }, true, guides);
    expect(10 + free * 4).toBeCloseTo(50, 9);
    expect(20 + up * 2).toBeCloseTo(40, 9);
  });
});

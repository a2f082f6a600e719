// Figures drawn by hand, against closed forms.
import { describe, expect, it } from 'vitest';
import { draggedBox, ellipseIn, lineToContinue, rectanglePath, reversedLine, withCorner, withPull } from './figures.ts';
import { flatten } from './flatten.ts';
import { parsePath } from './parse.ts';
import { isSmooth, type PathLine, pathOfLines } from './points.ts';
import { printPath } from './print.ts';

const areaOf = (ring: Float64Array | readonly number[]) => {
  let sum = 0;
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    sum += ring[i]! * ring[j + 1]! - ring[j]! * ring[i + 1]!;
  }
  return Math.abs(sum) / 2;
};

describe('dragged figures', () => {
  it('span the drag, evenly or from the middle', () => {
    expect(draggedBox([1, 2], [11, -3], false, false)).toEqual({ from: [1, 2], to: [11, -3] });
    expect(draggedBox([1, 2], [11, -3], true, false)).toEqual({ from: [1, 2], to: [11, -8] });
    expect(draggedBox([1, 2], [11, -3], false, true)).toEqual({ from: [-9, 7], to: [11, -3] });
  });

  it('run the same way round whichever corner was first', () => {
    const d = 'M0 0L4 0L4 3L0 3Z';
    expect(printPath(rectanglePath({ from: [4, 3], to: [0, 0] }), 6)).toBe(d);
    expect(printPath(rectanglePath({ from: [0, 3], to: [4, 0] }), 6)).toBe(d);
  });

  it('make an ellipse of area πab', () => {
    const [ring] = flatten(ellipseIn({ from: [10, 5], to: [-10, -5] }), 1e-4);
    expect(areaOf(ring!)).toBeCloseTo(Math.PI * 10 * 5, 1);
  });
});

describe('a line under the pen', () => {
  const empty: PathLine = { points: [], isClosed: false };

  it('gets corners, and curves where a point is pulled', () => {
    const drawn = withPull(withCorner(withCorner(empty, [0, 0]), [10, 0]), [14, 3]);
    expect(isSmooth(drawn.points[1]!)).toBe(true);
    expect(printPath(pathOfLines([withCorner(drawn, [20, 0])]), 6)).toBe('M0 0C0 0 6 -3 10 0C14 3 20 0 20 0');
  });

  it('goes on from either end of one that is open', () => {
    const { path } = parsePath('M0 0L10 0M50 0L60 0L60 10Z');
    expect(lineToContinue(path, [60, 1], 2)).toBeNull();
    expect(lineToContinue(path, [9, 1], 2)?.line.points.at(-1)?.at).toEqual([10, 0]);
    const turned = lineToContinue(path, [1, 0], 2)!;
    expect(turned.index).toBe(0);
    expect(turned.line.points.map(({ at }) => at)).toEqual([
      [10, 0],
      [0, 0],
    ]);
  });

  it('is the same curve when it is turned round', () => {
    const drawn = withCorner(withPull(withCorner(withCorner(empty, [0, 0]), [10, 0]), [14, 3]), [20, 0]);
    expect(reversedLine(reversedLine(drawn))).toEqual(drawn);
    const there = flatten(pathOfLines([{ ...drawn, isClosed: true }]), 0.01)[0]!;
    const back = flatten(pathOfLines([{ ...reversedLine(drawn), isClosed: true }]), 0.01)[0]!;
    expect(areaOf(back)).toBeCloseTo(areaOf(there), 6);
  });
});

// Points and handles: what a hand does to them, and that nothing else moves.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ellipsePath } from './arc.ts';
import { flatten } from './flatten.ts';
import { parsePath } from './parse.ts';
import {
  alignPoints,
  changedAt,
  closeLine,
  continued,
  insertPoint,
  isSmooth,
  linesOf,
  makeCorners,
  makeSmooth,
  moveHandle,
  movePoints,
  nearestOnLine,
  openAt,
  type PathLine,
  pathOfLines,
  removePoints,
  restAt,
  straighten,
  weldPoints,
} from './points.ts';
import { printPath } from './print.ts';

const line = (d: string): PathLine => linesOf(parsePath(d).path)[0]!;
const print = (...lines: PathLine[]) => printPath(pathOfLines(lines), 6);
const WAVE = 'M0 0C10 0 10 20 20 20C30 20 30 0 40 0L40 -10';

/** Largest distance between the curves of two lines, by their chords' corners. */
function apart(a: PathLine, b: PathLine): number {
  const corners = flatten(pathOfLines([a]), 1e-3).flatMap((ring) => [...ring]);
  let worst = 0;
  for (let i = 0; i < corners.length; i += 2) {
    worst = Math.max(worst, nearestOnLine(b, corners[i]!, corners[i + 1]!)!.distance);
  }
  return worst;
}

describe('lines of points', () => {
  it.each([WAVE, 'M0 0L9 0L9 9Z', 'M0 0C1 2 3 4 5 6Z', 'M1 1', 'M0 0L1 0M5 5C6 6 7 7 8 8Z'])(
    '%s comes back as it was',
    (d) => {
      const { path } = parsePath(d);
      expect(printPath(pathOfLines(linesOf(path)), 9)).toBe(printPath(path, 9));
    },
  );

  it('of a circle close on their first point', () => {
    const [circle] = linesOf(ellipsePath(0, 0, 5, 5));
    expect([circle!.points.length, circle!.isClosed, circle!.points.every(isSmooth)]).toEqual([8, true, true]);
  });
});

describe('moving', () => {
  it('a point takes its handles along, and nothing else moves', () => {
    expect(print(movePoints(line(WAVE), new Set([1]), 1, 2))).toBe('M0 0C10 0 11 22 21 22C31 22 30 0 40 0L40 -10');
  });

  it('a handle turns the other, mirrors it or leaves it', () => {
    const start = line('M0 0C2 0 8 0 10 0C16 0 18 0 20 0');
    const of = (mode: 'together' | 'mirrored' | 'alone') => moveHandle(start, 1, 'into', [10, -4], mode).points[1];
    expect(of('together')).toMatchObject({ into: [10, -4], out: [10, 6] });
    expect(of('mirrored')).toMatchObject({ into: [10, -4], out: [10, 4] });
    expect(of('alone')).toMatchObject({ into: [10, -4], out: [16, 0] });
  });
});

describe('points', () => {
  it('put into a piece leave the curve as it was', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 }), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (piece, t) => {
        const before = line(WAVE);
        const after = insertPoint(before, piece, t);
        expect(after.points).toHaveLength(before.points.length + 1);
        expect(apart(after, before)).toBeLessThan(1e-6);
      }),
    );
  });

  it('put in and taken out again leave the curve as it was', () => {
    const before = line(WAVE);
    for (const t of [0.2, 0.5, 0.8]) {
      const there = insertPoint(before, 0, t);
      expect(apart(removePoints(there, new Set([1])), before)).toBeLessThan(2e-3);
    }
    expect(print(removePoints(insertPoint(before, 2, 0.5), new Set([3])))).toBe(print(before));
  });

  it('taken out of a circle leave it nearly round', () => {
    const [circle] = linesOf(ellipsePath(0, 0, 10, 10));
    const fewer = removePoints(circle!, new Set([1, 3, 5, 7]));
    expect(fewer.points).toHaveLength(4);
    // One cubic a quarter: 2.7e-4 of the radius at best.
    expect(apart(fewer, circle!)).toBeLessThan(0.01);
  });

  it('taken out down to one leave nothing', () => {
    expect(removePoints(line('M0 0L5 5L9 0'), new Set([0, 1])).points).toEqual([]);
    expect(print(removePoints(line('M0 0L5 5L9 0'), new Set([2])))).toBe('M0 0L5 5');
  });

  it('become smooth between their neighbours, and corners again', () => {
    const zigzag = line('M0 0L10 10L20 0');
    const smooth = makeSmooth(zigzag, new Set([1]));
    expect(isSmooth(smooth.points[1]!)).toBe(true);
    expect(smooth.points[1]!.out![1]).toBe(10);
    expect(print(makeCorners(smooth, new Set([1])))).toBe('M0 0L10 10L20 0');
  });

  it('keep their other handle when one piece is made straight', () => {
    expect(print(straighten(line(WAVE), 0))).toBe('M0 0L20 20C30 20 30 0 40 0L40 -10');
  });
});

describe('ends', () => {
  it('close, open where asked, and go on', () => {
    const square = closeLine(line('M0 0L9 0L9 9L0 9'));
    expect(print(square)).toBe('M0 0L9 0L9 9L0 9Z');
    expect(print(openAt(square, 2))).toBe('M9 9L0 9L0 0L9 0L9 9');
    const more = { at: [5, 5] as const, into: null, out: null };
    expect(print(continued(line('M0 0L9 0'), false, more))).toBe('M0 0L9 0L5 5');
    expect(print(continued(line('M0 0L9 0'), true, more))).toBe('M5 5L0 0L9 0');
  });
});

describe('the nearest place on a line', () => {
  it('is found on lines and curves', () => {
    expect(nearestOnLine(line('M0 0L10 0L10 10'), 12, 5)).toMatchObject({ piece: 1, distance: 2 });
    const [circle] = linesOf(ellipsePath(0, 0, 10, 10));
    expect(nearestOnLine(circle!, 20, 15)!.distance).toBeCloseTo(15, 3);
    expect(nearestOnLine(line('M3 3'), 0, 0)).toBeNull();
  });
});

describe('what a drag changes', () => {
  const square = line('M0 0L10 0L10 10L0 10Z');

  it('is the pieces on both sides of a point, and the rest stays as it is', () => {
    const parted = (drawn: PathLine, ...which: number[]) =>
      [changedAt, restAt].map((part) => printPath(part(drawn, new Set(which)), 6));
    expect(parted(square, 0)).toEqual(['M0 0L10 0M0 10L0 0', 'M10 0L10 10L0 10']);
    expect(parted(line('M0 0L10 0L20 0'), 2)).toEqual(['M10 0L20 0', 'M0 0L10 0']);
    expect(parted(square, 0, 1, 2, 3)).toEqual(['M0 0L10 0L10 10L0 10L0 0', '']);
    expect(parted(line('M5 5'), 0)).toEqual(['', '']);
  });
});

describe('welding and aligning', () => {
  const [open] = linesOf(parsePath('M0 0L10 0L11 1L12 0L20 0').path);
  const [ring] = linesOf(parsePath('M0 0H10V10H0Z').path);

  it('makes one point of those that follow each other, wherever the line begins', () => {
    expect(print(weldPoints(open!, new Set([1, 2, 3])))).toBe('M0 0L11 0.333333L20 0');
    // First and last follow each other on a closed line.
    const welded = weldPoints(ring!, new Set([0, 3]));
    expect(welded.points.map(({ at }) => at)).toEqual([
      [10, 0],
      [10, 10],
      [0, 5],
    ]);
    expect(weldPoints(ring!, new Set([0, 2]))).toEqual({ ...ring, points: expect.arrayContaining([...ring!.points]) });
  });

  it('closes an open line whose ends are welded, without a double point', () => {
    const [bent] = linesOf(parsePath('M0 0L10 0L10 10L0 1').path);
    const closed = weldPoints(bent!, new Set([0, 3]));
    expect(closed.isClosed).toBe(true);
    expect(closed.points).toHaveLength(3);
    expect(closed.points.map(({ at }) => at)).toContainEqual([0, 0.5]);
  });

  it('brings points onto one line, handles along', () => {
    expect(print(alignPoints(open!, new Set([1, 2]), 1, 5))).toBe('M0 0L10 5L11 5L12 0L20 0');
    const [curve] = linesOf(parsePath('M0 0C1 1 4 1 5 0C6 -1 9 -1 10 0').path);
    expect(print(alignPoints(curve!, new Set([1]), 0, 6))).toBe('M0 0C1 1 5 1 6 0C7 -1 9 -1 10 0');
  });
});

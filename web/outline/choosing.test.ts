// Shapes chosen by the gestures of the Outline station: a box, a line drawn round them.
import { describe, expect, it } from 'vitest';
import type { OutlineShape } from '../../core/index.ts';
import { areaBetween, areaOf, inBox, inLasso } from './choosing.ts';

const shape = (id: string, minX: number, minY: number, maxX: number, maxY: number) =>
  ({ id, box: { minX, minY, maxX, maxY } }) as OutlineShape;

const SHAPES = [shape('left', 0, 0, 2, 2), shape('middle', 4, 0, 6, 2), shape('right', 8, 0, 10, 2)];

describe('a box', () => {
  it('is the same in whichever direction it is drawn', () => {
    const corners = [
      [-1, -1, 7, 3],
      [7, 3, -1, -1],
      [-1, 3, 7, -1],
    ] as const;
    for (const [ax, ay, bx, by] of corners) {
      expect(areaBetween({ x: ax, y: ay }, { x: bx, y: by })).toEqual({ minX: -1, minY: -1, maxX: 7, maxY: 3 });
    }
  });

  it('chooses what lies whole in it', () => {
    expect(inBox(SHAPES, { minX: -1, minY: -1, maxX: 7, maxY: 3 })).toEqual(['left', 'middle']);
    expect(inBox(SHAPES, { minX: 1, minY: -1, maxX: 6, maxY: 2 })).toEqual(['middle']);
  });
});

describe('a line drawn round shapes', () => {
  // A horseshoe that leaves out the middle one.
  const HORSESHOE = [
    [-1, -1],
    [3, -1],
    [3, 5],
    [7, 5],
    [7, -1],
    [11, -1],
    [11, 9],
    [-1, 9],
  ].map(([x, y]) => ({ x: x!, y: y! }));

  it('chooses those whose middles it encloses, however it bends and runs', () => {
    expect(inLasso(SHAPES, HORSESHOE)).toEqual(['left', 'right']);
    expect(inLasso(SHAPES, HORSESHOE.toReversed())).toEqual(['left', 'right']);
  });

  it('chooses nothing when it is no more than a click', () => {
    expect(inLasso(SHAPES, [])).toEqual([]);
    expect(inLasso(SHAPES, [{ x: 1, y: 1 }])).toEqual([]);
  });
});

describe('the area round shapes', () => {
  it('holds all of them, and is none for none', () => {
    expect(areaOf(SHAPES)).toEqual({ minX: 0, minY: 0, maxX: 10, maxY: 2 });
    expect(areaOf([])).toBeNull();
  });
});

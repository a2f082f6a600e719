// Bodies at any angle to each other, against a test for boxes alone.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moved, type Point, product, type Rigid, shift, turn, undone } from '../geometry/rigid.ts';
import { cross, dot } from '../geometry/vectors.ts';
import { cube } from '../testing/meshes.ts';
import { piercingOf } from './piercing.ts';
import { placedAt } from './place.ts';

/** Turned about the origin, then moved. */
const at = (turning: Rigid, by: Point): Rigid => product(shift(by), turning);

describe('two bodies', () => {
  it('share no space side by side, face to face and corner to corner', () => {
    expect(piercingOf(cube(2), cube(2, 3))).toBeNull();
    expect(piercingOf(cube(2), cube(2, 2))).toBeNull();
    expect(piercingOf(cube(2), cube(1, 2, 0.5, 0.5))).toBeNull();
    expect(piercingOf(cube(2), cube(2, 2, 2, 2))).toBeNull();
  });

  it('share space where one is turned into the other, at a place that lies in both boxes', () => {
    const tilted = placedAt(cube(2, -1, -1, -1), at(turn([30, 40, 0]), [2, 1, 1]));
    const found = piercingOf(cube(2), tilted)!;
    expect(found.pairs).toBeGreaterThan(0);
    // On the surface of the cube that stands straight, and of the other one seen from its own place.
    const back = moved(undone(at(turn([30, 40, 0]), [2, 1, 1])), found.at);
    expect(Math.max(...found.at.map((v) => Math.abs(v - 1)))).toBeCloseTo(1, 9);
    expect(Math.max(...back.map(Math.abs))).toBeCloseTo(1, 9);
  });

  it('share space where one lies wholly within the other, either way', () => {
    const inner = placedAt(cube(1, -0.5, -0.5, -0.5), at(turn([20, 30, 40]), [2, 2, 2]));
    for (const [a, b] of [
      [cube(4), inner],
      [inner, cube(4)],
    ] as const) {
      const found = piercingOf(a, b)!;
      expect(found.pairs).toBe(0);
    }
  });

  it('are told apart as by the axes that separate boxes (Gottschalk, Lin & Manocha 1996)', () => {
    const angle = fc.integer({ min: -80, max: 80 });
    const off = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(angle, angle, angle), fc.tuple(off, off, off), (angles, shifts) => {
        const gap = widestGap(turn(angles), shifts);
        // What is as good as touching may be told either way.
        fc.pre(Math.abs(gap) > 1e-6);
        const other = placedAt(cube(2, -1, -1, -1), at(turn(angles), shifts));
        expect(piercingOf(cube(2, -1, -1, -1), other) === null).toBe(gap > 0);
      }),
      { numRuns: 400 },
    );
  });
});

/** How far a cube of side 2 and one turned and moved are apart, along the axis on which they are farthest; below 0 where they meet. */
function widestGap(turning: Rigid, shifts: Point): number {
  const world: Point[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  const own = world.map((axis) => moved(turning, axis));
  const crosses = world.flatMap((a) => own.map((b) => cross(a, b)));
  return [...world, ...own, ...crosses].reduce((widest, axis) => {
    const length = Math.hypot(...axis);
    if (length < 1e-9) return widest;
    const reach = (axes: readonly Point[]) => axes.reduce((sum, each) => sum + Math.abs(dot(each, axis)), 0);
    return Math.max(widest, (Math.abs(dot(shifts, axis)) - reach(world) - reach(own)) / length);
  }, -Infinity);
}

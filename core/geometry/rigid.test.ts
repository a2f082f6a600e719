// Moves beside the general-purpose library that draws the view (MathUtils, Euler, Matrix4, Quaternion of three.js).
import fc from 'fast-check';
import { Euler, MathUtils, Matrix4, Quaternion, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import {
  about,
  anglesOf,
  isMirroring,
  MIRROR,
  moved,
  type Point,
  product,
  quaternionOf,
  type Rigid,
  STAY,
  shift,
  turn,
  undone,
} from './rigid.ts';

const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const point = fc.tuple(number(100), number(100), number(100));
const angles = fc.tuple(number(360), number(360), number(360));

/** About x first and the world's axes throughout is what three.js calls the order ZYX. */
const theirs = ([x, y, z]: Point) =>
  new Matrix4().makeRotationFromEuler(
    new Euler(...([x, y, z].map(MathUtils.degToRad) as [number, number, number]), 'ZYX'),
  );
const rows = (m: Matrix4): Rigid => {
  const [a, b, c, , d, e, f, , g, h, i, , x, y, z] = m.elements;
  return [a, d, g, x, b, e, h, y, c, f, i, z] as unknown as Rigid;
};
const near = (a: readonly number[], b: readonly number[], within = 1e-9) => {
  for (const [i, v] of a.entries()) expect(Math.abs(v - b[i]!)).toBeLessThan(within);
};

describe('a rigid move', () => {
  it('turns points as three.js does', () => {
    fc.assert(
      fc.property(angles, point, (by, at) => {
        near(moved(turn(by), at), new Vector3(...at).applyMatrix4(theirs(by)).toArray());
      }),
    );
  });

  it('follows one move by another, and is undone', () => {
    fc.assert(
      fc.property(angles, point, angles, point, (a, s, b, t) => {
        const [first, second] = [product(shift(s), turn(a)), product(shift(t), turn(b))];
        const [p, q] = [theirs(a).setPosition(...s), theirs(b).setPosition(...t)];
        near(product(second, first), rows(q.clone().multiply(p)));
        near(product(undone(first), first), STAY);
        near(product(first, undone(first)), STAY);
      }),
    );
  });

  it('about a point leaves that point where it is', () => {
    fc.assert(fc.property(angles, point, (by, at) => near(moved(about(at, turn(by)), at), at)));
  });

  it('is the turn of the angles found in it, also where y is a quarter turn', () => {
    fc.assert(fc.property(angles, (by) => near(turn(anglesOf(turn(by))), turn(by), 1e-7)));
    for (const y of [90, -90])
      for (const z of [0, 30, 180]) near(turn(anglesOf(turn([25, y, z]))), turn([25, y, z]), 1e-7);
  });

  it('has the quaternion that three.js finds, up to its sign', () => {
    fc.assert(
      fc.property(angles, (by) => {
        const own = quaternionOf(turn(by));
        const expected = new Quaternion().setFromRotationMatrix(theirs(by)).toArray();
        const sign = Math.sign(own.reduce((sum, v, i) => sum + v * expected[i]!, 0));
        near(
          own,
          expected.map((v) => v * sign),
          1e-7,
        );
      }),
    );
  });

  it('keeps quarter turns exact, and knows a mirror image', () => {
    expect(moved(turn([90, 0, 0]), [1, 2, 3])).toEqual([1, -3, 2]);
    expect(moved(turn([0, 0, -270]), [1, 2, 3])).toEqual([-2, 1, 3]);
    expect(isMirroring(MIRROR)).toBe(true);
    expect(isMirroring(product(turn([10, 20, 30]), MIRROR))).toBe(true);
    expect(isMirroring(product(MIRROR, product(turn([10, 20, 30]), MIRROR)))).toBe(false);
  });
});

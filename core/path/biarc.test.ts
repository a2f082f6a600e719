// Curves as arcs: near enough, without corners, and few where the curve is nearly an arc itself.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bulgePieces } from '../formats/dxf/curves.ts';
import { type ArcTo, arcsOf } from './biarc.ts';
import { at, type Cubic, directionAt } from './cubic.ts';

/** Places along the arcs, a few on each. */
function along([x0, y0]: readonly [number, number], arcs: readonly ArcTo[]): [number, number][] {
  const from = [{ x: x0, y: y0 }, ...arcs];
  return arcs.flatMap(({ x, y, bulge }, i) =>
    bulgePieces([from[i]!.x, from[i]!.y], [x, y], bulge).flatMap(({ cubic }) =>
      Array.from({ length: 5 }, (_, k): [number, number] => [at(cubic, 0, k / 4), at(cubic, 1, k / 4)]),
    ),
  );
}

const apart = (from: readonly [number, number][], to: readonly [number, number][]) =>
  from.reduce((most, [x, y]) => {
    const least = to.reduce((best, [u, v]) => Math.min(best, (u - x) ** 2 + (v - y) ** 2), Infinity);
    return Math.max(most, Math.sqrt(least));
  }, 0);

const places = (cubic: Cubic, count: number) =>
  Array.from({ length: count + 1 }, (_, k): [number, number] => [at(cubic, 0, k / count), at(cubic, 1, k / count)]);

const coordinate = fc.double({ min: -100, max: 100, noNaN: true });
const anyCubic = fc.tuple(...(Array(8).fill(coordinate) as [typeof coordinate])).map((c) => c as unknown as Cubic);

describe('arcs of a curve', () => {
  it('are one pair for a quarter of a circle, with its radius', () => {
    // The usual four cubics of a circle stray 2.7e-4 of the radius (Goldapp 1991).
    const k = 0.5522847498;
    const arcs = arcsOf([1, 0, 1, k, k, 1, 0, 1], 1e-3);
    expect(arcs).toHaveLength(2);
    // Each turns by 45°: its bulge is the tangent of a quarter of that.
    for (const { bulge } of arcs) expect(bulge).toBeCloseTo(Math.tan(Math.PI / 16), 3);
  });

  it('lie within the tolerance of any curve, and end where it does', () => {
    fc.assert(
      fc.property(anyCubic, fc.constantFrom(0.5, 0.05), (cubic, tolerance) => {
        fc.pre(directionAt(cubic, 0) !== null);
        const arcs = arcsOf(cubic, tolerance);
        expect([arcs.at(-1)!.x, arcs.at(-1)!.y]).toEqual([cubic[6], cubic[7]]);
        const own = along([cubic[0], cubic[1]], arcs);
        const curve = places(cubic, 1500);
        // Compared at places, so a little further apart than they are; a curve with a cusp is halved to nearly nothing.
        const step = Math.max(...curve.slice(1).map(([x, y], i) => Math.hypot(x - curve[i]![0], y - curve[i]![1])));
        expect(apart(own, curve)).toBeLessThan(2 * tolerance + step);
      }),
      { numRuns: 40 },
    );
  });
});

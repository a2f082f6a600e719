// Against SVG 2, Appendix B.2: the centre form of an arc, computed here from its own definition.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arcToCubics, ellipsePath } from './arc.ts';

type Cubic = readonly ['C', number, number, number, number, number, number];

/** Points along the cubics. */
function sample(x0: number, y0: number, cubics: readonly Cubic[]): [number, number][] {
  const points: [number, number][] = [];
  let [x, y] = [x0, y0];
  for (const [, x1, y1, x2, y2, x3, y3] of cubics) {
    for (let t = 0; t <= 1; t += 0.125) {
      const u = 1 - t;
      const mix = (a: number, b: number, c: number, d: number) =>
        u ** 3 * a + 3 * u * u * t * b + 3 * u * t * t * c + t ** 3 * d;
      points.push([mix(x, x1, x2, x3), mix(y, y1, y2, y3)]);
    }
    [x, y] = [x3, y3];
  }
  return points;
}

describe('arcs', () => {
  it('makes a half circle about its middle', () => {
    const cubics = arcToCubics(0, 0, { rx: 5, ry: 5, rotationDeg: 0, largeArc: false, sweep: true }, 10, 0);
    for (const [x, y] of sample(0, 0, cubics)) {
      expect(Math.hypot(x - 5, y)).toBeCloseTo(5, 4);
      expect(y).toBeLessThanOrEqual(1e-9);
    }
  });

  it('tells the four arcs between two points apart by their flags', () => {
    const far = (largeArc: boolean, sweep: boolean) => {
      const arc = { rx: 5, ry: 5, rotationDeg: 0, largeArc, sweep };
      return sample(0, 0, arcToCubics(0, 0, arc, 6, 0)).reduce(
        (most, [, y]) => (Math.abs(y) > Math.abs(most) ? y : most),
        0,
      );
    };
    // Circles of radius 5 through (0,0) and (6,0) have centres (3, ±4): caps of height 1 and 9.
    expect(far(false, true)).toBeCloseTo(-1, 4);
    expect(far(false, false)).toBeCloseTo(1, 4);
    expect(far(true, true)).toBeCloseTo(-9, 4);
    expect(far(true, false)).toBeCloseTo(9, 4);
  });

  it('scales radii up that cannot reach (B.2.5)', () => {
    const cubics = arcToCubics(0, 0, { rx: 1, ry: 1, rotationDeg: 0, largeArc: false, sweep: true }, 10, 0);
    for (const [x, y] of sample(0, 0, cubics)) expect(Math.hypot(x - 5, y)).toBeCloseTo(5, 4);
  });

  it('is a straight line for a zero radius and nothing for equal ends (B.2.5)', () => {
    const flat = { rx: 0, ry: 5, rotationDeg: 0, largeArc: false, sweep: true };
    expect(arcToCubics(1, 2, flat, 3, 4)).toEqual([['C', 1, 2, 3, 4, 3, 4]]);
    expect(arcToCubics(1, 2, { ...flat, rx: 5 }, 1, 2)).toEqual([]);
  });

  it('stays on its ellipse, ends exactly where it should and joins smoothly', () => {
    const coordinate = fc.double({ min: -100, max: 100, noNaN: true });
    const radius = fc.double({ min: 0.5, max: 100, noNaN: true });
    const arcs = fc.tuple(coordinate, coordinate, radius, radius, coordinate, fc.boolean(), fc.boolean());
    fc.assert(
      fc.property(arcs, ([x1, y1, rx, ry, rotationDeg, largeArc, sweep]) => {
        fc.pre(Math.hypot(x1, y1) > 1e-3);
        const cubics = arcToCubics(0, 0, { rx, ry, rotationDeg, largeArc, sweep }, x1, y1);
        expect(cubics.at(-1)!.slice(5)).toEqual([x1, y1]);
        // In the frame of the ellipse all points have one centre at distance 1: three of them fix it, all must agree.
        const phi = (rotationDeg * Math.PI) / 180;
        const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
        const unit = sample(0, 0, cubics).map(
          ([x, y]) => [(cos * x + sin * y) / rx, (-sin * x + cos * y) / ry] as const,
        );
        const radiusHere = Math.max(1, Math.hypot((cos * x1 + sin * y1) / rx, (-sin * x1 + cos * y1) / ry) / 2);
        const [ax, ay] = unit[0]!;
        const [bx, by] = unit.at(-1)!;
        const half = Math.hypot(bx - ax, by - ay) / 2;
        const off = Math.sqrt(Math.max(0, radiusHere ** 2 - half ** 2)) * (largeArc === sweep ? 1 : -1);
        const [cx, cy] = [
          (ax + bx) / 2 + (off * (by - ay)) / (2 * half),
          (ay + by) / 2 - (off * (bx - ax)) / (2 * half),
        ];
        for (const [u, v] of unit) expect(Math.abs(Math.hypot(u - cx, v - cy) / radiusHere - 1)).toBeLessThan(1e-5);
      }),
    );
  });

  it('draws a whole ellipse in eighths within 4.3e-6 of the radius', () => {
    const [, ...rest] = ellipsePath(3, 4, 10, 10);
    const cubics = rest.slice(0, -1) as unknown as Cubic[];
    expect(cubics).toHaveLength(8);
    for (const [x, y] of sample(13, 4, cubics)) expect(Math.abs(Math.hypot(x - 3, y - 4) - 10)).toBeLessThan(4.3e-5);
  });
});

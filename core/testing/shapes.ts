// shapes.ts — made-up outlines for tests.
import fc from 'fast-check';
import type { Region, Ring } from '../outline/types.ts';

export { reversed } from '../outline/reverse.ts';

export const ring = (...values: number[]): Ring => Float64Array.from(values);

/** Counter-clockwise. */
export const rectangle = (x: number, y: number, width: number, height: number): Ring =>
  ring(x, y, x + width, y, x + width, y + height, x, y + height);

/** Corners on a circle, the first at angle `turn`, counter-clockwise. */
export function regularPolygon(corners: number, radius: number, turn = 0, cx = 0, cy = 0): Ring {
  const points: number[] = [];
  for (let i = 0; i < corners; i++) {
    const angle = turn + (2 * Math.PI * i) / corners;
    points.push(cx + radius * Math.cos(angle), cy + radius * Math.sin(angle));
  }
  return Float64Array.from(points);
}

export function star(points: number, outer: number, inner: number): Ring {
  const values: number[] = [];
  for (let i = 0; i < 2 * points; i++) {
    const angle = (Math.PI * i) / points;
    const radius = i % 2 === 0 ? outer : inner;
    values.push(radius * Math.cos(angle), radius * Math.sin(angle));
  }
  return Float64Array.from(values);
}

export const region = (outer: Ring, ...holes: Ring[]): Region => ({ outer, holes });

/** Closed polygons with corners on a small integer grid: crossings, repeats and touches by the dozen. */
export const gridRings: fc.Arbitrary<Ring[]> = fc.array(
  fc
    .array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })), { minLength: 3, maxLength: 12 })
    .map((points) => Float64Array.from(points.flat())),
  { minLength: 1, maxLength: 4 },
);

/** Star-shaped polygons with corners at any distance: simple, with spikes and notches. */
export const spikyRing: fc.Arbitrary<Ring> = fc
  .array(fc.double({ min: 0.05, max: 10, noNaN: true }), { minLength: 3, maxLength: 40 })
  .map((radii) => {
    const values: number[] = [];
    for (const [i, radius] of radii.entries()) {
      const angle = (2 * Math.PI * i) / radii.length;
      values.push(radius * Math.cos(angle), radius * Math.sin(angle));
    }
    return Float64Array.from(values);
  });

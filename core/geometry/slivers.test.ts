// Triangulations without slivers: fronts that are all but used up, and random outlines with points nearly on their edges.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { edgesOf, linkedRings } from '../solid/edge/lines.ts';
import { gridRings } from '../testing/shapes.ts';
import { isBroad, mendSlivers } from './slivers.ts';
import { afterHalf, type BoundedTriangles, leftTurn, triangulateInside } from './triangulate.ts';

/** As slabs have it for what has a size of 1: six times what the proof takes for no area. */
const LEAST = 6e-12;

// @tabler/icons 3.52.0 (MIT), filled/search at a reach of 40 %: what is left of the front, 3e-4 of the size.
// biome-ignore format: one long ring
const LAST_OF_A_FRONT = Float64Array.of(-0.099608793, 0.099765589, -0.099610179, 0.099769168, -0.099612244, 0.099773881, -0.099641628, 0.099833391, -0.099646253, 0.099837361, -0.099650201, 0.099840462, -0.099653464, 0.099842816, -0.099657691, 0.099845613, -0.099759701, 0.099907296, -0.099780165, 0.099902751, -0.099784371, 0.099901628, -0.099786148, 0.099901049, -0.099787629, 0.099900467, -0.099793055, 0.099897975, -0.099799472, 0.099894691, -0.099808537, 0.099889557, -0.099817450, 0.099883997, -0.099825766, 0.099878306, -0.099827371, 0.099877104, -0.099858244, 0.099834840, -0.099860366, 0.099831653, -0.099861194, 0.099830255, -0.099861955, 0.099828741, -0.099864597, 0.099822717, -0.099867367, 0.099815572, -0.099870666, 0.099805823, -0.099873602, 0.099795719, -0.099876006, 0.099785866, -0.099877274, 0.099779475, -0.099877973, 0.099774783, -0.099879061, 0.099726672, -0.099877443, 0.099721467, -0.099875036, 0.099714745, -0.099871195, 0.099705300, -0.099866784, 0.099695647, -0.099862235, 0.099686714, -0.099858578, 0.099680228, -0.099855081, 0.099674629, -0.099853853, 0.099672997, -0.099850445, 0.099669115, -0.099838620, 0.099656867, -0.099826636, 0.099645464, -0.099822901, 0.099642234, -0.099821038, 0.099640861, -0.099815561, 0.099637489, -0.099809168, 0.099633945, -0.099799988, 0.099629354, -0.099790273, 0.099625000, -0.099780902, 0.099621269, -0.099774147, 0.099618905, -0.099767799, 0.099617005, -0.099766195, 0.099616642, -0.099764787, 0.099616405, -0.099760633, 0.099615885, -0.099707437, 0.099611506, -0.099702795, 0.099612578, -0.099692605, 0.099615377, -0.099682370, 0.099618648, -0.099674085, 0.099621678, -0.099666299, 0.099624895, -0.099662876, 0.099626477, -0.099660671, 0.099627609, -0.099658001, 0.099629271, -0.099655088, 0.099631256, -0.099599168, 0.099672829, -0.099600241, 0.099722173, -0.099600558, 0.099727026, -0.099601211, 0.099733015, -0.099602335, 0.099740344, -0.099603900, 0.099748240, -0.099605692, 0.099755593, -0.099607382, 0.099761416);

function triangulated(rings: readonly Float64Array[]): { points: Float64Array; triangles: BoundedTriangles } {
  const { points, next } = linkedRings(rings);
  return { points, triangles: triangulateInside(points, edgesOf(next)) };
}

const everyTriangle = ({ corners }: BoundedTriangles) =>
  Array.from(
    { length: corners.length / 3 },
    (_, t) => [...corners.subarray(3 * t, 3 * t + 3)] as [number, number, number],
  );

const sliversOf = (points: Float64Array, triangles: BoundedTriangles, least: number) =>
  everyTriangle(triangles).filter((triangle) => !isBroad(points, ...triangle, least));

const twice = (p: Float64Array, [a, b, c]: readonly [number, number, number]) =>
  leftTurn(p[2 * a]!, p[2 * a + 1]!, p[2 * b]!, p[2 * b + 1]!, p[2 * c]!, p[2 * c + 1]!);

const areaOf = (points: Float64Array, triangles: BoundedTriangles) =>
  everyTriangle(triangles).reduce((sum, triangle) => sum + twice(points, triangle) / 2, 0);

function expectSound(points: Float64Array, triangles: BoundedTriangles): void {
  for (const triangle of everyTriangle(triangles)) expect(twice(points, triangle)).toBeGreaterThan(0);
  const { corners, twins } = triangles;
  for (const [e, twin] of twins.entries()) {
    if (twin < 0) continue;
    expect(twins[twin]).toBe(e);
    expect([corners[twin], corners[afterHalf(twin)]]).toEqual([corners[afterHalf(e)], corners[e]]);
  }
}

describe('slivers', () => {
  it('are mended where no flip of two triangles helps', () => {
    const { points, triangles } = triangulated([LAST_OF_A_FRONT]);
    const area = areaOf(points, triangles);
    expect(sliversOf(points, triangles, LEAST).length).toBeGreaterThan(10);
    mendSlivers(points, triangles, LEAST);
    expect(sliversOf(points, triangles, LEAST)).toEqual([]);
    expectSound(points, triangles);
    expect(areaOf(points, triangles)).toBeCloseTo(area, 18);
  });

  it('never grow in number, whatever the outline, and what lies around them stays one triangulation', () => {
    fc.assert(
      fc.property(gridRings, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (drawing, share) => {
        const rings = ringsOf(regionsOf(drawing, 'evenodd'));
        fc.pre(rings.length > 0);
        // A point nearly on every edge, barely inside.
        const divided = rings.map((ring) => {
          const values: number[] = [];
          for (let i = 0; i < ring.length; i += 2) {
            const [dx, dy] = [ring[(i + 2) % ring.length]! - ring[i]!, ring[(i + 3) % ring.length]! - ring[i + 1]!];
            values.push(
              ring[i]!,
              ring[i + 1]!,
              ring[i]! + share * dx - 1e-9 * dy,
              ring[i + 1]! + share * dy + 1e-9 * dx,
            );
          }
          return Float64Array.from(values);
        });
        const { points, triangles } = triangulated(divided);
        const [area, before] = [areaOf(points, triangles), sliversOf(points, triangles, 1e-7).length];
        mendSlivers(points, triangles, 1e-7);
        expect(sliversOf(points, triangles, 1e-7).length).toBeLessThanOrEqual(before);
        expectSound(points, triangles);
        expect(areaOf(points, triangles)).toBeCloseTo(area, 9);
      }),
      { numRuns: 150 },
    );
  });
});

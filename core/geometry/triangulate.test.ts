// Against published properties of Delaunay triangulations (de Berg et al., Computational Geometry, ch. 9) and earcut's area.

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import earcut from '../../bench/sets/node_modules/earcut/src/earcut.js';
import { ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { gridRings, star } from '../testing/shapes.ts';
import { leftTurn, Triangulation } from './triangulate.ts';

const NO_EDGES = new Uint32Array(0);

/** Twice the signed area of triangle t. */
const turnOf = ({ points: p, corners }: Triangulation, t: number) => {
  const [a, b, c] = [2 * corners[3 * t]!, 2 * corners[3 * t + 1]!, 2 * corners[3 * t + 2]!];
  return leftTurn(p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, p[c]!, p[c + 1]!);
};

function expectSound(triangulation: Triangulation): void {
  for (let t = 0; t < triangulation.triangleCount; t++) expect(turnOf(triangulation, t)).toBeGreaterThan(0);
  for (const [e, twin] of triangulation.twins.entries()) {
    if (twin < 0) continue;
    expect(triangulation.twins[twin]).toBe(e);
    expect(triangulation.fixed[twin]! > 0).toBe(triangulation.fixed[e]! > 0);
    const end = triangulation.corners[e - (e % 3) + ((e + 1) % 3)];
    expect(triangulation.corners[twin]).toBe(end);
  }
}

/** Every edge, named from either end. */
function edgesOf({ corners }: Triangulation): Set<string> {
  const ends = [...corners].map((from, e) => [from, corners[e - (e % 3) + ((e + 1) % 3)]!] as const);
  return new Set(ends.flatMap(([a, b]) => [`${a}-${b}`, `${b}-${a}`]));
}

describe('triangulation', () => {
  it('counts left turns as positive with y up', () => {
    expect(leftTurn(0, 0, 1, 0, 0, 1)).toBeGreaterThan(0);
    expect(leftTurn(0, 0, 0, 1, 1, 0)).toBeLessThan(0);
    expect(Math.abs(leftTurn(0, 0, 1, 0, 2, 0))).toBe(0);
  });

  it('has 2n − 2 − h triangles for n points of which h lie on the hull', () => {
    const points = Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10, 3, 4, 6, 5, 5, 8);
    const triangulation = new Triangulation(points, NO_EDGES);
    expect(triangulation.triangleCount).toBe(2 * 7 - 2 - 4);
    expectSound(triangulation);
  });

  it('forces an edge through a crowd', () => {
    const points: number[] = [0, 0, 100, 0];
    for (let i = 1; i < 40; i++) points.push(i * 2.4, 7 * Math.sin(i * 1.7) + (i % 2 ? 0.5 : -0.5));
    const triangulation = new Triangulation(Float64Array.from(points), Uint32Array.of(0, 1));
    expect(edgesOf(triangulation).has('0-1')).toBe(true);
    expectSound(triangulation);
  });

  it('says where edges cross or pass through a point', () => {
    const square = Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10);
    expect(() => new Triangulation(square, Uint32Array.of(0, 2, 1, 3))).toThrow(/meets another edge or point/);
    const row = Float64Array.of(0, 0, 5, 0, 10, 0, 5, 5);
    expect(() => new Triangulation(row, Uint32Array.of(0, 2))).toThrow(/meets another edge or point/);
  });

  it('keeps every edge of any regions', () => {
    fc.assert(
      fc.property(gridRings, (drawing) => {
        const rings = ringsOf(regionsOf(drawing, 'evenodd'));
        fc.pre(rings.length > 0);
        const points: number[] = [];
        const edges: number[] = [];
        for (const ring of rings) {
          const [first, n] = [points.length / 2, ring.length / 2];
          points.push(...ring);
          for (let i = 0; i < n; i++) edges.push(first + i, first + ((i + 1) % n));
        }
        const triangulation = new Triangulation(Float64Array.from(points), Uint32Array.from(edges));
        expectSound(triangulation);
        const present = edgesOf(triangulation);
        for (let i = 0; i < edges.length; i += 2) expect(present.has(`${edges[i]}-${edges[i + 1]}`)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });

  it('covers a polygon with the area that earcut finds', () => {
    const ring = star(9, 10, 4);
    const n = ring.length / 2;
    const edges = Uint32Array.from({ length: 2 * n }, (_, i) => Math.ceil(i / 2) % n);
    const triangulation = new Triangulation(ring, edges);
    const inside = Array.from({ length: triangulation.triangleCount }, (_, t) => t).filter((t) => {
      const at = (k: number) => triangulation.corners[3 * t + k]!;
      const x = (ring[2 * at(0)]! + ring[2 * at(1)]! + ring[2 * at(2)]!) / 3;
      const y = (ring[2 * at(0) + 1]! + ring[2 * at(1) + 1]! + ring[2 * at(2) + 1]!) / 3;
      return isInside(x, y, ring);
    });
    const ours = inside.reduce((sum, t) => sum + turnOf(triangulation, t) / 2, 0);
    const theirs = earcut([...ring]);
    let area = 0;
    for (let t = 0; t < theirs.length; t += 3) {
      const [a, b, c] = [2 * theirs[t]!, 2 * theirs[t + 1]!, 2 * theirs[t + 2]!];
      area += Math.abs(leftTurn(ring[a]!, ring[a + 1]!, ring[b]!, ring[b + 1]!, ring[c]!, ring[c + 1]!)) / 2;
    }
    expect(ours).toBeCloseTo(area, 9);
    expect(inside).toHaveLength(theirs.length / 3);
  });
});

function isInside(x: number, y: number, ring: Float64Array): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
    if (y0 > y !== y1 > y && x < ((x1 - x0) * (y - y0)) / (y1 - y0) + x0) inside = !inside;
  }
  return inside;
}

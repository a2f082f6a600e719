// Faces of plane drawings as a mesh can have them: cases that came up in roofs over coasts of 100,000 points, where one face in
// 10,000 lies at the limit of what can be told apart.
import { describe, expect, it } from 'vitest';
import { divideFace } from './divide.ts';
import { type Face, joinNodes, partHairs, RIM } from './weld.ts';

/** As in the proof: twice the area below which a triangle counts as nothing, where the whole has a size of 1. */
const LEAST = 2e-12;

const twice = (p: readonly number[], [a, b, c]: readonly number[]) =>
  (p[2 * b!]! - p[2 * a!]!) * (p[2 * c! + 1]! - p[2 * a! + 1]!) -
  (p[2 * b! + 1]! - p[2 * a! + 1]!) * (p[2 * c!]! - p[2 * a!]!);

const area = (p: readonly number[], face: readonly number[]) =>
  face.reduce((sum, _, k) => (k < 2 ? sum : sum + twice(p, [face[0]!, face[k - 1]!, face[k]!]) / 2), 0);

/** All triangles that a reader may divide a part into: quads along either diagonal, others as fans around the first corner. */
function trianglesOf(part: readonly number[]): number[][] {
  if (part.length === 4) return [0, 1, 2, 3].map((k) => [part[k]!, part[(k + 1) % 4]!, part[(k + 2) % 4]!]);
  return part.slice(2).map((corner, k) => [part[0]!, part[k + 1]!, corner]);
}

describe('divided faces', () => {
  it.each([
    [
      'corners of a ridge nearly on a line',
      [0.404363861, 0.043583107, 0.404372272, 0.043609085, 0.404184316, 0.043661124],
      [0.404180449, 0.043661815, 0.404178764, 0.043662055, 0.404087858, 0.043666593],
    ],
    [
      'a ridge that bends by a hair, twice',
      [0.156, -0.343, 0.156029, -0.343001, 0.156025, -0.342666, 0.1560247, -0.34266, 0.156024, -0.3426525],
      [0.1559644, -0.3421674, 0.1559622, -0.3421231, 0.1559495, -0.3420359, 0.1559383, -0.3421083],
    ],
    [
      'a ridge that bends finely around a centre, where no flip of two triangles helps',
      [-0.000182023, 0.349979832, -0.091833679, 0.379323309, -0.095209794, 0.365519256, -0.020930894, 0.351722185],
      [
        -0.019397466, 0.351504259, -0.000670383, 0.349874387, -0.000525076, 0.349871396, -0.000219744, 0.349926948,
        -0.000196266, 0.349954785, -0.000193301, 0.349958846, -0.000187793, 0.349967622, -0.000185879, 0.349971206,
      ],
    ],
    ['a quad that is a triangle but for a hair', [0, 0, 1e-6, -9.2e-7, 1.115e-5, -1.01e-5], [0.0035, -0.00155]],
  ])('have no triangle without area: %s', (_, first, rest) => {
    const points = [...first, ...rest];
    const face = Array.from({ length: points.length / 2 }, (_, i) => i);
    const parts = divideFace(points, face, 3 * LEAST)!;
    for (const part of parts) {
      for (const triangle of trianglesOf(part)) expect(twice(points, triangle)).toBeGreaterThan(3 * LEAST);
    }
    expect(parts.reduce((sum, part) => sum + area(points, part), 0)).toBeCloseTo(area(points, face), 15);
  });

  it('have no triangle that files would flatten when they round its corners', () => {
    // The second corner lies 2e-8 beside a line of 3e-4: half of what float32 may move it by.
    const [ax, ay, cx, cy] = [0.45253574, 0.01335656, 0.45244801, 0.01366547];
    const [ux, uy] = [(cx - ax) / Math.hypot(cx - ax, cy - ay), (cy - ay) / Math.hypot(cx - ax, cy - ay)];
    const points = [ax, ay, ax + 1.4e-6 * ux + 2.2e-8 * uy, ay + 1.4e-6 * uy - 2.2e-8 * ux, cx, cy, 0.447, 0.012];
    expect(twice(points, [0, 1, 2])).toBeGreaterThan(3 * LEAST);
    const parts = divideFace(points, [0, 1, 2, 3], 3 * LEAST)!.map((part) => [...part].sort());
    expect(parts.sort()).toEqual([
      [0, 1, 3],
      [1, 2, 3],
    ]);
  });

  it('do not take the cube of their corners to divide, where they are very many', () => {
    // All but on a line, and one far from it.
    const count = 3000;
    const points = Array.from({ length: count }, (_, i) => [i / count, 1e-12 * (i / count) * (i / count - 1)]).flat();
    points.push(0.5, 0.5);
    const face = Array.from({ length: count + 1 }, (_, i) => i);
    const parts = divideFace(points, face, 3 * LEAST)!;
    expect(parts.reduce((sum, part) => sum + area(points, part), 0)).toBeCloseTo(area(points, face), 12);
  });

  it('stay whole where they are convex quads', () => {
    expect(divideFace([0, 0, 2, 0, 2, 1, 0, 1], [0, 1, 2, 3], LEAST)).toEqual([[0, 1, 2, 3]]);
  });
});

describe('hairs', () => {
  // Two squares side by side, and a corner of the left one that has come to lie beyond the edge between them.
  const drawing = (off: number) => ({
    x: [0, 1, 1, 2, 2, 1 + off, 0],
    y: [0, 0, 1, 0, 1, 0.5, 1],
    times: [],
    level: [],
  });
  const faces: Face<string>[] = [
    { corners: [0, 1, 2, 5, 6], label: 'left' },
    { corners: [1, 3, 4, 2], label: 'right' },
  ];
  const all = { faces, changed: faces };

  it('are parted where a corner lies beyond an edge, and both faces have the corner then', () => {
    const parted = partHairs(drawing(8e-7), all, 1e-6)!.faces;
    expect(parted.filter(({ label }) => label === 'right').map(({ corners }) => [...corners].sort())).toEqual([
      [1, 2, 3, 4, 5],
    ]);
    // What was beyond the edge is gone; the two parts meet in the corner.
    expect(parted.filter(({ label }) => label === 'left').flatMap(({ corners }) => corners)).toContain(5);
    expect(parted.filter(({ label }) => label === 'left').every(({ corners }) => new Set(corners).size >= 3)).toBe(
      true,
    );
  });

  it('are left alone where it lies further beyond than may be', () => {
    expect(partHairs(drawing(3e-6), all, 1e-6)).toBe(all);
  });
});

describe('nodes that are nearly one place', () => {
  // A triangle on a short edge, and one far away.
  const x = [0, 1e-6, 0.5e-6, 1];
  const y = [0, 0, 1, 1];
  const faces = [{ corners: [0, 1, 2], label: '' }];
  const joined = (level: number[], shift: number, shifts = Float64Array.of(shift, shift, shift, shift)) =>
    joinNodes({ x, y, times: [3, 3, 4, 5], level }, faces, shifts);

  it('meet in the middle, on a level too', () => {
    for (const level of [0, RIM + 2]) {
      const { place, moved } = joined([level, level, 0, 0], 6e-7);
      expect([...place]).toEqual([0, 0, 2, 3]);
      expect([...moved]).toEqual([[0, [0.5e-6, 0, 3]]]);
    }
  });

  it('go to the one on a level where the other is on none', () => {
    const { place, moved } = joined([0, RIM + 2, 0, 0], 1.1e-6);
    expect([...place]).toEqual([1, 1, 2, 3]);
    expect([...moved]).toEqual([[1, [1e-6, 0, 3]]]);
    expect(joined([0, RIM + 2, 0, 0], 6e-7).moved.size).toBe(0);
  });

  it('stay two where they would move further than either may, lie on two levels, or on the rim', () => {
    expect(joined([0, 0, 0, 0], 0, Float64Array.of(6e-7, 4e-7, 1, 1)).moved.size).toBe(0);
    expect(joined([RIM + 1, RIM + 2, 0, 0], 2e-6).moved.size).toBe(0);
    expect(joined([RIM, RIM, 0, 0], 2e-6).moved.size).toBe(0);
  });
});

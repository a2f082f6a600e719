// Faces of plane drawings as a mesh can have them: cases that came up in roofs over coasts of 100,000 points, where one face in
// 10,000 lies at the limit of what can be told apart.
import { describe, expect, it } from 'vitest';
import { divideFace } from './divide.ts';
import { type Face, partHairs } from './weld.ts';

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
    ['a quad that is a triangle but for a hair', [0, 0, 1e-6, -9.2e-7, 1.115e-5, -1.01e-5], [0.0035, -0.00155]],
  ])('have no triangle without area: %s', (_, first, rest) => {
    const points = [...first, ...rest];
    const face = Array.from({ length: points.length / 2 }, (_, i) => i);
    const parts = divideFace(points, face, LEAST)!;
    for (const part of parts) {
      for (const triangle of trianglesOf(part)) expect(twice(points, triangle)).toBeGreaterThan(LEAST);
    }
    expect(parts.reduce((sum, part) => sum + area(points, part), 0)).toBeCloseTo(area(points, face), 15);
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

  it('are parted where a corner lies beyond an edge, and both faces have the corner then', () => {
    const parted = partHairs(drawing(8e-7), faces, 1e-6)!;
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
    expect(partHairs(drawing(3e-6), faces, 1e-6)).toBe(faces);
  });
});

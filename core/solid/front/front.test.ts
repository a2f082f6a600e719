// Fronts against published bounds: n + 2h − 2 triangles for n points and h holes (Euler), Delaunay refinement's smallest angle
// of 20.7° (Ruppert 1995; Shewchuk 1996), and earcut's area and count.

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import earcut from '../../../bench/sets/node_modules/earcut/src/earcut.js';
import { isBroad } from '../../geometry/slivers.ts';
import { regionsArea, ringsOf } from '../../outline/measure.ts';
import { regionsOf } from '../../outline/regions.ts';
import type { Region } from '../../outline/types.ts';
import { gridRings, rectangle, region, regularPolygon, reversed, ring, spikyRing, star } from '../../testing/shapes.ts';
import { outlineOf } from '../rim.ts';
import { FACE_MESHES, type FrontFaces, meshFront } from './front.ts';
import type { FlatMesh } from './types.ts';

interface Meshed extends FlatMesh {
  readonly all: readonly number[];
  readonly faces: readonly (readonly number[])[];
}

function meshed(outline: Region, faces: FrontFaces): Meshed {
  const flat = outlineOf([outline]);
  const mesh = meshFront(flat, faces);
  return {
    ...mesh,
    all: [...flat.points, ...mesh.added],
    faces: Array.from({ length: mesh.starts.length - 1 }, (_, f) => [
      ...mesh.corners.slice(mesh.starts[f], mesh.starts[f + 1]),
    ]),
  };
}

const turnAt = (p: readonly number[], a: number, b: number, c: number) =>
  (p[2 * b]! - p[2 * a]!) * (p[2 * c + 1]! - p[2 * a + 1]!) - (p[2 * b + 1]! - p[2 * a + 1]!) * (p[2 * c]! - p[2 * a]!);

/** What points on edges up to 40 long may add to an area: half a unit in the last place of coordinates up to 16. */
const ROUNDING = 40 * 2 ** -50;

/** Convex faces that cover the outline once, with no point on an edge of another. */
function expectMesh({ all, faces, splits }: Meshed, outline: Region): void {
  const edges = new Map<string, number>();
  let area = 0;
  for (const face of faces) {
    for (const [i, a] of face.entries()) {
      const [b, c] = [face[(i + 1) % face.length]!, face[(i + 2) % face.length]!];
      expect(turnAt(all, a, b, c)).toBeGreaterThan(0);
      edges.set(`${a}>${b}`, (edges.get(`${a}>${b}`) ?? 0) + 1);
      area += (all[2 * a]! * all[2 * b + 1]! - all[2 * b]! * all[2 * a + 1]!) / 2;
    }
  }
  const whole = regionsArea([outline]);
  expect(Math.abs(area - whole)).toBeLessThan(1e-9 * whole + ROUNDING);
  const { edges: rim } = outlineOf([outline]);
  const open = new Set<string>();
  for (let e = 0; e < rim.length; e += 2) {
    const chain = [rim[e]!, ...(splits.get(e / 2) ?? []), rim[e + 1]!];
    for (let i = 1; i < chain.length; i++) open.add(`${chain[i - 1]}>${chain[i]}`);
  }
  for (const [edge, count] of edges) {
    expect(count).toBe(1);
    expect(edges.has(edge.split('>').reverse().join('>'))).toBe(!open.has(edge));
  }
}

function anglesOf({ all, faces }: Meshed): { degrees: number; at: number }[] {
  return faces.flatMap((face) =>
    face.map((a, i) => {
      const [b, c] = [face[(i + 1) % face.length]!, face[(i + face.length - 1) % face.length]!];
      const [ux, uy] = [all[2 * b]! - all[2 * a]!, all[2 * b + 1]! - all[2 * a + 1]!];
      const [vx, vy] = [all[2 * c]! - all[2 * a]!, all[2 * c + 1]! - all[2 * a + 1]!];
      return { degrees: (Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) * 180) / Math.PI, at: a };
    }),
  );
}

/** Whether no corner of the outline is sharper than a right angle, so that nothing excuses a small angle. */
function isBlunt(outline: Region): boolean {
  return ringsOf([outline]).every((each) => {
    const n = each.length;
    for (let i = 0; i < n; i += 2) {
      const at = (k: number) => [each[(i + k + n) % n]!, each[(i + k + 1 + n) % n]!] as const;
      const [[px, py], [x, y], [qx, qy]] = [at(-2), at(0), at(2)];
      const [ux, uy, vx, vy] = [qx - x, qy - y, px - x, py - y];
      const angle = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
      if (angle >= 0 && angle < Math.PI / 2 - 1e-9) return false;
    }
    return true;
  });
}

const frame = region(
  rectangle(0, 0, 20, 20),
  reversed(rectangle(2, 2, 4, 4)),
  reversed(regularPolygon(24, 4, 0, 13, 12)),
);
const corner = region(ring(0, 0, 30, 0, 30, 7, 7, 7, 7, 30, 0, 30));

describe('every front', () => {
  it.each(FACE_MESHES)('%s covers any outline once, with convex faces', (kind) => {
    fc.assert(
      fc.property(
        fc.oneof(
          gridRings,
          spikyRing.map((each) => [each]),
        ),
        (rings) => {
          for (const outline of regionsOf(rings, 'evenodd')) expectMesh(meshed(outline, { kind, cell: 1.5 }), outline);
        },
      ),
      { numRuns: 60 },
    );
  });

  it.each(['even', 'grid'] as const)('%s says which cell would do where one is far too small', (kind) => {
    expect(() => meshed(frame, { kind, cell: 1e-4 })).toThrow(/choose a cell of at least/);
  });
});

describe('as few faces as possible', () => {
  it('are n + 2h − 2 triangles, as many as earcut makes', () => {
    for (const outline of [frame, corner, region(star(9, 10, 4))]) {
      const rings = ringsOf([outline]);
      const points = rings.reduce((sum, each) => sum + each.length / 2, 0);
      const { faces } = meshed(outline, { kind: 'fewest', cell: 1 });
      expect(faces).toHaveLength(points + 2 * outline.holes.length - 2);
      let index = 0;
      const holes = rings.slice(0, -1).map((each) => (index += each.length / 2));
      expect(faces.length).toBeLessThanOrEqual(
        earcut(
          rings.flatMap((each) => [...each]),
          holes,
        ).length / 3,
      );
    }
  });
});

describe('even triangles', () => {
  it('have no angle below 20.7° wherever the outline has none below 90°', () => {
    for (const outline of [frame, corner, region(regularPolygon(90, 11)), region(rectangle(0, 0, 40, 1))]) {
      expect(isBlunt(outline)).toBe(true);
      for (const cell of [0.7, 2, 9]) {
        const mesh = meshed(outline, { kind: 'even', cell });
        expectMesh(mesh, outline);
        expect(Math.min(...anglesOf(mesh).map(({ degrees }) => degrees))).toBeGreaterThan(20.69);
      }
    }
  });

  it('have smaller ones near sharp corners of the outline only, and none that is hopeless', () => {
    const sharp = region(ring(0, 0, 20, 3, 0, 6));
    const mesh = meshed(sharp, { kind: 'even', cell: 1 });
    expectMesh(mesh, sharp);
    // Shewchuk 2002's bound, from memory: arcsin(√3/2 · sin(φ/2)) at a corner of φ, which is 17° at (20, 3).
    const least = (Math.asin((Math.sqrt(3) / 2) * Math.sin(Math.atan2(3, 20))) * 180) / Math.PI;
    for (const { degrees, at } of anglesOf(mesh)) {
      expect(degrees).toBeGreaterThan(least);
      if (degrees < 20.69) expect(Math.hypot(mesh.all[2 * at]! - 20, mesh.all[2 * at + 1]! - 3)).toBeLessThan(5);
    }
  });

  // @mdi/svg 7.4.47 (Apache 2.0), motion-sensor-off at a reach of 4 %: a hair that is left of the front, 1e-6 of the size wide.
  it('do not divide a hair into triangles without area', () => {
    const hair = Float64Array.of(
      ...[-8.28756639, 7.08205562, -8.33040612, 7.12491706, -8.98773945, 7.78258373, -9.64507278, 8.4402504],
      ...[-9.66765567, 8.46284475, -9.66800697, 8.4624962, -9.13275536, 7.92724458, -8.54525526, 7.33974449],
    );
    const least = 3.0456e-9;
    const { all, faces } = meshed(region(hair), { kind: 'even', cell: 0.93875, least });
    expect(faces.filter(([a, b, c]) => !isBroad(all, a!, b!, c!, least))).toEqual([]);
  });

  it('have edges of about the cell size', () => {
    const { all, faces } = meshed(region(regularPolygon(60, 20)), { kind: 'even', cell: 2 });
    for (const face of faces) {
      for (const [i, a] of face.entries()) {
        const b = face[(i + 1) % 3]!;
        expect(Math.hypot(all[2 * a]! - all[2 * b]!, all[2 * a + 1]! - all[2 * b + 1]!)).toBeLessThan(2 * 1.75);
      }
    }
  });
});

describe('grids', () => {
  it('are squares inside, on lines through the origin, and at least nine faces in ten are quads', () => {
    const mesh = meshed(region(regularPolygon(120, 30, 0, 3, 1)), { kind: 'grid', cell: 2 });
    const squares = mesh.faces.filter((face) => {
      return face.length === 4 && face.every((i) => mesh.all[2 * i]! % 2 === 0 && mesh.all[2 * i + 1]! % 2 === 0);
    });
    // A band of about a cell and a half along the rim is all that squares leave.
    expect(squares.length * 4).toBeGreaterThan(0.85 * Math.PI * 30 * 30);
    const inBand = mesh.faces.length - squares.length;
    expect(mesh.faces.filter((face) => face.length === 4).length / mesh.faces.length).toBeGreaterThan(0.9);
    expect(inBand).toBeLessThan(300);
  });
});

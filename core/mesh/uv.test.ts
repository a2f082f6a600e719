// Places on pictures: lengths and areas against the outline's own, and nothing over anything else where it is packed.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { regionsArea, ringArea, ringLength, ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import type { Region } from '../outline/types.ts';
import { PROFILES } from '../solid/profile.ts';
import { fitSpec, planSlab, raiseSlab, type SlabSpec } from '../solid/slab.ts';
import { roundEdge } from '../testing/edges.ts';
import { gridRings, rectangle, region, regularPolygon, reversed, spikyRing, star } from '../testing/shapes.ts';
import { crossingsOf } from './crossings.ts';
import { trianglesOf } from './triangles.ts';
import { faceCount, type Mesh, SIDES } from './types.ts';
import { layUvs, type UvLayout } from './uv.ts';

function slab(regions: readonly Region[], change: Partial<SlabSpec> = {}): Mesh {
  const wanted: SlabSpec = { depth: 4, front: null, back: null, faces: 'fewest', cell: 2, wallRows: 1, ...change };
  const { spec } = fitSpec(wanted);
  return raiseSlab(planSlab(regions, spec), spec);
}

/** Every face's corners on the picture. */
function facesOn(mesh: Mesh, layout: UvLayout) {
  const uvs = layUvs(mesh, layout)!;
  return Array.from({ length: faceCount(mesh) }, (_, f) => ({
    side: SIDES[mesh.sides[f]!]!,
    ring: uvs.subarray(2 * mesh.starts[f]!, 2 * mesh.starts[f + 1]!),
  }));
}

const areaOf = (faces: ReturnType<typeof facesOn>, side: string) =>
  faces.reduce((sum, each) => sum + (each.side === side ? ringArea(Float64Array.from(each.ring)) : 0), 0);

/** Triangles on the picture: those turned over, and pairs that lie over each other. */
function faultsOf(mesh: Mesh) {
  const uvs = layUvs(mesh, 'packed')!;
  const { indices, faces } = trianglesOf(mesh);
  const known = new Map<string, number>();
  const positions: number[] = [];
  let [turned, outside] = [0, 0];
  const ids = indices.map((point, i) => {
    let corner = mesh.starts[faces[Math.floor(i / 3)]!]!;
    while (mesh.corners[corner] !== point) corner++;
    const [u, v] = [uvs[2 * corner]!, uvs[2 * corner + 1]!];
    if (!(u >= 0 && u <= 1 && v >= 0 && v <= 1)) outside++;
    const key = `${u} ${v}`;
    const id = known.get(key) ?? positions.push(u, v, 0) / 3 - 1;
    known.set(key, id);
    return id;
  });
  for (let t = 0; t < ids.length; t += 3) {
    const [a, b, c] = [3 * ids[t]!, 3 * ids[t + 1]!, 3 * ids[t + 2]!];
    const double =
      (positions[b]! - positions[a]!) * (positions[c + 1]! - positions[a + 1]!) -
      (positions[b + 1]! - positions[a + 1]!) * (positions[c]! - positions[a]!);
    if (double < -1e-10) turned++;
  }
  return { turned, outside, over: crossingsOf(positions, ids).length / 2 };
}

const SOUND = { turned: 0, outside: 0, over: 0 };

describe('units', () => {
  it('lay front and back flat, the back as seen from behind', () => {
    const mesh = slab([region(rectangle(1, 2, 6, 4))]);
    const faces = facesOn(mesh, 'units');
    const extent = (side: string, axis: number) => {
      const values = faces
        .filter((face) => face.side === side)
        .flatMap(({ ring }) => [...ring.filter((_, i) => i % 2 === axis)]);
      return [Math.min(...values), Math.max(...values)];
    };
    expect([extent('front', 0), extent('front', 1)]).toEqual([
      [1, 7],
      [2, 6],
    ]);
    expect([extent('back', 0), extent('back', 1)]).toEqual([
      [-7, -1],
      [2, 6],
    ]);
    // Both are seen from outside, so neither is a mirror image.
    expect(areaOf(faces, 'front')).toBeCloseTo(24, 4);
    expect(areaOf(faces, 'back')).toBeCloseTo(24, 4);
  });

  it('unroll walls by the length of the outline, from its lowest point, to the right as seen from outside', () => {
    const mesh = slab([region(regularPolygon(12, 5, 0.1), reversed(rectangle(-1, -1, 2, 2)))], { wallRows: 3 });
    const walls = facesOn(mesh, 'units').filter(({ side }) => side === 'wall');
    const [outer, hole] = [24 * 5 * Math.sin(Math.PI / 12), 8];
    expect(walls.reduce((sum, { ring }) => sum + ringArea(Float64Array.from(ring)), 0)).toBeCloseTo(
      4 * (outer + hole),
      3,
    );
    const us = walls.flatMap(({ ring }) => [...ring.filter((_, i) => i % 2 === 0)]);
    expect([Math.min(...us), Math.max(...us)]).toEqual([0, expect.closeTo(outer, 4)]);
    // The seam of the hole is its lower left corner.
    const uvs = layUvs(mesh, 'units')!;
    const seams = [...mesh.corners.keys()].filter(
      (c) => uvs[2 * c] === 0 && mesh.sides[faceAt(mesh, c)] === SIDES.indexOf('wall'),
    );
    const places = new Set(
      seams.map((c) => [0, 1].map((k) => mesh.positions[3 * mesh.corners[c]! + k]!.toFixed(3)).join()),
    );
    expect(places).toContain('-1.000,-1.000');
    expect(places.size).toBe(2);
  });

  it('unroll edges by the length of their profile', () => {
    const [reach, rise, steps] = [1, 2, 4];
    const mesh = slab([region(rectangle(0, 0, 10, 8))], { front: roundEdge({ reach, rise, steps }) });
    const vs = facesOn(mesh, 'units')
      .filter(({ side }) => side === 'edge')
      .flatMap(({ ring }) => [...ring.filter((_, i) => i % 2 === 1)]);
    const length = Array.from({ length: steps }, (_, k) => {
      const [a, b] = [k, k + 1].map((i) => (i * Math.PI) / 2 / steps) as [number, number];
      return Math.hypot(reach * (Math.cos(a) - Math.cos(b)), rise * (Math.sin(b) - Math.sin(a)));
    }).reduce((sum, part) => sum + part);
    expect(Math.max(...vs) - Math.min(...vs)).toBeCloseTo(length, 5);
    expect(Math.min(...vs)).toBeCloseTo(4 - rise, 5);
  });

  it('join neighbours along a curve without a gap', () => {
    const mesh = slab([region(regularPolygon(64, 10))], { front: roundEdge({ reach: 2 }) });
    const uvs = layUvs(mesh, 'units')!;
    const places = new Map<number, Set<string>>();
    for (const [c, point] of mesh.corners.entries()) {
      if (SIDES[mesh.sides[faceAt(mesh, c)]!] !== 'edge') continue;
      const known = places.get(point) ?? new Set();
      places.set(point, known.add(`${uvs[2 * c]!.toFixed(4)} ${uvs[2 * c + 1]!.toFixed(4)}`));
    }
    // One place each, but for the four rows of points on the seam.
    expect([...places.values()].filter(({ size }) => size > 1)).toHaveLength(4);
  });
});

describe('fitted', () => {
  it('fills 0 to 1 with front and back, and scales the rest alike', () => {
    const mesh = slab([region(rectangle(-5, -2, 20, 10))]);
    const faces = facesOn(mesh, 'fitted');
    const values = faces.filter(({ side }) => side === 'front' || side === 'back').flatMap(({ ring }) => [...ring]);
    expect([Math.min(...values), Math.max(...values)]).toEqual([0, 1]);
    expect(areaOf(faces, 'front')).toBeCloseTo(200 / 400, 5);
    expect(areaOf(faces, 'wall')).toBeCloseTo((4 * 60) / 400, 5);
  });
});

describe('packed', () => {
  it('lays nothing over anything else, at any reach and profile', () => {
    const shapes = [
      [region(star(5, 10, 4))],
      [region(rectangle(0, 0, 20, 20), reversed(rectangle(3, 3, 5, 5)), reversed(star(4, 3, 1.5).map((v) => v + 14)))],
      [region(regularPolygon(40, 9)), region(rectangle(12, 0, 3, 30))],
    ];
    for (const regions of shapes) {
      for (const profile of PROFILES) {
        for (const reach of [0.3, 1.2, 8]) {
          for (const faces of ['fewest', 'even', 'grid'] as const) {
            const both = roundEdge({ profile, reach, rise: 1 });
            expect(faultsOf(slab(regions, { front: both, back: both, faces }))).toEqual(SOUND);
          }
        }
      }
    }
  });

  it('keeps the scale of everything', () => {
    const outline = region(rectangle(0, 0, 20, 12), reversed(rectangle(5, 4, 4, 4)));
    const mesh = slab([outline]);
    const faces = facesOn(mesh, 'packed');
    const scale = areaOf(faces, 'front') / regionsArea([outline]);
    const around = ringsOf([outline]).reduce((sum, ring) => sum + ringLength(ring), 0);
    expect(areaOf(faces, 'back') / regionsArea([outline])).toBeCloseTo(scale, 7);
    expect(areaOf(faces, 'wall') / (4 * around)).toBeCloseTo(scale, 7);
    // Most of the picture is used.
    expect(faces.reduce((sum, { ring }) => sum + ringArea(Float64Array.from(ring)), 0)).toBeGreaterThan(0.4);
  });

  it('turns nothing over on outlines of all kinds', () => {
    fc.assert(
      fc.property(
        fc.oneof(gridRings, fc.array(spikyRing, { minLength: 1, maxLength: 1 })),
        fc.constantFrom(0.2, 1, 4),
        (rings, reach) => {
          const regions = regionsOf(rings, 'evenodd');
          fc.pre(regions.length > 0);
          const both = roundEdge({ reach, rise: 1 });
          expect(faultsOf(slab(regions, { front: both, back: both }))).toMatchObject({ turned: 0, outside: 0 });
        },
      ),
      { numRuns: 120 },
    );
  });

  it('is not for meshes without outlines', () => {
    const { flow: _, ...mesh } = slab([region(rectangle(0, 0, 2, 2))]);
    expect(layUvs(mesh, 'packed')).toBeNull();
  });
});

function faceAt(mesh: Mesh, corner: number): number {
  let f = 0;
  while (mesh.starts[f + 1]! <= corner) f++;
  return f;
}

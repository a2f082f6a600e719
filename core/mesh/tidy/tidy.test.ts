// Tidying on bodies whose counts are known: cubes cut up, turned, doubled and torn, and slabs as files bring them back.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Part } from '../../formats/part.ts';
import { readStl, writeStl } from '../../formats/stl/stl.ts';
import { PLAIN } from '../../materials/schema.ts';
import { regionsOf } from '../../outline/regions.ts';
import type { Region } from '../../outline/types.ts';
import { planSlab, raiseSlab, type SlabSpec } from '../../solid/slab.ts';
import { CUBE_FACES, CUBE_POINTS, cube, joinedMeshes, meshFrom } from '../../testing/meshes.ts';
import { gridRings, rectangle, region, regularPolygon, reversed, star } from '../../testing/shapes.ts';
import { countOf, isSound, proofOf } from '../proof.ts';
import { topologyOf } from '../topology.ts';
import { faceCount, type Mesh } from '../types.ts';
import { facesOf, meshOf } from './faces.ts';
import { ONLY_WELDED, type TidySettings, tidy } from './tidy.ts';

const ONLY_SAME = ONLY_WELDED;
const MERGED: TidySettings = { weld: 0, straight: 1e-9, flat: 0.1, close: false };

const spec: SlabSpec = { depth: 4, front: null, back: null, faces: 'grid', cell: 1, wallRows: 3 };
const slab = (regions: readonly Region[], change: Partial<SlabSpec> = {}) => {
  const whole = { ...spec, ...change };
  return raiseSlab(planSlab(regions, whole), whole);
};

describe('welding', () => {
  it('makes a file of loose triangles one closed body', () => {
    const body = slab([region(star(5, 10, 4))], { faces: 'fewest', wallRows: 1 });
    const [{ mesh: loose }] = readStl(writeStl([{ name: 'star', mesh: body, material: PLAIN }])) as [Part];
    expect(loose.positions.length / 3).toBe(36 * 3);
    const { mesh, changes } = tidy(loose, ONLY_SAME);
    expect(mesh.positions.length / 3).toBe(20);
    expect(changes).toMatchObject({ welded: { count: 36 * 3 - 20 }, removed: { count: 0 }, turned: { count: 0 } });
    expect(proofOf(mesh)).toMatchObject({ closed: true, shells: 1 });
  });

  it('moves nothing further than the distance, whatever lies in a row', () => {
    const row = meshFrom(
      [0, 0.9, 1.8, 2.7].flatMap((x) => [
        [x, 0, 0],
        [x, 10, 0],
        [x, 0, 10],
      ]),
      [0, 1, 2, 3].map((k) => [3 * k, 3 * k + 1, 3 * k + 2]),
    );
    const { mesh } = tidy(row, { ...ONLY_SAME, weld: 1 });
    expect([...new Set(mesh.positions.filter((_, i) => i % 3 === 0))]).toEqual([0, 1.8]);
  });

  it('closes seams narrower than the distance, and leaves wider ones', () => {
    const torn = meshFrom(
      CUBE_FACES.flatMap((face, f) => face.map((p) => CUBE_POINTS[p]!.map((v) => v + 0.001 * (f % 3)))),
      CUBE_FACES.map((face, f) => face.map((_, k) => 4 * f + k)),
    );
    expect(topologyOf(tidy(torn, { ...ONLY_SAME, weld: 0.01 }).mesh)).toMatchObject({ closed: true, points: 8 });
    expect(topologyOf(tidy(torn, { ...ONLY_SAME, weld: 0.0001 }).mesh).closed).toBe(false);
  });
});

describe('removing', () => {
  it('keeps one of equal faces, and none of two that lie back to back', () => {
    const twice = meshFrom(CUBE_POINTS, [...CUBE_FACES, CUBE_FACES[0]!, [5, 7, 6, 4]]);
    expect(tidy(twice, ONLY_SAME)).toMatchObject({ changes: { removed: { count: 2 } } });
    const wall = meshFrom([...CUBE_POINTS], [...CUBE_FACES, [0, 1, 7], [7, 1, 0]]);
    const { mesh, changes } = tidy(wall, ONLY_SAME);
    expect(changes.removed.count).toBe(2);
    expect(topologyOf(mesh).closed).toBe(true);
  });

  it('gives the middle point of a triangle without area to its neighbour', () => {
    // The lower front edge of the cube has a point in its middle, which only one of its faces knows.
    const points = [...CUBE_POINTS, [0.5, 0, 0]];
    const faces = [[0, 2, 3, 1], [4, 5, 7, 6], [0, 8, 1, 5, 4], [0, 1, 8], ...CUBE_FACES.slice(3)];
    const cut = meshFrom(points, faces);
    expect(countOf(proofOf(cut), 'zero')).toBe(1);
    const { mesh, changes } = tidy(cut, ONLY_SAME);
    expect(changes.removed.count).toBe(1);
    expect(proofOf(mesh)).toMatchObject({ closed: true, findings: [] });
    expect(tidy(cut, MERGED).mesh.positions.length / 3).toBe(8);
  });
});

describe('turning outward', () => {
  it('makes all faces agree and the volume positive', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }), (flips) => {
        const faces = CUBE_FACES.map((face, f) => (flips[f] ? face.toReversed() : face));
        const { mesh, changes } = tidy(meshFrom(CUBE_POINTS, faces), ONLY_SAME);
        expect(proofOf(mesh).volume).toBeCloseTo(1, 12);
        expect(changes.turned.count).toBe(flips.filter((isFlipped) => isFlipped).length);
      }),
      { numRuns: 64 },
    );
  });

  it('turns a shell within another one into a hollow, and one within that outward again', () => {
    const nested = joinedMeshes(cube(9), cube(5, 2, 2, 2), cube(1, 4, 4, 4));
    expect(proofOf(tidy(nested, ONLY_SAME).mesh, { crossings: false }).volume).toBeCloseTo(729 - 125 + 1, 9);
    expect(tidy(tidy(nested, ONLY_SAME).mesh, ONLY_SAME).changes.turned.count).toBe(0);
  });

  it('leaves a shell that is open as it is', () => {
    const open = meshFrom(CUBE_POINTS, CUBE_FACES.slice(1));
    expect(tidy(open, ONLY_SAME).changes.turned.count).toBe(0);
  });
});

describe('merging flat neighbours', () => {
  it('makes the grid on a box six faces and eight points', () => {
    const body = slab([region(rectangle(0, 0, 6, 5))]);
    expect(faceCount(body)).toBeGreaterThan(60);
    // A box as a file brings it back: nobody knows which faces were front or wall.
    const { mesh, changes } = tidy(body, MERGED);
    expect(faceCount(mesh)).toBe(6);
    expect(mesh.positions.length / 3).toBe(8);
    expect(changes.merged.count).toBe(faceCount(body) - 6);
    expect(proofOf(mesh)).toMatchObject({ closed: true, findings: [] });
  });

  it('cuts what surrounds a hole, and bridges nothing', () => {
    const frame = region(rectangle(0, 0, 20, 20), reversed(rectangle(8, 8, 4, 4)));
    const { mesh } = tidy(slab([frame]), MERGED);
    expect(faceCount(mesh)).toBe(2 * 2 + 8);
    for (let f = 0; f < faceCount(mesh); f++) {
      const corners = mesh.corners.subarray(mesh.starts[f], mesh.starts[f + 1]);
      expect(new Set(corners).size).toBe(corners.length);
    }
    expect(isSound(proofOf(mesh))).toBe(true);
    expect(proofOf(mesh).volume).toBeCloseTo(4 * (400 - 16), 9);
  });

  it('leaves what bends more than the angle', () => {
    const cylinder = slab([region(regularPolygon(36, 9))], { faces: 'fewest', wallRows: 2 });
    expect(faceCount(tidy(cylinder, { ...MERGED, flat: 9 }).mesh)).toBe(36 + 2);
    // The first wall takes two on either side, each one after it two more.
    expect(faceCount(tidy(cylinder, { ...MERGED, flat: 25 }).mesh)).toBe(1 + 11 + 2);
  });

  it('loses no volume and opens nothing, on outlines of all kinds', () => {
    fc.assert(
      fc.property(gridRings, fc.constantFrom('fewest', 'even', 'grid'), (rings, faces) => {
        const regions = regionsOf(rings, 'evenodd');
        fc.pre(regions.length > 0);
        const body = slab(regions, { faces });
        const { mesh } = tidy(body, MERGED);
        const [before, after] = [body, mesh].map((each: Mesh) => proofOf(each));
        expect(isSound(after!)).toBe(isSound(before!));
        expect(after!.volume).toBeCloseTo(before!.volume, 6);
        expect(after!.counts.faces).toBeLessThanOrEqual(before!.counts.faces);
      }),
      { numRuns: 60 },
    );
  });
});

describe('closing', () => {
  const CLOSED: TidySettings = { ...ONLY_SAME, close: true };
  const without = (mesh: Mesh, ...sides: number[]) =>
    meshOf(
      facesOf(mesh).filter(({ side }) => !sides.includes(side)),
      mesh,
    );

  it('caps rims flat, one inside another as a hole, and gives the body its volume back', () => {
    const frame = region(rectangle(0, 0, 10, 8), reversed(rectangle(3, 3, 2, 2)));
    const whole = slab([frame, region(star(7, 30, 20).map((v) => v + 60))]);
    const [front, back] = [0, 3];
    for (const gone of [[front], [back], [front, back]]) {
      const open = without(whole, ...gone);
      expect(proofOf(open)).toMatchObject({ closed: false, volume: 0 });
      const { mesh, changes } = tidy(open, CLOSED);
      const proof = proofOf(mesh);
      expect(isSound(proof)).toBe(true);
      expect(proof.volume).toBeCloseTo(proofOf(whole).volume, 6);
      expect(changes.closed.count).toBeGreaterThan(0);
    }
  });

  it('caps a cube that lacks a face, in any place and turned inside out', () => {
    fc.assert(
      fc.property(
        fc.nat(5),
        fc.boolean(),
        fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
        (gone, isTurned, a) => {
          const turned = CUBE_POINTS.map(([x = 0, y = 0, z = 0]) => [
            x * Math.cos(a) - z * Math.sin(a),
            y,
            x * Math.sin(a) + z * Math.cos(a),
          ]);
          const faces = CUBE_FACES.filter((_, f) => f !== gone).map((face) => (isTurned ? face.toReversed() : face));
          const { mesh } = tidy(meshFrom(turned, faces), CLOSED);
          expect(proofOf(mesh)).toMatchObject({ closed: true, volume: expect.closeTo(proofOf(cube()).volume, 6) });
        },
      ),
    );
  });

  it('changes nothing where all is closed', () => {
    const { mesh, changes } = tidy(cube(), CLOSED);
    expect(changes.closed.count).toBe(0);
    expect(proofOf(mesh).volume).toBeCloseTo(proofOf(cube()).volume, 9);
  });
});

describe('what is said of each step', () => {
  it('is how far the surface moved at most, against the lines that stay', () => {
    // Chords of a circle of 10 in 256: every second point lies 10·(1 − cos(π/128)) off the line that takes its place.
    const disc = slab([region(regularPolygon(256, 10))], { faces: 'fewest', wallRows: 1 });
    const { changes } = tidy(disc, { ...ONLY_SAME, flat: 90, straight: 0.01 });
    expect(changes.dropped.farthest).toBeGreaterThanOrEqual(10 * (1 - Math.cos(Math.PI / 128)) - 1e-9);
    const torn = meshFrom(
      CUBE_FACES.flatMap((face, f) => face.map((p) => CUBE_POINTS[p]!.map((v) => v + 0.001 * (f % 2)))),
      CUBE_FACES.map((face, f) => face.map((_, k) => 4 * f + k)),
    );
    expect(tidy(torn, { ...ONLY_SAME, weld: 0.01 }).changes.welded.farthest).toBeCloseTo(0.001 * Math.sqrt(3), 9);
  });

  it('is the volume before and after, none while it is open', () => {
    const turned = meshFrom(
      CUBE_POINTS,
      CUBE_FACES.map((face) => face.toReversed()),
    );
    const { welded, turned: outward } = tidy(turned, ONLY_SAME).changes;
    const near = (volume: number) => expect.closeTo(volume, 12);
    expect([welded.before, welded.after, outward.before, outward.after]).toEqual([-1, -1, -1, 1].map(near));
    const open = tidy(meshFrom(CUBE_POINTS, CUBE_FACES.slice(1)), { ...ONLY_SAME, close: true }).changes;
    expect([open.welded.after, open.closed.before, Math.abs(open.closed.after!)]).toEqual([null, null, near(1)]);
  });
});

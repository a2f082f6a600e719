// Areas of surfaces within bodies: closed forms, and a kernel for solid Booleans that shares no code with us.
import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import initManifold from '../../bench/sets/node_modules/manifold-3d/manifold.js';
import { readSvg } from '../formats/svg/read.ts';
import { type Point, product, type Rigid, shift, turn } from '../geometry/rigid.ts';
import { coverOf } from '../outline/cover.ts';
import { FACE_MESHES } from '../solid/front/front.ts';
import { fitSpec, planSlab, raiseSlab } from '../solid/slab.ts';
import { roundEdge } from '../testing/edges.ts';
import { cube } from '../testing/meshes.ts';
import { areaWithin, surfaceOf } from './area-within.ts';
import { placedAt } from './place.ts';
import type { Mesh } from './types.ts';

const within = (a: Mesh, b: Mesh) => areaWithin(surfaceOf(a), surfaceOf(b));
/** Turned about the origin, then moved. */
const at = (turning: Rigid, by: Point): Rigid => product(shift(by), turning);

type Manifold = Awaited<ReturnType<typeof initManifold>>;
let kernel: Manifold;
beforeAll(async () => {
  kernel = await initManifold();
  kernel.setup();
});

function solid(mesh: Mesh) {
  const { positions, indices } = surfaceOf(mesh);
  return new kernel.Manifold(
    new kernel.Mesh({ numProp: 3, vertProperties: Float32Array.from(positions as Float64Array), triVerts: indices }),
  );
}

const ICONS = 'bench/sets/node_modules/@mdi/svg/svg';

/** Every so-manieth icon as a slab with round edges, 24 wide, its middle at the origin. */
function slabs(): Mesh[] {
  const names = readdirSync(ICONS).sort();
  return names
    .filter((_, i) => i % 500 === 3)
    .map((name) => {
      const { shapes } = readSvg(readFileSync(`${ICONS}/${name}`, 'utf8'));
      const regions = shapes.flatMap((shape) => coverOf(shape, 0.02));
      const edge = roundEdge({ reach: 0.4, rise: 0.4 });
      const wanted = { depth: 3, front: edge, back: edge, faces: FACE_MESHES[0]!, cell: 1, wallRows: 1 };
      const { spec } = fitSpec(wanted, 24);
      return placedAt(raiseSlab(planSlab(regions, spec), spec), shift([-12, -12, -1.5]));
    });
}

describe('the area of a surface within a body', () => {
  it('is that of the parts that overlap', () => {
    // A corner of one cube in the other: three quarter faces each way.
    expect(within(cube(2), cube(2, 1, 1, 1))).toBeCloseTo(3, 12);
    expect(within(cube(2, 1, 1, 1), cube(2))).toBeCloseTo(3, 12);
    // A bar through a cube: four walls of 1 × 2; and the two square openings that it has in the cube's faces.
    const bar = placedAt(cube(1), [4, 0, 0, -1, 0, 1, 0, 0.5, 0, 0, 1, 0.5]);
    expect(within(bar, cube(2))).toBeCloseTo(8, 12);
    expect(within(cube(2), bar)).toBeCloseTo(2, 12);
  });

  it('is all of what lies inside, and nothing of what lies outside or around', () => {
    expect(within(cube(1, 1, 1, 1), cube(4))).toBeCloseTo(6, 12);
    expect(within(cube(4), cube(1, 1, 1, 1))).toBe(0);
    expect(within(cube(1, 8, 0, 0), cube(4))).toBe(0);
  });

  it('is for both together the surface of what a solid kernel has for their intersection', () => {
    const angle = fc.integer({ min: 1, max: 89 });
    const off = fc.double({ min: -1.5, max: 1.5, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(angle, angle, angle), fc.tuple(off, off, off), (angles, shifts) => {
        const [a, b] = [cube(2, -1, -1, -1), placedAt(cube(2, -1, -1, -1), at(turn(angles), shifts))];
        const shared = solid(a).intersect(solid(b));
        expect(within(a, b) + within(b, a)).toBeCloseTo(shared.surfaceArea(), 4);
      }),
      { numRuns: 300 },
    );
  });

  it('is so for slabs of real icons, whichever way they stand to each other', () => {
    const all = slabs();
    expect(all.length).toBeGreaterThan(10);
    let met = 0;
    for (const [i, a] of all.entries()) {
      const b = placedAt(all[(i + 1) % all.length]!, at(turn([37 + 11 * i, 23 * i, 71 * i]), [i % 5, i % 3, 1]));
      const area = within(a, b) + within(b, a);
      const shared = solid(a).intersect(solid(b)).surfaceArea();
      // The kernel keeps its points as float32.
      expect(Math.abs(area - shared)).toBeLessThan(1e-4 * Math.max(shared, 1));
      if (shared > 0) met++;
    }
    expect(met).toBeGreaterThan(8);
  });
});

// Parallel rays beside a general-purpose library (three-mesh-bvh).
import { BackSide, BufferAttribute, BufferGeometry, FrontSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { describe, expect, it } from 'vitest';
import { triangleIndices } from '../mesh/triangles.ts';
import { cube, joinedMeshes } from '../testing/meshes.ts';
import { Beams } from './beams.ts';

describe('parallel rays', () => {
  let state = 7;
  /** Minimal standard generator (Park & Miller 1988). */
  const random = () => {
    state = (48_271 * state) % 0x7fffffff;
    return state / 0x7fffffff;
  };
  const point = (size: number) => [size * random(), size * random(), size * random()] as const;

  it.each([1, 3, 40, 3000])('meet what the library says they meet first, among %i triangles', (count) => {
    const soup = new Float64Array(9 * count);
    for (let t = 0; t < count; t++) {
      const at = point(10);
      for (let i = 0; i < 9; i++) soup[9 * t + i] = at[i % 3]! + random();
    }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(soup), 3));
    geometry.setIndex([...Array(3 * count).keys()]);
    const library = new MeshBVH(geometry);
    const beams = new Beams(soup);
    let met = 0;
    for (let i = 0; i < 12; i++) {
      const way = new Vector3(random() - 0.5, random() - 0.5, random() - 0.5).normalize();
      beams.aim(way.x, way.y, way.z);
      const places = Array.from({ length: 200 }, () => point(12));
      // Half of them look along it, half against it.
      const looks = places.map((at, k) => [...at, ...(k % 2 ? way.clone().negate() : way).toArray()]);
      const [reach, dark, weights] = [40, new Float32Array(200), new Float32Array(200)];
      beams.darken(Float64Array.from(looks.flat()), reach, dark, weights);
      const isCovered = beams.covered(Float64Array.from(looks.flat()));
      for (const [k, at] of places.entries()) {
        const ray = new Ray(new Vector3(...at), k % 2 ? way.clone().negate() : way);
        const front = library.raycastFirst(ray, FrontSide)?.distance ?? Infinity;
        const back = library.raycastFirst(ray, BackSide)?.distance ?? Infinity;
        expect(weights[k]).toBeCloseTo(1, 6);
        expect(reach * (1 - dark[k]!)).toBeCloseTo(Math.min(reach, front), 3);
        expect(isCovered[k]).toBe(back < front ? 1 : 0);
        if (front < reach) met++;
      }
    }
    if (count > 3) expect(met).toBeGreaterThan(5);
  });

  it('see nothing from what is edge on, and know what is inside', () => {
    const mesh = joinedMeshes(cube(1), cube(1, 3));
    const beams = new Beams(
      Float64Array.from([...triangleIndices(mesh)].flatMap((i) => [...mesh.positions.subarray(3 * i, 3 * i + 3)])),
    );
    beams.aim(1, 0, 0);
    const look = (...places: number[][]) => Float64Array.from(places.flatMap((at) => [...at, 1, 0, 0]));
    expect([
      ...beams.covered(look([-2, 0.4, 0.3], [0.5, 0.4, 0.3], [1.5, 0.4, 0.3], [3.5, 0.4, 0.3], [9, 0.4, 0.3])),
    ]).toEqual([0, 1, 0, 1, 0]);
    const dark = new Float32Array(3);
    beams.darken(look([-2, 0.4, 0.3], [2, 0.4, 0.3], [2, 4, 4]), 4, dark, new Float32Array(3));
    expect([...dark]).toEqual([0.5, 0.75, 0]);
  });

  it('meet nothing where there is nothing', () => {
    const beams = new Beams(new Float64Array());
    beams.aim(0, 0, 1);
    expect([...beams.covered(Float64Array.from([0, 0, 0, 0, 0, 1]))]).toEqual([0]);
  });
});

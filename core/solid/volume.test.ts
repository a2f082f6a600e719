// Volumes of edged slabs against two others who share no code with us: areas of offset sections from a clipping library,
// integrated, and a kernel for solid Booleans, which also judges whether the mesh is a manifold and counts its handles.
import { readdirSync, readFileSync } from 'node:fs';
import { ClipperOffset, EndType, JoinType, type Path64 } from 'clipper2-ts';
import { beforeAll, describe, expect, it } from 'vitest';
import initManifold from '../../bench/sets/node_modules/manifold-3d/manifold.js';
import { readSvg } from '../formats/svg/read.ts';
import { proofOf } from '../mesh/proof.ts';
import { trianglesOf } from '../mesh/triangles.ts';
import type { Mesh } from '../mesh/types.ts';
import { weldExact } from '../mesh/weld.ts';
import { coverOf } from '../outline/cover.ts';
import { boundsOf, longestSide, regionsArea, ringsOf } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
import { roundEdge } from '../testing/edges.ts';
import { FACE_MESHES } from './front/front.ts';
import { profileRows } from './profile.ts';
import { fitSpec, planSlab, raiseSlab, type SlabSpec } from './slab.ts';

const FOLDER = 'bench/sets/node_modules/@mdi/svg/svg';
const ICONS = 40;
const TOLERANCE = 0.02;
/** Shares of the longest side. */
const REACHES = [0.01, 0.02, 0.04, 0.08, 0.4];
/**
 * Both cut sharp corners square from here on. Longer ones may meet: in the straight skeleton the first to arrive ends the
 * other, while clipping lets the other come out again behind it, so that the two do not mean the same there.
 */
const MITRE_LIMIT = 1.5;

const names = readdirSync(FOLDER).sort();
const icons = names.filter((_, i) => i % Math.floor(names.length / ICONS) === 7).slice(0, ICONS);
const drawings = icons.map((name): { name: string; regions: Region[] } => {
  const { shapes } = readSvg(readFileSync(`${FOLDER}/${name}`, 'utf8'));
  return { name, regions: shapes.flatMap((shape) => coverOf(shape, TOLERANCE)) };
});

function built(regions: readonly Region[], share: number, faces: SlabSpec['faces']) {
  const size = longestSide(boundsOf(ringsOf(regions))!);
  const reach = share * size;
  const edge = roundEdge({ reach, rise: Math.min(reach, size / 30), mitreLimit: MITRE_LIMIT });
  const wanted = { depth: size / 8, front: edge, back: edge, faces, cell: size / 24, wallRows: 1 };
  const { spec } = fitSpec(wanted, size);
  return { mesh: raiseSlab(planSlab(regions, spec), spec), spec, size };
}

/** Steps of the clipping library's grid across the size. */
const STEPS = 2 ** 24;

/** Area of what is left of regions a distance inside their outline. */
function sectionArea(regions: readonly Region[], distance: number, size: number): number {
  const grid = size / STEPS;
  const paths = ringsOf(regions).map((ring) =>
    Array.from({ length: ring.length / 2 }, (_, i) => ({
      x: Math.round(ring[2 * i]! / grid),
      y: Math.round(ring[2 * i + 1]! / grid),
    })),
  );
  const offset = new ClipperOffset(MITRE_LIMIT, 0, false, false);
  offset.addPaths(paths as Path64[], JoinType.Miter, EndType.Polygon);
  const left: Path64[] = [];
  offset.execute(-distance / grid, left);
  const areaOf = (path: Path64) =>
    path.reduce((sum, { x, y }, i) => sum + (path.at(i - 1)!.x * y - x * path.at(i - 1)!.y) / 2, 0);
  return left.reduce((sum, path) => sum + areaOf(path), 0) * grid * grid;
}

/** Nodes and weights of Gauss and Legendre's rule of four points on 0 … 1 (Abramowitz & Stegun 1964, table 25.4). */
const NODES = [0.0694318442, 0.3300094782, 0.6699905218, 0.9305681558];
const WEIGHTS = [0.1739274226, 0.3260725774, 0.3260725774, 0.1739274226];
/** Parts of every strip: areas bend wherever the front changes its shape, and end within one where it is used up. */
const partsFor = (reach: number, size: number) => Math.ceil(6 + (100 * reach) / size);

/** Volume by sections: the wall's, and of every strip of both edges. */
function volumeBySections(regions: readonly Region[], { depth, front }: SlabSpec, size: number): number {
  const { reach, rise, profile, steps } = front!;
  const { insets, heights } = profileRows(profile, steps);
  const parts = partsFor(reach, size);
  let edge = 0;
  for (let k = 1; k < insets.length; k++) {
    const height = rise * (heights[k]! - heights[k - 1]!);
    for (let part = 0; part < parts; part++) {
      for (const [i, node] of NODES.entries()) {
        const inset = insets[k - 1]! + ((part + node) / parts) * (insets[k]! - insets[k - 1]!);
        edge += (WEIGHTS[i]! * height * sectionArea(regions, inset * reach, size)) / parts;
      }
    }
  }
  return (depth - 2 * rise) * regionsArea(regions) + 2 * edge;
}

// The clipping library offsets each drawing hundreds of times; a slow machine needs more than a minute for that.
describe('volume by sections', { timeout: 300_000 }, () => {
  it.each(REACHES)('is within a thousandth at a reach of %f of the size', (share) => {
    for (const { name, regions } of drawings) {
      const { mesh, spec, size } = built(regions, share, 'fewest');
      const expected = volumeBySections(regions, spec, size);
      const { volume } = proofOf(mesh, { crossings: false });
      expect(Math.abs(volume / expected - 1), `${name}: ${volume}, by sections ${expected}`).toBeLessThan(1e-3);
    }
  });
});

describe('a kernel for solid Booleans', () => {
  let kernel: Awaited<ReturnType<typeof initManifold>>;
  beforeAll(async () => {
    kernel = await initManifold();
    kernel.setup();
  });

  /** The mesh as files hold it: float32, equal points one. */
  const solidOf = (mesh: Mesh) => {
    const { remap, count } = weldExact(mesh.positions);
    const vertProperties = new Float32Array(3 * count);
    for (let i = remap.length - 1; i >= 0; i--)
      vertProperties.set(mesh.positions.subarray(3 * i, 3 * i + 3), 3 * remap[i]!);
    const triVerts = trianglesOf(mesh).indices.map((point) => remap[point]!);
    return new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties, triVerts }));
  };

  it.each(FACE_MESHES)('takes slabs with %s faces as manifolds with our volume, shells and handles', (faces) => {
    for (const { name, regions } of drawings) {
      for (const share of [0, 0.02, 0.4]) {
        const { mesh } = built(regions, share, faces);
        const solid = solidOf(mesh);
        expect(solid.status(), name).toBe('NoError');
        const proof = proofOf(mesh, { crossings: false });
        expect(Math.abs(solid.volume() / proof.volume - 1), name).toBeLessThan(1e-5);
        expect(Math.abs(solid.surfaceArea() / proof.area - 1), name).toBeLessThan(1e-5);
        const shells = solid.decompose();
        expect(shells, name).toHaveLength(regions.length);
        // A hole through a slab is a handle.
        const handles = shells.reduce((sum, shell) => sum + shell.genus(), 0);
        expect(handles, name).toBe(regions.reduce((sum, { holes }) => sum + holes.length, 0));
        for (const each of [solid, ...shells]) each.delete();
      }
    }
  });
});

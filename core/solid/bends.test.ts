// The curves behind outlines, and the light on them: a circle's normals point from its middle, and where a line runs into an
// arc it stays flat to the end.
import { describe, expect, it } from 'vitest';
import { SHADING, splitVertices } from '../mesh/normals.ts';
import { type Mesh, SIDES } from '../mesh/types.ts';
import { regionsOf } from '../outline/regions.ts';
import { flatten } from '../path/flatten.ts';
import { parsePath } from '../path/parse.ts';
import { roundEdge } from '../testing/edges.ts';
import { bendsOf } from './bends.ts';
import { fitSpec, planSlab, raiseSlab, type SlabSpec } from './slab.ts';

const TOLERANCE = 0.05;
function slabOf(d: string, change: Partial<SlabSpec> = {}): Mesh {
  const path = parsePath(d).path;
  const regions = regionsOf(flatten(path, TOLERANCE), 'nonzero');
  const wanted: SlabSpec = {
    depth: 4,
    front: roundEdge(),
    back: null,
    faces: 'fewest',
    cell: 1,
    wallRows: 2,
    ...change,
  };
  const { spec } = fitSpec(wanted);
  const mesh = raiseSlab(planSlab(regions, spec), spec);
  return { ...mesh, flow: { ...mesh.flow!, bends: bendsOf(mesh.flow!, [path], TOLERANCE) } };
}

/** The normal and the place of every corner of a side. */
function cornersOf(mesh: Mesh, side: (typeof SIDES)[number], shading = SHADING) {
  const { normals, vertexOfCorner } = splitVertices(mesh, shading);
  return Array.from(mesh.sides).flatMap((each, f) => {
    if (SIDES[each] !== side) return [];
    return Array.from({ length: mesh.starts[f + 1]! - mesh.starts[f]! }, (_, k) => {
      const c = mesh.starts[f]! + k;
      const [p, v] = [3 * mesh.corners[c]!, 3 * vertexOfCorner[c]!];
      return {
        place: [...mesh.positions.subarray(p, p + 3)] as [number, number, number],
        normal: [...normals.subarray(v, v + 3)] as [number, number, number],
      };
    });
  });
}

const CIRCLE = 'M10 0A10 10 0 0 1-10 0A10 10 0 0 1 10 0Z';
/** Two half circles and two lines: the outline of a running track, which has no corner. */
const TRACK = 'M-20-5L20-5A5 5 0 0 1 20 5L-20 5A5 5 0 0 1-20-5Z';

describe('normals along curves', () => {
  it('point from the middle of a circle, on its wall and its edge', () => {
    // Arcs become cubics that stray 2.7e-4 of the radius; their direction is off by as little.
    for (const side of ['wall', 'edge'] as const) {
      for (const { place, normal } of cornersOf(slabOf(CIRCLE), side)) {
        const [x, y] = [normal[0] / Math.hypot(normal[0], normal[1]), normal[1] / Math.hypot(normal[0], normal[1])];
        const [px, py] = [place[0] / Math.hypot(place[0], place[1]), place[1] / Math.hypot(place[0], place[1])];
        expect(x * py - y * px).toBeCloseTo(0, 3);
      }
    }
  });

  it('are square to a line up to where it runs into an arc', () => {
    for (const { place, normal } of cornersOf(slabOf(TRACK), 'wall')) {
      if (Math.abs(place[0]) > 20 + 1e-6) continue;
      expect(Math.abs(normal[0])).toBeLessThan(1e-3);
      expect(Math.abs(normal[1])).toBeCloseTo(1, 6);
    }
    // As chords alone have it, the light would bend before the arc begins.
    const { flow, ...mesh } = slabOf(TRACK);
    const { bends: _, ...chords } = flow!;
    const bent = cornersOf({ ...mesh, flow: chords }, 'wall').filter(({ place }) => Math.abs(place[0]) <= 20);
    expect(Math.max(...bent.map(({ normal }) => Math.abs(normal[0])))).toBeGreaterThan(0.03);
  });

  it('smooth a curve however few its chords are, and leave corners hard', () => {
    // A circle of radius 0.3 has 6 chords at this tolerance, which meet at 60°.
    const small = slabOf('M0.3 0A0.3 0.3 0 0 1-0.3 0A0.3 0.3 0 0 1 0.3 0Z', { front: null, depth: 1 });
    expect(small.flow!.next.length).toBeLessThan(9);
    for (const { place, normal } of cornersOf(small, 'wall')) {
      expect((normal[0] * place[0] + normal[1] * place[1]) / 0.3).toBeCloseTo(1, 3);
    }
    const square = cornersOf(slabOf('M0 0H10V10H0Z'), 'wall');
    for (const { normal } of square) expect(Math.max(Math.abs(normal[0]), Math.abs(normal[1]))).toBeCloseTo(1, 9);
  });

  it('know a curve whichever way the outline runs along it, and after it is cut', () => {
    // A circle with a bite, and what sticks out of it: what is left of each arc still bends as it did.
    const path = 'M10 0A10 10 0 0 1-10 0A10 10 0 0 1 10 0ZM14 0A6 6 0 0 0 2 0A6 6 0 0 0 14 0Z';
    for (const { place, normal } of cornersOf(slabOf(path, { front: null }), 'wall')) {
      const [fromBig, fromSmall] = [Math.hypot(place[0], place[1]), Math.hypot(place[0] - 8, place[1])];
      // Chords cross a little inside the curves.
      if (Math.abs(fromBig - 10) < TOLERANCE === Math.abs(fromSmall - 6) < TOLERANCE) continue;
      const isBite = Math.abs(fromSmall - 6) < TOLERANCE;
      const [mx, r, way] = isBite ? [8, 6, fromBig < 10 ? -1 : 1] : [0, 10, fromSmall > 6 ? 1 : -1];
      expect((way * (normal[0] * (place[0] - mx) + normal[1] * place[1])) / r).toBeCloseTo(1, 2);
    }
  });
});

describe('shading', () => {
  it('leaves a flat front perfectly flat, whatever the edge runs into', () => {
    for (const blend of ['none', 'wall', 'front', 'both'] as const) {
      for (const { normal } of cornersOf(slabOf(TRACK), 'front', { crease: 40, blend }))
        expect(normal).toEqual([0, 0, 1]);
    }
  });

  it('gives an edge the normals of what it runs into, where it meets it', () => {
    const edge = cornersOf(slabOf(CIRCLE), 'edge', { crease: 40, blend: 'both' });
    const at = (height: number) => edge.filter(({ place }) => Math.abs(place[2] - height) < 1e-9);
    for (const { normal } of at(4)) expect(normal).toEqual([0, 0, 1]);
    for (const { place, normal } of at(3)) {
      expect(normal[2]).toBeCloseTo(0, 9);
      expect((normal[0] * place[0] + normal[1] * place[1]) / 10).toBeCloseTo(1, 3);
    }
    const hard = cornersOf(slabOf(CIRCLE), 'edge').filter(({ place }) => Math.abs(place[2] - 3) < 1e-9);
    // The lowest of three strips leans in by 15°.
    for (const { normal } of hard) expect((Math.asin(normal[2]) * 180) / Math.PI).toBeCloseTo(15, 0);
  });
});

// Mesh checks on small bodies whose properties are known by counting.
import { describe, expect, it } from 'vitest';
import type { Region } from '../outline/types.ts';
import { planSlab, raiseSlab, type SlabSpec } from '../solid/slab.ts';
import { roundEdge } from '../testing/edges.ts';
import { CUBE_FACES, CUBE_POINTS, cube, joinedMeshes as joined, meshFrom as mesh } from '../testing/meshes.ts';
import { rectangle, region, regularPolygon } from '../testing/shapes.ts';
import { crossingsOf } from './crossings.ts';
import { faceNormalsOf, shade, splitVertices } from './normals.ts';
import { countOf, isSound, proofOf } from './proof.ts';
import { topologyOf } from './topology.ts';
import { trianglesOf } from './triangles.ts';
import { EMPTY_MESH, type Mesh, SIDES } from './types.ts';
import { weldExact } from './weld.ts';

describe('topology', () => {
  it('closes a cube: 8 points, 12 edges, one shell', () => {
    expect(topologyOf(cube())).toMatchObject({
      points: 8,
      edges: 12,
      open: 0,
      crowded: 0,
      flipped: 0,
      shells: 1,
      closed: true,
    });
  });

  it('counts open edges of a missing face, and says where', () => {
    const result = topologyOf(mesh(CUBE_POINTS, CUBE_FACES.slice(1)));
    expect(result).toMatchObject({ open: 4, closed: false });
    expect(result.places.open).toHaveLength(4);
  });

  it('tells a flipped face from a crowded edge', () => {
    const flipped = CUBE_FACES.map((face, i) => (i === 0 ? face.toReversed() : face));
    expect(topologyOf(mesh(CUBE_POINTS, flipped))).toMatchObject({ flipped: 4, open: 0, closed: false });
    const fin = mesh([...CUBE_POINTS, [2, 0, 0], [2, 0, 1]], [...CUBE_FACES, [1, 5, 9, 8]]);
    expect(topologyOf(fin)).toMatchObject({ crowded: 1, open: 3, closed: false });
  });

  it('welds points that are equal as float32, and counts shells', () => {
    const soup = joined(cube(), cube(1, 3));
    expect(topologyOf(soup)).toMatchObject({ shells: 2, closed: true });
    expect(topologyOf(joined(cube(), cube(1, 1)))).toMatchObject({ closed: false, crowded: 4 });
    expect(weldExact([0, 0, 0, 1e-9, 0, 0, -0, 0, 0, 1 + 1e-12, 0, 0, 1, 0, 0]).count).toBe(3);
  });

  it('is not closed when there is nothing', () => {
    expect(topologyOf(EMPTY_MESH).closed).toBe(false);
    expect(proofOf(EMPTY_MESH)).toMatchObject({ closed: false, volume: 0, size: [0, 0, 0] });
  });
});

describe('proof', () => {
  it('measures a cube', () => {
    const proof = proofOf(cube(2, 5, 5, 5));
    expect(proof).toMatchObject({
      closed: true,
      findings: [],
      shells: 1,
      size: [2, 2, 2],
      min: [5, 5, 5],
    });
    expect(proof.volume).toBeCloseTo(8, 12);
    expect(proof.area).toBeCloseTo(24, 12);
    expect(isSound(proof)).toBe(true);
  });

  it('keeps the digits of a small body far away', () => {
    expect(proofOf(cube(0.25, 4096, 4096, 4096)).volume).toBeCloseTo(0.015625, 12);
  });

  it('has a negative volume when faces look inward', () => {
    const inward = mesh(
      CUBE_POINTS,
      CUBE_FACES.map((face) => face.toReversed()),
    );
    expect(proofOf(inward)).toMatchObject({ closed: true });
    expect(proofOf(inward).volume).toBeCloseTo(-1, 12);
    expect(isSound(proofOf(inward))).toBe(false);
  });

  it('finds faces without area and names a place', () => {
    const proof = proofOf(
      mesh(
        [
          [0, 0, 0],
          [1, 0, 0],
          [2, 0, 0],
          [0, 1, 0],
        ],
        [
          [0, 1, 3],
          [0, 2, 1],
        ],
      ),
    );
    expect(countOf(proof, 'zero')).toBe(1);
    expect(proof.findings.flatMap(({ places }) => places).length).toBeGreaterThan(0);
  });

  it('spreads angles and lengths: a cube of 2 has 12 halved squares of 45° and 12 edges of 2', () => {
    const { angles, lengths } = proofOf(cube(2));
    expect(angles.filter(({ count }) => count > 0)).toEqual([{ from: 45, to: 50, count: 12 }]);
    expect(lengths).toEqual([{ from: 2, to: 5, count: 12 }]);
    const needle = mesh(
      [
        [0, 0, 0],
        [100, 0, 0],
        [100, 0.5, 0],
      ],
      [[0, 1, 2]],
    );
    expect(proofOf(needle).angles[0]!.count).toBe(1);
    expect(proofOf(needle).lengths.map(({ from, count }) => [from, count])).toEqual([
      [0.5, 1],
      [1, 0],
      [2, 0],
      [5, 0],
      [10, 0],
      [20, 0],
      [50, 0],
      [100, 1],
    ]);
  });

  it('says what is wrong, how often and where, worst first', () => {
    const inward = mesh(
      CUBE_POINTS,
      CUBE_FACES.map((face) => face.toReversed()),
    );
    expect(proofOf(inward).findings).toMatchObject([{ fault: 'inward', count: 1 }]);
    const open = mesh(CUBE_POINTS, CUBE_FACES.slice(1));
    const [finding] = proofOf(open).findings;
    expect(finding).toMatchObject({ fault: 'open', count: 4 });
    // The middles of the four edges of the face that is missing.
    expect(finding!.places.map((place) => place.join()).sort()).toEqual(['0,0.5,0', '0.5,0,0', '0.5,1,0', '1,0.5,0']);
    const needle = joined(
      cube(),
      mesh(
        [
          [5, 0, 0],
          [105, 0, 0],
          [105, 0.5, 0],
        ],
        [
          [0, 1, 2],
          [2, 1, 0],
        ],
      ),
    );
    expect(proofOf(needle).findings.map(({ fault, count }) => [fault, count])).toEqual([
      ['crossing', 1],
      ['sliver', 2],
    ]);
  });

  it('counts crossings of bodies that pass through each other', () => {
    expect(countOf(proofOf(joined(cube(), cube(1, 0.5, 0.5, 0.5))), 'crossing')).toBeGreaterThan(0);
    expect(proofOf(joined(cube(), cube(1, 0.5, 0.5, 0.5)), { crossings: false })).toMatchObject({
      findings: [],
      crossingsSought: false,
    });
  });
});

describe('crossings', () => {
  const pairs = (points: number[][], triangles: number[][]) =>
    crossingsOf(points.flat(), Uint32Array.from(triangles.flat()));

  it('sees an edge that pierces a face', () => {
    const points = [
      [0, 0, 0],
      [4, 0, 0],
      [0, 4, 0],
      [1, 1, -1],
      [1, 1, 1],
      [2, 1, 1],
    ];
    expect(
      pairs(points, [
        [0, 1, 2],
        [3, 4, 5],
      ]),
    ).toEqual([0, 1]);
  });

  it('lets faces touch in points and edges', () => {
    const points = [
      [0, 0, 0],
      [4, 0, 0],
      [0, 4, 0],
      [4, 4, 3],
      [1, 1, 0],
      [2, 2, 5],
      [1, 2, 5],
    ];
    expect(
      pairs(points, [
        [0, 1, 2],
        [1, 3, 2],
        [4, 5, 6],
      ]),
    ).toEqual([]);
  });

  it('sees overlaps in one plane, and not neighbours', () => {
    const points = [
      [0, 0, 0],
      [4, 0, 0],
      [0, 4, 0],
      [4, 4, 0],
      [1, 1, 0],
      [5, 1, 0],
      [1, 5, 0],
    ];
    expect(
      pairs(points, [
        [0, 1, 2],
        [1, 3, 2],
      ]),
    ).toEqual([]);
    expect(
      pairs(points, [
        [0, 1, 2],
        [4, 5, 6],
      ]),
    ).toEqual([0, 1]);
    expect(
      pairs(points, [
        [0, 1, 2],
        [0, 2, 1],
      ]),
    ).toEqual([0, 1]);
    // Folded back over its neighbour.
    expect(
      pairs(points, [
        [0, 1, 2],
        [2, 1, 4],
      ]),
    ).toEqual([0, 1]);
  });

  it('finds the same pairs as comparing all with all', () => {
    let seed = 7;
    const random = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed / 2147483648;
    };
    const points = Array.from({ length: 180 }, (_, i) => {
      const centre = Math.floor(i / 3);
      return [(centre % 5) * 0.3 + random(), Math.floor(centre / 5) * 0.1 + random(), random()];
    });
    const triangles = Array.from({ length: 60 }, (_, t) => [3 * t, 3 * t + 1, 3 * t + 2]);
    const all = pairs(points, triangles);
    const found = new Set(Array.from({ length: all.length / 2 }, (_, i) => `${all[2 * i]} ${all[2 * i + 1]}`));
    const expected = new Set<string>();
    for (let s = 0; s < 60; s++) {
      for (let t = s + 1; t < 60; t++)
        if (pairs(points, [triangles[s]!, triangles[t]!]).length) expected.add(`${s} ${t}`);
    }
    expect(found).toEqual(expected);
    expect(found.size).toBeGreaterThan(20);
  });
});

describe('triangles', () => {
  it('splits a quad along its shorter diagonal and larger faces as a fan', () => {
    const kite = mesh(
      [
        [0, 0, 0],
        [5, -1, 0],
        [10, 0, 0],
        [5, 1, 0],
      ],
      [[0, 1, 2, 3]],
    );
    expect([...trianglesOf(kite).indices]).toEqual([0, 1, 3, 1, 2, 3]);
    const pentagon = mesh(
      [
        [0, 0, 0],
        [2, 0, 0],
        [3, 1, 0],
        [1, 2, 0],
        [-1, 1, 0],
      ],
      [[0, 1, 2, 3, 4]],
    );
    expect(trianglesOf(pentagon).indices).toHaveLength(9);
  });
});

describe('normals', () => {
  it('are those of the faces on a cube: 24 vertices', () => {
    const { positions, normals, indices } = shade(cube());
    expect(positions).toHaveLength(24 * 3);
    expect(indices).toHaveLength(36);
    for (let i = 0; i < normals.length; i += 3) {
      expect([Math.abs(normals[i]!), Math.abs(normals[i + 1]!), Math.abs(normals[i + 2]!)].sort()).toEqual([0, 0, 1]);
    }
  });

  it('point away from the middle', () => {
    const { positions, normals } = shade(cube());
    for (let i = 0; i < normals.length; i += 3) {
      const outward = [0, 1, 2].reduce((sum, k) => sum + (positions[i + k]! - 0.5) * normals[i + k]!, 0);
      expect(outward).toBeGreaterThan(0);
    }
  });

  it('are smooth within a side and hard between sides', () => {
    // A roof of two faces that meet at 20°.
    const rise = Math.tan((10 * Math.PI) / 180);
    const points = [
      [-1, 0, 0],
      [0, 0, rise],
      [0, 1, rise],
      [-1, 1, 0],
      [1, 0, 0],
      [1, 1, 0],
    ];
    const faces = [
      [0, 1, 2, 3],
      [1, 4, 5, 2],
    ];
    expect(splitVertices(mesh(points, faces, [1, 1])).positions).toHaveLength(6 * 3);
    expect(splitVertices(mesh(points, faces, [0, 1])).positions).toHaveLength(8 * 3);
    expect(splitVertices(mesh(points, faces, [1, 1]), { crease: 15, blend: 'none' }).positions).toHaveLength(8 * 3);
    expect([...faceNormalsOf(mesh(points, faces))].slice(0, 3).map((v) => Math.round(v * 1000) / 1000)).toEqual([
      -0.174, 0, 0.985,
    ]);
  });
});

describe('shading along outlines', () => {
  const front = roundEdge({ profile: 'chamfer', reach: 9, steps: 1 });
  const spec: SlabSpec = { depth: 2, front, back: null, faces: 'fewest', cell: 1, wallRows: 1 };
  const slab = (outline: Region) => raiseSlab(planSlab([outline], spec), spec);
  /** Largest angle between a corner's normal and its face's, in degrees, over faces of one side. */
  const bentBy = (body: Mesh, side: (typeof SIDES)[number]) => {
    const { normals, vertexOfCorner } = splitVertices(body);
    const own = faceNormalsOf(body);
    let least = 1;
    for (let f = 0; f + 1 < body.starts.length; f++) {
      if (SIDES[body.sides[f]!] !== side) continue;
      for (let c = body.starts[f]!; c < body.starts[f + 1]!; c++) {
        const v = 3 * vertexOfCorner[c]!;
        least = Math.min(
          least,
          normals[v]! * own[3 * f]! + normals[v + 1]! * own[3 * f + 1]! + normals[v + 2]! * own[3 * f + 2]!,
        );
      }
    }
    return (Math.acos(Math.min(1, least)) * 180) / Math.PI;
  };

  it('keeps the planes of a roof flat, however low it is', () => {
    // The planes meet at 12°, far below any crease: what parts them is that they come from other edges.
    const roof = slab(region(rectangle(0, 0, 40, 18)));
    expect(bentBy(roof, 'edge')).toBeLessThan(0.02);
    expect(bentBy(roof, 'wall')).toBeLessThan(0.02);
  });

  it('bends over the chords of a curve, and across the seam where it closes', () => {
    const cone = slab(region(regularPolygon(36, 9)));
    // Chords of 10° meet half way.
    expect(bentBy(cone, 'wall')).toBeCloseTo(5, 1);
    const { normals, positions } = splitVertices(cone);
    for (let v = 0; v < positions.length / 3; v++) {
      if (Math.abs(normals[3 * v + 2]!) > 0.01) continue;
      const [x, y] = [positions[3 * v]!, positions[3 * v + 1]!];
      const along = (normals[3 * v]! * x + normals[3 * v + 1]! * y) / Math.hypot(x, y);
      expect(along).toBeCloseTo(1, 6);
    }
  });
});

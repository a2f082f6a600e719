// Edges marked by hand, and flat faces joined: shading as marked, marks that hold on other meshes, and what is refused in words.
import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/rigid.ts';
import type { Region } from '../outline/types.ts';
import { fitSpec, planSlab, raiseSlab, type SlabSpec } from '../solid/slab.ts';
import { roundEdge } from '../testing/edges.ts';
import { cube } from '../testing/meshes.ts';
import { rectangle, region, regularPolygon } from '../testing/shapes.ts';
import { edgesBetween, withMarks } from './joined.ts';
import { type Mark, MarkFrame, type MarkKind } from './marks.ts';
import { splitVertices } from './normals.ts';
import { edgeNear, faceNear, lineThrough } from './pick.ts';
import { proofOf } from './proof.ts';
import { faceCount, type Mesh, SIDES } from './types.ts';

function slab(outline: Region, change: Partial<SlabSpec> = {}): Mesh {
  const wanted: SlabSpec = { depth: 4, front: null, back: null, faces: 'fewest', cell: 2, wallRows: 1, ...change };
  const { spec } = fitSpec(wanted);
  return raiseSlab(planSlab([outline], spec), spec);
}

const marksAt = (mesh: Mesh, is: MarkKind, edges: readonly (readonly [number, number])[], scale = 1): Mark[] => {
  const frame = new MarkFrame(mesh, scale);
  return edges.map(([a, b]) => ({ is, at: [frame.endAt(a), frame.endAt(b)] }));
};
const pickedAt = (mesh: Mesh, point: Point) => edgeNear(mesh, faceNear(mesh, point), point);
const marked = (mesh: Mesh, marks: readonly Mark[], scale = 1) => withMarks(mesh, marks, scale, (whole) => whole);

/** Normals of the corners at a place, without repetition. */
function normalsAt(mesh: Mesh, [x, y, z]: Point, crease = 40): number[][] {
  const { normals, positions } = splitVertices(mesh, { crease, blend: 'none' });
  const found: number[][] = [];
  for (let i = 0; i < positions.length; i += 3) {
    if (Math.hypot(positions[i]! - x, positions[i + 1]! - y, positions[i + 2]! - z) < 1e-6)
      found.push([...normals.subarray(i, i + 3)]);
  }
  return found;
}
/** Degrees between directions. */
const between = (a: readonly number[], b: readonly number[]) =>
  (Math.acos(Math.min(1, a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!)) * 180) / Math.PI;

describe('an edge marked soft', () => {
  it('has at both ends the mean of the faces beside it, weighted by their angles there (Thürmer & Wüthrich 1998)', () => {
    const box = cube(2);
    const { mesh } = marked(box, marksAt(box, 'soft', [pickedAt(box, [2, 2, 1])]));
    for (const z of [0, 2]) {
      const normals = normalsAt(mesh, [2, 2, z]);
      expect(normals).toHaveLength(2);
      const [across] = normals.filter(([, , up]) => Math.abs(up!) < 0.5);
      expect(
        between(
          across!,
          [1, 1, 0].map((v) => v / Math.SQRT2),
        ),
      ).toBeLessThan(0.02);
    }
    // Corners that it does not touch stay as they were.
    expect(normalsAt(mesh, [0, 0, 0])).toHaveLength(3);
  });

  it('takes a level face with it, which else stays as flat as it is', () => {
    const box = slab(region(rectangle(0, 0, 10, 10)));
    const { mesh } = marked(box, marksAt(box, 'soft', [pickedAt(box, [5, 10, 4])]));
    const normals = normalsAt(mesh, [0, 10, 4]);
    expect(normals).toHaveLength(2);
    const halfway = [0, Math.SQRT1_2, Math.SQRT1_2];
    expect(Math.min(...normals.map((normal) => between(normal, halfway)))).toBeLessThan(0.02);
  });
});

describe('an edge marked hard', () => {
  const disc = slab(region(regularPolygon(24, 10)));
  const at: Point = [10, 0, 2];

  it('shows the corner between two faces that are smooth elsewhere', () => {
    expect(normalsAt(disc, [10, 0, 4]).filter(([, , z]) => Math.abs(z!) < 0.5)).toHaveLength(1);
    const { mesh } = marked(disc, marksAt(disc, 'hard', [pickedAt(disc, at)]));
    for (const z of [0, 4]) {
      const walls = normalsAt(mesh, [10, 0, z]).filter(([, , up]) => Math.abs(up!) < 0.5);
      expect(walls).toHaveLength(2);
      // One face and the next turn by 360° / 24.
      expect(between(walls[0]!, walls[1]!)).toBeCloseTo(15, 3);
    }
  });

  it('parts nothing around one end of it where faces hang together the other way', () => {
    const rows = slab(region(regularPolygon(24, 10)), { wallRows: 2 });
    const { mesh } = marked(rows, marksAt(rows, 'hard', [pickedAt(rows, [10, 0, 3])]));
    expect(normalsAt(mesh, [10, 0, 2])).toHaveLength(1);
    expect(normalsAt(mesh, [10, 0, 4]).filter(([, , up]) => Math.abs(up!) < 0.5)).toHaveLength(2);
  });
});

describe('a mark', () => {
  const outline = region(rectangle(0, 0, 10, 6));
  const edged = (depth: number, reach = 1) =>
    slab(outline, { depth, front: roundEdge({ reach }), back: roundEdge({ reach }) });

  it.each([2.5, 4, 40])('holds at a depth of %s, and is on the same line', (depth) => {
    const before = edged(8);
    for (const point of [
      [5, 0, 7],
      [10, 0, 4],
      [5, 1, 8],
      [0, 3, 1],
    ] as const) {
      const edge = pickedAt(before, point);
      const after = edged(depth);
      const { mesh, lost } = marked(after, marksAt(before, 'hard', [edge]));
      expect(lost).toHaveLength(0);
      // Points of the same outline with the same edges come in the same order.
      const points = after.positions.length / 3;
      expect([...mesh.marked!.keys()]).toEqual([Math.min(...edge) * points + Math.max(...edge)]);
    }
  });

  it('holds when the outlines are sized', () => {
    const before = slab(outline);
    const after = slab(region(rectangle(0, 0, 25, 15)));
    const marks = marksAt(before, 'hard', [pickedAt(before, [10, 0, 2])]);
    expect(marked(after, marks, 2.5).lost).toHaveLength(0);
  });

  it('is lost, and said to be, where its edge is not there any more', () => {
    const before = edged(8);
    const inner = marksAt(before, 'hard', [pickedAt(before, [5, 1, 8])]);
    const outer = marksAt(before, 'hard', [pickedAt(before, [5, 0, 7])]);
    const { mesh, lost } = marked(edged(8, 1.7), [...inner, ...outer]);
    expect(lost).toEqual(inner);
    expect(mesh.marked!.size).toBe(1);
  });
});

describe('a line of edges', () => {
  it('goes up to the next corner', () => {
    const box = slab(region(rectangle(0, 0, 9, 6)), { faces: 'grid', cell: 3 });
    expect(lineThrough(box, pickedAt(box, [4.5, 6, 4]))).toHaveLength(3);
  });

  it('goes once around where there is none', () => {
    const disc = slab(region(regularPolygon(24, 10)), { front: roundEdge() });
    const [x, y] = [9.9 * Math.cos(Math.PI / 24), 9.9 * Math.sin(Math.PI / 24)];
    const line = lineThrough(disc, pickedAt(disc, [x, y, 2.9]));
    expect(line).toHaveLength(24);
    expect(new Set(line.flat()).size).toBe(24);
  });
});

describe('flat faces that are picked', () => {
  const grid = slab(region(rectangle(0, 0, 18, 15)), { faces: 'grid', cell: 3 });
  const facesAt = (mesh: Mesh, ...points: Point[]) => points.map((point) => faceNear(mesh, point));

  it('become one, and nothing else changes', () => {
    const picked = facesAt(grid, [4, 4, 4], [7, 4, 4], [7, 7, 4]);
    const { mesh, lost } = marked(grid, marksAt(grid, 'joined', edgesBetween(grid, picked)));
    expect(lost).toHaveLength(0);
    expect(faceCount(mesh)).toBe(faceCount(grid) - 2);
    const [before, after] = [proofOf(grid), proofOf(mesh)];
    expect(after.closed).toBe(true);
    expect(after.volume).toBeCloseTo(before.volume, 9);
    const joined = faceNear(mesh, [7, 7, 4]);
    expect(joined).toBe(faceNear(mesh, [4, 4, 4]));
    expect(SIDES[mesh.sides[joined]!]).toBe('front');
  });

  it('drop a point that lies within them', () => {
    const picked = facesAt(grid, [4, 4, 4], [7, 4, 4], [7, 7, 4], [4, 7, 4]);
    const { mesh } = marked(grid, marksAt(grid, 'joined', edgesBetween(grid, picked)));
    expect(faceCount(mesh)).toBe(faceCount(grid) - 3);
    expect(mesh.positions.length / 3).toBe(grid.positions.length / 3 - 1);
  });

  it.each([
    ['one alone', [[4, 4, 4]], /two faces or more/],
    [
      'two that touch nowhere',
      [
        [4, 4, 4],
        [13, 4, 4],
      ],
      /share an edge/,
    ],
    [
      'two of two sides',
      [
        [1.5, 1, 4],
        [1.5, 0, 2],
      ],
      /^One is on the front and one on the wall/,
    ],
  ] as const)('are refused where they are %s', (_, points, message) => {
    expect(() => edgesBetween(grid, facesAt(grid, ...points))).toThrow(message);
  });

  it('are refused where they are not flat, with the angle they meet at', () => {
    const disc = slab(region(regularPolygon(24, 10)));
    const walls = [1, 3].map((k): Point => [9.9 * Math.cos((k * Math.PI) / 24), 9.9 * Math.sin((k * Math.PI) / 24), 2]);
    expect(() => edgesBetween(disc, facesAt(disc, ...walls))).toThrow('They meet at 15°');
  });

  it('are refused where they would surround a hole', () => {
    const around = [4, 7, 10].flatMap((x) =>
      [4, 7, 10].flatMap((y): Point[] => (x === 7 && y === 7 ? [] : [[x, y, 4]])),
    );
    expect(() => edgesBetween(grid, facesAt(grid, ...around))).toThrow(/surround a hole/);
  });
});

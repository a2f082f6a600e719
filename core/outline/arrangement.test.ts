// The filling of paths on the grid: against the clipping library where that is known to be right, against a count of
// windings at sample points everywhere, and on the drawings on which the library loses pieces.
import { Clipper, FillRule } from 'clipper2-ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fillRegions, type GridFill, type GridPath, type GridRegion } from './arrangement.ts';

const path = (...values: number[]): GridPath =>
  Array.from({ length: values.length / 2 }, (_, i) => ({ x: values[2 * i]!, y: values[2 * i + 1]! }));

const square = (x: number, y: number, size: number): GridPath =>
  path(x, y, x + size, y, x + size, y + size, x, y + size);

const ringsOf = (regions: readonly GridRegion[]) => regions.flatMap(({ outer, holes }) => [outer, ...holes]);
const area = (regions: readonly GridRegion[]) =>
  ringsOf(regions).reduce((sum, ring) => sum + Clipper.area([...ring]), 0);

/** Winding number of the paths about a point that lies on none of their lines (crossings of a ray to the right). */
function windingAt(x: number, y: number, paths: readonly GridPath[]): number {
  let winding = 0;
  for (const ring of paths) {
    for (const [i, p] of ring.entries()) {
      const q = ring[(i + 1) % ring.length]!;
      if (p.y <= y === q.y <= y) continue;
      if (p.x + ((y - p.y) * (q.x - p.x)) / (q.y - p.y) > x) winding += q.y > p.y ? 1 : -1;
    }
  }
  return winding;
}

const FILLED: Record<GridFill, (winding: number) => boolean> = {
  nonzero: (w) => w !== 0,
  evenodd: (w) => w % 2 !== 0,
  positive: (w) => w > 0,
  twice: (w) => w > 1,
};

/** Paths with corners on a coarse lattice, so that edges coincide, overlap and meet in common points all the time. */
const latticePaths = fc.array(
  fc
    .array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })), { minLength: 1, maxLength: 14 })
    .map((points) => path(...points.flat().map((v) => v * 1000))),
  { maxLength: 5 },
);

describe('filling', () => {
  it('decides every sample point as its winding number does, for every rule', () => {
    const samples = fc.array(fc.tuple(fc.integer({ min: -5, max: 125 }), fc.integer({ min: -5, max: 125 })), {
      minLength: 30,
      maxLength: 30,
    });
    fc.assert(
      fc.property(
        latticePaths,
        samples,
        fc.constantFrom<GridFill>('nonzero', 'evenodd', 'positive', 'twice'),
        (paths, at, fill) => {
          const result = ringsOf(fillRegions(paths, fill));
          for (const [u, v] of at) {
            // Off the lattice and clear of its lines by an irrational shift; near a line both answers are right.
            const [x, y] = [u * 100 + Math.SQRT2 * 10, v * 100 + Math.E * 10];
            if (nearestEdge(x, y, paths) < 2) continue;
            const inside = windingAt(x, y, result);
            expect(inside).toBe(FILLED[fill](windingAt(x, y, paths)) ? 1 : 0);
          }
        },
      ),
      { numRuns: 600 },
    );
  });

  it('has the area of the clipping library on paths in general position', () => {
    const anywhere = fc.integer({ min: -1_000_000, max: 1_000_000 });
    const paths = fc.array(
      fc.array(fc.tuple(anywhere, anywhere), { minLength: 3, maxLength: 12 }).map((points) => path(...points.flat())),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(paths, fc.boolean(), (drawing, isEvenOdd) => {
        const theirs = Clipper.union(
          drawing.map((ring) => [...ring]),
          isEvenOdd ? FillRule.EvenOdd : FillRule.NonZero,
        );
        const ours = area(fillRegions(drawing, isEvenOdd ? 'evenodd' : 'nonzero'));
        expect(Math.abs(ours - Clipper.areaPaths(theirs))).toBeLessThan(1e-4 * Math.max(ours, 1e8));
      }),
      { numRuns: 300 },
    );
  });

  // Drawings on which clipper2-ts 2.0.1 cuts off a tip, loses a piece or turns a ring the wrong way round.
  it.each([
    ['a spike at the lowest point', [path(0, 12, 1, 12, 0, 0, 2, 12), path(0, 0, 0, 0, 0, 1)], 6],
    ['edges that cancel', [path(0, 7, 1, 7, 0, 0, 2, 7)], 3.5],
    [
      'coincident edges through one point',
      [path(11, 11, 0, 0, 0, 0, 1, 0), path(8, 7, 0, 1, 7, 7, 1, 0, 0, 1, 11, 11, 0, 0, 0, 0, 0, 8)],
      28.7846153,
    ],
  ])('fills %s', (_, drawing, expected) => {
    const scaled = drawing.map((ring) => ring.map(({ x, y }) => ({ x: x * 1e6, y: y * 1e6 })));
    expect(area(fillRegions(scaled, 'evenodd')) / 1e12).toBeCloseTo(expected, 5);
  });

  it('gives the same path walked twice once, and not at all under even-odd', () => {
    const twice = [square(0, 0, 10), square(0, 0, 10)];
    expect(area(fillRegions(twice, 'nonzero'))).toBe(100);
    expect(area(fillRegions(twice, 'twice'))).toBe(100);
    expect(fillRegions(twice, 'evenodd')).toEqual([]);
  });

  it('nests holes and islands, however deep', () => {
    const squares = [0, 1, 2, 3, 4, 5].map((k) => square(k * 10, k * 10, 200 - 20 * k));
    const regions = fillRegions(squares, 'evenodd');
    expect(regions).toHaveLength(3);
    for (const { holes } of regions) expect(holes).toHaveLength(1);
    expect(area(regions)).toBe(200 ** 2 - 180 ** 2 + 160 ** 2 - 140 ** 2 + 120 ** 2 - 100 ** 2);
  });

  it('gives each of many holes to its own region', () => {
    const board = [0, 1, 2, 3].flatMap((k) => [
      square(k * 100, 0, 90),
      ...[0, 1, 2].map((m) => [...square(k * 100 + 10, 10 + 25 * m, 20)].reverse()),
    ]);
    const regions = fillRegions(board, 'nonzero');
    expect(regions.map(({ holes }) => holes.length)).toEqual([3, 3, 3, 3]);
  });

  it('leaves squares that meet in a corner two rings', () => {
    expect(fillRegions([square(0, 0, 10), square(10, 10, 10)], 'nonzero')).toHaveLength(2);
  });

  it('is nothing for nothing', () => {
    expect(fillRegions([], 'nonzero')).toEqual([]);
    expect(fillRegions([path(1, 1), path(0, 0, 5, 5), path(0, 0, 5, 5, 9, 9)], 'nonzero')).toEqual([]);
  });
});

function nearestEdge(x: number, y: number, paths: readonly GridPath[]): number {
  let nearest = Infinity;
  for (const ring of paths) {
    for (const [i, p] of ring.entries()) {
      const q = ring[(i + 1) % ring.length]!;
      const [dx, dy] = [q.x - p.x, q.y - p.y];
      const t = Math.min(1, Math.max(0, ((x - p.x) * dx + (y - p.y) * dy) / (dx * dx + dy * dy || 1)));
      nearest = Math.min(nearest, Math.hypot(x - p.x - t * dx, y - p.y - t * dy));
    }
  }
  return nearest;
}

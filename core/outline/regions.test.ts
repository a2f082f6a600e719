// The regions a set of rings fills. Areas are checked against a sum over slabs and closed forms; that the regions can be
// extruded, against brute force.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gridRings, rectangle, region, regularPolygon, reversed, ring } from '../testing/shapes.ts';
import { pointInRing, ringsAreApart, segmentsOf } from './apart.ts';
import { fillRegions, type GridRegion } from './arrangement.ts';
import { toGrid } from './grid.ts';
import { boundsOf, pointCount, regionsArea, ringArea, ringLength, ringsOf } from './measure.ts';
import { sharedArea } from './overlap.ts';
import { regionsOf } from './regions.ts';
import { SegmentGrid } from './segment-grid.ts';
import { simpleRegions } from './simple.ts';
import { dropNegligible } from './simplify.ts';
import type { Ring } from './types.ts';

/**
 * Area that the rings fill by the even-odd rule, by slabs: between two neighbouring heights at which anything starts,
 * ends or crosses, edges do not meet, so every second gap between them is inside (Bentley & Ottmann 1979 sweep the same
 * slabs). Slow and plain on purpose.
 */
function slabArea(rings: readonly Ring[]): number {
  const s = segmentsOf(rings);
  const edges = Array.from({ length: s.length / 4 }, (_, i) => [...s.subarray(4 * i, 4 * i + 4)] as Edge);
  const heights = new Set(edges.flatMap(([, y0, , y1]) => [y0, y1]));
  for (const [i, a] of edges.entries()) for (const b of edges.slice(0, i)) heights.add(crossingHeight(a, b) ?? a[1]);
  const levels = [...heights].sort((a, b) => a - b);
  let area = 0;
  for (let k = 0; k + 1 < levels.length; k++) {
    const [low, high] = [levels[k]!, levels[k + 1]!];
    const middle = (low + high) / 2;
    const xs = edges
      .filter(([, y0, , y1]) => y0 < middle !== y1 < middle)
      .map(([x0, y0, x1, y1]) => x0 + ((x1 - x0) * (middle - y0)) / (y1 - y0))
      .sort((a, b) => a - b);
    for (let c = 0; c + 1 < xs.length; c += 2) area += (xs[c + 1]! - xs[c]!) * (high - low);
  }
  return area;
}

type Edge = [x0: number, y0: number, x1: number, y1: number];

function crossingHeight([ax, ay, bx, by]: Edge, [cx, cy, dx, dy]: Edge): number | null {
  const divisor = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
  if (divisor === 0) return null;
  const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / divisor;
  return t > 0 && t < 1 ? ay + t * (by - ay) : null;
}

describe('regions', () => {
  it('takes one ring in either direction to the same region, counter-clockwise', () => {
    for (const square of [rectangle(0, 0, 2, 3), reversed(rectangle(0, 0, 2, 3))]) {
      const [only, ...others] = regionsOf([square], 'nonzero');
      expect(others).toEqual([]);
      expect(ringArea(only!.outer)).toBeCloseTo(6, 6);
      expect(only!.holes).toEqual([]);
    }
  });

  it('fills overlaps by the rule', () => {
    const rings = [rectangle(0, 0, 4, 4), rectangle(2, 2, 4, 4)];
    expect(regionsArea(regionsOf(rings, 'nonzero'))).toBeCloseTo(28, 5);
    expect(regionsArea(regionsOf(rings, 'evenodd'))).toBeCloseTo(24, 2);
  });

  it('finds holes by direction under nonzero, by nesting under even-odd', () => {
    const [outer, inner] = [rectangle(0, 0, 10, 10), rectangle(2, 2, 4, 4)];
    expect(regionsArea(regionsOf([outer, inner], 'nonzero'))).toBeCloseTo(100, 5);
    expect(regionsArea(regionsOf([outer, reversed(inner)], 'nonzero'))).toBeCloseTo(84, 5);
    const [only] = regionsOf([outer, inner], 'evenodd');
    expect(only!.holes).toHaveLength(1);
    expect(ringArea(only!.holes[0]!)).toBeCloseTo(-16, 5);
  });

  it('makes an island in a hole a region of its own, largest first', () => {
    const rings = [rectangle(4, 4, 2, 2), rectangle(0, 0, 10, 10), rectangle(2, 2, 6, 6)];
    const regions = regionsOf(rings, 'evenodd');
    expect(regions.map(({ outer }) => Math.round(ringArea(outer)))).toEqual([100, 4]);
  });

  it('cuts a bow tie into two triangles that do not touch', () => {
    const regions = regionsOf([ring(0, 0, 4, 4, 4, 0, 0, 4)], 'nonzero');
    expect(regions).toHaveLength(2);
    expect(regionsArea(regions)).toBeCloseTo(8, 2);
    expect(ringsAreApart(ringsOf(regions), 1e-6)).toBe(true);
  });

  it('separates squares that meet in a corner', () => {
    const regions = regionsOf([rectangle(0, 0, 2, 2), rectangle(2, 2, 2, 2)], 'nonzero');
    expect(regions).toHaveLength(2);
    expect(ringsAreApart(ringsOf(regions), 1e-6)).toBe(true);
    expect(regionsArea(regions)).toBeCloseTo(8, 3);
  });

  it('separates a hole that touches its outline from inside', () => {
    const regions = regionsOf([rectangle(0, 0, 10, 10), ring(0, 5, 3, 3, 3, 7)], 'evenodd');
    expect(ringsAreApart(ringsOf(regions), 1e-6)).toBe(true);
    expect(regionsArea(regions)).toBeCloseTo(94, 2);
  });

  it('joins squares that share an edge, and drops points along the way', () => {
    const [only, ...others] = regionsOf([rectangle(0, 0, 2, 2), rectangle(2, 0, 2, 2)], 'nonzero');
    expect(others).toEqual([]);
    expect(pointCount([only!])).toBe(4);
  });

  it('gives nothing for rings without area', () => {
    expect(regionsOf([ring(0, 0, 1, 1, 2, 2)], 'nonzero')).toEqual([]);
    expect(regionsOf([], 'nonzero')).toEqual([]);
  });

  it('has the area that a sum over slabs finds, and rings that keep apart, whatever the input', () => {
    fc.assert(
      fc.property(gridRings, (rings) => {
        const ours = regionsOf(rings, 'evenodd');
        // Cuts at touching corners take away a little: 3e-5 of the extent, at most a few dozen times.
        expect(Math.abs(regionsArea(ours) - slabArea(rings))).toBeLessThan(0.02);
        expect(ringsAreApart(ringsOf(ours), 0)).toBe(true);
        for (const { outer, holes } of ours) {
          expect(ringArea(outer)).toBeGreaterThan(0);
          for (const hole of holes) expect(ringArea(hole)).toBeLessThan(0);
          expect(isNested([outer, ...holes])).toBe(true);
        }
      }),
      { numRuns: 1000 },
    );
  });

  it('gives itself when asked again', () => {
    fc.assert(
      fc.property(gridRings, (rings) => {
        const once = regionsOf(rings, 'nonzero');
        expect(regionsArea(regionsOf(ringsOf(once), 'nonzero'))).toBeCloseTo(regionsArea(once), 4);
      }),
      { numRuns: 100 },
    );
  });
});

describe('measures', () => {
  it('knows areas and lengths of regular polygons', () => {
    const hexagon = regularPolygon(6, 2);
    expect(ringArea(hexagon)).toBeCloseTo((3 * Math.sqrt(3) * 4) / 2, 12);
    expect(ringLength(hexagon)).toBeCloseTo(12, 12);
    expect(ringArea(reversed(hexagon))).toBeCloseTo(-ringArea(hexagon), 12);
  });

  it('loses no digits far from the origin', () => {
    expect(ringArea(rectangle(1e7, 1e7, 1e-2, 1e-2))).toBeCloseTo(1e-4, 9);
  });

  it('has no bounds without points', () => {
    expect(boundsOf([])).toBeNull();
    expect(boundsOf([rectangle(1, 2, 3, 4)])).toEqual({ minX: 1, minY: 2, maxX: 4, maxY: 6 });
  });
});

describe('shared area', () => {
  it('is that of the intersection', () => {
    const a = [region(rectangle(0, 0, 4, 4))];
    expect(sharedArea(a, [region(rectangle(2, 1, 8, 2))])).toBeCloseTo(4, 5);
    expect(sharedArea(a, [region(rectangle(9, 9, 1, 1))])).toBe(0);
    expect(sharedArea(a, [region(rectangle(4, 0, 4, 4))])).toBeCloseTo(0, 6);
    expect(sharedArea(a, a)).toBeCloseTo(16, 5);
  });

  it('leaves holes out', () => {
    const frame = [region(rectangle(0, 0, 4, 4), reversed(rectangle(1, 1, 2, 2)))];
    expect(sharedArea(frame, [region(rectangle(1, 1, 2, 2))])).toBeCloseTo(0, 5);
  });
});

describe('keeping apart', () => {
  it('sees crossings, near misses and clear distances', () => {
    expect(ringsAreApart([rectangle(0, 0, 2, 2), rectangle(1, 1, 2, 2)], 0)).toBe(false);
    expect(ringsAreApart([rectangle(0, 0, 2, 2), rectangle(2.5, 0, 2, 2)], 0.4)).toBe(true);
    expect(ringsAreApart([rectangle(0, 0, 2, 2), rectangle(2.5, 0, 2, 2)], 0.6)).toBe(false);
    expect(ringsAreApart([ring(0, 0, 4, 4, 4, 0, 0, 4)], 0)).toBe(false);
  });

  it('knows inside from outside', () => {
    const square = rectangle(0, 0, 2, 2);
    expect(pointInRing(1, 1, square)).toBe(true);
    expect(pointInRing(3, 1, square)).toBe(false);
    expect(isNested([rectangle(0, 0, 9, 9), rectangle(1, 1, 1, 1), rectangle(3, 3, 1, 1)])).toBe(true);
    expect(isNested([rectangle(0, 0, 9, 9), rectangle(1, 1, 5, 5), rectangle(3, 3, 1, 1)])).toBe(false);
    expect(isNested([rectangle(0, 0, 9, 9), rectangle(20, 1, 5, 5)])).toBe(false);
  });
});

describe('the segment grid', () => {
  const distance = (x: number, y: number, s: Float64Array, i: number) => {
    const [ax, ay, bx, by] = [s[4 * i]!, s[4 * i + 1]!, s[4 * i + 2]!, s[4 * i + 3]!];
    const [dx, dy] = [bx - ax, by - ay];
    const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
    return Math.hypot(x - ax - t * dx, y - ay - t * dy);
  };
  const places = fc.tuple(fc.double({ min: -2, max: 14, noNaN: true }), fc.double({ min: -2, max: 14, noNaN: true }));

  it('reports every segment within the radius, once', () => {
    fc.assert(
      fc.property(gridRings, places, fc.double({ min: 0.01, max: 5, noNaN: true }), (rings, [x, y], radius) => {
        const segments = segmentsOf(rings);
        const found: number[] = [];
        new SegmentGrid(segments).near(x, y, radius, (id) => found.push(id));
        expect(new Set(found).size).toBe(found.length);
        for (let i = 0; i < segments.length / 4; i++) {
          if (distance(x, y, segments, i) < radius) expect(found).toContain(i);
        }
      }),
    );
  });

  it('finds the nearest by searching outward', () => {
    fc.assert(
      fc.property(gridRings, places, (rings, [x, y]) => {
        const segments = segmentsOf(rings);
        let best = Infinity;
        new SegmentGrid(segments).outward(
          x,
          y,
          () => best,
          (id) => {
            best = Math.min(best, distance(x, y, segments, id));
          },
        );
        const nearest = Math.min(...Array.from({ length: segments.length / 4 }, (_, i) => distance(x, y, segments, i)));
        expect(best).toBeCloseTo(nearest, 9);
      }),
    );
  });
});

describe('negligible points', () => {
  it('of a corner made of several do not all go, wherever the ring begins', () => {
    const corner = [
      { x: 6976631, y: 20597752 },
      { x: 6976539, y: 20597869 },
      { x: 6976538, y: 20597873 },
      { x: 6976538, y: 20597874 },
    ];
    const ring = [...corner, { x: 8932038, y: 22016529 }, { x: 11742286, y: 18247583 }, { x: 10633110, y: 15877991 }];
    for (let start = 0; start < ring.length; start++) {
      const kept = dropNegligible([...ring.slice(start), ...ring.slice(0, start)]);
      expect(kept).toHaveLength(4);
    }
  });
});

/** Whether rings that do not meet lie as those of one region do: every hole in the outer ring and in no other hole. */
function isNested([outer, ...holes]: readonly Ring[]): boolean {
  const boxes = holes.map((hole) => boundsOf([hole])!);
  return holes.every((hole, h) => {
    const [x, y] = [hole[0]!, hole[1]!];
    const within = (other: Ring, o: number) => {
      const { minX, minY, maxX, maxY } = boxes[o]!;
      return o !== h && x >= minX && x <= maxX && y >= minY && y <= maxY && pointInRing(x, y, other);
    };
    return pointInRing(x, y, outer!) && !holes.some(within);
  });
}

describe('paths that keep clear of each other', () => {
  /** Squares in and beside each other, each wound either way. */
  const nested = fc.array(
    fc.record({
      column: fc.integer({ min: 0, max: 3 }),
      level: fc.integer({ min: 0, max: 5 }),
      isTurned: fc.boolean(),
    }),
    { minLength: 1, maxLength: 14 },
  );
  const grid = { step: 2 ** -10 };

  it('fill what the arrangement of their edges says', () => {
    fc.assert(
      fc.property(nested, fc.constantFrom('nonzero', 'evenodd', 'positive', 'twice'), (squares, fill) => {
        const places = new Map(squares.map((square) => [`${square.column} ${square.level}`, square]));
        const paths = [...places.values()].map(({ column, level, isTurned }) => {
          const side = 12 - 2 * level;
          const square = rectangle(20 * column + level, level, side, side);
          return toGrid(isTurned ? reversed(square) : square, grid);
        });
        const simple = simpleRegions(paths, fill);
        const shape = (regions: readonly GridRegion[]) =>
          regions
            .map(({ outer, holes }) =>
              [outer, ...holes].map((ring) =>
                ring
                  .map(({ x, y }) => `${x} ${y}`)
                  .sort()
                  .join(),
              ),
            )
            .map(([outer, ...holes]) => [outer, ...holes.sort()].join(' | '))
            .sort();
        expect(shape(simple!)).toEqual(shape(fillRegions(paths, fill)));
      }),
      { numRuns: 400 },
    );
  });

  it('are told from those that touch, cross, or come back to themselves', () => {
    const far = toGrid(rectangle(0, 0, 10, 10), grid);
    const at = (x: number, y: number) => toGrid(rectangle(x, y, 10, 10), grid);
    expect(simpleRegions([far, at(11, 0)], 'nonzero')).toHaveLength(2);
    for (const other of [at(10, 0), at(10.01, 10), at(5, 5), at(0, 0), at(-10, -10)]) {
      expect(simpleRegions([far, other], 'nonzero')).toBeNull();
    }
    expect(simpleRegions([toGrid(ring(0, 0, 10, 0, 10, 10, 5, 0.02), grid)], 'nonzero')).toBeNull();
    expect(simpleRegions([toGrid(ring(0, 0, 10, 0, 0, 0.01), grid)], 'nonzero')).toBeNull();
  });
});

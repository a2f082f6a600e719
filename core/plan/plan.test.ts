// Walls: what they cover in plan, against closed forms; and found again in plans that were drawn from them, as filled
// shapes, as line work, as single lines and as a traced picture.
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundStroke } from '../drawing.ts';
import { readVector } from '../formats/vector.ts';
import { combine, type Filled } from '../outline/combine.ts';
import { regionsArea } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { strokePaths } from '../outline/stroke.ts';
import { contoursOf } from '../path/cubic.ts';
import { flatten, polylines } from '../path/flatten.ts';
import { transformPath } from '../path/matrix.ts';
import { parsePath } from '../path/parse.ts';
import type { Path } from '../path/types.ts';
import { renderCoverage } from '../picture/coverage.ts';
import { strokedShape } from '../testing/drawings.ts';
import { numbersFrom, openingLines, randomPlan } from '../testing/plans.ts';
import { traceInk } from '../trace/ink.ts';
import { wallOutline } from './bands.ts';
import { moveNode, nearestOnWalls, wallsAlong } from './edit.ts';
import { findWalls, type WallLimits } from './find.ts';
import type { Wall } from './schema.ts';
import { planOf } from './shapes.ts';
import { doorLines } from './swing.ts';

const areaOf = (path: Path) => regionsArea(regionsOf(flatten(path, 1e-4), 'nonzero'));
const filled = (path: Path): Filled => ({ path, fillRule: 'nonzero' });

describe('walls', () => {
  const wall = (points: [number, number][], thickness: number, extra: Partial<Wall> = {}): Wall => ({
    id: 'w',
    points,
    isClosed: false,
    thickness,
    openings: [],
    ...extra,
  });
  const planArea = (...walls: Wall[]) => areaOf(wallOutline(walls));

  it('round a room cover its outside less its inside', () => {
    const room = wall(
      [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      0.4,
      { isClosed: true },
    );
    expect(planArea(room)).toBeCloseTo(6.4 * 4.4 - 5.6 * 3.6, 5);
  });

  it('that end on each other fill corners and T-junctions once', () => {
    // Four walls drawn one by one, and one that ends on the middle line of another.
    const sides: [number, number][][] = [
      [
        [0, 0],
        [6, 0],
      ],
      [
        [6, 0],
        [6, 4],
      ],
      [
        [6, 4],
        [0, 4],
      ],
      [
        [0, 4],
        [0, 0],
      ],
      [
        [3, 0],
        [3, 4],
      ],
    ];
    const inner = 0.4 * 3.6;
    expect(planArea(...sides.map((points) => wall(points, 0.4)))).toBeCloseTo(6.4 * 4.4 - 5.6 * 3.6 + inner, 5);
  });

  it('of any thickness, at any angle, meet in one sharp corner', () => {
    // The outer faces meet at the corner of the larger rectangle, the inner ones at that of the smaller.
    const thick = wall(
      [
        [0, 0],
        [6, 0],
      ],
      0.6,
    );
    const thin = wall(
      [
        [6, 0],
        [6, 4],
      ],
      0.2,
    );
    expect(planArea(thick, thin)).toBeCloseTo(6.1 * 0.6 + 0.2 * (4 - 0.3), 5);
    // Two arms of length l and thickness t at an angle a: 2lt, and the wedge less the overlap, which are alike.
    const a = (70 * Math.PI) / 180;
    const arm = wall(
      [
        [0, 0],
        [5, 0],
      ],
      0.3,
    );
    const other = wall(
      [
        [5 * Math.cos(a), 5 * Math.sin(a)],
        [0, 0],
      ],
      0.3,
    );
    expect(planArea(arm, other)).toBeCloseTo(2 * 5 * 0.3, 5);
  });

  it('end square where they are free', () => {
    const free: [number, number][] = [
      [0, 0],
      [6, 0],
    ];
    expect(planArea(wall(free, 0.3))).toBeCloseTo(6 * 0.3, 5);
  });

  it('are cut where an opening is', () => {
    const door = { id: 'd', kind: 'door' as const, piece: 0, at: 0.5, width: 0.9, sill: 0, head: 2.1 };
    const whole = wall(
      [
        [0, 0],
        [6, 0],
      ],
      0.3,
    );
    expect(planArea(whole) - planArea({ ...whole, openings: [door] })).toBeCloseTo(0.9 * 0.3, 5);
    // An opening on a piece that is not there any more cuts nothing.
    expect(planArea({ ...whole, openings: [{ ...door, piece: 4 }] })).toBeCloseTo(planArea(whole), 9);
  });
});

/** Metres, as in a plan of a small house. */
const PLAN = { width: 12, height: 9, outer: 0.36, inner: 0.12, least: 2.4, opening: 0.9 } as const;
const LIMITS: WallLimits = {
  thinnest: 0.1,
  thickest: 0.45,
  widest: 2.5,
  door: { sill: 0, head: 2.1 },
  window: { sill: 0.9, head: 2.1 },
};
const placed = (path: Path, degrees: number): Path => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return transformPath(path, [c, s, -s, c, 3, -5]);
};
/** Share of the plan's area that only one of two covers. */
const difference = (a: Path, b: Path) => areaOf(combine([filled(a), filled(b)], 'exclude')) / areaOf(a);
const openingsOf = (walls: readonly Wall[]) => walls.flatMap(({ openings }) => openings.map(({ kind }) => kind)).sort();
/** Jamb and end of the leaf of each door. */
const leavesOf = (walls: readonly Wall[]) =>
  walls.flatMap((wall) =>
    wall.openings.flatMap((opening) => (opening.kind === 'door' ? [doorLines(wall, opening).slice(0, 2)] : [])),
  );
/** Doors whose leaf is not found where it was drawn. */
const swungOtherwise = (drawn: readonly Path[], found: readonly Wall[]) => {
  const leaves = leavesOf(found);
  const isNear = (a: Path, b: Path) =>
    a.every((segment, i) => {
      const other = b[i]!;
      return segment[0] !== 'Z' && other[0] !== 'Z' && Math.hypot(segment[1] - other[1], segment[2] - other[2]) <= 0.1;
    });
  return drawn.filter((leaf) => !leaves.some((other) => isNear(leaf, other)));
};
const plans = fc.integer({ min: 1, max: 1e9 }).map((seed) => randomPlan(numbersFrom(seed), PLAN));
/** Two walls that miss each other's line by less than a tenth of their thickness are taken as one: of 4,000, 0.94 %. */
const STRAIGHTENED = 0.015;

describe('walls are found again', () => {
  it('in filled plans turned by any angle, doors told from windows by the lines in them', () => {
    fc.assert(
      fc.property(plans, fc.integer({ min: 0, max: 359 }), (walls, degrees) => {
        const plan = placed(wallOutline(walls), degrees);
        const others = [placed(openingLines(walls), degrees)];
        const found = findWalls({ filled: [filled(plan)], lines: [], others }, LIMITS);
        expect(openingsOf(found)).toEqual(openingsOf(walls));
        expect(difference(plan, wallOutline(found))).toBeLessThan(STRAIGHTENED);
        const leaves = leavesOf(walls).map((leaf) => placed(leaf, degrees));
        expect(swungOtherwise(leaves, found)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('in line work, where nothing is filled', () => {
    fc.assert(
      fc.property(plans, (walls) => {
        const plan = wallOutline(walls);
        const found = findWalls({ filled: [], lines: [plan, openingLines(walls)] }, LIMITS);
        expect(openingsOf(found)).toEqual(openingsOf(walls));
        expect(difference(plan, wallOutline(found))).toBeLessThan(STRAIGHTENED);
        expect(swungOtherwise(leavesOf(walls), found)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('where walls, swings and glass are one filled shape, as a pen draws them', () => {
    fc.assert(
      fc.property(plans, (walls) => {
        const pen = strokePaths(openingLines(walls), { ...roundStroke(0.025), cap: 'butt' }, 1e-3);
        const plan = wallOutline(walls);
        const found = findWalls({ filled: [plan, ...pen].map(filled), lines: [] }, LIMITS);
        expect(openingsOf(found)).toEqual(openingsOf(walls));
        expect(difference(plan, wallOutline(found))).toBeLessThan(0.02);
        expect(swungOtherwise(leavesOf(walls), found)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('in a noisy grey picture at 80 px to the metre: nine of ten whole, all within 4 %', () => {
    const scale = 80;
    let whole = 0;
    for (let seed = 1; seed <= 10; seed++) {
      const walls = randomPlan(numbersFrom(7919 * seed), PLAN);
      const inPixels = (path: Path) => transformPath(path, [scale, 0, 0, scale, scale / 2, scale / 2]);
      const pen = strokePaths(inPixels(openingLines(walls)), { ...roundStroke(2), cap: 'butt' }, 0.01);
      const ink = combine([inPixels(wallOutline(walls)), ...pen].map(filled), 'union');
      const { width, height, values } = renderCoverage(flatten(ink, 0.01), 13 * scale, 10 * scale);
      const noise = numbersFrom(seed);
      const dirty = values.map((v) => Math.min(1, Math.max(0, v + 0.3 * (noise() - 0.5))));
      const { path } = traceInk({ width, height, values: dirty });
      const { thinnest, thickest, widest, ...heights } = LIMITS;
      const limits = { thinnest: thinnest * scale, thickest: thickest * scale, widest: widest * scale, ...heights };
      const found = findWalls({ filled: [{ path, fillRule: 'evenodd' }], lines: [] }, limits);
      expect(difference(inPixels(wallOutline(walls)), wallOutline(found))).toBeLessThan(0.04);
      if (openingsOf(found).join() === openingsOf(walls).join()) whole++;
    }
    expect(whole).toBeGreaterThanOrEqual(9);
  });

  it('not in what is too thin or too thick, nor in a drawing without walls', () => {
    const table = parsePath('M0 0L1.6 0L1.6 0.8L0 0.8Z').path;
    expect(findWalls({ filled: [], lines: [table] }, LIMITS)).toEqual([]);
    expect(findWalls({ filled: [filled(table)], lines: [] }, LIMITS)).toEqual([]);
    expect(findWalls({ filled: [], lines: [] }, LIMITS)).toEqual([]);
    const swing = strokePaths(parsePath('M0 0L0 0.9').path, roundStroke(0.02), 1e-3).map(filled);
    expect(findWalls({ filled: swing, lines: [] }, LIMITS)).toEqual([]);
  });
});

describe('the plan of a drawing', () => {
  const MM: WallLimits = {
    thinnest: 80,
    thickest: 500,
    widest: 2500,
    door: { sill: 0, head: 2100 },
    window: { sill: 900, head: 2100 },
  };
  const { shapes } = readVector(readFileSync('demo/hall.dxf', 'utf8'));
  const groupsOf = (ids: readonly string[]) =>
    [...new Set(shapes.filter(({ id }) => ids.includes(id)).map(({ group }) => group))].sort();

  it('takes walls and glass into the walls, and leaves furniture and swings', () => {
    const { walls, replaced } = planOf(shapes, [], MM);
    expect(walls.map(({ thickness }) => Math.round(thickness)).sort()).toEqual([
      120, 120, 120, 240, 360, 360, 360, 360,
    ]);
    expect(openingsOf(walls)).toEqual([...Array(4).fill('door'), ...Array(6).fill('window')]);
    expect(
      walls.flatMap(({ openings }) => openings.map(({ width }) => Math.round(width))).sort((a, b) => a - b),
    ).toEqual([900, 900, 1000, 1200, 1200, 1500, 1500, 1500, 1800, 2400]);
    expect(groupsOf(replaced)).toEqual(['WALLS', 'WINDOWS']);
    // Its doors hang and open as their arcs go, the widest with two leaves.
    const drawn = shapes.filter(({ group }) => group === 'DOORS');
    const leaves = walls.flatMap((wall) =>
      wall.openings.flatMap((opening) => (opening.kind === 'door' ? [doorLines(wall, opening)] : [])),
    );
    expect(leaves.map((path) => path.filter(([command]) => command === 'M').length).sort()).toEqual([1, 1, 1, 2]);
    const middles = drawn
      .flatMap(({ path }) => contoursOf(path).flatMap(({ pieces }) => pieces))
      .map(({ cubic: c }) => c);
    const ends = leaves.flatMap((path) => contoursOf(path).flatMap(({ pieces }) => pieces)).map(({ cubic: c }) => c);
    for (const c of middles) {
      const near = ends.some(
        (e) => Math.hypot(e[6] - c[6], e[7] - c[7]) < 200 || Math.hypot(e[6] - c[0], e[7] - c[1]) < 200,
      );
      expect(near).toBe(true);
    }
    const kept = shapes.filter(({ id }) => !replaced.includes(id)).map(({ id }) => id);
    expect(groupsOf(kept)).toEqual(['DOORS', 'FURNITURE']);
  });

  it('sees walls that are drawn as strokes as thick as they are, and tells their windows by lines that were not chosen', () => {
    const thick = [strokedShape('a', 'M0 0L2000 0', 300), strokedShape('b', 'M3200 0L6000 0', 300)].map((shape) => ({
      ...shape,
      stroke: { ...shape.stroke!, cap: 'butt' as const },
    }));
    const glass = [strokedShape('g', 'M2000 0L3200 0', 5)];
    const { walls, replaced } = planOf(thick, glass, MM);
    expect(walls).toHaveLength(1);
    expect(openingsOf(walls)).toEqual(['window']);
    expect(walls[0]!.openings[0]!.width).toBeCloseTo(1200, 3);
    expect(replaced).toEqual(['a', 'b']);
    expect(openingsOf(planOf(thick, [], MM).walls)).toEqual(['door']);
    expect(planOf(glass, [], MM)).toEqual({ walls: [], replaced: [] });
  });
});

describe('a door', () => {
  const wall = (hinge: 'start' | 'end', side: 'left' | 'right'): Wall => ({
    id: 'w',
    points: [
      [0, 0],
      [4, 0],
    ],
    isClosed: false,
    thickness: 0.2,
    openings: [{ id: 'd', kind: 'door', piece: 0, at: 0.5, width: 1, sill: 0, head: 2, swing: { hinge, side } }],
  });

  // With y down, the right of one who goes along x is below.
  it.each([
    ['start', 'right', [1.5, 0.1], [1.5, 1.1], [2.5, 0.1]],
    ['end', 'right', [2.5, 0.1], [2.5, 1.1], [1.5, 0.1]],
    ['start', 'left', [1.5, -0.1], [1.5, -1.1], [2.5, -0.1]],
    ['end', 'left', [2.5, -0.1], [2.5, -1.1], [1.5, -0.1]],
  ] as const)('hung at the %s, opening to the %s, swings round its hinge', (hinge, side, at, open, shut) => {
    const lines = doorLines(wall(hinge, side), wall(hinge, side).openings[0]!);
    expect(lines.slice(0, 2)).toEqual([
      ['M', ...at.map((v) => expect.closeTo(v, 9))],
      ['L', ...open.map((v) => expect.closeTo(v, 9))],
    ]);
    const arc = [...polylines(lines, 1e-4)[0]!.points.slice(2)];
    for (let i = 0; i < arc.length; i += 2) {
      expect(Math.hypot(arc[i]! - at[0], arc[i + 1]! - at[1])).toBeCloseTo(1, 3);
      expect(arc[i]!).toBeGreaterThan(1.49);
      expect(arc[i]!).toBeLessThan(2.51);
    }
    expect(arc.slice(-2)).toEqual(shut.map((v) => expect.closeTo(v, 9)));
  });
});

describe('walls by hand', () => {
  it('run along single lines as thick as they are said to be', () => {
    const lines = [parsePath('M0 0L6 0L6 4L0 4Z').path, parsePath('M3 0L3 4').path];
    const walls = wallsAlong(lines, 0.4, 3);
    expect(walls.map(({ id, isClosed, points }) => [id, isClosed, points.length])).toEqual([
      ['wall-3', true, 4],
      ['wall-4', false, 2],
    ]);
    expect(areaOf(wallOutline(walls))).toBeCloseTo(6.4 * 4.4 - 5.6 * 3.6 + 0.4 * 3.6, 5);
    // A quarter circle in chords that stray by a twentieth of the thickness at most.
    const [bent] = wallsAlong([parsePath('M10 0C10 5.523 5.523 10 0 10').path], 0.4);
    expect(areaOf(wallOutline([bent!]))).toBeCloseTo((Math.PI / 2) * 10 * 0.4, 1);
  });

  it('keep openings where they are when a corner that they share is moved', () => {
    const door = { id: 'd', kind: 'door', piece: 0, at: 0.25, width: 0.9, sill: 0, head: 2.1 } as const;
    const walls = wallsAlong([parsePath('M0 0L4 0').path, parsePath('M4 0L4 3').path], 0.3);
    const both = [{ ...walls[0]!, openings: [door] }, walls[1]!];
    const [a, b] = moveNode(both, [4, 0], [8, 0], 1e-6);
    expect([a!.points[1], b!.points[0]]).toEqual([
      [8, 0],
      [8, 0],
    ]);
    expect(a!.openings[0]!.at * 8).toBeCloseTo(1, 9);
    const [c] = moveNode(both, [0, 0], [-4, 0], 1e-6);
    expect(c!.openings[0]!.at * 8 - 4).toBeCloseTo(1, 9);
    // An end that stands on a wall stays on it when that is turned, in the direction it has.
    const tee = wallsAlong(
      ['M0 0L10 0', 'M5 0L5 4'].map((d) => parsePath(d).path),
      0.3,
    );
    const [base, stem] = moveNode(tee, [10, 0], [10, -2], 1e-6);
    expect(base!.points[1]).toEqual([10, -2]);
    expect(stem!.points[0]![0]).toBeCloseTo(5, 9);
    expect(stem!.points[0]![1]).toBeCloseTo(-1, 9);
    expect(stem!.points[1]).toEqual([5, 4]);
    expect(nearestOnWalls(both, [1, 0.2])).toEqual({ wall: 'wall-1', piece: 0, at: 0.25, distance: 0.2 });
    expect(nearestOnWalls([], [0, 0])).toBeNull();
  });
});

// Middles by handbook formulas, and placement: no triangle and no volume changes by it, and files have everything where it stands.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Edge } from '../builds/slab/schema.ts';
import { applyCommand, type Command } from '../document/commands/index.ts';
import { type Placement, UNPLACED } from '../document/placement.ts';
import type { Project } from '../document/schema.ts';
import { readGlb } from '../formats/glb/glb.ts';
import { writeGlb } from '../formats/glb/write.ts';
import { readObj, writeObj } from '../formats/obj/obj.ts';
import { settledParts } from '../formats/part.ts';
import { readSvg } from '../formats/svg/read.ts';
import { moved, type Point } from '../geometry/rigid.ts';
import { enclosedBy } from '../mesh/centroid.ts';
import { boxOfPoints, placedAt } from '../mesh/place.ts';
import { proofOf } from '../mesh/proof.ts';
import { projectOf } from '../testing/projects.ts';

const PLAIN_EDGE: Edge = {
  profile: 'chamfer',
  way: 'in',
  reach: 0,
  rise: null,
  steps: 1,
  beyond: 'ridge',
  corners: 'mitred',
  mitreLimit: 5,
  on: 'none',
};
const solid = (path: string, more = '') =>
  projectOf(
    readSvg(`<svg viewBox="0 0 100 100" width="100mm" height="100mm"><path fill="#204060" d="${path}"/>${more}</svg>`),
    { depth: 4, build: { edge: PLAIN_EDGE } },
  );
/** Two parts of different kinds: something lopsided, and something beside it. */
const L_SHAPE = 'M0 0H20V70H60V90H0Z';
const made = solid(L_SHAPE, '<rect x="70" y="10" width="20" height="30" fill="#c04020"/>');
const [ell, block] = made.project.layers as [Project['layers'][0], Project['layers'][0]];
const done = (...commands: Command[]) => commands.reduce(applyCommand, made.project);
const near = (a: readonly number[], b: readonly number[], within = 1e-9) => {
  for (const [k, v] of a.entries())
    expect(Math.abs(v - b[k]!), `${a.join()} and ${b.join()}`).toBeLessThanOrEqual(within);
};

describe('middles', () => {
  const { evaluator, project } = made;
  const { box, area, volume, bottom } = evaluator.places(project).middles(ell);
  // The drawing is 90 by 90 and lies with its middle on the sheet's.
  const onSheet = (x: number, y: number, z: number): Point => [x - 45, 45 - y, z];

  it('of an L: two rectangles weighed (handbook)', () => {
    const [upright, foot] = [20 * 90, 40 * 20];
    const x = (upright * 10 + foot * 40) / (upright + foot);
    const y = (upright * 45 + foot * 80) / (upright + foot);
    near(area, onSheet(x, y, 2));
    near(volume, onSheet(x, y, 2));
    near(box, onSheet(30, 45, 2));
    near(bottom, onSheet(30, 90, 2));
  });

  it('of a half disc: 4r ⁄ 3π from its straight side (handbook)', () => {
    const r = 40;
    const half = projectOf(readSvg(`<svg viewBox="0 0 100 100"><path d="M10 50A${r} ${r} 0 0 1 90 50Z"/></svg>`), {
      tolerance: 1e-4,
    });
    const found = half.evaluator.places(half.project).middles(half.project.layers[0]!).area;
    // Its box lies with its middle on the sheet's: the straight side is r ⁄ 2 below.
    near(found.slice(0, 2), [0, (4 * r) / (3 * Math.PI) - r / 2], 1e-3);
  });

  it('of a group: its parts by their areas, where they stand', () => {
    const grouped = done(
      { do: 'group', id: 'g', name: 'All', layers: [ell.id, block.id], groups: [] },
      {
        do: 'place',
        places: [{ id: block.id, placement: { ...UNPLACED, move: [10, 0, 0] } }],
      },
    );
    const middles = evaluator.places(grouped).middles(grouped.groups![0]!);
    const [own, other] = [2600, 600];
    const centre = evaluator.places(project).middles(block).box;
    near(
      middles.area,
      [0, 1, 2].map((k) => (own * area[k]! + other * (centre[k]! + (k === 0 ? 10 : 0))) / (own + other)),
    );
    near(middles.box, onSheet(50, 45, 2 + 0));
  });
});

const degrees = fc.double({ min: -360, max: 360, noNaN: true });
const offset = fc.double({ min: -100, max: 100, noNaN: true });
const placements: fc.Arbitrary<Placement> = fc.record({
  move: fc.tuple(offset, offset, offset),
  turn: fc.tuple(degrees, degrees, degrees),
  isMirrored: fc.boolean(),
  middle: fc.constantFrom('box', 'area', 'volume', 'bottom'),
});

describe('placement', () => {
  const { evaluator } = made;
  const volumeOf = (mesh: Parameters<typeof enclosedBy>[0]) => enclosedBy(mesh)!.volume;

  it('keeps every volume to 1e-9, faces outward, and every mesh the very same object', () => {
    fc.assert(
      fc.property(placements, placements, (own, outer) => {
        const placed = done(
          { do: 'group', id: 'g', name: 'All', layers: [ell.id, block.id], groups: [] },
          {
            do: 'place',
            places: [
              { id: ell.id, placement: own },
              { id: 'g', placement: outer },
            ],
          },
        );
        const parts = settledParts(evaluator.parts(placed));
        for (const [i, layer] of placed.layers.entries()) {
          expect(evaluator.mesh(placed, layer).mesh).toBe(
            evaluator.mesh(made.project, made.project.layers.find(({ id }) => id === layer.id)!).mesh,
          );
          const before = volumeOf(evaluator.mesh(placed, layer).mesh);
          expect(Math.abs(volumeOf(parts[i]!.mesh) / before - 1)).toBeLessThan(1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('leaves the point that a thing is turned about where it was moved to', () => {
    fc.assert(
      fc.property(placements, (own) => {
        const placed = done({ do: 'place', places: [{ id: ell.id, placement: own }] });
        const places = evaluator.places(placed);
        const layer = placed.layers.find(({ id }) => id === ell.id)!;
        const middle = places.middle(layer, own.middle);
        near(
          moved(places.of(layer)[0]!, middle),
          middle.map((v, k) => v + own.move[k]!),
          1e-9,
        );
      }),
    );
  });

  it('is read back from files where it was put, by nodes or by points', async () => {
    const rings = fc.sample(fc.tuple(placements, placements), { numRuns: 12, seed: 4 });
    for (const [own, outer] of rings) {
      const placed = done(
        { do: 'group', id: 'in', name: 'Inner', layers: [ell.id], groups: [] },
        { do: 'group', id: 'out', name: 'Outer', layers: [block.id], groups: ['in'] },
        {
          do: 'place',
          places: [
            { id: ell.id, placement: own },
            { id: 'out', placement: { ...outer, copies: { along: 'line', count: 3, step: [5, 0, 2] } } },
            { id: 'in', placement: outer },
          ],
        },
      );
      const parts = evaluator.parts(placed);
      const expected = settledParts(parts);
      expect(parts).toHaveLength(6);
      const read = await readGlb(writeGlb(parts, { name: 'x', metresPerUnit: 1 }));
      for (const part of expected) {
        const found = read.find(({ name }) => name === part.name)!.mesh;
        const [was, is] = [boxOfPoints([part.mesh.positions]), boxOfPoints([found.positions])];
        near([...is.min, ...is.max], [...was.min, ...was.max], 1e-3);
        expect(volumeOf(found) / volumeOf(part.mesh)).toBeCloseTo(1, 4);
      }
      const written = readObj(writeObj(parts, 'x.mtl'));
      for (const [i, { mesh }] of written.entries()) {
        expect(volumeOf(mesh) / volumeOf(expected[i]!.mesh)).toBeCloseTo(1, 4);
        expect(proofOf(mesh).findings).toEqual([]);
      }
    }
  });

  it('of copies on a ring: n equal angles, all as far from the axis as the first', () => {
    for (const count of [3, 12, 40]) {
      const copies = {
        along: 'ring' as const,
        count,
        axis: 'z' as const,
        centre: [0, 0, 0] as [number, number, number],
        span: 360,
        isTurned: true,
      };
      const placed = done({ do: 'place', places: [{ id: block.id, placement: { ...UNPLACED, copies } }] });
      const layer = placed.layers.find(({ id }) => id === block.id)!;
      const middle = evaluator.places(placed).middles(layer).box;
      const spots = evaluator
        .places(placed)
        .of(layer)
        .map((place) => moved(place, middle));
      expect(spots).toHaveLength(count);
      const angles = spots.map(([x, y]) => Math.atan2(y, x));
      for (const [i, [x, y]] of spots.entries()) {
        expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(middle[0], middle[1]), 9);
        const step = angles[(i + 1) % count]! - angles[i]!;
        expect((step + 4 * Math.PI) % (2 * Math.PI)).toBeCloseTo((2 * Math.PI) / count, 9);
      }
      // Copies are one body in a file: one mesh, as many nodes.
      const glb = writeGlb(evaluator.parts(placed), { name: 'x', metresPerUnit: 1 });
      const json = JSON.parse(
        new TextDecoder().decode(glb.subarray(20, 20 + new DataView(glb.buffer).getUint32(12, true))),
      );
      expect(json.meshes).toHaveLength(2);
      expect(json.nodes).toHaveLength(2 + count);
    }
  });

  it('of copies along a path: equal ways apart, each as it lies to the path (common practice), one mesh', () => {
    // A circle of 20 as the path, whose first point the block is measured from.
    const round = solid(L_SHAPE, '<circle cx="70" cy="40" r="20" fill="none" stroke="#c04020" stroke-width="2"/>');
    const [thing, path] = round.project.layers as [Project['layers'][0], Project['layers'][0]];
    const copies = { along: 'path' as const, count: 5, layer: path.id, isTurned: true };
    const placed = applyCommand(round.project, {
      do: 'place',
      places: [{ id: thing.id, placement: { ...UNPLACED, copies } }],
    });
    const places = round.evaluator.places(placed);
    const layer = placed.layers.find(({ id }) => id === thing.id)!;
    const middle = places.middles(layer).box;
    const [x, y] = places.middles(placed.layers.find(({ id }) => id === path.id)!).box;
    const spots = places.of(layer).map((each) => moved(each, middle));
    const away = Math.hypot(middle[0] - x, middle[1] - y);
    for (const [i, spot] of spots.entries()) {
      expect(Math.hypot(spot[0] - x, spot[1] - y)).toBeCloseTo(away, 2);
      const next = spots[(i + 1) % 5]!;
      // Five chords of a fifth of a circle.
      expect(Math.hypot(next[0] - spot[0], next[1] - spot[1])).toBeCloseTo(2 * away * Math.sin(Math.PI / 5), 2);
    }
    expect(new Set(round.evaluator.parts(placed).map(({ mesh }) => mesh)).size).toBe(2);
    const straight = places.of({
      ...layer,
      id: 'other',
      placement: { ...UNPLACED, copies: { ...copies, isTurned: false } },
    });
    for (const each of straight) expect([each[0], each[1], each[4], each[5]]).toEqual([1, 0, 0, 1]);
    const lone = places.of({ ...layer, id: 'lone', placement: { ...UNPLACED, copies: { ...copies, layer: 'gone' } } });
    expect(lone).toHaveLength(1);
  });

  it('that does not turn copies leaves each the way the first stands', () => {
    const copies = {
      along: 'ring' as const,
      count: 6,
      axis: 'y' as const,
      centre: [0, 0, -50] as [number, number, number],
      span: 180,
      isTurned: false,
    };
    const placed = done({
      do: 'place',
      places: [{ id: block.id, placement: { ...UNPLACED, turn: [0, 30, 0], copies } }],
    });
    const layer = placed.layers.find(({ id }) => id === block.id)!;
    const [first, ...others] = evaluator.places(placed).of(layer);
    for (const other of others) for (const k of [0, 1, 2, 4, 5, 6, 8, 9, 10] as const) expect(other[k]).toBe(first![k]);
  });

  it('turns what overlaps with it', () => {
    // Both lie in one plane side by side; turned a quarter about the sheet's middle, the block comes to lie on the L.
    expect(evaluator.overlaps(made.project)).toEqual([]);
    const about: Placement = { ...UNPLACED, turn: [0, 0, 180], middle: [0, 0, 0] };
    const turned = done({ do: 'place', places: [{ id: block.id, placement: about }] });
    const [overlap] = evaluator.overlaps(turned);
    // 20 × 30 at x −45 … −25: the L's upright is 20 wide there; of the height from −35 to −5, all lies on it.
    expect(overlap?.area).toBeCloseTo(600, 6);
    const over = done({ do: 'place', places: [{ id: block.id, placement: { ...about, turn: [0, 180, 0] } }] });
    expect(evaluator.overlaps(over)[0]).toMatchObject({ isTouching: true, from: 0, to: 0 });
  });

  it('of all alike leaves what overlaps as it was', () => {
    const both = done(
      { do: 'change-layers', layers: [block.id], change: { base: -2 } },
      { do: 'group', id: 'g', name: 'g', layers: [ell.id, block.id], groups: [] },
      { do: 'place', places: [{ id: block.id, placement: { ...UNPLACED, move: [-60, 0, 0] } }] },
    );
    const [before] = evaluator.overlaps(both);
    expect(before!.area).toBeGreaterThan(100);
    for (const turn of [
      [90, 0, 0],
      [25, 40, -70],
    ] as const) {
      const tilted = applyCommand(both, {
        do: 'place',
        places: [{ id: 'g', placement: { ...UNPLACED, turn: [...turn], move: [3, 4, 5] } }],
      });
      const [after] = evaluator.overlaps(tilted);
      expect(after!.area).toBeCloseTo(before!.area, 6);
      expect(after!.to - after!.from).toBeCloseTo(before!.to - before!.from, 6);
    }
  });
});

describe('made larger', () => {
  it('a group grows about its middle in all its parts, and its depths say what they are', () => {
    const { evaluator } = made;
    const grouped = done(
      { do: 'change-layers', layers: [block.id], change: { base: 4 } },
      { do: 'group', id: 'in', name: 'In', layers: [block.id], groups: [] },
      { do: 'group', id: 'out', name: 'Out', layers: [ell.id], groups: ['in'] },
      {
        do: 'place',
        places: [
          { id: 'in', placement: { ...UNPLACED, move: [3, -4, 2], turn: [10, 20, 30] } },
          { id: block.id, placement: { ...UNPLACED, move: [1, 2, 3], turn: [0, 0, 45] } },
          { id: 'out', placement: { ...UNPLACED, move: [7, 0, 0], turn: [0, 90, 0] } },
        ],
      },
    );
    const outer = grouped.groups!.find(({ id }) => id === 'out')!;
    const before = evaluator.places(grouped).box(outer)!;
    const about = evaluator
      .places(grouped)
      .middles(outer)
      .box.map((v, k) => v + outer.placement!.move[k]!);
    const grown = applyCommand(grouped, {
      do: 'resize',
      id: 'out',
      factor: 1.5,
      about: about as [number, number, number],
      lengths: true,
    });
    const after = evaluator.places(grown).box(grown.groups!.find(({ id }) => id === 'out')!)!;
    const grow = (v: number, k: number) => about[k]! + 1.5 * (v - about[k]!);
    near([...after.min, ...after.max], [...before.min.map(grow), ...before.max.map(grow)], 1e-6);
    expect(grown.layers.map(({ build }) => build.kind === 'slab' && build.depth)).toEqual([6, 6]);
    const flat = applyCommand(grouped, { do: 'resize', id: ell.id, factor: 2, about: [0, 0, 0], lengths: false });
    expect(flat.layers.map(({ build }) => build.kind === 'slab' && build.depth)).toEqual([4, 4]);
  });
});

describe('a larger layer', () => {
  it('has larger outlines and the same depth and edge', () => {
    const { evaluator } = made;
    const larger = done({ do: 'change-layers', layers: [ell.id], change: { scale: 2.5 } });
    const layer = larger.layers.find(({ id }) => id === ell.id)!;
    const [was, is] = [evaluator.mesh(made.project, ell).mesh, evaluator.mesh(larger, layer).mesh].map((mesh) =>
      proofOf(mesh),
    );
    near(
      is!.size.slice(0, 2),
      was!.size.slice(0, 2).map((v) => 2.5 * v),
      1e-6,
    );
    expect(is!.size[2]).toBe(was!.size[2]);
    expect(placedAt(evaluator.mesh(larger, layer).mesh, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0])).toBe(
      evaluator.mesh(larger, layer).mesh,
    );
  });
});

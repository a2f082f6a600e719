// What the recipe asks of meshes: drawn profiles, sides left open, tidying, parts that were brought in, and work shared out.
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { profileOf } from '../builds/slab/slab.ts';
import { Evaluator, makeLayer } from '../evaluate/evaluator.ts';
import type { Part } from '../formats/part.ts';
import { readSvg } from '../formats/svg/read.ts';
import { isSound, proofOf } from '../mesh/proof.ts';
import { topologyOf } from '../mesh/topology.ts';
import { faceCount, SIDES } from '../mesh/types.ts';
import { cube, joinedMeshes, meshFrom } from '../testing/meshes.ts';
import { NO_STAGES, projectOf, wishesOf } from '../testing/projects.ts';
import { arrive } from './arrive.ts';
import { closingOf, isLeftOpen } from './closing.ts';
import type { LayerChange } from './commands/change-layers.ts';
import { applyCommand, type Command } from './commands/index.ts';
import { emptyProject, type Layer } from './schema.ts';

const SIGN =
  '<svg viewBox="0 0 100 100"><circle cx="30" cy="50" r="25" fill="teal"/><path d="M60 20h30v60h-30zM70 30v40h10v-40z" fill="teal"/><circle cx="75" cy="10" r="6" fill="#c33"/></svg>';

const { project, evaluator } = projectOf(readSvg(SIGN), { tolerance: 0.05 });
const [layer] = project.layers as [Layer];
const slabOf = ({ build }: Layer) => {
  if (build.kind !== 'slab') throw new Error('It is no slab.');
  return build;
};
const changed = (change: LayerChange, from = project) =>
  applyCommand(from, { do: 'change-layers', layers: [layer.id], change });

describe('profiles drawn by hand', () => {
  const points: [number, number][] = [
    [0.2, 0.6],
    [0.7, 0.6],
  ];
  const save = (name: string, was?: string): Command => ({
    do: 'save-profile',
    profile: { name, points, isSmooth: false },
    ...(was === undefined ? {} : { was }),
  });
  const drawn = changed(
    { build: { edge: { profile: { drawn: 'Lip' }, on: 'both', reach: 2, rise: 1.5 }, backEdge: null } },
    applyCommand(project, save('Lip')),
  );

  it('shape edges, each point a row', () => {
    const mesh = evaluator.build(drawn, drawn.layers[0]!).mesh;
    const heights = new Set(
      [...mesh.positions].filter((_, i) => i % 3 === 2).map((z) => (heightOf(layer.build) - z).toFixed(6)),
    );
    for (const [, y] of points) expect(heights).toContain((1.5 * (1 - y)).toFixed(6));
    expect(isSound(proofOf(mesh))).toBe(true);
  });

  it('change everywhere at once, keep their edges under a new name, and leave a chamfer when they go', () => {
    const steeper = applyCommand(drawn, {
      do: 'save-profile',
      profile: { name: 'Lip', points: [[0, 0.9]], isSmooth: false },
    });
    expect(steeper.profiles).toHaveLength(1);
    expect(evaluator.build(steeper, steeper.layers[0]!).key).not.toBe(evaluator.build(drawn, drawn.layers[0]!).key);
    const renamed = applyCommand(drawn, save('Rim', 'Lip'));
    expect(slabOf(renamed.layers[0]!).edge.profile).toEqual({ drawn: 'Rim' });
    expect(evaluator.build(renamed, renamed.layers[0]!).mesh.positions).toEqual(
      evaluator.build(drawn, drawn.layers[0]!).mesh.positions,
    );
    expect(() => applyCommand(applyCommand(drawn, save('Rim')), save('Rim', 'Lip'))).toThrow(/already/);
    const gone = applyCommand(drawn, { do: 'remove-profile', name: 'Lip' });
    expect([gone.profiles, slabOf(gone.layers[0]!).edge.profile]).toEqual([[], 'chamfer']);
    expect(profileOf({ drawn: 'nobody' }, [])).toBe('chamfer');
  });

  it('must not run back', () => {
    const back = {
      name: 'Back',
      points: [
        [0.5, 0.2],
        [0.4, 0.8],
      ] as [number, number][],
      isSmooth: true,
    };
    expect(() => applyCommand(project, { do: 'save-profile', profile: back })).toThrow(/run back/);
  });
});

describe('sides left open', () => {
  it('have no faces, and the mesh is proven open, without a volume, until they are closed again', () => {
    for (const [caps, open] of [
      ['front', 'back'],
      ['back', 'front'],
      ['none', null],
    ] as const) {
      const next = changed({ build: { caps } });
      const { mesh } = evaluator.mesh(next, next.layers[0]!);
      const sides = new Set(Array.from(mesh.sides, (side) => SIDES[side]));
      expect(sides.has('back')).toBe(caps === 'back');
      expect(sides.has('front')).toBe(caps === 'front');
      expect(topologyOf(mesh)).toMatchObject({ closed: false, crowded: 0, flipped: 0 });
      if (open) expect(sides.has(open)).toBe(false);
      expect(evaluator.proof(next, next.layers[0]!)).toMatchObject({ closed: false, volume: 0 });
      expect(isLeftOpen(next.layers[0]!)).toBe(true);
      const again = changed(closingOf(next.layers[0]!), next);
      expect(evaluator.proof(again, again.layers[0]!)).toEqual(evaluator.proof(project, project.layers[0]!));
    }
  });
});

describe('tidying', () => {
  it('says what it changed, and keeps the mesh closed and as large', () => {
    const even = changed({ build: { faces: 'even', cell: 4, wallRows: 4 } });
    const tidied = changed({ tidy: { weld: 0, straight: 1e-6, flat: 0.2, close: false } }, even);
    const before = evaluator.mesh(even, even.layers[0]!);
    const after = evaluator.mesh(tidied, tidied.layers[0]!);
    expect(before.tidied).toBeNull();
    expect(after.tidied!.merged.count).toBeGreaterThan(100);
    expect(after.tidied!.dropped.count).toBeGreaterThan(0);
    expect(faceCount(after.mesh)).toBeLessThan(faceCount(before.mesh) / 2);
    const [a, b] = [proofOf(before.mesh), proofOf(after.mesh)];
    expect(isSound(b)).toBe(true);
    expect(b.volume).toBeCloseTo(a.volume, 6);
    // Its flow is still known, so light and pictures are too.
    expect(after.mesh.flow!.edges).toHaveLength(faceCount(after.mesh));
  });
});

const ORIGIN = { id: 'm', name: 'box.obj', asset: 'b'.repeat(64) };

describe('parts that are brought in', () => {
  const material = { colour: '#336699', opacity: 1, roughness: 0.4, metalness: 0.1 };
  // A box, and above it a lid of which nobody knows where it is turned to.
  const lid = cube(10, 0, 0, 20);
  const parts: Part[] = [
    { name: 'box', mesh: joinedMeshes(cube(10, 0, 0, 5)), material },
    { name: 'lid', mesh: { ...lid, corners: lid.corners.slice().reverse() }, material },
  ];
  const options = wishesOf({ takenNames: ['Lid'], fallbackSize: 100 });
  const bringIn = (content: readonly Part[], format: 'obj' | 'glb' | 'stl', wishes = options) =>
    arrive('mesh', { ...ORIGIN, format }, content, NO_STAGES, wishes);
  const { source, layers, size, warnings } = bringIn(parts, 'obj');
  const both = applyCommand(emptyProject('Box'), { do: 'add-source', source, layers: [...layers] });
  const own = new Evaluator({ content: () => parts });

  it('become layers at their own size, in the middle, one on the other', () => {
    expect([size, warnings]).toEqual([25, []]);
    expect(layers.map(({ name, base, build }) => [name, base, heightOf(build)])).toEqual([
      ['box', 0, 10],
      ['lid', 15, 10],
    ]);
    const [box] = own.parts(both);
    expect(proofOf(box!.mesh).min).toEqual([-5, -5, 0]);
    expect(own.extent(both, source)).toEqual([10, 10]);
  });

  it('are turned outward, and as deep and high as their layer says', () => {
    const deeper = applyCommand(both, {
      do: 'change-layers',
      layers: [layers[1]!.id],
      change: { build: { depth: 3 }, base: 40 },
    });
    const [, top] = own.parts(deeper);
    const proof = proofOf(top!.mesh);
    expect(isSound(proof)).toBe(true);
    expect([proof.volume, proof.min[2], proof.size[2]]).toEqual([expect.closeTo(300, 9), 40, 3]);
    expect(own.mesh(both, layers[1]!).tidied!.turned.count).toBe(6);
  });

  it('come in at a size that can be seen, with a word', () => {
    const metres = bringIn(parts, 'glb', { ...options, unit: 'm' });
    expect([metres.size, metres.warnings]).toEqual([25, []]);
    const speck = bringIn([{ name: 'speck', mesh: cube(1e-5), material }], 'stl');
    expect([speck.size, speck.warnings[0]!.code]).toEqual([expect.closeTo(100, 9), 'size']);
    const flat = meshFrom(
      [
        [0, 0, 0],
        [9, 0, 0],
        [0, 9, 0],
      ],
      [[0, 1, 2]],
    );
    expect(bringIn([{ name: '', mesh: flat, material }], 'stl').layers[0]).toMatchObject({
      name: 'Part',
    });
  });
});

describe('layers that lie in one plane', () => {
  it('are named by the sides that would flicker', () => {
    const [low, high] = project.layers as [Layer, Layer];
    const depth = heightOf(low.build);
    const over = (change: LayerChange) => {
      const moved = applyCommand(project, {
        do: 'change-source',
        source: project.sources[0]!,
        layers: [{ ...high, members: low.members }],
      });
      const next = applyCommand(moved, { do: 'change-layers', layers: [high.id], change });
      return evaluator.overlaps(next)[0]?.flush;
    };
    expect(over({ base: low.base, build: { depth } })).toEqual(['front', 'back']);
    expect(over({ base: low.base, build: { depth: depth / 2 } })).toEqual(['back']);
    expect(over({ base: depth / 2, build: { depth } })).toEqual([]);
    // Edges that take all of one front leave nothing to flicker.
    const all = { on: 'front', reach: 40, rise: 1 } as const;
    expect(over({ base: low.base, build: { depth, edge: all } })).toEqual(['back']);
  });
});

describe('work shared out', () => {
  it('makes the very layers that the evaluator makes itself', () => {
    const [other, alone] = [new Evaluator({ content: () => readSvg(SIGN) }), evaluator];
    for (const each of project.layers) {
      const pending = other.pending(project, each)!;
      // As another thread would have it.
      other.adoptLayer(project, each, makeLayer(structuredClone(pending)));
      expect(other.pending(project, each)).toBeNull();
      expect(other.build(project, each)).toEqual(alone.build(project, each));
    }
    const deeper = changed({ build: { edge: { reach: 0.7 } } });
    expect(other.pending(deeper, deeper.layers[0]!)).toMatchObject({ shapes: [] });
  });
});

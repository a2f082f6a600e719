// Layers in groups: put in, taken out, moved about; whatever is done, the layers of a group follow each other.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GeometryError } from '../base/errors.ts';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import { applyCommand, type Command } from './commands/index.ts';
import { branchesOf, groupsAbove, layersIn } from './groups.ts';
import { UNPLACED } from './placement.ts';
import type { Project } from './schema.ts';

const COLOURS = ['#102030', '#c04020', '#20a040', '#e0c020', '#8040a0', '#f0f0e0'];
const STRIPES = `<svg viewBox="0 0 60 10">${COLOURS.map((c, i) => `<rect x="${10 * i}" width="8" height="10" fill="${c}"/>`).join('')}</svg>`;
const { project } = projectOf(readSvg(STRIPES));
const ids = project.layers.map(({ id }) => id);
const [a, b, c, d, e, f] = ids as [string, string, string, string, string, string];

const group = (id: string, layers: string[], groups: string[] = []): Command => ({
  do: 'group',
  id,
  name: `Group ${id}`,
  layers,
  groups,
});
const done = (...commands: Command[]) => commands.reduce(applyCommand, project);
const order = ({ layers }: Project) => layers.map(({ id }) => id);
const refusal = (act: () => unknown) => {
  try {
    act();
    return null;
  } catch (error) {
    return error instanceof GeometryError ? error.code : error;
  }
};

describe('a group', () => {
  it('stands where the highest of its layers did, and brings the others there', () => {
    expect(order(done(group('g', [a, d])))).toEqual([b, c, a, d, e, f]);
  });

  it('holds groups, as deep as all of them are', () => {
    const nested = done(group('in', [a, b]), group('out', [c], ['in']));
    expect(nested.groups).toMatchObject([{ id: 'in', within: 'out' }, { id: 'out' }]);
    expect(layersIn(nested, 'out').map(({ id }) => id)).toEqual([a, b, c]);
    expect(groupsAbove(nested.groups!, 'in').map(({ id }) => id)).toEqual(['out', 'in']);
    const inside = applyCommand(nested, group('third', [a]));
    expect(inside.groups!.find(({ id }) => id === 'third')!.within).toBe('in');
  });

  it('is gone when its last layer is, and with it what held nothing else', () => {
    const nested = done(group('in', [a]), group('out', [], ['in']));
    const { groups } = applyCommand(nested, { do: 'remove-layer', layer: a });
    expect(groups).toBeUndefined();
  });

  it('taken away leaves its members in the group around it, in their places', () => {
    const nested = done(group('in', [a, b]), group('out', [c], ['in']));
    const left = applyCommand(nested, {
      do: 'ungroup',
      group: 'in',
      places: [{ id: a, placement: { ...UNPLACED, move: [1, 2, 3] } }],
    });
    expect(left.groups).toEqual([{ id: 'out', name: 'Group out' }]);
    expect(layersIn(left, 'out').map(({ id }) => id)).toEqual([a, b, c]);
    expect(left.layers.find(({ id }) => id === a)!.placement?.move).toEqual([1, 2, 3]);
  });

  it('inside itself is refused, as is what is not there', () => {
    const nested = done(group('in', [a]), group('out', [b], ['in']));
    const into = (moved: string, target: string): Command => ({
      do: 'reorder',
      moved: [moved],
      into: target,
      on: null,
    });
    expect(refusal(() => applyCommand(nested, into('out', 'in')))).toBe('out-of-range');
    expect(refusal(() => applyCommand(nested, into('out', 'out')))).toBe('out-of-range');
    expect(refusal(() => applyCommand(nested, into(a, 'nowhere')))).toBe('unknown-id');
    expect(refusal(() => applyCommand(nested, { do: 'reorder', moved: [a], into: null, on: c }))).toBeNull();
    expect(refusal(() => applyCommand(nested, { do: 'reorder', moved: [a], into: 'out', on: c }))).toBe('unknown-id');
  });

  it('comes and goes by being moved, whole', () => {
    const nested = done(group('g', [a, b]));
    const up = applyCommand(nested, { do: 'reorder', moved: ['g'], into: null, on: f });
    expect(order(up)).toEqual([c, d, e, f, a, b]);
    const joined = applyCommand(up, { do: 'reorder', moved: [d], into: 'g', on: a });
    expect(order(joined)).toEqual([c, e, f, a, d, b]);
    const out = applyCommand(joined, { do: 'reorder', moved: [a, b], into: null, on: null });
    expect(order(out)).toEqual([a, b, c, e, f, d]);
    expect(layersIn(out, 'g').map(({ id }) => id)).toEqual([d]);
  });

  it('keeps its layers together and loses none, whatever is done', () => {
    const some = fc.uniqueArray(fc.constantFrom(...ids), { minLength: 1, maxLength: 4 });
    const step = fc.record({ what: fc.constantFrom('group', 'reorder', 'ungroup'), some, pick: fc.nat(7) });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let now = project;
        for (const [i, { what, some: layers, pick }] of steps.entries()) {
          const known = now.groups?.map(({ id }) => id) ?? [];
          const target = known[pick % (known.length + 1)] ?? null;
          if (what === 'group') now = applyCommand(now, group(`g${i}`, layers, target ? [target] : []));
          else if (what === 'ungroup' && target) now = applyCommand(now, { do: 'ungroup', group: target, places: [] });
          else if (what === 'reorder')
            now = applyCommand(now, { do: 'reorder', moved: layers, into: target, on: null });
        }
        expect(order(now).toSorted()).toEqual(ids.toSorted());
        for (const { id } of now.groups ?? []) {
          const places = layersIn(now, id).map((layer) => now.layers.indexOf(layer));
          expect(places.at(-1)! - places[0]!).toBe(places.length - 1);
        }
        const count = (tree: ReturnType<typeof branchesOf>): number =>
          tree.reduce((sum, branch) => sum + (branch.layer ? 1 : count(branch.members as never)), 0);
        expect(count(branchesOf(now))).toBe(ids.length);
      }),
      { numRuns: 200 },
    );
  });
});

describe('a layer with several outlines', () => {
  const { project: joined, evaluator } = projectOf(
    readSvg('<svg viewBox="0 0 60 10"><path d="M0 0h9v9h-9zM20 0h9v9h-9z"/><path d="M40 0h9v9h-9z"/></svg>'),
  );
  const [all] = joined.layers;
  const split = (before: Project) =>
    applyCommand(before, { do: 'split-layer', layer: all!.id, ids: ['p', 'q'], group: 'g' });

  it('becomes a group of layers with one each, that stand and follow rules as it did', () => {
    const placed = [
      {
        do: 'place',
        places: [{ id: all!.id, placement: { ...UNPLACED, turn: [0, 0, 30] as [number, number, number] } }],
      },
      {
        do: 'set-rule',
        rule: { id: 'r', what: 'depth', by: { kind: 'list', values: [3] }, gave: [{ layer: all!.id, value: 3 }] },
      },
    ].reduce((before, command) => applyCommand(before, command as Command), joined);
    const after = split(placed);
    expect(after.layers.map(({ name, group: of, members }) => [name, of, members.length])).toEqual([
      [`${all!.name} 1`, 'g', 1],
      [`${all!.name} 2`, 'g', 1],
    ]);
    expect(after.groups).toMatchObject([{ id: 'g', name: all!.name, placement: { turn: [0, 0, 30] } }]);
    expect(after.rules![0]!.gave.map(({ layer }) => layer)).toEqual(['p', 'q']);
    const box = (of: Project) => {
      const thing = of.groups?.[0] ?? of.layers[0]!;
      const { min, max } = evaluator.places(of).box(thing)!;
      return [...min, ...max];
    };
    for (const [k, v] of box(after).entries()) expect(v).toBeCloseTo(box(placed)[k]!, 9);
  });

  it('is not split where it is locked, has one outline, or too few new names are given', () => {
    const locked = applyCommand(joined, { do: 'change-layers', layers: [all!.id], change: { locked: true } });
    expect(refusal(() => split(locked))).toBe('locked');
    expect(refusal(() => applyCommand(split(joined), { do: 'split-layer', layer: 'p', ids: ['x'], group: 'h' }))).toBe(
      'out-of-range',
    );
    expect(refusal(() => applyCommand(joined, { do: 'split-layer', layer: all!.id, ids: ['p'], group: 'g' }))).toBe(
      'out-of-range',
    );
  });
});

describe('a layer that is locked', () => {
  const locked = done({ do: 'change-layers', layers: [a], change: { locked: true } });
  it('is neither changed, moved in space nor taken away', () => {
    for (const command of [
      { do: 'change-layers', layers: [a, b], change: { base: 3 } },
      { do: 'remove-layer', layer: a },
      { do: 'set-bases', bases: [{ layer: a, base: 1 }] },
      { do: 'place', places: [{ id: a, placement: UNPLACED }] },
    ] satisfies Command[]) {
      expect(refusal(() => applyCommand(locked, command))).toBe('locked');
    }
  });
  it('is unlocked again', () => {
    const free = applyCommand(locked, { do: 'change-layers', layers: [a], change: { locked: false } });
    expect(applyCommand(free, { do: 'remove-layer', layer: a }).layers).toHaveLength(5);
  });
});

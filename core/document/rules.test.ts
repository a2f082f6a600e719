// Rules in a project: what they give, what differs from them, and what other commands leave of them.
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { renewed, subjectsOf } from '../evaluate/subjects.ts';
import { type RuleBy, ruleValues } from '../rules/index.ts';
import { drawingOf, filledShape } from '../testing/drawings.ts';
import { projectOf } from '../testing/projects.ts';
import { applyCommand } from './commands/index.ts';
import { readProject } from './migrate.ts';
import { differsFromRule, ruledValue, ruleFor } from './ruled.ts';
import type { Rule, Ruled } from './rules.ts';
import type { Project } from './schema.ts';

const square = (id: string, x: number, side: number, colour: string) =>
  filledShape(id, `M${x} 0h${side}v${side}h${-side}Z`, colour);
/** Black, grey on it, white beside them. */
const { project, evaluator } = projectOf(
  drawingOf(square('black', 0, 40, '#000000'), square('grey', 5, 10, '#808080'), square('white', 60, 20, '#fffffe')),
);
const ids = project.layers.map(({ id }) => id);
const subjects = subjectsOf(evaluator, project as never, ids);
const rule = (what: Ruled, by: RuleBy, change: Partial<Rule> = {}): Rule => {
  const values = ruleValues(by, subjects);
  return { id: what, what, by, gave: ids.map((layer, i) => ({ layer, value: values[i]! })), ...change };
};
const take = (before: Project, taken: Rule) => applyCommand(before, { do: 'set-rule', rule: taken });
const values = (of: Project, what: Ruled) => of.layers.map((layer) => ruledValue(layer, what));

describe('layers as rules see them', () => {
  it('have the lightness of their colour, the area and middle of what they cover, and stand as they lie', () => {
    const scale = project.sources[0]!.scale;
    expect(subjects.map(({ level, nesting }) => [level, nesting])).toEqual([
      [0, 0],
      [1, 1],
      [0, 0],
    ]);
    expect(subjects.map(({ area }) => area / scale ** 2)).toEqual([1600, 100, 400].map((v) => expect.closeTo(v, 6)));
    const [black, grey] = subjects.map(({ centre }) => centre);
    expect((grey![0] - black![0]) / scale).toBeCloseTo(10 - 20, 6);
    // OKLab: 0, and 0.6 for the grey of byte 128 (its linear value 0.2159, cube root).
    expect(subjects[0]!.lightness).toBeCloseTo(0, 6);
    expect(subjects[1]!.lightness).toBeCloseTo(Math.cbrt(0.21586), 3);
  });
});

describe('a rule whose layers have changed', () => {
  const byLightness: RuleBy = { kind: 'lightness', from: 1, to: 6 };
  const taken = take(project, rule('depth', byLightness));
  const [own] = taken.rules!;
  const painted = (of: Project, id: string, colour: string) =>
    applyCommand(of, { do: 'change-layers', layers: [id], change: { material: { colour } } });

  it('would give nothing else while what it goes by is the same', () => {
    expect(renewed(evaluator, taken, own!)).toBeNull();
    const moved = applyCommand(taken, { do: 'change-layers', layers: ids, change: { base: 3 } });
    expect(renewed(evaluator, moved, own!)).toBeNull();
  });

  it('gives them what it says by now, but for those that differ on purpose', () => {
    const dark = painted(taken, ids[2]!, '#000000');
    const now = renewed(evaluator, dark, own!)!;
    // The grey one is the lightest by now.
    expect(now.map(({ value }) => value)).toEqual([1, 6, 1]);
    const apart = applyCommand(dark, { do: 'change-layers', layers: [ids[1]!], change: { build: { depth: 2.5 } } });
    const followed = applyCommand(apart, { do: 'renew-rule', rule: own!.id, gave: now });
    expect(values(followed, 'depth')).toEqual([1, 2.5, 1]);
    expect(differsFromRule(followed, followed.layers[1]!, 'depth')).toBe(6);
    expect(renewed(evaluator, followed, followed.rules![0]!)).toBeNull();
  });
});

describe('a rule', () => {
  it('gives depth, base and reach, and is kept with what it gave', () => {
    const deep = take(project, rule('depth', { kind: 'lightness', from: 1, to: 6 }));
    expect(values(deep, 'depth')).toEqual([1, expect.closeTo(3.999, 2), 6]);
    expect(values(deep, 'base')).toEqual(values(project, 'base'));
    const based = take(deep, rule('base', { kind: 'order', from: 0, step: 2.5 }));
    expect(values(based, 'base')).toEqual([0, 2.5, 0]);
    const edged = take(based, rule('reach', { kind: 'list', values: [0.2, 0.1] }));
    expect(values(edged, 'reach')).toEqual([0.2, 0.1, 0.2]);
    expect(edged.rules!.map(({ what }) => what)).toEqual(['depth', 'base', 'reach']);
    expect(readProject(JSON.parse(JSON.stringify(edged)))).toEqual(edged);
  });

  it('says which layers differ from it, and what it gave them', () => {
    const deep = take(project, rule('depth', { kind: 'list', values: [2] }));
    expect(deep.layers.map((layer) => differsFromRule(deep, layer, 'depth'))).toEqual([null, null, null]);
    const own = applyCommand(deep, { do: 'change-layers', layers: [ids[1]!], change: { build: { depth: 7 } } });
    expect(own.layers.map((layer) => differsFromRule(own, layer, 'depth'))).toEqual([null, 2, null]);
    expect(ruleFor(own, ids[1]!, 'base')).toBeNull();
  });

  it('follows a change of the unit with its layers', () => {
    const deep = take(project, rule('depth', { kind: 'lightness', from: 25.4, to: 50.8 }));
    const inches = applyCommand(deep, { do: 'set-unit', unit: 'in' });
    expect(values(inches, 'depth')).toEqual([1, expect.closeTo(1.6, 2), 2].map((v) => v));
    expect(inches.layers.every((layer) => differsFromRule(inches, layer, 'depth') === null)).toBe(true);
    expect(inches.rules![0]!.by).toEqual({ kind: 'lightness', from: 1, to: 2 });
  });

  it('takes layers from an earlier one for the same value, which goes when it has none left', () => {
    const first = take(project, rule('depth', { kind: 'list', values: [2] }));
    const some = rule('depth', { kind: 'list', values: [3] }, { id: 'some' });
    const both = take(first, { ...some, gave: some.gave.slice(0, 1) });
    expect(both.rules!.map(({ id, gave }) => [id, gave.length])).toEqual([
      ['depth', 2],
      ['some', 1],
    ]);
    expect(take(both, { ...some, id: 'all' }).rules!.map(({ id }) => id)).toEqual(['all']);
  });

  it('is given up without a change of any value', () => {
    const deep = take(project, rule('depth', { kind: 'list', values: [2] }));
    const free = applyCommand(deep, { do: 'remove-rule', rule: 'depth' });
    expect(free.rules).toEqual([]);
    expect(free.layers).toBe(deep.layers);
    expect(() => applyCommand(free, { do: 'remove-rule', rule: 'depth' })).toThrow('There is no rule depth');
  });

  it.each([
    ['no layers', { gave: [] }, 'no layers to give values to'],
    ['a layer that is not there', { gave: [{ layer: 'nobody', value: 2 }] }, 'There is no layer nobody'],
    ['a depth of nothing', { gave: [{ layer: ids[0]!, value: 0 }] }, 'The change was not made'],
    ['a depth below nothing', { gave: [{ layer: ids[0]!, value: -3 }] }, 'The change was not made'],
  ])('with %s is refused, and nothing changes', (_, change, words) => {
    expect(() => take(project, rule('depth', { kind: 'list', values: [2] }, change))).toThrow(words);
  });

  it('leaves parts of meshes their edges, which they have none of', () => {
    const part = {
      ...project,
      layers: project.layers.map((layer) => ({ ...layer, build: { kind: 'part', depth: 2 } })),
    } as Project;
    const taken = take(part, rule('reach', { kind: 'list', values: [1] }));
    expect(taken.layers.map(({ build }) => build)).toEqual(part.layers.map(({ build }) => build));
    expect(heightOf(take(part, rule('depth', { kind: 'list', values: [4] })).layers[0]!.build)).toBe(4);
  });
});

// ruled.ts — values of layers that rules give: read, set, and told from what the rule gave.
import { GeometryError } from '../base/errors.ts';
import { OfObject } from '../base/of-object.ts';
import { buildKind, heightOf } from '../builds/index.ts';
import { type RuleBy, ruleValues } from '../rules/index.ts';
import type { Subject } from '../rules/kind.ts';
import type { Rule, Ruled } from './rules.ts';
import type { Layer, Project } from './schema.ts';

/** Null for a layer that has no such value. */
export function ruledValue({ base, build }: Layer, what: Ruled): number | null {
  if (what === 'base') return base;
  if (what === 'depth') return heightOf(build);
  return build.kind === 'slab' ? build.edge.reach : null;
}

/** The layer with another value; the same one where it has no such value. */
export function withRuled(layer: Layer, what: Ruled, value: number): Layer {
  if (ruledValue(layer, what) === null || ruledValue(layer, what) === value) return layer;
  if (what === 'base') return { ...layer, base: value };
  const kind = buildKind(layer.build.kind);
  const build =
    what === 'depth' ? kind.withHeight(layer.build, value) : kind.changed(layer.build, { edge: { reach: value } });
  return { ...layer, build };
}

/** The layers, those that are named with a value of their own. */
export function withValues(layers: readonly Layer[], what: Ruled, values: ReadonlyMap<string, number>): Layer[] {
  return layers.map((layer) => {
    const value = values.get(layer.id);
    return value === undefined ? layer : withRuled(layer, what, value);
  });
}

/** What a rule gives layers. @param subjects in the order of the stack, the lowest first */
export function gaveOf(by: RuleBy, subjects: readonly Subject[]): Rule['gave'] {
  const values = ruleValues(by, subjects);
  return subjects.map(({ id }, i) => ({ layer: id, value: values[i]! }));
}

/** @throws {GeometryError} 'unknown-id' */
export function ruleOf({ rules = [] }: Project, id: string): Rule {
  const rule = rules.find((known) => known.id === id);
  if (!rule) throw new GeometryError('unknown-id', `There is no rule ${id} in this project.`);
  return rule;
}

interface Given {
  readonly rule: Rule;
  readonly value: number;
}

/** By value and layer: lists of layers ask for every one of theirs at each change. */
const givenBy = new OfObject(
  (rules: readonly Rule[]) =>
    new Map(
      rules.flatMap((rule) =>
        rule.gave.map(({ layer, value }): [string, Given] => [`${rule.what} ${layer}`, { rule, value }]),
      ),
    ),
);

/** The rule that a value of a layer follows, and what it gave; null where it follows none. */
export const ruleFor = ({ rules }: Project, layer: string, what: Ruled): Given | null =>
  (rules && givenBy.get(rules).get(`${what} ${layer}`)) ?? null;

/** What the rule gave, where a layer differs from it; null where it does not. */
export function differsFromRule(project: Project, layer: Layer, what: Ruled): number | null {
  const found = ruleFor(project, layer.id, what);
  return found && found.value !== ruledValue(layer, what) ? found.value : null;
}

// ruled.ts — values of layers that rules give: read, set, and told from what the rule gave.
import { buildKind, heightOf } from '../builds/index.ts';
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

/** The rule that a value of a layer follows, and what it gave; null where it follows none. */
export function ruleFor({ rules = [] }: Project, layer: string, what: Ruled): { rule: Rule; value: number } | null {
  for (const rule of rules) {
    const given = rule.what === what && rule.gave.find((each) => each.layer === layer);
    if (given) return { rule, value: given.value };
  }
  return null;
}

/** What the rule gave, where a layer differs from it; null where it does not. */
export function differsFromRule(project: Project, layer: Layer, what: Ruled): number | null {
  const found = ruleFor(project, layer.id, what);
  return found && found.value !== ruledValue(layer, what) ? found.value : null;
}

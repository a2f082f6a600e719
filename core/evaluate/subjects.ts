// subjects.ts — layers as rules see them.

import type { Resolved } from '../document/resolve.ts';
import { gaveOf } from '../document/ruled.ts';
import type { Rule } from '../document/rules.ts';
import type { Layer } from '../document/schema.ts';
import { levelsOf, nestingOf } from '../outline/levels.ts';
import { centroidOf, ringsOf } from '../outline/measure.ts';
import { lightnessOfHex } from '../picture/colour.ts';
import type { Subject } from '../rules/kind.ts';
import type { Evaluator } from './evaluator.ts';
import { footprints } from './overlaps.ts';

/** @param layers ids; the subjects come in the order of the stack, the lowest first, whatever order these have */
export function subjectsOf(evaluator: Evaluator, project: Resolved, layers: readonly string[]): Subject[] {
  const wanted = project.layers.filter(({ id }) => layers.includes(id));
  const prints = wanted.map((layer) => footprints.get(evaluator.outlines(project, layer).regions));
  const levels = levelsOf(
    prints,
    wanted.map(() => true),
  );
  const nesting = nestingOf(prints);
  return wanted.map(
    (layer: Layer, i): Subject => ({
      id: layer.id,
      lightness: lightnessOfHex(layer.material.colour),
      area: prints[i]!.area,
      centre: centroidOf(ringsOf(prints[i]!.regions)),
      level: levels[i]!,
      nesting: nesting[i]!,
    }),
  );
}

/** What a rule gives its layers by now; null where that is what it gave. */
export function renewed(evaluator: Evaluator, project: Resolved, { by, gave }: Rule): Rule['gave'] | null {
  const before = new Map(gave.map(({ layer, value }) => [layer, value]));
  const now = gaveOf(by, subjectsOf(evaluator, project, [...before.keys()]));
  const isSame = ({ layer, value }: Rule['gave'][number]) =>
    Math.abs(before.get(layer)! - value) <= SAME * Math.abs(value);
  return now.length === gave.length && now.every(isSame) ? null : now;
}

/** Values nearer than this share are one: outlines that are read again differ by their last digits. */
const SAME = 1e-9;

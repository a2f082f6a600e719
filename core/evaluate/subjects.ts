// subjects.ts — layers as rules see them.
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import { levelsOf, nestingOf } from '../outline/levels.ts';
import { centroidOf, ringsOf } from '../outline/measure.ts';
import { footprintOf } from '../outline/overlap.ts';
import { labOf, rgbOfHex } from '../picture/colour.ts';
import type { Subject } from '../rules/kind.ts';
import type { Evaluator } from './evaluator.ts';

/** @param layers ids; the subjects come in the order of the stack, the lowest first, whatever order these have */
export function subjectsOf(evaluator: Evaluator, project: Resolved, layers: readonly string[]): Subject[] {
  const wanted = project.layers.filter(({ id }) => layers.includes(id));
  const footprints = wanted.map((layer) => footprintOf(evaluator.outlines(project, layer).regions));
  const levels = levelsOf(
    footprints,
    wanted.map(() => true),
  );
  const nesting = nestingOf(footprints);
  return wanted.map(
    (layer: Layer, i): Subject => ({
      id: layer.id,
      lightness: labOf(...rgbOfHex(layer.material.colour))[0],
      area: footprints[i]!.area,
      centre: centroidOf(ringsOf(footprints[i]!.regions)),
      level: levels[i]!,
      nesting: nesting[i]!,
    }),
  );
}

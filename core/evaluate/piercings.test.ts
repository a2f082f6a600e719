// Layers of a project that stand at an angle to each other.
import { describe, expect, it } from 'vitest';
import { applyCommand } from '../document/commands/index.ts';
import { UNPLACED } from '../document/placement.ts';
import type { Project } from '../document/schema.ts';
import { drawingOf, filledShape } from '../testing/drawings.ts';
import { projectOf } from '../testing/projects.ts';
import { piercingsOf } from './piercings.ts';

const square = (id: string, x: number, side: number, colour: string) =>
  filledShape(id, `M${x} 0h${side}v${side}h${-side}Z`, colour);
const { project, evaluator } = projectOf(
  drawingOf(square('low', 0, 40, '#000000'), square('high', 10, 10, '#808080'), square('far', 80, 20, '#ff0000')),
);
const [low, high, far] = project.layers.map(({ id }) => id) as [string, string, string];
const turned = (of: Project, id: string, about: number, up = 0) =>
  applyCommand(of, {
    do: 'place',
    places: [{ id, placement: { ...UNPLACED, turn: [about, 0, 0], move: [0, 0, up] } }],
  });
const pairsOf = (of: Project) => piercingsOf(evaluator, of, of.layers).map(({ layers }) => layers);

describe('layers at an angle', () => {
  it('are found where they run through each other, and only there', () => {
    expect(pairsOf(project)).toEqual([]);
    expect(pairsOf(turned(project, high, 60))).toEqual([[low, high]]);
    expect(pairsOf(turned(project, far, 60))).toEqual([]);
    expect(pairsOf(turned(project, high, 60, 500))).toEqual([]);
  });

  it('are found where a front is higher than it is deep, and where plans do not say it already', () => {
    const { depth } = project.layers[0]!.build;
    const crowned = applyCommand(project, {
      do: 'change-layers',
      layers: [low],
      change: { build: { front: { is: 'crowned', height: 3, dome: 'round' }, edge: { on: 'none' } } },
    });
    const on = (base: number) => applyCommand(crowned, { do: 'change-layers', layers: [high], change: { base } });
    expect(pairsOf(on(depth + 0.5))).toEqual([[low, high]]);
    expect(pairsOf(on(depth + 3.5))).toEqual([]);
    // They share height, which their bars show.
    expect(pairsOf(on(depth - 0.5))).toEqual([]);
  });

  it('are none among those that were turned alike: these are compared in plan', () => {
    expect(pairsOf(turned(turned(project, high, 60), low, 60))).toEqual([]);
  });
});

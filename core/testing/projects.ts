// projects.ts — projects of drawings, brought in as files are, for tests and benchmarks.
import { type Arrival, arrive, type LayerWishes } from '../document/arrive.ts';
import { applyCommand } from '../document/commands/index.ts';
import { emptyProject, type Project } from '../document/schema.ts';
import type { Drawing } from '../drawing.ts';
import { Evaluator } from '../evaluate/evaluator.ts';
import type { SourceReader, Stages } from '../sources/kind.ts';

export interface MadeProject extends Omit<Arrival, 'source' | 'layers' | 'groups'> {
  readonly project: Project;
  readonly evaluator: Evaluator;
}

/** Wishes that are most often meant: millimetres, curves within 0.01, ids that count up. */
export function wishesOf(change: Partial<LayerWishes> = {}): LayerWishes {
  let ids = 0;
  return { unit: 'mm', tolerance: 0.01, newId: () => `layer-${++ids}`, ...change };
}

/** For what shows no pictures. */
export const NO_PICTURES: SourceReader = readerWithout();

function readerWithout(): SourceReader {
  const never = async () => {
    throw new Error('Nothing was to be read.');
  };
  return { bytes: never, picture: never, fonts: never };
}

/** Nothing is kept. */
export const NO_STAGES: Stages = { has: () => false, get: (_stage, _key, make) => make() };

/** A drawing as the one source of a project. @throws {GeometryError} 'nothing-to-build' */
export function projectOf(drawing: Drawing, change: Partial<LayerWishes> = {}): MadeProject {
  const wishes = wishesOf(change);
  const origin = { id: 'source', name: 'drawing.svg', asset: 'a'.repeat(64) };
  const { source, layers, groups, ...arrived } = arrive('vector', origin, drawing, NO_STAGES, wishes);
  const empty = { ...emptyProject('Test'), tolerance: wishes.tolerance };
  const project = applyCommand(empty, { do: 'add-source', source, layers: [...layers], groups: [...groups] });
  return { ...arrived, project, evaluator: new Evaluator({ content: () => drawing }) };
}

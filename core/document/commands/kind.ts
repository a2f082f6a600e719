// kind.ts — what a kind of command is: a change of a project as plain data, and what applies it. Each has a file here and a line in
// index.ts.
import type { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import type { Group } from '../groups.ts';
import type { Layer, Project } from '../schema.ts';

export interface CommandKind<C extends { readonly do: string }> {
  readonly do: C['do'];
  readonly schema: z.ZodType<C>;
  /** A pure function: the project is not modified, and what does not change stays the very same object. @throws {GeometryError} */
  apply(project: Project, command: C): Project;
}

/** @throws {GeometryError} 'unknown-id' */
export function layerOf(project: Project, id: string): Layer {
  const layer = project.layers.find((candidate) => candidate.id === id);
  if (!layer) throw new GeometryError('unknown-id', `There is no layer ${id} in this project.`);
  return layer;
}

/** A layer that is to be changed. @throws {GeometryError} 'unknown-id', 'locked' */
export function unlockedLayerOf(project: Project, id: string): Layer {
  const layer = layerOf(project, id);
  if (layer.locked) {
    throw new GeometryError(
      'locked',
      `The change was not made: “${layer.name}” is locked. Unlock it in the list first.`,
    );
  }
  return layer;
}

/** @throws {GeometryError} 'unknown-id' */
export function groupOf({ groups = [] }: Project, id: string): Group {
  const group = groups.find((candidate) => candidate.id === id);
  if (!group) throw new GeometryError('unknown-id', `There is no group ${id} in this project.`);
  return group;
}

/** @throws {GeometryError} 'unknown-id' */
export function mustHaveSource(project: Project, id: string): void {
  if (!project.sources.some((source) => source.id === id)) {
    throw new GeometryError('unknown-id', `There is no source ${id} in this project.`);
  }
}

// resolve.ts — a document as it is to be evaluated: what groups and rules say stands in its layers. Everything that evaluates takes
// this, never the document itself.
import type { Project } from './schema.ts';

/** A project whose layers have their final values. */
export type Resolved = Omit<Project, 'groups' | 'rules'>;

/** Layers that no group and no rule is about stay the very same objects; so does a whole project of them. */
export function resolve(project: Project): Resolved {
  // There are no groups and no rules yet.
  return project;
}

// resolve.ts — a document as it is to be evaluated: what rules gave stands in its layers. Everything that evaluates takes this, never the
// document itself.
import type { Project } from './schema.ts';

/** A project whose layers have their final values. */
export type Resolved = Omit<Project, 'rules'>;

/** Layers stay the very same objects. */
export function resolve(project: Project): Resolved {
  return project;
}

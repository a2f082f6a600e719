// crossing.ts — how a document crosses from the page to the geometry worker: what changed since the last one, so that what did not
// change is the very same objects there, and nothing that hangs on it is computed or even looked at again.
import * as Comlink from 'comlink';
import { type Delta, deltaOf, type Project, withDelta } from '../../core/index.ts';

const isProject = (value: unknown): value is Project =>
  typeof value === 'object' && value !== null && 'layers' in value && 'sources' in value && 'unit' in value;

let last: Project | null = null;

/** Both ends call it once; messages keep their order, so that both know the same last document. */
export function letProjectsCross(): void {
  Comlink.transferHandlers.set('project', {
    canHandle: isProject,
    serialize(project: Project): [Delta, Transferable[]] {
      const delta = deltaOf(last, project);
      last = project;
      return [delta, []];
    },
    deserialize(delta: Delta): Project {
      last = withDelta(last, delta) as Project;
      return last;
    },
  });
}

/** A new worker knows no document. */
export function forgetProjects(): void {
  last = null;
}

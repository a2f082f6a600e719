// index.ts — every kind of job.
import { kindNamed } from '../../core/index.ts';
import { exportJob } from './export.ts';
import type { JobKind } from './kind.ts';

export const JOB_KINDS = [exportJob] as const;
export type JobKindName = (typeof JOB_KINDS)[number]['kind'];

/** @throws for a name that no kind has */
export function jobKind(name: string): JobKind<unknown, unknown> {
  // Requests were checked by the kind's own schema when the job was made; tasks come from its own `gather`.
  return kindNamed(JOB_KINDS, 'kind', name);
}

// kind.ts — what a kind of long work is. Each has a file here and a line in index.ts; the queue, the thread, the table and the
// routes know nothing else of it.
import type { z } from 'zod';
import type { ExportReport } from '../../core/index.ts';
import type { AssetStore } from '../stores/assets.ts';
import type { ProjectStore } from '../stores/projects.ts';

export interface JobKind<Request, Task> {
  readonly kind: string;
  /** What is asked for; kept with the job as JSON. */
  readonly request: z.ZodType<Request>;
  /** One that takes longer is failed, so that nothing waits behind it for ever. */
  readonly patienceMs: number;
  /** Everything that its thread works on; the thread has no database. */
  gather(project: string, request: Request, stores: JobStores): Promise<Task>;
  /** In the thread. @param report is called with the share done @throws {GeometryError} for what can be expected to fail */
  run(task: Task, report: (share: number) => void): Promise<JobResult>;
}

export interface JobStores {
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
}

/** A finished file. */
export interface JobResult {
  readonly fileName: string;
  readonly mime: string;
  readonly bytes: Uint8Array;
  readonly report: ExportReport;
}

// threads.ts — the threads of this process: some for jobs, and some for what a request waits for, which no job may hold up.
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { type ErrorCode, GeometryError, type ProjectFile } from '../../core/index.ts';
import type { JobResult } from './kind.ts';
import type { ThreadOutcome, ThreadTask } from './thread.ts';

/** What takes longer is not waited for. */
const FONT_PATIENCE_MS = 20_000;
const PROJECT_PATIENCE_MS = 120_000;
/** A large project does not keep a font waiting. */
const QUICK_THREADS = 2;

/** What requests wait for. All throw a {@link GeometryError} as the core's functions do, and 'bad-file' for what takes too long. */
export interface FileThreads {
  unpackFont(bytes: Uint8Array): Promise<Uint8Array>;
  packProject(file: ProjectFile): Promise<Uint8Array>;
  unpackProject(bytes: Uint8Array): Promise<ProjectFile>;
}

/** @param module the built `thread.ts` */
export function startThreads(module: URL) {
  const filename = fileURLToPath(module);
  // One processor is left to requests; threads end when there has been nothing to do for a while.
  const maxThreads = Math.max(1, availableParallelism() - 1);
  const options = { filename, minThreads: 0, idleTimeout: 10_000 };
  const jobs = new Piscina<ThreadTask, ThreadOutcome<JobResult>>({ ...options, maxThreads });
  const quick = new Piscina<unknown, ThreadOutcome<unknown>>({ ...options, maxThreads: QUICK_THREADS });

  /** A function of the module, in a thread. @param patience what takes longer is refused with what `late` says */
  const inThread =
    <In, Out>(name: string, patience: number, late: string) =>
    async (value: In): Promise<Out> => {
      const signal = AbortSignal.timeout(patience);
      const outcome = (await quick.run(value, { name, signal }).catch((error: unknown) => {
        throw signal.aborted ? new GeometryError('bad-file', late) : error;
      })) as ThreadOutcome<Out>;
      if (!outcome.ok) throw new GeometryError(outcome.error.code as ErrorCode, outcome.error.message);
      return outcome.value;
    };
  const files: FileThreads = {
    unpackFont: inThread('font', FONT_PATIENCE_MS, 'The font takes too long to unpack. Use another copy of it.'),
    packProject: inThread('packProject', PROJECT_PATIENCE_MS, 'The project takes too long to pack. Try again.'),
    unpackProject: inThread('unpackProject', PROJECT_PATIENCE_MS, 'The project takes too long to unpack. Try again.'),
  };
  const close = async () => {
    await Promise.all([jobs.destroy(), quick.destroy()]);
  };
  return { jobs, files, close };
}

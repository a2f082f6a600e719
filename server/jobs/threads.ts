// threads.ts — the threads of this process: some for jobs, and one for what a request waits for, which no job may hold up.
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { type ErrorCode, GeometryError } from '../../core/index.ts';
import type { JobResult } from './kind.ts';
import type { ThreadOutcome, ThreadTask } from './thread.ts';

/** A font that takes longer to unpack is not waited for. */
const FONT_PATIENCE_MS = 20_000;

/** @param module the built `thread.ts` */
export function startThreads(module: URL) {
  const filename = fileURLToPath(module);
  // One processor is left to requests; threads end when there has been nothing to do for a while.
  const maxThreads = Math.max(1, availableParallelism() - 1);
  const options = { filename, minThreads: 0, idleTimeout: 10_000 };
  const jobs = new Piscina<ThreadTask, ThreadOutcome<JobResult>>({ ...options, maxThreads });
  const quick = new Piscina<Uint8Array, ThreadOutcome<Uint8Array>>({ ...options, maxThreads: 1 });

  /** @throws {GeometryError} see the core's `openType`; 'bad-file' for one that takes too long */
  const unpackFont = async (bytes: Uint8Array): Promise<Uint8Array> => {
    const late = AbortSignal.timeout(FONT_PATIENCE_MS);
    const outcome = await quick.run(bytes, { name: 'font', signal: late }).catch((error: unknown) => {
      if (late.aborted)
        throw new GeometryError('bad-file', 'The font takes too long to unpack. Use another copy of it.');
      throw error;
    });
    if (!outcome.ok) throw new GeometryError(outcome.error.code as ErrorCode, outcome.error.message);
    return outcome.value;
  };
  const close = async () => {
    await Promise.all([jobs.destroy(), quick.destroy()]);
  };
  return { jobs, unpackFont, close };
}

// runner.ts — the queue that needs nothing but the job table: a pool of threads in this process. Requests stay live meanwhile.
import { MessageChannel } from 'node:worker_threads';
import type { Piscina } from 'piscina';
import { isBusy } from '../db/open.ts';
import { logError } from '../errors.ts';
import type { Job, JobStore } from '../stores/jobs.ts';
import { jobKind } from './index.ts';
import type { JobResult, JobStores } from './kind.ts';
import type { Queue } from './queue.ts';
import type { ThreadOutcome, ThreadTask } from './thread.ts';

export interface RunnerDeps extends JobStores {
  readonly jobs: JobStore;
  readonly pool: Piscina<ThreadTask, ThreadOutcome<JobResult>>;
}

/** How often, and after how long, a word that must not be lost is said again while another process holds the database. */
const INSISTING = { times: 20, waitMs: 500 } as const;

export class JobRunner implements Queue {
  private readonly deps: RunnerDeps;
  private readonly waiting: Job[] = [];
  /** What is under way, and how it is stopped; from before its thread has started until its end is written down. */
  private readonly running = new Map<string, AbortController>();

  constructor(deps: RunnerDeps) {
    this.deps = deps;
  }

  async resume(): Promise<void> {
    for (const job of await this.deps.jobs.unfinished()) this.add(job);
  }

  add(job: Job): void {
    this.waiting.push(job);
    this.startNext();
  }

  async cancel(id: string): Promise<void> {
    const place = this.waiting.findIndex((job) => job.id === id);
    if (place >= 0) this.waiting.splice(place, 1);
    this.running.get(id)?.abort();
    await insist(() => this.deps.jobs.cancel(id));
  }

  private startNext(): void {
    while (this.running.size < this.deps.pool.options.maxThreads) {
      const job = this.waiting.shift();
      if (!job) return;
      const stop = new AbortController();
      this.running.set(job.id, stop);
      void this.work(job, stop.signal).finally(() => {
        this.running.delete(job.id);
        this.startNext();
      });
    }
  }

  /** Never throws: what fails is written down with the job, or, where even that fails, in the log. */
  private async work(job: Job, stopped: AbortSignal): Promise<void> {
    const { jobs } = this.deps;
    try {
      if (!(await insist(() => jobs.begin(job.id)))) return;
      const outcome = await this.inThread(job, stopped);
      if (stopped.aborted) return;
      if (outcome.ok) {
        const { bytes, ...file } = outcome.value;
        await insist(() => jobs.finish(job.id, { ...file, bytes: Buffer.from(bytes) }));
      } else await insist(() => jobs.fail(job.id, outcome.error));
    } catch (error) {
      if (stopped.aborted) return;
      logError(error);
      const message = error instanceof Error ? error.message : String(error);
      await insist(() => jobs.fail(job.id, { code: 'unexpected', message })).catch(logError);
    }
  }

  private async inThread(job: Job, stopped: AbortSignal): Promise<ThreadOutcome<JobResult>> {
    const { jobs, pool } = this.deps;
    const kind = jobKind(job.kind);
    const task = await kind.gather(job.projectId, job.request, this.deps);
    stopped.throwIfAborted();
    const { port1: heard, port2: progress } = new MessageChannel();
    // A share that cannot be written down is not worth failing for: the next one tells more.
    heard.on('message', (share: number) => void jobs.progress(job.id, share).catch(logError));
    const late = AbortSignal.timeout(kind.patienceMs);
    try {
      const signal = AbortSignal.any([stopped, late]);
      return await pool.run({ kind: job.kind, task, progress }, { transferList: [progress], signal });
    } catch (error) {
      throw late.aborted ? new Error('The job took too long and was stopped.') : error;
    } finally {
      heard.close();
    }
  }
}

/** Does it, again and again while another process holds the database. */
async function insist<T>(act: () => Promise<T>): Promise<T> {
  for (let left: number = INSISTING.times; ; left--) {
    try {
      return await act();
    } catch (error) {
      if (!isBusy(error) || left === 0) throw error;
      await new Promise((wait) => setTimeout(wait, INSISTING.waitMs));
    }
  }
}

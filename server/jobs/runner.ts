// runner.ts — takes jobs one after another to a worker thread; requests stay live meanwhile.
import { Worker } from 'node:worker_threads';
import { assetsOf } from '../../core/index.ts';
import { logError } from '../errors.ts';
import type { AssetStore } from '../stores/assets.ts';
import type { Job, JobStore } from '../stores/jobs.ts';
import type { ProjectStore } from '../stores/projects.ts';
import type { ThreadMessage, ThreadTask } from './thread.ts';

export interface RunnerDeps {
  readonly jobs: JobStore;
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
  /** The module that the thread runs. */
  readonly thread: URL;
}

/** A job that takes longer than this is failed, so that nothing waits behind it for ever. */
const PATIENCE_MS = 10 * 60_000;

export class JobRunner {
  private readonly deps: RunnerDeps;
  private readonly queue: Job[] = [];
  private running: { id: string; stop: () => void } | null = null;

  constructor(deps: RunnerDeps) {
    this.deps = deps;
  }

  /** Takes up what an earlier run of the server left behind. */
  async resume(): Promise<void> {
    for (const job of await this.deps.jobs.unfinished()) this.add(job);
  }

  add(job: Job): void {
    this.queue.push(job);
    void this.next();
  }

  async cancel(id: string): Promise<void> {
    const waiting = this.queue.findIndex((job) => job.id === id);
    if (waiting >= 0) this.queue.splice(waiting, 1);
    else if (this.running?.id === id) this.running.stop();
    else return;
    await this.deps.jobs.mark(id, 'cancelled');
  }

  private async next(): Promise<void> {
    if (this.running) return;
    const job = this.queue.shift();
    if (!job) return;
    this.running = { id: job.id, stop: () => {} };
    try {
      await this.run(job);
    } catch (error) {
      logError(error);
      const message = error instanceof Error ? error.message : String(error);
      await this.deps.jobs.mark(job.id, 'failed', { error: { code: 'unexpected', message } }).catch(logError);
    }
    this.running = null;
    void this.next();
  }

  private async run(job: Job): Promise<void> {
    const { jobs, projects, assets, thread } = this.deps;
    await jobs.mark(job.id, 'running');
    const document = await projects.document(job.projectId, job.request.revision);
    const entries = await Promise.all(
      assetsOf(document).map(async (asset) => [asset, await assets.get(asset)] as const),
    );
    const task: ThreadTask = { document, assets: Object.fromEntries(entries), request: job.request };
    const outcome = await this.inThread(job, thread, task);
    if (outcome?.kind === 'done')
      await jobs.finish(job.id, { ...outcome.result, bytes: Buffer.from(outcome.result.bytes) });
    if (outcome?.kind === 'failed') await jobs.mark(job.id, 'failed', { error: outcome.error });
  }

  /** The thread's last word; null when it was stopped on purpose. */
  private inThread(job: Job, thread: URL, task: ThreadTask): Promise<ThreadMessage | null> {
    return new Promise((resolve, reject) => {
      const worker = new Worker(thread, { workerData: task });
      const timer = setTimeout(
        () => end(() => reject(new Error('The job took too long and was stopped.'))),
        PATIENCE_MS,
      );
      const end = (settle: () => void) => {
        clearTimeout(timer);
        void worker.terminate();
        settle();
      };
      this.running = { id: job.id, stop: () => end(() => resolve(null)) };
      worker.on('message', (message: ThreadMessage) => {
        if (message.kind === 'progress') void this.deps.jobs.mark(job.id, 'running', { progress: message.progress });
        else end(() => resolve(message));
      });
      worker.on('error', (error) => end(() => reject(error)));
      worker.on('exit', () => end(() => reject(new Error('The job’s thread stopped without a result.'))));
    });
  }
}

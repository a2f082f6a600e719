// The queue in this process, over a real database and with a thread that does what each test needs.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyProject } from '../../core/index.ts';
import { openDatabase } from '../db/open.ts';
import { AssetStore } from '../stores/assets.ts';
import { JobStore } from '../stores/jobs.ts';
import { ProjectStore } from '../stores/projects.ts';
import type { JobResult } from './kind.ts';
import { JobRunner, type RunnerDeps } from './runner.ts';
import type { ThreadOutcome, ThreadTask } from './thread.ts';

const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
const file = join(folder, 'jobs.db');
let stores: Omit<RunnerDeps, 'pool'>;
let project: string;
let close: () => void;
beforeAll(async () => {
  const database = await openDatabase(file, resolve('server/migrations'));
  stores = { jobs: new JobStore(database), projects: new ProjectStore(database), assets: new AssetStore(database) };
  project = (await stores.projects.create(emptyProject('Jobs'))).id;
  close = database.close;
});
afterAll(() => {
  close();
  rmSync(folder, { recursive: true, force: true });
});

const DONE: ThreadOutcome<JobResult> = {
  ok: true,
  value: {
    fileName: 'x.stl',
    mime: 'model/stl',
    bytes: Uint8Array.of(1, 2, 3),
    report: { fileName: 'x.stl', format: 'stl', bytes: 3, ok: true, rows: [], ms: 1 },
  },
};
type Run = (task: ThreadTask, options: { signal: AbortSignal }) => Promise<ThreadOutcome<JobResult>>;

/** A queue whose threads do `run`. */
const queueOf = (run: Run): JobRunner =>
  new JobRunner({ ...stores, pool: { options: { maxThreads: 1 }, run } as unknown as RunnerDeps['pool'] });
const newJob = () => stores.jobs.create(project, 'export', { format: 'stl', lengths: 'units', revision: 1 });

async function ended(id: string) {
  for (let tries = 0; tries < 400; tries++) {
    const reply = await stores.jobs.reply(id);
    if (!['waiting', 'running'].includes(reply.state)) return reply;
    await new Promise((wait) => setTimeout(wait, 50));
  }
  throw new Error('The job does not end.');
}

/** Another process that holds the database. @returns when it has begun to */
function holdDatabase(ms: number): Promise<unknown> {
  const script = `
    const { createClient } = await import('@libsql/client');
    const hold = await createClient({ url: 'file:' + process.argv[1] }).transaction('write');
    console.log('held');
    setTimeout(() => hold.commit(), ${ms});`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', script, file], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((held) => child.stdout.once('data', held));
}

describe('the queue of this process', () => {
  it('carries a job out, and keeps its file', async () => {
    const job = await newJob();
    queueOf(async () => DONE).add(job);
    expect(await ended(job.id)).toMatchObject({ state: 'done', progress: 1, report: { fileName: 'x.stl' } });
    expect([...(await stores.jobs.file(job.id)).bytes]).toEqual([1, 2, 3]);
  });

  it('lives on while another process holds the database for longer than it waits', async () => {
    const job = await newJob();
    const queue = queueOf(async ({ progress }) => {
      await holdDatabase(6500);
      progress.postMessage(0.5);
      return DONE;
    });
    queue.add(job);
    expect(await ended(job.id)).toMatchObject({ state: 'done', report: { fileName: 'x.stl' } });
  });

  it('never starts a job that was cancelled before its thread did', async () => {
    const job = await newJob();
    let starts = 0;
    const queue = queueOf(async () => {
      starts++;
      return DONE;
    });
    queue.add(job);
    await queue.cancel(job.id);
    const next = await newJob();
    queue.add(next);
    expect((await ended(next.id)).state).toBe('done');
    expect([(await ended(job.id)).state, starts]).toEqual(['cancelled', 1]);
  });

  it('stops the thread of a job that is cancelled, and what comes of it all the same is not kept', async () => {
    const job = await newJob();
    let started: () => void = () => {};
    const isStarted = new Promise<void>((resolve) => {
      started = resolve;
    });
    let finish: () => void = () => {};
    const queue = queueOf((_task, { signal }) => {
      started();
      return new Promise((resolve) => {
        finish = () => resolve(DONE);
        signal.addEventListener('abort', finish);
      });
    });
    queue.add(job);
    await isStarted;
    await queue.cancel(job.id);
    const next = await newJob();
    queue.add(next);
    await new Promise((wait) => setTimeout(wait, 100));
    finish();
    expect((await ended(next.id)).state).toBe('done');
    expect((await stores.jobs.reply(job.id)).state).toBe('cancelled');
    await expect(stores.jobs.file(job.id)).rejects.toThrow(/no finished export/);
  });

  it('says of a thread that dies why, and goes on with the next job', async () => {
    const [job, next] = [await newJob(), await newJob()];
    const queue = queueOf(async () => {
      if ((await stores.jobs.reply(job.id)).state === 'running') throw new Error('The thread ran out of memory.');
      return DONE;
    });
    queue.add(job);
    queue.add(next);
    expect(await ended(job.id)).toMatchObject({ state: 'failed', error: { message: 'The thread ran out of memory.' } });
    expect((await ended(next.id)).state).toBe('done');
  });

  it('takes up what a stopped server left behind, and what is asked for again', async () => {
    const [running, failed] = [await newJob(), await newJob()];
    for (const { id } of [running, failed]) await stores.jobs.begin(id);
    await stores.jobs.fail(failed.id, { code: 'unexpected', message: 'No.' });
    const queue = queueOf(async () => DONE);
    await queue.resume();
    expect((await ended(running.id)).state).toBe('done');
    expect((await stores.jobs.reply(failed.id)).state).toBe('failed');
    expect(await stores.jobs.retry(failed.id)).toBe(true);
    queue.add(failed);
    expect(await ended(failed.id)).toMatchObject({ state: 'done', error: null });
    expect(await stores.jobs.retry(failed.id)).toBe(false);
  });
});

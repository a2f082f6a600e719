// pool.ts — files spread over worker threads; a thread that dies fails its file and is replaced.
import { Worker } from 'node:worker_threads';
import { failed, type ReportOf, type Task, work } from './work.ts';

/** Below this many files, starting threads costs more than they save. */
const THREADS_FROM = 8;

/** Reports in the order of `tasks`; `onDone` is called as each is finished. */
export async function workAll<T extends Task>(
  tasks: readonly T[],
  jobs: number,
  onDone: (report: ReportOf<T>) => void,
): Promise<ReportOf<T>[]> {
  const reports: ReportOf<T>[] = [];
  let next = 0;
  const drain = async (workOn: Work<T>) => {
    while (next < tasks.length) {
      const index = next++;
      const report = await workOn(tasks[index]!);
      reports[index] = report;
      onDone(report);
    }
  };
  const threads = tasks.length < THREADS_FROM ? 1 : Math.min(jobs, tasks.length);
  if (threads === 1) await drain(work);
  else await Promise.all(Array.from({ length: threads }, () => drainInThread(drain)));
  return reports;
}

type Work<T extends Task> = (task: T) => Promise<ReportOf<T>>;

async function drainInThread<T extends Task>(drain: (workOn: Work<T>) => Promise<void>): Promise<void> {
  let worker = startWorker();
  await drain(
    (task) =>
      new Promise<ReportOf<T>>((resolve) => {
        const died = (error: Error) => {
          worker = startWorker();
          resolve(failed(task, `The file could not be worked on: ${error.message}`));
        };
        worker.once('error', died);
        worker.once('message', (report: ReportOf<T>) => {
          worker.off('error', died);
          resolve(report);
        });
        worker.postMessage(task);
      }),
  );
  await worker.terminate();
}

const startWorker = () => new Worker(new URL('./cli-thread.js', import.meta.url));

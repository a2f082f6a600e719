// pool.ts — files spread over worker threads; a thread that dies fails its file and is replaced.
import { Worker } from 'node:worker_threads';
import { type BuildTask, buildFile, type FileReport, failedReport } from './build-file.ts';

/** Below this many files, starting threads costs more than they save. */
const THREADS_FROM = 8;

/** Reports in the order of `tasks`; `onDone` is called as each is finished. */
export async function buildAll(
  tasks: readonly BuildTask[],
  jobs: number,
  onDone: (report: FileReport) => void,
): Promise<FileReport[]> {
  const reports: FileReport[] = [];
  let next = 0;
  const drain = async (build: (task: BuildTask) => Promise<FileReport>) => {
    while (next < tasks.length) {
      const index = next++;
      const report = await build(tasks[index]!);
      reports[index] = report;
      onDone(report);
    }
  };
  const threads = tasks.length < THREADS_FROM ? 1 : Math.min(jobs, tasks.length);
  if (threads === 1) await drain(buildFile);
  else await Promise.all(Array.from({ length: threads }, () => drainInThread(drain)));
  return reports;
}

async function drainInThread(drain: (build: (task: BuildTask) => Promise<FileReport>) => Promise<void>): Promise<void> {
  let worker = startWorker();
  await drain(
    (task) =>
      new Promise<FileReport>((resolve) => {
        const died = (error: Error) => {
          worker = startWorker();
          resolve(failedReport(task, 'unexpected', `The file could not be worked on: ${error.message}`));
        };
        worker.once('error', died);
        worker.once('message', (report: FileReport) => {
          worker.off('error', died);
          resolve(report);
        });
        worker.postMessage(task);
      }),
  );
  await worker.terminate();
}

const startWorker = () => new Worker(new URL('./cli-thread.js', import.meta.url));

// thread.ts — a worker thread of the command line: one file after another.
import { parentPort } from 'node:worker_threads';
import { type BuildTask, buildFile } from './build-file.ts';

parentPort?.on('message', async (task: BuildTask) => parentPort?.postMessage(await buildFile(task)));

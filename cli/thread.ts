// thread.ts — a worker thread of the command line: one file after another.
import { parentPort } from 'node:worker_threads';
import { type Task, work } from './work.ts';

parentPort?.on('message', async (task: Task) => parentPort?.postMessage(await work(task)));

// thread.ts — the module that worker threads run: one task after another, each by its kind.
import type { MessagePort } from 'node:worker_threads';
import { GeometryError, type ProjectFile, readProjectFile, writeProjectFile } from '../../core/index.ts';
import { unpackFont } from '../../node/fonts.ts';
import { hashOf } from '../../node/reader.ts';
import { jobKind } from './index.ts';
import type { JobResult } from './kind.ts';

/** What a thread is handed. */
export interface ThreadTask {
  readonly kind: string;
  readonly task: unknown;
  /** Hears the share done. */
  readonly progress: MessagePort;
}

/** How a task ends: what can be expected to fail comes back as data, because a thrown error loses its code on the way. */
export type ThreadOutcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly error: { readonly code: string; readonly message: string } };

export default function job({ kind, task, progress }: ThreadTask): Promise<ThreadOutcome<JobResult>> {
  return outcomeOf(() => jobKind(kind).run(task, (share) => progress.postMessage(share)));
}

/** The OpenType font in a file of any kind. */
export function font(bytes: Uint8Array): Promise<ThreadOutcome<Uint8Array>> {
  return outcomeOf(() => unpackFont(bytes));
}

export function packProject(file: ProjectFile): Promise<ThreadOutcome<Uint8Array>> {
  return outcomeOf(async () => writeProjectFile(file));
}

export function unpackProject(bytes: Uint8Array): Promise<ThreadOutcome<ProjectFile>> {
  return outcomeOf(() => readProjectFile(bytes, hashOf));
}

async function outcomeOf<T>(act: () => Promise<T>): Promise<ThreadOutcome<T>> {
  try {
    return { ok: true, value: await act() };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return { ok: false, error: { code, message: error instanceof Error ? error.message : String(error) } };
  }
}

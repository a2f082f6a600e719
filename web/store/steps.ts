// steps.ts — what can be undone and done again, kept in this browser from one visit of a project to the next. Whatever goes wrong
// here costs the steps of earlier visits and nothing else.
import { createStore, del, get, set, type UseStore } from 'idb-keyval';
import { type History, type Project, startHistory } from '../../core/index.ts';
import { isSame } from './unsaved.ts';

/** Steps back that are kept. */
const MOST_STEPS = 50;
/** Projects whose steps are kept: those worked on last. */
const MOST_PROJECTS = 20;

/** Under this key, ids of projects, the one kept last at the end. */
const ORDER = 'order';

let database: UseStore | null = null;
const store = () => {
  if (typeof indexedDB === 'undefined') return null;
  database ??= createStore('steps of projects', 'steps');
  return database;
};

let writing: Promise<void> = Promise.resolve();

/** Settles when the steps are kept, or cannot be. */
export function keepSteps(id: string, { past, present, future }: History): Promise<void> {
  const kept = { past: past.slice(-MOST_STEPS), present, future: future.slice(0, MOST_STEPS) };
  writing = writing.then(() => write(id, kept)).catch(() => undefined);
  return writing;
}

async function write(id: string, steps: Omit<History, 'gesture'>): Promise<void> {
  const own = store();
  if (!own) return;
  // Documents share what did not change, and so does what is kept of them.
  await set(id, steps, own);
  const order = [...((await get<string[]>(ORDER, own)) ?? []).filter((other) => other !== id), id];
  await set(ORDER, order.slice(-MOST_PROJECTS), own);
  for (const old of order.slice(0, -MOST_PROJECTS)) await del(old, own);
}

/** The steps that led to a document; none where it came about elsewhere since. */
export async function stepsTo(id: string, document: Project): Promise<History> {
  const own = store();
  await writing;
  const kept = own && (await get<Omit<History, 'gesture'>>(id, own).catch(() => undefined));
  return kept && isSame(kept.present, document) ? { ...kept, gesture: null } : startHistory(document);
}

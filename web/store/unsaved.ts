// unsaved.ts — changes that the server does not have: kept in this browser until it has them, whether their project is left, the
// page closed or the browser ended. What was left behind is sent again and again by itself.
import { del, entries, set as put } from 'idb-keyval';
import { create } from 'zustand';
import type { Project } from '../../core/index.ts';
import { ApiError, api } from '../requests/api.ts';

export interface Unsaved {
  /** Of the project. */
  readonly id: string;
  /** The revision it was made from. */
  readonly base: number;
  readonly document: Project;
}

/** Why something that was left behind is not on the server. */
export type Hindrance = 'sending' | 'unreachable' | 'conflict' | 'deleted';

interface UnsavedState {
  /** What was left behind; what is open is not among it. */
  readonly left: readonly (Unsaved & { readonly because: Hindrance; readonly message: string })[];
}

export const useUnsaved = create<UnsavedState>(() => ({ left: [] }));
const { setState: set, getState: get } = useUnsaved;

const RETRY_DELAY_MS = 4000;
const hasDatabase = typeof indexedDB !== 'undefined';

/** What an earlier page left behind. Where nothing can be kept between pages, it is kept as long as this one lives. */
const restored: Promise<void> = restore();

async function restore(): Promise<void> {
  const kept = hasDatabase ? await entries<string, Unsaved>().catch(() => []) : [];
  set({ left: kept.map(([, unsaved]) => ({ ...unsaved, because: 'sending', message: '' })) });
}

/** Keeps what is open and could not be saved, in case the page ends. */
export async function remember(unsaved: Unsaved): Promise<void> {
  if (hasDatabase) await put(unsaved.id, unsaved).catch(() => undefined);
}

/** The server has it, or it is given up. */
export async function forget(id: string): Promise<void> {
  set({ left: get().left.filter((other) => other.id !== id) });
  if (hasDatabase) await del(id).catch(() => undefined);
}

/** Keeps what its project is left with; it goes on being sent. */
export async function leaveBehind(unsaved: Unsaved): Promise<void> {
  const others = get().left.filter(({ id }) => id !== unsaved.id);
  set({ left: [...others, { ...unsaved, because: 'sending', message: '' }] });
  await remember(unsaved);
  await sendLeft();
}

/** What was left behind of a project that is being opened again, and is its own business from now on. */
export async function takeUp(id: string): Promise<Unsaved | null> {
  await restored;
  const found = get().left.find((other) => other.id === id) ?? null;
  set({ left: get().left.filter((other) => other !== found) });
  return found;
}

let timer: ReturnType<typeof setTimeout> | undefined;
let sending: Promise<void> = Promise.resolve();

/** Sends what was left behind; resolves when each is on the server or it is known why not. */
export function sendLeft(): Promise<void> {
  clearTimeout(timer);
  sending = sending.then(async () => {
    await restored;
    for (const unsaved of get().left) if (unsaved.because !== 'deleted') await send(unsaved);
    if (get().left.some(({ because }) => because === 'unreachable')) timer = setTimeout(sendLeft, RETRY_DELAY_MS);
  });
  return sending;
}

async function send({ id, base, document }: Unsaved): Promise<void> {
  const hinder = (because: Hindrance, message: string) =>
    set({ left: get().left.map((other) => (other.id === id ? { ...other, because, message } : other)) });
  try {
    await api.saveProject(id, base, document);
    await forget(id);
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    if (error.current && isSame(error.current.document, document)) await forget(id);
    else if (error.current) hinder('conflict', error.message);
    else hinder(error.status === 404 ? 'deleted' : 'unreachable', error.message);
  }
}

/** Makes a project of its own of one that was deleted elsewhere meanwhile. */
export async function keepAsNew({ id, document }: Unsaved): Promise<void> {
  const made = await api.createProject(document.name);
  await api.saveProject(made.id, made.revision, document);
  await forget(id);
}

/** Whether two documents say the same, in whatever order: a save whose answer was lost is no conflict. */
export const isSame = (a: Project, b: Project): boolean => a === b || sorted(a) === sorted(b);

const sorted = (document: Project): string =>
  JSON.stringify(document, (_, value: unknown) =>
    value !== null && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );

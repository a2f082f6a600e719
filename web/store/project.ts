// project.ts — the open project: its document with undo, and keeping it saved. All changes go through `dispatch`.
import { create } from 'zustand';
import {
  type Command,
  GeometryError,
  type History,
  type Project,
  type ProjectReply,
  record,
  redo,
  undo,
} from '../../core/index.ts';
import { ApiError, api } from '../requests/api.ts';
import { keepSteps, stepsTo } from './steps.ts';
import { forget, isSame, leaveBehind, remember, sendLeft, takeUp, type Unsaved } from './unsaved.ts';

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'conflict' | 'failed';

interface ProjectState {
  readonly id: string | null;
  readonly isDemo: boolean;
  readonly history: History | null;
  /** The revision on the server that the document is based on. */
  readonly revision: number;
  readonly save: SaveState;
  readonly saveError: string | null;
  /** What someone else saved meanwhile, until a choice is made. */
  readonly conflict: ProjectReply | null;
  /** Why the last change was refused. */
  readonly refusal: string | null;
}

const EMPTY: ProjectState = {
  id: null,
  isDemo: false,
  history: null,
  revision: 0,
  save: 'saved',
  saveError: null,
  conflict: null,
  refusal: null,
};

/** Changes within this time are saved together. */
const SAVE_DELAY_MS = 500;
const RETRY_DELAY_MS = 4000;

export const useProject = create<ProjectState>(() => EMPTY);
const { setState: set, getState: get } = useProject;

/** The newest revision of a project, and what earlier visits left in this browser. */
export interface Opening {
  readonly reply: ProjectReply;
  /** Where it goes on from or, where others saved meanwhile, one side of a choice. */
  readonly unsaved: Unsaved | null;
  /** The steps that led to what is opened. */
  readonly history: History;
}

export async function fetchNewest(id: string): Promise<Opening> {
  await leaving;
  const reply = await api.project(id);
  const unsaved = await takeUp(id);
  return { reply, unsaved, history: await stepsTo(id, unsaved?.document ?? reply.document) };
}

export function openProject({ reply, unsaved, history }: Opening): void {
  const { id, revision, isDemo, document } = reply;
  const opened = { ...EMPTY, id, isDemo, revision, history };
  if (!unsaved || isSame(unsaved.document, document)) {
    set(opened);
    if (unsaved) void forget(id);
  } else if (unsaved.base === revision) {
    const past = history.past.length > 0 ? history.past : [document];
    set({ ...opened, history: { ...history, past }, save: 'unsaved' });
    scheduleSave(0);
  } else {
    set({ ...opened, revision: unsaved.base, save: 'conflict', conflict: reply });
  }
}

/** Leaves the project; what is not saved yet still goes to the server, now or when it can be reached again. */
export function closeProject(): void {
  const left = get();
  set(EMPTY);
  clearTimeout(timer);
  if (left.id && left.history) void keepSteps(left.id, left.history);
  leaving = finishSaving(left);
}

let leaving: Promise<void> = Promise.resolve();

/** Resolves when what was left behind is on the server, or it is known why not. */
export const allSaved = (): Promise<void> => leaving;

async function finishSaving({ id, history, revision, save }: ProjectState): Promise<void> {
  if (!id || !history || save === 'saved') return sendLeft();
  const made = await inFlight;
  if (made !== null && history.present === sending) return;
  await leaveBehind({ id, base: made ?? revision, document: history.present });
}

/** @param gesture key of the drag in progress, so that it undoes as one */
export function dispatch(command: Command, gesture: string | null = null): void {
  change((history) => record(history, command, gesture));
}

export const undoChange = () => change(undo);
export const redoChange = () => change(redo);

/** @param steps back, or forth where negative */
export function goBack(steps: number): void {
  change((history) => {
    let at = history;
    for (let i = 0; i < Math.abs(steps); i++) at = steps > 0 ? undo(at) : redo(at);
    return at;
  });
}

function change(act: (history: History) => History): void {
  const { history } = get();
  if (!history) return;
  try {
    const next = act(history);
    if (next === history) return;
    set({ history: next, save: get().save === 'conflict' ? 'conflict' : 'unsaved', refusal: null });
    scheduleSave(SAVE_DELAY_MS);
  } catch (error) {
    if (!(error instanceof GeometryError)) throw error;
    set({ refusal: error.message });
  }
}

let timer: ReturnType<typeof setTimeout> | undefined;
/** The save that is under way: resolves to the revision it made, or null. */
let inFlight: Promise<number | null> | null = null;
/** The document that was sent last. */
let sending: Project | null = null;

function scheduleSave(delay: number): void {
  clearTimeout(timer);
  timer = setTimeout(() => void saveNow(), delay);
}

/** Saves what is not saved yet; resolves when the server has it, or has refused it. */
export async function saveNow(): Promise<void> {
  clearTimeout(timer);
  while (inFlight) await inFlight;
  const { save } = get();
  if (save !== 'unsaved' && save !== 'failed') return;
  inFlight = send().finally(() => {
    inFlight = null;
  });
  await inFlight;
}

/** @returns the revision that the save made; null where it made none */
async function send(): Promise<number | null> {
  const { id, revision, history } = get();
  if (!id || !history) return null;
  const document = history.present;
  sending = document;
  void keepSteps(id, history);
  set({ save: 'saving' });
  try {
    const reply = await api.saveProject(id, revision, document);
    if (get().id === id) accepted(document, reply.revision);
    return reply.revision;
  } catch (error) {
    if (get().id !== id) return null;
    const current = error instanceof ApiError ? error.current : undefined;
    if (current && isSame(current.document, document)) {
      // It was saved before, and the answer was lost.
      accepted(document, current.revision);
      return current.revision;
    }
    void remember({ id, base: revision, document });
    if (current) {
      set({ save: 'conflict', conflict: current });
      return null;
    }
    set({ save: 'failed', saveError: error instanceof Error ? error.message : String(error) });
    scheduleSave(RETRY_DELAY_MS);
    return null;
  }
}

/** The server has `document` of the open project. */
function accepted(document: Project, revision: number): void {
  const { id, history } = get();
  const isNewest = history?.present === document;
  set({ revision, save: isNewest ? 'saved' : 'unsaved', saveError: null });
  if (!isNewest) scheduleSave(SAVE_DELAY_MS);
  void forget(id!);
}

/** Ends a conflict: `mine` is saved over the other version, `theirs` replaces mine (and can be undone). */
export function resolveConflict(choice: 'mine' | 'theirs'): void {
  const { conflict, history } = get();
  if (!conflict || !history) return;
  if (choice === 'mine') {
    set({ revision: conflict.revision, conflict: null, save: 'unsaved' });
    void saveNow();
    return;
  }
  const past = [...history.past, history.present];
  void forget(conflict.id);
  set({
    revision: conflict.revision,
    conflict: null,
    save: 'saved',
    history: { past, present: conflict.document, future: [], gesture: null },
  });
}

/** The open document. Only for parts of the page that are shown while one is open. */
export const useDocument = (): Project => useDocumentPart((document) => document);

/** Something of the open document; the component is drawn again only when that changes. */
export function useDocumentPart<T>(select: (document: Project) => T): T {
  return useProject((state) => {
    if (!state.history) throw new Error('There is no open project to show anything of.');
    return select(state.history.present);
  });
}

// A closing window must not take a change with it.
if (typeof window !== 'undefined') {
  window.addEventListener('beforeunload', (event) => {
    if (get().save === 'saved') return;
    void saveNow();
    event.preventDefault();
  });
}

// history.ts — undo and redo over commands. Projects share what did not change, so keeping them is cheap.
import { applyCommand, type Command } from './commands/index.ts';
import type { Project } from './schema.ts';

export interface History {
  readonly past: readonly Project[];
  readonly present: Project;
  readonly future: readonly Project[];
  /** Changes with the same key as the last one belong to one gesture and undo together; null ends the gesture. */
  readonly gesture: string | null;
}

const DEPTH = 200;

export function startHistory(present: Project): History {
  return { past: [], present, future: [], gesture: null };
}

/** @param gesture key of a drag in progress, null for a change that stands by itself */
export function record(history: History, command: Command, gesture: string | null = null): History {
  const present = applyCommand(history.present, command);
  const continues = gesture !== null && gesture === history.gesture;
  const past = continues ? history.past : [...history.past, history.present].slice(-DEPTH);
  return { past, present, future: [], gesture };
}

export function undo(history: History): History {
  const previous = history.past.at(-1);
  if (!previous) return history;
  return {
    past: history.past.slice(0, -1),
    present: previous,
    future: [history.present, ...history.future],
    gesture: null,
  };
}

export function redo(history: History): History {
  const [next, ...future] = history.future;
  if (!next) return history;
  return { past: [...history.past, history.present], present: next, future, gesture: null };
}

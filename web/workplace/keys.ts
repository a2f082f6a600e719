// keys.ts — what the keyboard does on the bench; the help dialog shows this very list.
import { useState } from 'react';
import { type HotkeyCallback, useHotkeys } from 'react-hotkeys-hook';
import { isTyping } from '../controls/typing.ts';
import { finishLine, takePointBack } from '../store/drawing.ts';
import { putDown, removeChosen } from '../store/outline.ts';
import { undoLast } from '../store/picture.ts';
import { redoChange, saveNow } from '../store/project.ts';
import { DIRECTIONS, type Direction, screen, useScreen } from '../store/screen.ts';
import { removeChosenWall } from '../store/walls.ts';

interface PageKey {
  /** As the hotkey package writes it. */
  readonly keys: string;
  /** As people write it. */
  readonly shown: string;
  readonly does: string;
  /** Whether it works in a control too: after a value was set, a box ticked or a bar dragged, that is where the focus is. */
  readonly isEverywhere?: boolean;
  readonly act: () => unknown;
}

const lookKey = (direction: Direction, i: number): PageKey => ({
  keys: `alt+${i + 1}`,
  shown: `Alt ${i + 1}`,
  does: i === 0 ? 'Look from three quarters, everything framed' : `Look straight from ${direction}`,
  act: () => screen.lookFrom(direction),
});

export const PAGE_KEYS: readonly PageKey[] = [
  { keys: 'mod+z', shown: 'Ctrl Z', does: 'Undo', isEverywhere: true, act: undoLast },
  { keys: 'mod+shift+z, mod+y', shown: 'Ctrl Shift Z', does: 'Redo', isEverywhere: true, act: redoChange },
  {
    keys: 'mod+s',
    shown: 'Ctrl S',
    does: 'Save at once (it saves by itself)',
    isEverywhere: true,
    act: () => void saveNow(),
  },
  { keys: 'e', shown: 'E', does: 'Show the edges of all faces', act: screen.toggleWire },
  { keys: 'v', shown: 'V', does: 'Flat, both, solid in turn', act: nextSplit },
  ...DIRECTIONS.map(lookKey),
  {
    keys: 'delete, backspace',
    shown: 'Del',
    does: 'Remove the chosen shapes or points, or take back the last point drawn',
    act: () => takePointBack() || removeChosenWall() || removeChosen(),
  },
  { keys: 'enter', shown: 'Enter', does: 'End the line that is being drawn', act: () => finishLine() },
  { keys: 'escape', shown: 'Esc', does: 'Select nothing, stop pointing, put the tool down', act: clear },
];

const EVERYWHERE = PAGE_KEYS.filter(({ isEverywhere }) => isEverywhere);
const PLAIN = PAGE_KEYS.filter(({ isEverywhere }) => !isEverywhere);
const BY_KEYS = new Map(PAGE_KEYS.flatMap((key) => key.keys.split(', ').map((keys) => [keys, key] as const)));

const shownKeys = (keys: readonly PageKey[]) => keys.map((key) => key.keys).join(', ');

function keyOf({ mod, alt, shift, keys }: Parameters<HotkeyCallback>[1]): PageKey | undefined {
  return BY_KEYS.get([mod && 'mod', alt && 'alt', shift && 'shift', keys?.join('+')].filter(Boolean).join('+'));
}

/** Keys that belong to the control in focus. */
export const CONTROL_KEYS: readonly (readonly [shown: string, does: string])[] = [
  ['↑ ↓', 'Step a value; with Shift ten steps, with Alt a tenth'],
  ['Drag sideways', 'Change a value; with Shift finely'],
  ['↑ ↓ on a bar', 'Change a layer’s depth or base in the stack'],
  ['Shift click', 'Select several layers'],
];

function nextSplit(): void {
  const { split } = useScreen.getState();
  if (split === 0) screen.divide();
  else screen.setSplit(split < 1 ? 1 : 0);
}

function clear(): void {
  if (finishLine()) return;
  putDown();
  screen.select([]);
  screen.pointAt(null);
}

/** Installs the keys; returns the state of the help dialog that `?` opens. */
export function useKeys() {
  const [isOpen, setOpen] = useState(false);
  useHotkeys(
    shownKeys(EVERYWHERE),
    (_event, hotkey) => void keyOf(hotkey)?.act(),
    // A text that is being typed has an undo of its own.
    { enableOnFormTags: true, preventDefault: () => !isTyping(), ignoreEventWhen: () => isTyping(), enabled: !isOpen },
    [],
  );
  useHotkeys(
    shownKeys(PLAIN),
    (event, hotkey) => {
      if (keyOf(hotkey)?.act() === true) event.preventDefault();
    },
    // A dialog has its own Escape; Enter presses the button in focus unless there is a line to end.
    { preventDefault: (_event, { keys }) => keys?.join() !== 'enter', enabled: !isOpen },
    [],
  );
  // By the character, because the key it is on differs from layout to layout.
  useHotkeys('?', () => setOpen(true), { useKey: true, ignoreModifiers: true }, []);
  return { isOpen, open: () => setOpen(true), close: () => setOpen(false) };
}

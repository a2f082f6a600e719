// keys.ts — what the keyboard does on the bench; the help dialog shows this very list.
import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { finishLine, takePointBack } from '../store/drawing.ts';
import { putDown, removeChosen } from '../store/outline.ts';
import { undoLast } from '../store/picture.ts';
import { redoChange, saveNow } from '../store/project.ts';
import { DIRECTIONS, type Direction, screen, useScreen } from '../store/screen.ts';
import { removeChosenWall } from '../store/walls.ts';

interface BenchKey {
  /** As the hotkey package writes it. */
  readonly keys: string;
  /** As people write it. */
  readonly shown: string;
  readonly does: string;
  readonly act: () => unknown;
}

const lookKey = (direction: Direction, i: number): BenchKey => ({
  keys: `alt+${i + 1}`,
  shown: `Alt ${i + 1}`,
  does: i === 0 ? 'Look from three quarters, everything framed' : `Look straight from ${direction}`,
  act: () => screen.lookFrom(direction),
});

export const BENCH_KEYS: readonly BenchKey[] = [
  { keys: 'mod+z', shown: 'Ctrl Z', does: 'Undo', act: undoLast },
  { keys: 'mod+shift+z, mod+y', shown: 'Ctrl Shift Z', does: 'Redo', act: redoChange },
  { keys: 'mod+s', shown: 'Ctrl S', does: 'Save at once (it saves by itself)', act: () => void saveNow() },
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
export function useBenchKeys() {
  const [isOpen, setOpen] = useState(false);
  const all = BENCH_KEYS.map((key) => key.keys).join(', ');
  const byKeys = useMemo(
    () => new Map(BENCH_KEYS.flatMap((key) => key.keys.split(', ').map((keys) => [keys, key] as const))),
    [],
  );
  useHotkeys(
    all,
    (event, hotkey) => {
      const parts = [hotkey.mod && 'mod', hotkey.alt && 'alt', hotkey.shift && 'shift', hotkey.keys?.join('+')];
      if (byKeys.get(parts.filter(Boolean).join('+'))?.act() === true) event.preventDefault();
    },
    // A dialog has its own Escape; Enter presses the button in focus unless there is a line to end.
    { preventDefault: (_event, { keys }) => keys?.join() !== 'enter', enabled: !isOpen },
    [byKeys],
  );
  // By the character, because the key it is on differs from layout to layout.
  useHotkeys('?', () => setOpen(true), { useKey: true, ignoreModifiers: true }, []);
  return { isOpen, open: () => setOpen(true), close: () => setOpen(false) };
}

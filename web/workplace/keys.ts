// keys.ts — what the keyboard does at every station; the help dialog shows this very list.
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { actOf, type Key, pressedOf } from '../controls/keys.ts';
import { isTextField, isTyping } from '../controls/typing.ts';
import type { Station } from '../stations/kind.ts';
import { finishLine } from '../store/drawing.ts';
import { chooseIfFree } from '../store/layers.ts';
import { putDown } from '../store/outline.ts';
import { undoLast } from '../store/picture.ts';
import { redoChange, saveNow } from '../store/project.ts';
import { DIRECTIONS, type Direction, screen, useScreen } from '../store/screen.ts';

const lookKey = (direction: Direction, i: number): Key => ({
  keys: `alt+${i + 1}`,
  shown: `Alt ${i + 1}`,
  does: i === 0 ? 'Look from three quarters, everything framed' : `Look straight from the ${direction}`,
  act: () => screen.lookFrom(direction),
});

export const PAGE_KEYS: readonly Key[] = [
  { keys: 'mod+z', shown: 'Ctrl Z', does: 'Undo', isEverywhere: true, act: undoLast },
  { keys: 'mod+shift+z, mod+y', shown: 'Ctrl Shift Z', does: 'Redo', isEverywhere: true, act: redoChange },
  {
    keys: 'mod+s',
    shown: 'Ctrl S',
    does: 'Save at once (it saves by itself)',
    isEverywhere: true,
    act: () => void saveNow(),
  },
  { keys: 'p', shown: 'P', does: 'Show everything in plaster', act: screen.togglePlaster },
  { keys: 'e', shown: 'E', does: 'Show the edges of all faces', act: screen.toggleWire },
  { keys: 'v', shown: 'V', does: 'Flat, both, solid in turn', act: nextSplit },
  { keys: 'arrowup', shown: '↑', does: 'Choose the layer above', act: () => chooseIfFree(1) },
  { keys: 'arrowdown', shown: '↓', does: 'Choose the layer below', act: () => chooseIfFree(-1) },
  ...DIRECTIONS.map(lookKey),
  { keys: 'escape', shown: 'Esc', does: 'Select nothing, stop pointing, put the tool down', act: clear },
];

/** Keys that belong to the control in focus. */
export const CONTROL_KEYS: readonly (readonly [shown: string, does: string])[] = [
  ['↑ ↓', 'Step a value; with Shift ten steps, with Alt a tenth'],
  ['Drag sideways', 'Change a value; with Shift finely'],
  ['Alt while dragging shapes', 'Past sides and middles that they would come to'],
  ['↑ ↓ on a bar', 'Change a layer’s depth or base in the stack'],
  ['Shift click', 'In the list: all from the layer chosen last to this one; in the view: one more'],
  ['Ctrl click', 'Choose one layer more, or one less'],
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

/** A dialog has its own Escape, and what is behind it is not meant. */
const isInDialog = () => document.activeElement?.closest('[role="dialog"]') != null;

/** Installs the keys of the page and of a station; returns the state of the help dialog that `?` opens. */
export function useKeys(station: Station) {
  const [isOpen, setOpen] = useState(false);
  const all = [...PAGE_KEYS, ...station.keys];
  const everywhere = all.filter(({ isEverywhere }) => isEverywhere);
  const elsewhere = all.filter(({ isEverywhere }) => !isEverywhere);
  const act = actOf(all);
  useHotkeys(
    pressedOf(everywhere),
    act,
    // A text that is being typed has an undo of its own.
    {
      enableOnFormTags: true,
      preventDefault: () => !isTyping(),
      ignoreEventWhen: () => isTyping() || isInDialog(),
      enabled: !isOpen,
    },
    [station],
  );
  useHotkeys(
    pressedOf(elsewhere),
    act,
    // Enter presses the button in focus unless there is a line to end.
    {
      ignoreEventWhen: isInDialog,
      preventDefault: (_event, { keys }) => !['enter', 'arrowup', 'arrowdown'].includes(keys?.join() ?? ''),
      enabled: !isOpen,
    },
    [station],
  );
  // By the character, because the key it is on differs from layout to layout. In a field of a number it is no part of one.
  useHotkeys(
    '?',
    () => setOpen(true),
    {
      useKey: true,
      ignoreModifiers: true,
      enableOnFormTags: true,
      preventDefault: true,
      ignoreEventWhen: () => isTextField() && document.activeElement?.role !== 'spinbutton',
    },
    [],
  );
  return { isOpen, open: () => setOpen(true), close: () => setOpen(false) };
}

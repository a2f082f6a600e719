// keys.ts — a key as one entry: what is pressed, what people read, what it does.
import type { HotkeyCallback } from 'react-hotkeys-hook';

export interface Key {
  /** As the hotkey package has it after reading: `arrowup`, not `up`. */
  readonly keys: string;
  /** As people write it. */
  readonly shown: string;
  readonly does: string;
  /** Whether it works in a control too: after a value was set, a box ticked or a bar dragged, that is where the focus is. */
  readonly isEverywhere?: boolean;
  readonly act: () => unknown;
}

/** All that can be pressed, as the hotkey package takes it. */
export const pressedOf = (keys: readonly Key[]): string => keys.map((key) => key.keys).join(', ');

/** Acts for the key that was pressed, of those listed later where several are alike. */
export function actOf(keys: readonly Key[]): HotkeyCallback {
  const byKeys = new Map(keys.flatMap((key) => key.keys.split(', ').map((each) => [each, key] as const)));
  return (event, { mod, alt, shift, keys: pressed }) => {
    const name = [mod && 'mod', alt && 'alt', shift && 'shift', pressed?.join('+')].filter(Boolean).join('+');
    if (byKeys.get(name)?.act() === true) event.preventDefault();
  };
}

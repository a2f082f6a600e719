// keys.ts — a key as one entry: what is pressed, what people read, what it does.

export interface Key {
  /** As the hotkey package writes it. */
  readonly keys: string;
  /** As people write it. */
  readonly shown: string;
  readonly does: string;
  /** Whether it works in a control too: after a value was set, a box ticked or a bar dragged, that is where the focus is. */
  readonly isEverywhere?: boolean;
  readonly act: () => unknown;
}

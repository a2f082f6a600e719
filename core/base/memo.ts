// memo.ts — results kept by the content of what they depend on, as many as fit into a number of bytes.
import { bytesOf } from './bytes.ts';

interface Entry {
  readonly value: unknown;
  readonly bytes: number;
  /** Takes it out of the stage that it belongs to. */
  readonly forget: () => void;
}

/** What several memos may hold together; what was used longest ago goes first, whichever memo it is in. */
export class Budget {
  private readonly entries = new Set<Entry>();
  private readonly limit: number;
  private held = 0;

  /** @param limit in bytes */
  constructor(limit: number) {
    this.limit = limit;
  }

  /** Bytes of all that is kept. */
  get bytes(): number {
    return this.held;
  }

  /** The newest stays, however large it is. */
  add(entry: Entry): void {
    this.entries.add(entry);
    this.held += entry.bytes;
    for (const oldest of this.entries) {
      if (this.held <= this.limit || oldest === entry) return;
      this.remove(oldest);
      oldest.forget();
    }
  }

  touch(entry: Entry): void {
    this.entries.delete(entry);
    this.entries.add(entry);
  }

  remove(entry: Entry): void {
    if (this.entries.delete(entry)) this.held -= entry.bytes;
  }
}

export class Memo<T> {
  private readonly entries = new Map<string, Entry>();
  private readonly budget: Budget;

  constructor(budget: Budget) {
    this.budget = budget;
  }

  has(key: string): boolean {
    return this.entries.has(key);
  }

  /** The value for `key`, made by `make` when it is not there. A throw is not remembered. */
  get(key: string, make: () => T): T {
    const known = this.entries.get(key);
    if (known) {
      this.budget.touch(known);
      return known.value as T;
    }
    const value = make();
    this.set(key, value);
    return value;
  }

  set(key: string, value: T): void {
    const before = this.entries.get(key);
    if (before) this.budget.remove(before);
    const entry: Entry = {
      value,
      bytes: bytesOf(key) + bytesOf(value),
      forget: () => {
        // A newer entry may stand under the same key.
        if (this.entries.get(key) === entry) this.entries.delete(key);
      },
    };
    this.entries.set(key, entry);
    this.budget.add(entry);
  }
}

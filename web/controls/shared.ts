// shared.ts — a value that several things have, or that differs between them.

export interface Shared<V> {
  /** The first one's where they differ. */
  readonly value: V;
  readonly isMixed: boolean;
}

/** What stands in place of a value that differs. */
export const MIXED = 'mixed';

// kind.ts — what a station says of itself. All of them are listed in index.ts, in the order of the route.
import type { ComponentType } from 'react';
import type { Key } from '../controls/keys.ts';

/** Whether what a station makes is that of the document as it stands. */
export type Freshness = 'current' | 'behind' | 'empty';

/** What lies in the middle of the work. */
export interface Desk {
  /** Whether a divide stands between flat and solid; else all is flat. */
  readonly isDivided: boolean;
  readonly flat: ComponentType;
  /** Tools of its own, beside those that every desk has. */
  readonly tools: ComponentType | null;
}

export interface Station {
  /** Last part of its address. */
  readonly path: string;
  readonly title: string;
  /** On the right. */
  readonly panel: ComponentType;
  readonly desk: Desk;
  /** Keys that only work here; the help dialog lists them. */
  readonly keys: readonly Key[];
  /** Whether its panel tells what came of files that were dropped; else the work says it. */
  readonly listsArrivals?: boolean;
  /** A hook, for the mark on the route; a station without one is no stop on it. */
  readonly useFreshness?: () => Freshness;
}

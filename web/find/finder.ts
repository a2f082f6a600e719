// finder.ts — everything that can be done or gone to, found by typing: who offers what, and whether the search is open.
import { useEffect } from 'react';
import { create } from 'zustand';

export interface Findable {
  /** Told apart by this; the same from one opening to the next. */
  readonly id: string;
  readonly words: string;
  /** What kind of thing it is, said beside it. */
  readonly kind: string;
  /** Keys that do the same, as people write them. */
  readonly keys?: string | undefined;
  readonly act: () => unknown;
}

interface FinderState {
  readonly isOpen: boolean;
}

export const useFinder = create<FinderState>(() => ({ isOpen: false }));

/** What can be found, by who offers it; asked for when something is looked for. */
const offers = new Map<string, () => readonly Findable[]>();

export const offered = (): readonly Findable[] => [...offers.values()].flatMap((offer) => offer());

/** Lets things be found while a component is shown. */
export function useOffer(by: string, offer: () => readonly Findable[]): void {
  useEffect(() => {
    offers.set(by, offer);
    return () => {
      offers.delete(by);
    };
  });
}

export const openFinder = () => useFinder.setState({ isOpen: true });
export const closeFinder = () => useFinder.setState({ isOpen: false });

/** Small letters without accents. */
const plain = (text: string) => text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();

/**
 * Those that have every word of what is typed, wherever in them it begins a word or not; those that are called just so first, then
 * those that begin with it, then those of which it begins a word, and as they came among equals.
 */
export function matching(all: readonly Findable[], typed: string): readonly Findable[] {
  const wanted = plain(typed).split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return all;
  const ranked = all.flatMap((each) => {
    const text = plain(`${each.words} ${each.kind}`);
    if (!wanted.every((word) => text.includes(word))) return [];
    const isIt = plain(each.words) === wanted.join(' ');
    const place = isIt ? 0 : text.startsWith(wanted[0]!) ? 1 : text.includes(` ${wanted[0]!}`) ? 2 : 3;
    return [{ each, place }];
  });
  return ranked.sort((a, b) => a.place - b.place).map(({ each }) => each);
}

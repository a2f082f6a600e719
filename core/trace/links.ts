// links.ts — lines between nodes put together to longer ones where two go on into each other through a node.

export interface Link {
  /** Nodes at its ends; −1 for one that closes on itself. */
  readonly from: number;
  readonly to: number;
}

export interface LinkEnd<T extends Link> {
  readonly link: T;
  readonly isStart: boolean;
}

/** Two ends that go on into each other. */
export type Through<T extends Link> = readonly [LinkEnd<T>, LinkEnd<T>];

export interface Track<T extends Link> {
  readonly steps: readonly Step<T>[];
  readonly isClosed: boolean;
}

interface Step<T extends Link> {
  readonly link: T;
  readonly isForward: boolean;
}

/** All ends at each of `count` nodes. */
export function endsAt<T extends Link>(links: readonly T[], count: number): LinkEnd<T>[][] {
  const ends: LinkEnd<T>[][] = Array.from({ length: count }, () => []);
  for (const link of links) {
    if (link.from < 0) continue;
    ends[link.from]!.push({ link, isStart: true });
    ends[link.to]!.push({ link, isStart: false });
  }
  return ends;
}

/** The node that a step arrives at. */
export const arrival = <T extends Link>({ link, isForward }: Step<T>) => (isForward ? link.to : link.from);
export const departure = <T extends Link>({ link, isForward }: Step<T>) => (isForward ? link.from : link.to);

/** @param throughs the pairs at each node */
export function tracksOf<T extends Link>(
  links: readonly T[],
  throughs: readonly (readonly Through<T>[])[],
): Track<T>[] {
  const used = new Set<T>();
  const next = (step: Step<T>): Step<T> | null => {
    for (const pair of throughs[arrival(step)] ?? []) {
      const own = pair.findIndex((end) => end.link === step.link && end.isStart !== step.isForward);
      if (own >= 0) return { link: pair[1 - own]!.link, isForward: pair[1 - own]!.isStart };
    }
    return null;
  };
  const tracks: Track<T>[] = [];
  for (const link of links) {
    if (used.has(link)) continue;
    // Back to where the track begins, or all round.
    let first: Step<T> = { link, isForward: false };
    let isClosed = link.from < 0;
    for (let before = isClosed ? null : next(first); before; before = next(first)) {
      if (before.link === link && !before.isForward) {
        isClosed = true;
        break;
      }
      first = before;
    }
    first = isClosed ? { link, isForward: true } : { link: first.link, isForward: !first.isForward };
    const steps = [first];
    used.add(first.link);
    for (
      let after = isClosed && link.from < 0 ? null : next(first);
      after && !used.has(after.link);
      after = next(after)
    ) {
      steps.push(after);
      used.add(after.link);
    }
    tracks.push({ steps, isClosed });
  }
  return tracks;
}

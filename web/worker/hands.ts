// hands.ts — the workers that the geometry worker shares long work with. Started when first needed; they end with it.
import * as Comlink from 'comlink';
import type { Outcome } from './outcome.ts';
import type { SolidApi } from './solid.worker.ts';

type Hand = Comlink.Remote<SolidApi>;

/** One processor is left to the page. */
const MOST_HANDS = Math.min(6, Math.max(1, (navigator.hardwareConcurrency || 2) - 1));

const free: Hand[] = [];
let started = 0;
const waiting: ((hand: Hand) => void)[] = [];

/** Calls some hand as soon as one is free. */
export async function withHand<T>(call: (hand: Hand) => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const hand = free.pop() ?? (started < MOST_HANDS ? start() : await new Promise<Hand>((give) => waiting.push(give)));
  try {
    return await call(hand);
  } finally {
    const next = waiting.shift();
    if (next) next(hand);
    else free.push(hand);
  }
}

function start(): Hand {
  started++;
  return Comlink.wrap<SolidApi>(
    new Worker(new URL('./solid.worker.ts', import.meta.url), { type: 'module', name: 'solid' }),
  );
}

// given.ts — rules that do not look at the layers: a spread by chance that is the same every time, and values typed one by one.
import { z } from 'zod';
import { hashOf } from '../base/hash.ts';
import { height } from '../base/quantities.ts';
import type { RuleKind } from './kind.ts';

const SpreadSchema = z.object({
  kind: z.literal('spread'),
  from: height(),
  to: height(),
  seed: z.int().min(0).max(1e9),
});
const ListSchema = z.object({ kind: z.literal('list'), values: z.array(height()).min(1).max(1000) });

/** Evenly distributed between two values, by the seed and the layer alone: more layers leave those of others as they are. */
export const spread = {
  kind: 'spread',
  schema: SpreadSchema,
  word: 'chance',
  start: (wishes) => ({ kind: 'spread', ...wishes, seed: 1 }),
  values: ({ from, to, seed }, subjects) => subjects.map(({ id }) => from + (to - from) * share(`${seed} ${id}`)),
} as const satisfies RuleKind<z.infer<typeof SpreadSchema>>;

/** 0 … 1: keys that are nearly alike give shares that are not, by the finalizer of MurmurHash3 (Appleby). */
function share(key: string): number {
  let h = Number.parseInt(hashOf(key).slice(0, 8), 16);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 0xffffffff;
}

/** In the order of the stack, from the first again after the last. */
export const list = {
  kind: 'list',
  schema: ListSchema,
  word: 'a list',
  start: ({ from, to }) => ({ kind: 'list', values: [from, to] }),
  values: ({ values }, subjects) => subjects.map((_, i) => values[i % values.length]!),
} as const satisfies RuleKind<z.infer<typeof ListSchema>>;

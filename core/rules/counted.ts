// counted.ts — rules that count: each level a step more than the one before. With a step as large as the first value, 1 : 2 : 3 …
import { z } from 'zod';
import { height } from '../base/quantities.ts';
import type { RuleKind, RuleStart } from './kind.ts';

const OrderSchema = z.object({ kind: z.literal('order'), from: height(), step: height() });
const ContainmentSchema = z.object({ kind: z.literal('containment'), from: height(), step: height() });

const started = ({ from, to }: RuleStart) => ({ from, step: to - from });

/** Each above all that it overlaps. */
export const order = {
  kind: 'order',
  schema: OrderSchema,
  word: 'order',
  start: (wishes) => ({ kind: 'order', ...started(wishes) }),
  values: ({ from, step }, subjects) => subjects.map(({ level }) => from + step * level),
} as const satisfies RuleKind<z.infer<typeof OrderSchema>>;

/** Each above all that it lies within. */
export const containment = {
  kind: 'containment',
  schema: ContainmentSchema,
  word: 'containment',
  start: (wishes) => ({ kind: 'containment', ...started(wishes) }),
  values: ({ from, step }, subjects) => subjects.map(({ nesting }) => from + step * nesting),
} as const satisfies RuleKind<z.infer<typeof ContainmentSchema>>;

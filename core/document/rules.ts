// rules.ts — values of many layers computed from something they have, as data of the document.
import { z } from 'zod';
import { height } from '../base/quantities.ts';
import { RuleBySchema } from '../rules/index.ts';

/** What of a layer a rule gives: how deep it is, where it begins above the sheet, how far in its edge reaches. */
export const RULED = ['depth', 'base', 'reach'] as const;

export const RuleSchema = z.object({
  id: z.string().min(1).max(200),
  what: z.enum(RULED),
  by: RuleBySchema,
  /**
   * What it gave each of its layers. A layer that has another value by now differs from the rule on purpose, and can come back to it.
   */
  gave: z.array(z.object({ layer: z.string().min(1).max(200), value: height() })).max(1000),
});
export type Rule = z.infer<typeof RuleSchema>;
export type Ruled = Rule['what'];

export const RulesSchema = z.array(RuleSchema).max(40);

// index.ts — every kind of rule.
import { z } from 'zod';
import { kindNamed, schemasOf } from '../base/kinds.ts';
import { containment, order } from './counted.ts';
import { list, spread } from './given.ts';
import type { RuleKind, Subject } from './kind.ts';
import { along, area, distance, lightness } from './measured.ts';

export const RULE_KINDS = [order, containment, lightness, area, distance, along, spread, list] as const;

export const RuleBySchema = z.discriminatedUnion('kind', schemasOf(RULE_KINDS));
export type RuleBy = z.infer<typeof RuleBySchema>;
export type RuleKindName = RuleBy['kind'];

/** The kind of some settings. Settings go to the kind they name, so that each sees only its own. */
export function ruleKind(kind: RuleKindName): RuleKind<RuleBy> {
  return kindNamed(RULE_KINDS, 'kind', kind);
}

/** Digits of values: what is typed is met again, and not its neighbour in binary. */
const DIGITS = 9;

/** A value for each subject. @param subjects in the order of the stack, the lowest first */
export const ruleValues = (by: RuleBy, subjects: readonly Subject[]): number[] =>
  ruleKind(by.kind)
    .values(by, subjects)
    .map((value) => Number(value.toPrecision(DIGITS)));

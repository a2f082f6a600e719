// kind.ts — what a kind of rule is: how values of many layers follow from something they have. Each has an entry in a file here and a
// line in index.ts; menus, sentences and the command line follow from that.
import type { z } from 'zod';

/** A layer as rules see it. Lengths in project units, y up. */
export interface Subject {
  readonly id: string;
  /** OKLab lightness of its colour, 0 … 1. */
  readonly lightness: number;
  /** Of what it covers of the sheet. */
  readonly area: number;
  /** Middle of that area. */
  readonly centre: readonly [x: number, y: number];
  /** How many others it rests on, one upon the other. */
  readonly level: number;
  /** How many others it lies within. */
  readonly nesting: number;
}

/** Values to begin with. */
export interface RuleStart {
  readonly from: number;
  readonly to: number;
}

export interface RuleKind<S extends { readonly kind: string }> {
  readonly kind: S['kind'];
  /** Its lengths are those that are declared by `base/quantities.ts`. */
  readonly schema: z.ZodType<S>;
  /** What a menu calls it: “by …”. */
  readonly word: string;
  start(start: RuleStart): S;
  /** One for each subject, which come in the order of the stack, the lowest first. */
  values(settings: S, subjects: readonly Subject[]): number[];
}

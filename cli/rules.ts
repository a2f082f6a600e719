// rules.ts — rules as words of the command line: `lightness:1..6`, `order:2+1.5`, `along:1..6@90`, `list:2,3,5`.
import { RULE_KINDS, type RuleBy, type Ruled, type RuleKindName, ruleKind } from '../core/index.ts';
import { choice, UsageError } from './words.ts';

export interface RuleWish {
  readonly what: Ruled;
  readonly by: RuleBy;
}

/** Where nothing is said of a first value, bases begin on the sheet and all else with the step itself: 1 : 2 : 3 … */
const FIRST_BASE = 0;

/** @param text of the option `--WHAT-by` @throws {UsageError} */
export function ruleFrom(what: Ruled, text: string | undefined): RuleWish | undefined {
  if (text === undefined) return undefined;
  const name = `${what}-by`;
  const [word = '', settings = ''] = text.split(/:(.*)/s);
  const kind = choice<RuleKindName>(
    name,
    word,
    RULE_KINDS.map((each) => each.kind),
  )!;
  return { what, by: byFrom(name, kind, settings, what === 'base') };
}

function byFrom(name: string, kind: RuleKindName, settings: string, isBase: boolean): RuleBy {
  if (kind === 'list') return { kind, values: numbersIn(name, settings, ',', `${kind}:2,3,5`) };
  if (kind === 'order' || kind === 'containment') {
    const numbers = numbersIn(name, settings, '+', `${kind}:1 or ${kind}:2+1`);
    const [first, step] = numbers.length === 1 ? [isBase ? FIRST_BASE : numbers[0]!, numbers[0]!] : pair(numbers);
    if (numbers.length > 2) throw misread(name, settings, `${kind}:2+1`);
    return { kind, from: first, step };
  }
  const [range = '', more] = settings.split('@');
  const ends = numbersIn(name, range, '..', `${kind}:1..6`);
  if (ends.length !== 2) throw misread(name, settings, `${kind}:1..6`);
  const [from, to] = pair(ends);
  const by = ruleKind(kind).start({ from, to });
  if (more === undefined) return by;
  if (by.kind === 'distance') {
    const at = numbersIn(name, more, ',', 'distance:1..6@0,20');
    if (at.length !== 2) throw misread(name, settings, 'distance:1..6@0,20');
    return { ...by, at: pair(at) };
  }
  if (by.kind === 'along') return { ...by, towardsDeg: numbersIn(name, more, ',', 'along:1..6@90')[0]! };
  if (by.kind === 'spread') return { ...by, seed: numbersIn(name, more, ',', 'spread:1..6@7')[0]! };
  throw misread(name, settings, `${kind}:1..6`);
}

const pair = (numbers: readonly number[]): [number, number] => [numbers[0]!, numbers[1]!];

function numbersIn(name: string, text: string, between: string, example: string): number[] {
  const words = text.split(between);
  const numbers = words.map(Number);
  if (words.some((word) => word.trim() === '') || !numbers.every(Number.isFinite)) throw misread(name, text, example);
  return numbers;
}

const misread = (name: string, text: string, example: string) =>
  new UsageError(`--${name} has “${text}”, which says no values; write them like ${example}`);

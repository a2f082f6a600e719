// words.ts — words of the command line taken for what they say: numbers, choices, and what was meant by a mistyped one.
import { closest, distance } from 'fastest-levenshtein';

/** What was typed makes no sense; one line says why. */
export class UsageError extends Error {}

/** Words that differ by more letters than this were not meant. */
const MOST_WRONG = 3;

/** “; did you mean …?” where one of the known words is near. */
export function meant(word: string, known: readonly string[]): string {
  const nearest = known.length > 0 ? closest(word, known) : '';
  return nearest && distance(word, nearest) <= MOST_WRONG ? `; did you mean ${nearest}?` : '';
}

export function numberFrom(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new UsageError(`--${name} needs a number, not “${text}”`);
  return value;
}

export function choice<T extends string>(
  name: string,
  value: string | undefined,
  choices: readonly T[],
): T | undefined {
  if (value === undefined) return undefined;
  const found = choices.find((candidate) => candidate === value);
  if (!found) {
    throw new UsageError(`--${name} is “${value}”; it can be ${choices.join(', ')}${meant(value, choices)}`);
  }
  return found;
}

export function positive(name: string, value: number): number {
  if (!(value > 0 && value <= 1e6))
    throw new UsageError(`--${name} must be more than 0 and at most 1000000, not ${value}`);
  return value;
}

export const optionalPositive = (name: string, value: number | undefined) =>
  value === undefined ? undefined : positive(name, value);

export function notNegative(name: string, value: number): number {
  if (!(value >= 0 && value <= 1e6)) throw new UsageError(`--${name} must be between 0 and 1000000, not ${value}`);
  return value;
}

export const notNegativeOrNull = (name: string, value: number | null | undefined) =>
  value === undefined || value === null ? null : notNegative(name, value);

export function within(name: string, value: number, least: number, most: number): number {
  if (!(value >= least && value <= most))
    throw new UsageError(`--${name} must be between ${least} and ${most}, not ${value}`);
  return value;
}

export function whole(name: string, value: number, least: number, most: number): number {
  if (!(Number.isInteger(value) && value >= least && value <= most)) {
    throw new UsageError(`--${name} must be a whole number from ${least} to ${most}, not ${value}`);
  }
  return value;
}

// format.ts — numbers as the interface writes them: one way for all of them.

/** Decimals of numbers from a hundredth on: lengths on paper, in metal and on a screen need no more. */
const MOST_DECIMALS = 3;
/** Digits of numbers with a fraction; whole numbers keep all of theirs. */
const DIGITS = 5;
/** Digits of numbers below a hundredth. */
const SMALL_DIGITS = 2;
const SMALL = 0.01;

const writers = new Map<number, Intl.NumberFormat>();

function written(value: number, decimals: number): string {
  let writer = writers.get(decimals);
  if (!writer) {
    writer = new Intl.NumberFormat('en', { maximumFractionDigits: decimals });
    writers.set(decimals, writer);
  }
  return writer.format(value).replaceAll(',', '\u202f').replace(/^-0$/, '0');
}

/** A number to be read: `0.0019`, `12.346`, `29\u202f349`; thin groups of three, no more digits than mean something. */
export function formatNumber(value: number): string {
  if (value === 0) return '0';
  const whole = Math.floor(Math.log10(Math.abs(value))) + 1;
  const decimals =
    Math.abs(value) < SMALL ? SMALL_DIGITS - whole : Math.min(MOST_DECIMALS, Math.max(0, DIGITS - whole));
  return written(value, Math.min(20, decimals));
}

/** A number to be changed, as exactly as it is kept. */
export const exactNumber = (value: number): string => String(Number(value.toPrecision(8)));

/** Whole numbers with thin groups of three. */
export const formatCount = (value: number): string => written(value, 0);

/** `1 layer`, `2 layers`. */
export function countOf(count: number, thing: string): string {
  return `${formatCount(count)} ${thing}${count === 1 ? '' : 's'}`;
}

/** A time to be waited, roughly: `2 s`, `3 min`. */
export function formatSeconds(seconds: number): string {
  return seconds < 100 ? `${written(Math.max(1, seconds), 0)}\u00a0s` : `${written(seconds / 60, 0)}\u00a0min`;
}

export function formatBytes(bytes: number): string {
  return bytes < 1e6 ? `${written(bytes / 1e3, 1)}\u00a0kB` : `${written(bytes / 1e6, 2)}\u00a0MB`;
}

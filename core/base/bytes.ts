// bytes.ts — how much memory a value takes, roughly: what caches are bounded by.

/** A number, a reference or a flag in an object or a list. */
const SLOT = 8;
/** What an object, a list or a text takes besides what it holds. */
const HEAD = 24;

/** Bytes of everything that hangs on a value; what hangs on it twice counts twice. Functions count as nothing. */
export function bytesOf(value: unknown): number {
  if (typeof value === 'string') return HEAD + 2 * value.length;
  if (typeof value !== 'object' || value === null) return 0;
  if (ArrayBuffer.isView(value)) return HEAD + value.byteLength;
  if (value instanceof ArrayBuffer) return HEAD + value.byteLength;
  if (Array.isArray(value)) return sumOf(value);
  if (value instanceof Map) return sumOf([...value.keys()]) + sumOf([...value.values()]);
  if (value instanceof Set) return sumOf([...value]);
  return sumOf(Object.values(value));
}

function sumOf(values: readonly unknown[]): number {
  let sum = HEAD + SLOT * values.length;
  for (const value of values) sum += bytesOf(value);
  return sum;
}

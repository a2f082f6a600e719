// quantities.ts — numbers of the document that say what they measure. What a change of the unit restates follows from this alone,
// so that no length can be forgotten.
import { z } from 'zod';

/** Lengths are in project units and stay within what the grid and float32 files can hold. */
export const MOST = 1e6;
/** Of lengths that must not be nothing: a millionth of a millimetre where the unit is a metre. */
export const LEAST = 1e-9;

interface Quantity {
  /** `length`: in project units, restated when the unit changes; below 0 it may mean something else than a length. */
  readonly measures: 'length';
  /** Lengths below this are signs, such as “left out”, and stay as they are. */
  readonly from: number;
}

const quantities = z.registry<Quantity>();

/** A length in project units, at least 0. */
export const length = (least = 0) => quantity(z.number().min(least).max(MOST), -Infinity);

/** A height, which may lie below the sheet. */
export const height = () => quantity(z.number().min(-MOST).max(MOST), -Infinity);

/** A length; −1 leaves out what it is for. */
export const lengthOrNone = () => quantity(z.number().min(-1).max(MOST), 0);

/** Project units in one unit of something else. */
export const unitsPer = (least: number, most: number) => quantity(z.number().min(least).max(most), -Infinity);

function quantity(schema: z.ZodNumber, from: number): z.ZodNumber {
  return schema.register(quantities, { measures: 'length', from });
}

/** The value with every length that its schema declares changed; what holds none stays the very same object. */
export function withLengths<T>(schema: z.ZodType<T>, value: T, change: (length: number) => number): T {
  return walked(schema, value, change) as T;
}

function walked(schema: z.ZodType, value: unknown, change: (length: number) => number): unknown {
  const quantity = quantities.get(schema);
  if (quantity) return typeof value === 'number' && value >= quantity.from ? change(value) : value;
  if (value === null || value === undefined) return value;
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodNullable || schema instanceof z.ZodDefault) {
    return walked(schema.unwrap() as z.ZodType, value, change);
  }
  if (schema instanceof z.ZodArray) {
    return kept(
      value as unknown[],
      (value as unknown[]).map((each) => walked(schema.element as z.ZodType, each, change)),
    );
  }
  if (schema instanceof z.ZodTuple) {
    const items = schema.def.items as z.ZodType[];
    return kept(
      value as unknown[],
      (value as unknown[]).map((each, i) => walked(items[i]!, each, change)),
    );
  }
  if (schema instanceof z.ZodObject) {
    const before = value as Record<string, unknown>;
    const after: Record<string, unknown> = { ...before };
    for (const [key, part] of Object.entries(schema.shape)) {
      if (key in before) after[key] = walked(part as z.ZodType, before[key], change);
    }
    return Object.keys(after).every((key) => Object.is(after[key], before[key])) ? before : after;
  }
  if (schema instanceof z.ZodRecord) {
    const before = value as Record<string, unknown>;
    const after = Object.fromEntries(
      Object.entries(before).map(([key, each]) => [key, walked(schema.valueType as z.ZodType, each, change)]),
    );
    return Object.keys(after).every((key) => Object.is(after[key], before[key])) ? before : after;
  }
  if (schema instanceof z.ZodUnion) {
    const fitting = (schema.options as z.ZodType[]).find((option) => option.safeParse(value).success);
    return fitting ? walked(fitting, value, change) : value;
  }
  return value;
}

const kept = (before: unknown[], after: unknown[]) =>
  after.every((each, i) => Object.is(each, before[i])) ? before : after;

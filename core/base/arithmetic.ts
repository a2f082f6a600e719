// arithmetic.ts — what people type where a number is asked for: a number, a length with units, a share, or a sum of such.
import { MM_PER_UNIT, UNITS, type Unit } from './units.ts';

/** What a field asks for. */
export interface Asked {
  /** Of the lengths that it holds; null for a field that holds no length. */
  readonly unit: Unit | null;
  /** What 100 % is, in the field's unit; null where a share means nothing, absent where the field itself is in per cent. */
  readonly whole?: number | null;
  /** Numbers that may be called by a word, in the field's unit. */
  readonly words?: Readonly<Record<string, number>>;
}

export type Answer =
  | { readonly ok: true; readonly value: number }
  /** One sentence: what cannot be read, and where. */
  | { readonly ok: false; readonly message: string };

/**
 * Reads `12`, `3,5 m`, `12′ 6 1/2″`, `6½`, `1 000`, `1e-3`, `3*4`, `(2 + 1) / 3 in`, `depth/30`, `5 %`. A comma counts as a
 * decimal point. What has no unit is in the field's, and what follows feet is inches; a hyphen between feet and inches without
 * spaces is no minus.
 */
export function calculate(text: string, asked: Asked): Answer {
  try {
    return { ok: true, value: new Reader(text, asked).all() };
  } catch (error) {
    if (error instanceof Unread) return { ok: false, message: error.message };
    throw error;
  }
}

class Unread extends Error {}

const BY_ZERO = 'Nothing can be divided by 0.';

/** A number, or a length in the field's unit. */
interface Quantity {
  readonly value: number;
  readonly isLength: boolean;
}

const SPELLINGS: Readonly<Record<string, Unit>> = { "'": 'ft', '′': 'ft', '’': 'ft', '"': 'in', '″': 'in', '”': 'in' };
/** Whole, as a fraction, or both: `6`, `1/2`, `6 1/2`; thousands may be set apart by spaces. */
const NUMBER =
  /^(?:(?:\d+\s+)?\d+\/\d+(?![\d.,e])|\d{1,3}(?:[\s\u00a0\u202f]\d{3})+(?!\d)(?:[.,]\d*)?|\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?/i;
const WORD = /^(?:[a-z]+|['"′″’”]|%|°)/i;

class Reader {
  private readonly text: string;
  private readonly asked: Asked;
  private rest: string;

  constructor(text: string, asked: Asked) {
    this.text = text.trim();
    this.asked = asked;
    this.rest = withPlainFractions(this.text).replaceAll('−', '-');
  }

  all(): number {
    const { value } = this.sum();
    this.skip();
    if (this.rest !== '') throw this.unread();
    if (!Number.isFinite(value)) throw new Unread(`“${this.text}” is no finite number.`);
    return value;
  }

  private sum(): Quantity {
    let left = this.product();
    for (;;) {
      const sign = this.take(/^[+-]/);
      if (!sign) return left;
      const right = this.product();
      const value = sign === '+' ? left.value + right.value : left.value - right.value;
      left = { value, isLength: left.isLength || right.isLength };
    }
  }

  private product(): Quantity {
    let left = this.factor();
    for (;;) {
      const sign = this.take(/^[*×·/÷:]/);
      if (!sign) return left;
      const right = this.factor();
      const isTimes = '*×·'.includes(sign);
      if (isTimes && left.isLength && right.isLength) throw new Unread('A length times a length is an area.');
      if (!isTimes && right.isLength && !left.isLength) throw new Unread('A number cannot be divided by a length.');
      if (!isTimes && right.value === 0) throw new Unread(BY_ZERO);
      left = {
        value: isTimes ? left.value * right.value : left.value / right.value,
        isLength: isTimes ? left.isLength || right.isLength : left.isLength && !right.isLength,
      };
    }
  }

  private factor(): Quantity {
    const sign = this.take(/^[+-]/);
    if (sign) {
      const { value, isLength } = this.factor();
      return { value: sign === '-' ? -value : value, isLength };
    }
    if (this.take(/^\(/)) {
      const inside = this.sum();
      if (!this.take(/^\)/)) throw new Unread(`A bracket of “${this.text}” is not closed.`);
      return inside;
    }
    return this.measure() ?? this.named();
  }

  /** A number with what stands behind it; null where there is none. */
  private measure(): Quantity | null {
    const digits = this.take(NUMBER);
    if (!digits) return null;
    const value = numberOf(digits);
    const { unit, whole } = this.asked;
    const spelt = this.take(WORD)?.toLowerCase();
    if (spelt === undefined) return { value, isLength: false };
    if (spelt === '%') {
      if (whole === null) throw new Unread(`“${digits} %” is a share of nothing here.`);
      // Without a whole the field itself is in per cent.
      return whole === undefined
        ? { value, isLength: false }
        : { value: (value / 100) * whole, isLength: unit !== null };
    }
    if (spelt === '°' && unit === null) return { value, isLength: false };
    const own = SPELLINGS[spelt] ?? UNITS.find((known) => known === spelt);
    if (!own) throw new Unread(`“${spelt}” is no unit that is known here: ${UNITS.join(', ')}.`);
    if (unit === null) throw new Unread(`“${digits} ${spelt}” is a length, and none is asked for here.`);
    const mm = value * MM_PER_UNIT[own] + (own === 'ft' ? this.inchesAfterFeet() : 0);
    return { value: mm / MM_PER_UNIT[unit], isLength: true };
  }

  /** Millimetres. */
  private inchesAfterFeet(): number {
    const match = /^(?:-|\s*)(?=[\d.,])/.exec(this.rest);
    const behind = match ? this.rest.slice(match[0].length) : '';
    const digits = NUMBER.exec(behind)?.[0];
    if (!digits) return 0;
    const rest = behind.slice(digits.length);
    const spelt = WORD.exec(rest.trimStart())?.[0]?.toLowerCase();
    const isInches = spelt === undefined || (SPELLINGS[spelt] ?? spelt) === 'in';
    if (!isInches) return 0;
    this.rest = spelt === undefined ? rest : rest.trimStart().slice(spelt.length);
    return numberOf(digits) * MM_PER_UNIT.in;
  }

  private named(): Quantity {
    const { words = {}, unit } = this.asked;
    const word = this.take(/^[a-z]+/i)?.toLowerCase();
    if (word === undefined) throw this.unread();
    const value = Object.hasOwn(words, word) ? words[word] : undefined;
    if (value !== undefined) return { value, isLength: unit !== null };
    const known = Object.keys(words);
    const hint = known.length > 0 ? ` Words that can be used: ${known.join(', ')}.` : '';
    throw new Unread(`“${word}” is not known here.${hint}`);
  }

  private skip(): void {
    this.rest = this.rest.replace(/^[\s\u00a0\u202f]+/, '');
  }

  private take(pattern: RegExp): string | null {
    this.skip();
    const found = pattern.exec(this.rest)?.[0];
    if (!found) return null;
    this.rest = this.rest.slice(found.length);
    return found;
  }

  private unread(): Unread {
    if (this.text === '') return new Unread('A number is asked for.');
    const [next] = this.rest;
    return new Unread(`“${this.text}” cannot be read${next ? ` from “${this.rest}” on` : ': it ends too soon'}.`);
  }
}

/** `½` as ` 1/2`, which is the part of a mixed number where digits stand before it. */
const withPlainFractions = (text: string): string =>
  text.replace(/[\u00bc-\u00be\u2150-\u215e]/g, (c) => ` ${c.normalize('NFKD').replace('⁄', '/')}`);

/** `12`, `1,5`, `1 000`, `1/2`, `6 1/2`, `1e3`. */
function numberOf(text: string): number {
  const fraction = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(text);
  if (fraction) {
    if (Number(fraction[3]) === 0) throw new Unread(BY_ZERO);
    return Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3]);
  }
  return Number(text.replace(/[\s\u00a0\u202f]/g, '').replace(',', '.'));
}

// units.ts — physical lengths. CSS Values 4 §6.2 fixes the ratios: 1in = 2.54cm = 96px = 72pt = 6pc, 1Q = 1/40cm.

export const UNITS = ['mm', 'cm', 'm', 'in', 'ft'] as const;
export type Unit = (typeof UNITS)[number];

/** Millimetres in one unit. */
export const MM_PER_UNIT: Readonly<Record<Unit, number>> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

/** Millimetres in one CSS physical unit; px is absent on purpose: a drawing in px has no physical size. */
const MM_PER_CSS: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
};
const PX_PER_MM = 96 / 25.4;

export interface CssLength {
  readonly value: number;
  /** Lower case; '' for a plain number. */
  readonly unit: string;
}

/** Parses `12`, `12px`, `50%`, `1e1mm`; null when it is not a length. */
export function parseLength(text: string): CssLength | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*|%)\s*$/i.exec(text);
  return match ? { value: Number(match[1]), unit: match[2]!.toLowerCase() } : null;
}

/** Millimetres, or null for a length with no physical unit. */
export function lengthToMm({ value, unit }: CssLength): number | null {
  const factor = MM_PER_CSS[unit];
  return factor === undefined ? null : value * factor;
}

/** CSS px; `percentOf` is what 100 % stands for. Font-relative units take the initial font size of 16 px. */
export function lengthToPx({ value, unit }: CssLength, percentOf: number): number {
  if (unit === '%') return (value / 100) * percentOf;
  if (unit === 'em' || unit === 'rem') return value * 16;
  if (unit === 'ex' || unit === 'ch') return value * 8;
  const mm = MM_PER_CSS[unit];
  return mm === undefined ? value : value * mm * PX_PER_MM;
}

/** Inches are written in whole sixteenths where they are some, as on a rule; else in decimals. */
const SIXTEENTHS = 16;

/** Feet as `12′ 6 1/2″`. */
export function feetAndInches(feet: number): string {
  const sign = feet < 0 ? '−' : '';
  const inches = Number((Math.abs(feet) * 12).toFixed(6));
  const whole = Math.floor(inches / 12);
  const rest = inches - 12 * whole;
  const sixteenths = Math.round(rest * SIXTEENTHS);
  const isExact = Math.abs(sixteenths / SIXTEENTHS - rest) < 1e-4;
  // Rounded up to a whole foot.
  if (isExact && sixteenths === 12 * SIXTEENTHS) return `${sign}${whole + 1}′`;
  const small = isExact ? fractionOf(sixteenths) : String(Number(rest.toPrecision(4)));
  const parts = [whole > 0 ? `${whole}′` : '', small === '0' && whole > 0 ? '' : `${small}″`];
  return sign + parts.filter(Boolean).join(' ');
}

function fractionOf(sixteenths: number): string {
  const whole = Math.floor(sixteenths / SIXTEENTHS);
  let [top, bottom] = [sixteenths % SIXTEENTHS, SIXTEENTHS];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  return top === 0 ? String(whole) : [whole > 0 ? `${whole}` : '', `${top}/${bottom}`].filter(Boolean).join(' ');
}

// paint.ts — CSS colours (CSS Color 4, read by culori) and one representative colour for gradients and patterns.
import { clampRgb, converter, formatHex, parse as parseCss } from 'culori';

const toRgb = converter('rgb');

/** Opaque colour and its alpha, 0–1. */
export interface Colour {
  /** `#rrggbb`, lower case, sRGB. */
  readonly hex: string;
  readonly alpha: number;
}

/** Any CSS colour except `currentColor`; out-of-gamut colours are clamped to sRGB. Null when it is not a colour. */
export function parseColour(text: string): Colour | null {
  const parsed = parseCss(text.trim());
  if (!parsed) return null;
  const rgb = clampRgb(toRgb(parsed));
  const hex = formatHex(rgb);
  return { hex, alpha: rgb.alpha ?? 1 };
}

export interface Stop {
  /** 0–1 */
  readonly offset: number;
  readonly colour: Colour;
}

/** The mean colour along a gradient: stops weighted by the span they govern. Black for no stops. */
export function meanColour(stops: readonly Stop[]): Colour {
  if (stops.length === 0) return { hex: '#000000', alpha: 0 };
  const ordered = stops.map((stop, i) => ({
    ...stop,
    offset: Math.max(stop.offset, ...stops.slice(0, i).map((s) => s.offset)),
  }));
  const total = { r: 0, g: 0, b: 0, alpha: 0 };
  for (const [i, stop] of ordered.entries()) {
    const from = i === 0 ? 0 : (ordered[i - 1]!.offset + stop.offset) / 2;
    const to = i === ordered.length - 1 ? 1 : (ordered[i + 1]!.offset + stop.offset) / 2;
    const weight = Math.max(0, to - from);
    const rgb = toRgb(parseCss(stop.colour.hex)!);
    total.r += weight * rgb.r;
    total.g += weight * rgb.g;
    total.b += weight * rgb.b;
    total.alpha += weight * stop.colour.alpha;
  }
  return { hex: formatHex({ mode: 'rgb', r: total.r, g: total.g, b: total.b }), alpha: total.alpha };
}

// settings.ts — how a picture is traced, as data of the document, and start values that suit a picture.
import { z } from 'zod';
import { labDistance, labOf } from '../picture/colour.ts';
import { greyOf, histogramOf, INKS, isTransparent } from '../picture/grey.ts';
import { otsu } from '../picture/steps/threshold.ts';
import type { Picture } from '../picture/types.ts';
import { LAYERINGS } from './flats.ts';
import { flatColours } from './modes.ts';
import { planesOf, rgbOfShade } from './planes.ts';

export const TRACE_MODES = ['ink', 'tones', 'colours', 'centreline'] as const;
/** Not traced at all: it lies under what is drawn. */
export const UNDERLAY = 'none';

const hex = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour like #1f5c57');

export const TraceSchema = z.object({
  mode: z.enum([...TRACE_MODES, UNDERLAY]),
  /** What is taken as ink. */
  ink: z.enum(INKS),
  /** How many tones or colours; null takes as many as stand apart. */
  count: z.int().min(2).max(32).nullable(),
  /** Colours picked by hand; they go before `count`. */
  picked: z.array(hex).max(32),
  layering: z.enum(LAYERINGS),
  /** Smallest piece and smallest hole that is kept, square pixels of the source. */
  detail: z.number().min(0).max(1e6),
  /** Turns sharper than this stay corners, degrees. */
  corner: z.number().min(5).max(120),
  /** How far a curve may stray, pixels of the source; null takes what the noise of the edges asks for. */
  smooth: z.number().min(0.01).max(50).nullable(),
});
export type TraceSettings = z.infer<typeof TraceSchema>;

export const TRACE_DEFAULTS: TraceSettings = {
  mode: 'ink',
  ink: 'dark',
  count: null,
  picked: [],
  layering: 'stacked',
  detail: 4,
  corner: 25,
  smooth: null,
};

/** Colours this near to the line between black and white are greys. */
const GREYISH = 0.045;

/** More colours than this make no difference to how one begins. */
const MOST_SEEN = 12;

/** Greys that part into two classes this well are a scan of ink on paper. */
const TWO_TONES = 0.85;

/** Settings to start a picture with: ink for two tones, tones for more greys than that, colours for the rest. */
export function startSettings(picture: Picture): TraceSettings {
  const { modes } = flatColours(planesOf(picture, false), MOST_SEEN);
  const colours = modes.map(({ shade }) => labOf(...rgbOfShade(shade)));
  const isClear = isTransparent(picture);
  if (isClear && colours.length === 1) return { ...TRACE_DEFAULTS, ink: 'opaque' };
  const isGrey = colours.every(([l, a, b]) => labDistance([l, a, b], [l, 0, 0]) < GREYISH);
  if (!isGrey) return { ...TRACE_DEFAULTS, mode: 'colours' };
  if (colours.length + Number(isClear) <= 2) return TRACE_DEFAULTS;
  const { separation } = otsu(histogramOf(greyOf(picture)));
  return { ...TRACE_DEFAULTS, mode: separation >= TWO_TONES ? 'ink' : 'tones' };
}

// settings.ts — how a picture is traced, as data of the document.
import { z } from 'zod';
import { INKS } from '../picture/grey.ts';
import { LAYERINGS } from './flats.ts';

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

// settings.ts — how a text is set.
import { z } from 'zod';

/** Fonts that ship with the application. */
export const BUNDLED_FONTS = ['display-serif', 'grotesque', 'rounded', 'connected-script'] as const;
export type BundledFont = (typeof BUNDLED_FONTS)[number];

export const ALIGNMENTS = ['start', 'middle', 'end'] as const;

export const LetteringSchema = z.object({
  text: z.string().max(4000),
  /** One that ships with the application, or the bytes of one that was brought in. */
  font: z.discriminatedUnion('from', [
    z.object({ from: z.literal('bundle'), name: z.enum(BUNDLED_FONTS) }),
    z.object({ from: z.literal('file'), asset: z.string().regex(/^[0-9a-f]{64}$/), name: z.string().max(200) }),
  ]),
  /** Height of the em square, in user units. */
  size: z.number().min(1e-6).max(1e6),
  /** Added between letters, in thousandths of an em. */
  tracking: z.number().min(-1000).max(10_000),
  /** From baseline to baseline, in ems. */
  lineSpacing: z.number().min(0).max(100),
  align: z.enum(ALIGNMENTS),
  kerning: z.boolean(),
  ligatures: z.boolean(),
  /** Path data of the line the text runs along, in user units; null for straight lines. */
  along: z.string().max(100_000).nullable(),
});

export type Lettering = z.infer<typeof LetteringSchema>;
export type FontChoice = Lettering['font'];

export const LETTERING_DEFAULTS: Omit<Lettering, 'text'> = {
  font: { from: 'bundle', name: 'display-serif' },
  size: 20,
  tracking: 0,
  lineSpacing: 1.25,
  align: 'start',
  kerning: true,
  ligatures: true,
  along: null,
};

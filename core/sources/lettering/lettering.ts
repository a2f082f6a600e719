// lettering.ts — texts that are set here.
import { z } from 'zod';
import { LetteringSchema } from '../../lettering/settings.ts';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

/** One user unit is one project unit. */
export const LetteringSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('lettering'),
  lettering: LetteringSchema,
});
export type LetteringSource = z.infer<typeof LetteringSourceSchema>;

export type Origin = Pick<LetteringSource, 'lettering'>;

export const lettering = {
  kind: 'lettering',
  schema: LetteringSourceSchema,
  build: 'slab',
  file: null,
  assets: ({ lettering: { font } }) => (font.from === 'file' ? [font.asset] : []),
  contentKey: ({ lettering: { font } }) => (font.from === 'file' ? font.asset : font.name),
  drawingKey: ({ lettering: text }) => JSON.stringify(text),
} as const satisfies SourceKind<LetteringSource, Origin>;

/** A text as the name of its source: its first line. */
export const textName = (text: string): string => text.trim().split('\n')[0]!.slice(0, 60) || 'Text';

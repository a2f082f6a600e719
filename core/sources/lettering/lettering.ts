// lettering.ts — texts that are set here.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import type { LetterFont } from '../../lettering/font.ts';
import { layLetters } from '../../lettering/layout.ts';
import { LetteringSchema } from '../../lettering/settings.ts';
import { arrange } from '../arrange.ts';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

/** One user unit is one project unit. */
export const LetteringSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('lettering'),
  lettering: LetteringSchema,
});
export type LetteringSource = z.infer<typeof LetteringSourceSchema>;

type Origin = Pick<LetteringSource, 'lettering'>;

export const lettering = {
  kind: 'lettering',
  schema: LetteringSourceSchema,
  build: 'slab',
  file: null,
  assets: ({ lettering: { font } }) => (font.from === 'file' ? [font.asset] : []),
  contentKey: ({ lettering: { font } }) => (font.from === 'file' ? font.asset : font.name),
  open: ({ lettering: { font } }, reader) => reader.fonts(font),
  drawingKey: ({ lettering: text }) => JSON.stringify(text),
  drawing: ({ lettering: text }, fonts) => layLetters(text, fonts()),
  isDrawn: () => false,
  parts: () => [],
  arrive({ id, name, lettering: text }, fonts, _stages, options) {
    const drawing = layLetters(text, fonts);
    const nothing = drawing.warnings.find(({ code }) => code === 'nothing');
    if (nothing) throw new GeometryError('nothing-to-build', nothing.message);
    const { x, y, width, height } = drawing.sheet;
    const own = { scale: 1, origin: [x + width / 2, y + height / 2] as [number, number] };
    const { placement, proposals, ...arranged } = arrange(drawing, { placement: own, ...options });
    return {
      ...arranged,
      source: { kind: 'lettering', id, name, lettering: text, edits: [], ...placement },
      proposals: proposals.length === 1 ? [{ ...proposals[0]!, name }] : proposals,
      warnings: [...drawing.warnings, ...arranged.warnings],
      leftOut: [],
    };
  },
} as const satisfies SourceKind<LetteringSource, Origin, readonly LetterFont[]>;

/** A text as the name of its source: its first line. */
export const textName = (text: string): string => text.trim().split('\n')[0]!.slice(0, 60) || 'Text';

// open.ts — texts set in their fonts.
import { GeometryError } from '../../base/errors.ts';
import type { LetterFont } from '../../lettering/font.ts';
import { layLetters } from '../../lettering/layout.ts';
import { arrange } from '../arrange.ts';
import type { Opener } from '../kind.ts';
import type { LetteringSource, Origin } from './lettering.ts';

export const letteringOpener = {
  kind: 'lettering',
  open: ({ lettering: { font } }, reader) => reader.fonts(font),
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
} as const satisfies Opener<LetteringSource, Origin, readonly LetterFont[]>;

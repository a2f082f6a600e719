// letters.ts — a text to a file of outlines.
import { existsSync } from 'node:fs';
import {
  BUNDLED_FONTS,
  GeometryError,
  type LetterFont,
  layLetters,
  outlineFormat,
  type Warning,
} from '../core/index.ts';
import { bundledFonts, openFontFile } from '../node/fonts.ts';
import { Clock } from './clock.ts';
import type { LettersCommand } from './options.ts';
import { readBytes } from './read.ts';
import { meant, UsageError } from './words.ts';
import { writeBytes } from './write.ts';

export interface LettersReport {
  readonly input: string;
  readonly output: string;
  readonly ok: boolean;
  readonly error?: { readonly code: string; readonly message: string };
  readonly counts: { readonly shapes: number; readonly curves: number };
  readonly size: readonly [width: number, height: number];
  readonly warnings: readonly Warning[];
  readonly ms: Record<'read' | 'outline' | 'write' | 'total', number>;
}

/** Never throws for a font that cannot be read: that is part of the report. */
export async function setLetters({ text, font, out, format, settings }: LettersCommand): Promise<LettersReport> {
  const clock = new Clock(['read', 'outline', 'write']);
  try {
    const fonts = await fontsNamed(font);
    clock.lap('read');
    const drawing = layLetters({ ...settings, text }, fonts);
    if (drawing.shapes.length === 0) {
      throw new GeometryError('nothing-to-build', drawing.warnings.map(({ message }) => message).join(' '));
    }
    clock.lap('outline');
    const { shapes } = drawing;
    const groups = [{ name: 'Letters', colour: shapes[0]!.colour, shapes }];
    writeBytes(out, outlineFormat(format).write({ ...drawing, groups }));
    clock.lap('write');
    const curves = drawing.shapes.reduce((sum, { path }) => sum + path.filter(([letter]) => letter !== 'M').length, 0);
    return {
      input: text,
      output: out,
      ok: true,
      counts: { shapes: drawing.shapes.length, curves },
      size: [drawing.sheet.width, drawing.sheet.height],
      warnings: drawing.warnings,
      ms: clock.times(),
    };
  } catch (error) {
    if (error instanceof UsageError || !(error instanceof GeometryError)) throw error;
    const { code, message } = error;
    return {
      input: text,
      output: out,
      ok: false,
      error: { code, message },
      counts: { shapes: 0, curves: 0 },
      size: [0, 0],
      warnings: [],
      ms: clock.times(),
    };
  }
}

async function fontsNamed(font: string): Promise<LetterFont[]> {
  const bundled = BUNDLED_FONTS.find((name) => name === font);
  if (bundled) return bundledFonts(bundled);
  if (!existsSync(font)) {
    throw new UsageError(
      `--font ${font}: there is no such file, and the fonts that ship are ${BUNDLED_FONTS.join(', ')}${meant(font, BUNDLED_FONTS)}`,
    );
  }
  return [await openFontFile(readBytes(font), font)];
}

// letters.ts — a text to a file of outlines.
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import {
  BUNDLED_FONTS,
  type Drawing,
  GeometryError,
  groupsByLook,
  type LetterFont,
  layLetters,
  type Warning,
  writeDxf,
  writeSvg,
} from '../core/index.ts';
import { fontsFor, openFontFile } from '../node/fonts.ts';
import { Clock } from './clock.ts';
import { type LettersCommand, UsageError } from './options.ts';
import { readBytes } from './read.ts';

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
    const drawing = layLetters({ ...settings, text, font: { from: 'bundle', name: BUNDLED_FONTS[0] } }, fonts);
    if (drawing.shapes.length === 0) {
      throw new GeometryError('nothing-to-build', drawing.warnings.map(({ message }) => message).join(' '));
    }
    clock.lap('outline');
    mkdirSync(dirname(out), { recursive: true });
    writeFileSync(
      out,
      format === 'dxf' ? asDxf(drawing) : writeSvg({ ...drawing, groups: groupsByLook(drawing.shapes) }),
    );
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

const asDxf = ({ shapes, ...drawing }: Drawing): string =>
  writeDxf({ ...drawing, groups: [{ name: 'Letters', colour: shapes[0]!.colour, shapes }] });

async function fontsNamed(font: string): Promise<LetterFont[]> {
  const bundled = BUNDLED_FONTS.find((name) => name === font);
  if (bundled) return fontsFor({ from: 'bundle', name: bundled }, readBytes);
  return [await openFontFile(readBytes(font), font)];
}

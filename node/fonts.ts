// fonts.ts — fonts for server and command line: those that ship with the application, and files.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as harfbuzz from 'harfbuzzjs';
import woff2 from 'woff2-encoder/decompress';
import {
  type BundledFont,
  FONT_BUNDLES,
  type FontEngines,
  type LetterFont,
  openFont,
  openType,
} from '../core/index.ts';

const ENGINES: FontEngines = { harfbuzz, woff2: async (bytes) => new Uint8Array(await woff2(bytes)) };
const require = createRequire(import.meta.url);
const opened = new Map<BundledFont, Promise<LetterFont[]>>();

export const openFontFile = (bytes: Uint8Array, name: string): Promise<LetterFont> => openFont(bytes, ENGINES, name);

/** The OpenType font in a file of any kind. @throws {GeometryError} 'bad-file' */
export const unpackFont = (bytes: Uint8Array): Promise<Uint8Array> => openType(bytes, ENGINES, 'The font');

/** A font that ships with the application: its files, in the order in which they are asked for a letter. */
export function bundledFonts(name: BundledFont): Promise<LetterFont[]> {
  const fonts =
    opened.get(name) ??
    Promise.all(FONT_BUNDLES[name].files.map((file) => openFontFile(readFileSync(require.resolve(file)), file)));
  opened.set(name, fonts);
  return fonts;
}

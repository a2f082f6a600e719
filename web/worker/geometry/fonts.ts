// fonts.ts — fonts for the geometry worker. The shaper waits for its own loading at the top of its module: imported
// statically it would hold up this worker past its first message, which would be lost.
import amiriArabic from '@fontsource/amiri/files/amiri-arabic-700-normal.woff?no-inline';
import amiriLatin from '@fontsource/amiri/files/amiri-latin-700-normal.woff?no-inline';
import amiriLatinExt from '@fontsource/amiri/files/amiri-latin-ext-700-normal.woff?no-inline';
import archivoLatin from '@fontsource/archivo/files/archivo-latin-700-normal.woff?no-inline';
import archivoLatinExt from '@fontsource/archivo/files/archivo-latin-ext-700-normal.woff?no-inline';
import serifLatin from '@fontsource/dm-serif-display/files/dm-serif-display-latin-400-normal.woff?no-inline';
import serifLatinExt from '@fontsource/dm-serif-display/files/dm-serif-display-latin-ext-400-normal.woff?no-inline';
import fredokaHebrew from '@fontsource/fredoka/files/fredoka-hebrew-600-normal.woff?no-inline';
import fredokaLatin from '@fontsource/fredoka/files/fredoka-latin-600-normal.woff?no-inline';
import fredokaLatinExt from '@fontsource/fredoka/files/fredoka-latin-ext-600-normal.woff?no-inline';
import { FONT_BUNDLES, type FontChoice, type FontEngines, type LetterFont, openFont } from '../../../core/index.ts';

/** Where the files of the bundles are served; never written into the code itself, which a strict page would not fetch. */
const ADDRESSES: Readonly<Record<string, string>> = {
  '@fontsource/amiri/files/amiri-arabic-700-normal.woff': amiriArabic,
  '@fontsource/amiri/files/amiri-latin-700-normal.woff': amiriLatin,
  '@fontsource/amiri/files/amiri-latin-ext-700-normal.woff': amiriLatinExt,
  '@fontsource/archivo/files/archivo-latin-700-normal.woff': archivoLatin,
  '@fontsource/archivo/files/archivo-latin-ext-700-normal.woff': archivoLatinExt,
  '@fontsource/dm-serif-display/files/dm-serif-display-latin-400-normal.woff': serifLatin,
  '@fontsource/dm-serif-display/files/dm-serif-display-latin-ext-400-normal.woff': serifLatinExt,
  '@fontsource/fredoka/files/fredoka-hebrew-600-normal.woff': fredokaHebrew,
  '@fontsource/fredoka/files/fredoka-latin-600-normal.woff': fredokaLatin,
  '@fontsource/fredoka/files/fredoka-latin-ext-600-normal.woff': fredokaLatinExt,
};

let loading: Promise<FontEngines> | null = null;
const opened = new Map<string, readonly LetterFont[]>();
const keyOf = (choice: FontChoice) => (choice.from === 'bundle' ? choice.name : choice.asset);

/** @param fetchBytes of a font that was brought in, unpacked */
export async function loadFonts(
  choice: FontChoice,
  fetchBytes: (asset: string, name: string) => Promise<Uint8Array>,
): Promise<readonly LetterFont[]> {
  const known = opened.get(keyOf(choice));
  if (known) return known;
  loading ??= loadEngines();
  const engines = await loading;
  const fonts =
    choice.from === 'bundle'
      ? await Promise.all(
          FONT_BUNDLES[choice.name].files.map(async (file) =>
            openFont(await bytesAt(ADDRESSES[file]!), engines, choice.name),
          ),
        )
      : [await openFont(await fetchBytes(choice.asset, choice.name), engines, choice.name)];
  opened.set(keyOf(choice), fonts);
  return fonts;
}

async function loadEngines(): Promise<FontEngines> {
  return { harfbuzz: await import('harfbuzzjs'), woff2: () => Promise.reject(new Error('The server unpacks it.')) };
}

async function bytesAt(url: string): Promise<Uint8Array> {
  return new Uint8Array(await (await fetch(url)).arrayBuffer());
}

// font.ts — fonts as the layout sees them, opened from the bytes of a file. HarfBuzz shapes; it and the decompressor are
// handed in, because how they are loaded differs between a page and a server.
import { unzlibSync } from 'fflate';
import type * as HarfBuzz from 'harfbuzzjs';
import { GeometryError } from '../base/errors.ts';
import { parsePath } from '../path/parse.ts';
import type { Path } from '../path/types.ts';

export interface Glyph {
  readonly id: number;
  /** Place in the text, in UTF-16 units, of the first character it stands for. */
  readonly cluster: number;
  /** Font units, y up. */
  readonly advance: number;
  readonly x: number;
  readonly y: number;
}

export interface ShapeOptions {
  readonly isRightToLeft: boolean;
  readonly kerning: boolean;
  readonly ligatures: boolean;
}

export interface LetterFont {
  /** Font units in one em. */
  readonly unitsPerEm: number;
  readonly ascender: number;
  /** Negative. */
  readonly descender: number;
  has(codePoint: number): boolean;
  /** Glyphs from left to right. */
  shape(text: string, options: ShapeOptions): Glyph[];
  /** Font units, y up. */
  outline(glyph: number): Path;
}

export interface FontEngines {
  readonly harfbuzz: Pick<typeof HarfBuzz, 'Blob' | 'Buffer' | 'Face' | 'Feature' | 'Font' | 'Direction' | 'shape'>;
  /** WOFF 2 to OpenType. */
  readonly woff2: (bytes: Uint8Array) => Promise<Uint8Array>;
}

/** Of a file, and of the font in it once it is unpacked; OpenType 1.9 knows 60 tables, and no font has them all. */
export const FONT_LIMITS = { bytes: 32 * 2 ** 20, tables: 80 } as const;

type Container = 'opentype' | 'woff' | 'woff2';

/** By the first four bytes (OpenType 1.9 "Organization of an OpenType Font", WOFF 1.0 §4, WOFF 2.0 §4). */
export function sniffFont(bytes: Uint8Array): Container | null {
  const tag = String.fromCharCode(...bytes.subarray(0, 4));
  if (tag === 'wOFF') return 'woff';
  if (tag === 'wOF2') return 'woff2';
  return ['\0\x01\0\0', 'OTTO', 'true', 'ttcf'].includes(tag) ? 'opentype' : null;
}

/** @throws {GeometryError} 'bad-file' for what is no font, or one without letters · 'too-large' */
export async function openFont(bytes: Uint8Array, engines: FontEngines, name = 'The file'): Promise<LetterFont> {
  if (bytes.length > FONT_LIMITS.bytes) {
    throw new GeometryError(
      'too-large',
      `${name} is larger than ${FONT_LIMITS.bytes / 2 ** 20} MB, the most for a font.`,
    );
  }
  const sfnt = await openType(bytes, engines, name);
  const { harfbuzz } = engines;
  const face = new harfbuzz.Face(new harfbuzz.Blob(sfnt));
  const known = new Set(face.collectUnicodes());
  // A file that cannot be read has no characters; nothing else says so.
  if (known.size === 0) throw broken(name);
  const font = new harfbuzz.Font(face);
  const { ascender, descender } = font.hExtents();
  const outlines = new Map<number, Path>();
  return {
    unitsPerEm: face.upem,
    ascender,
    descender,
    has: (codePoint) => known.has(codePoint),
    shape: (text, options) => shaped(harfbuzz, font, text, options),
    outline(glyph) {
      const path = outlines.get(glyph) ?? parsePath(font.glyphToPath(glyph)).path;
      outlines.set(glyph, path);
      return path;
    },
  };
}

function shaped(
  { Buffer, Feature, Direction, shape }: FontEngines['harfbuzz'],
  font: HarfBuzz.Font,
  text: string,
  { isRightToLeft, kerning, ligatures }: ShapeOptions,
): Glyph[] {
  const buffer = new Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(isRightToLeft ? Direction.RTL : Direction.LTR);
  // Required ligatures (rlig) are spelling, not style, and stay.
  const features = [
    ...(kerning ? [] : [new Feature('kern', 0)]),
    ...(ligatures ? [] : ['liga', 'clig', 'calt'].map((tag) => new Feature(tag, 0))),
  ];
  shape(font, buffer, features);
  const positions = buffer.getGlyphPositions();
  return buffer.getGlyphInfos().map(({ codepoint, cluster }, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    return { id: codepoint, cluster, advance: xAdvance, x: xOffset, y: yOffset };
  });
}

/**
 * The OpenType font in a file of any kind.
 * @throws {GeometryError} 'bad-file' · 'too-large' for one that would unpack to more than {@link FONT_LIMITS}
 */
export async function openType(
  bytes: Uint8Array,
  { woff2 }: Pick<FontEngines, 'woff2'>,
  name: string,
): Promise<Uint8Array> {
  switch (sniffFont(bytes)) {
    case 'opentype':
      return bytes;
    case 'woff':
      return unwrapWoff(bytes, name);
    case 'woff2':
      if (unpackedSize(bytes) > FONT_LIMITS.bytes) throw tooLarge(name);
      return woff2(bytes).catch(() => {
        throw broken(name);
      });
    case null:
      throw new GeometryError('bad-file', `${name} is not a font: use TTF, OTF, WOFF or WOFF 2.`);
  }
}

/** What the header of a WOFF 2 says the font comes to (`totalSfntSize`, WOFF 2.0 §4.1); nothing more is unpacked. */
function unpackedSize(bytes: Uint8Array): number {
  return bytes.length < 20 ? 0 : new DataView(bytes.buffer, bytes.byteOffset).getUint32(16);
}

const tooLarge = (name: string) =>
  new GeometryError(
    'too-large',
    `${name} unpacks to more than ${FONT_LIMITS.bytes / 2 ** 20} MB or ${FONT_LIMITS.tables} tables, the most for a font.`,
  );

const broken = (name: string) =>
  new GeometryError('bad-file', `${name} is damaged: no letters can be read from it. Use another copy of the font.`);

/** Bytes of the headers, and of one entry in each table directory (WOFF 1.0 §4, §5; OpenType "Table Directory"). */
const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;

/** WOFF 1 to OpenType: each table is inflated and the directory written anew. */
function unwrapWoff(bytes: Uint8Array, name: string): Uint8Array {
  try {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const count = view.getUint16(12);
    const directory = Array.from({ length: count }, (_, i) => {
      const at = WOFF_HEADER + i * WOFF_ENTRY;
      const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((k) => view.getUint32(at + k)) as [
        number,
        number,
        number,
        number,
        number,
      ];
      return { tag, offset, packed, length, checksum };
    });
    // Tables that share their bytes unpack to any number of times the file; what they come to is known beforehand.
    const total = directory.reduce((sum, { length }) => sum + length, 0);
    if (count > FONT_LIMITS.tables || total > FONT_LIMITS.bytes) throw tooLarge(name);
    const entries = directory.map(({ tag, offset, packed, length, checksum }) => {
      if (offset + packed > bytes.length) throw broken(name);
      const data = bytes.subarray(offset, offset + packed);
      const table = packed < length ? unzlibSync(data, { out: new Uint8Array(length) }) : data;
      return { tag, checksum, table };
    });
    const padded = (length: number) => (length + 3) & ~3;
    const start = SFNT_HEADER + SFNT_ENTRY * count;
    const result = new Uint8Array(entries.reduce((sum, { table }) => sum + padded(table.length), start));
    const out = new DataView(result.buffer);
    const power = 2 ** Math.floor(Math.log2(count));
    out.setUint32(0, view.getUint32(4));
    for (const [i, v] of [count, 16 * power, Math.log2(power), 16 * (count - power)].entries())
      out.setUint16(4 + 2 * i, v);
    let at = start;
    for (const [i, { tag, checksum, table }] of entries.entries()) {
      for (const [k, v] of [tag, checksum, at, table.length].entries()) {
        out.setUint32(SFNT_HEADER + SFNT_ENTRY * i + 4 * k, v);
      }
      result.set(table, at);
      at += padded(table.length);
    }
    return result;
  } catch (error) {
    throw error instanceof GeometryError ? error : broken(name);
  }
}

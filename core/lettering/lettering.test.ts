// Lettering against the fonts' own tables, Unicode's joining types and the bidirectional algorithm.
import { readFileSync } from 'node:fs';
import { zlibSync } from 'fflate';
import * as harfbuzz from 'harfbuzzjs';
import { describe, expect, it } from 'vitest';
import woff2 from 'woff2-encoder/decompress';
import type { Drawing } from '../drawing.ts';
import { boundsOf } from '../outline/measure.ts';
import { flatten } from '../path/flatten.ts';
import { circleLine, circleOf, ROUND } from './along.ts';
import { type LetterFont, openFont } from './font.ts';
import { layLetters } from './layout.ts';
import { LETTERING_DEFAULTS, type Lettering } from './settings.ts';

const ENGINES = { harfbuzz, woff2: async (bytes: Uint8Array) => new Uint8Array(await woff2(bytes)) };
const file = (name: string) =>
  new Uint8Array(readFileSync(new URL(`../../node_modules/@fontsource/${name}`, import.meta.url)));
const open = (name: string) => openFont(file(name), ENGINES);

const SERIF = 'dm-serif-display/files/dm-serif-display-latin-400-normal.woff2';
const ARABIC = 'amiri/files/amiri-arabic-700-normal.woff2';
const [serif, arabic, latin] = (await Promise.all(
  [SERIF, ARABIC, 'amiri/files/amiri-latin-700-normal.woff2'].map(open),
)) as [LetterFont, LetterFont, LetterFont];

const set = (text: string, fonts: LetterFont[], change: Partial<Lettering> = {}): Drawing =>
  layLetters({ ...LETTERING_DEFAULTS, text, size: 1000, ...change }, fonts);
const boxOf = (drawing: Drawing, i: number) => boundsOf(flatten(drawing.shapes[i]!.path, 0.05))!;
const names = (drawing: Drawing) => drawing.shapes.map(({ name }) => name);

/** Tables of an OpenType file, read by hand (OpenType 1.9: "head", "hhea", "hmtx", "loca", "glyf", "maxp"). */
class Tables {
  private readonly view: DataView;
  private readonly places = new Map<string, number>();

  constructor(sfnt: Uint8Array) {
    this.view = new DataView(sfnt.buffer, sfnt.byteOffset, sfnt.byteLength);
    for (let i = 0; i < this.view.getUint16(4); i++) {
      const at = 12 + 16 * i;
      this.places.set(String.fromCharCode(...sfnt.subarray(at, at + 4)), this.view.getUint32(at + 8));
    }
  }

  advance(glyph: number): number {
    const count = this.view.getUint16(this.places.get('hhea')! + 34);
    return this.view.getUint16(this.places.get('hmtx')! + 4 * Math.min(glyph, count - 1));
  }

  /** xMin, yMin, xMax, yMax as the glyph's header states them. */
  box(glyph: number): number[] {
    const isLong = this.view.getInt16(this.places.get('head')! + 50) === 1;
    const loca = this.places.get('loca')!;
    const offset = isLong ? this.view.getUint32(loca + 4 * glyph) : 2 * this.view.getUint16(loca + 2 * glyph);
    return [2, 4, 6, 8].map((k) => this.view.getInt16(this.places.get('glyf')! + offset + k));
  }
}

describe('a font', () => {
  it('gives the advances and the extents its tables state', async () => {
    const tables = new Tables(await ENGINES.woff2(file(SERIF)));
    for (const character of 'SALTMRHgqy&@') {
      const [glyph] = serif.shape(character, { isRightToLeft: false, kerning: true, ligatures: true });
      expect(glyph!.advance).toBe(tables.advance(glyph!.id));
      const { minX, minY, maxX, maxY } = boundsOf(flatten(serif.outline(glyph!.id), 0.01))!;
      for (const [k, v] of [minX, minY, maxX, maxY].entries()) expect(v).toBeCloseTo(tables.box(glyph!.id)[k]!, 0);
    }
  });

  it('is the same from WOFF, WOFF 2 and the plain file in either', async () => {
    const text = 'Saltmarsh fi';
    const plain = await ENGINES.woff2(file(SERIF));
    const others = [file(SERIF.replace('woff2', 'woff')), plain];
    for (const bytes of others) {
      const font = await openFont(bytes, ENGINES);
      expect(set(text, [font]).shapes).toEqual(set(text, [serif]).shapes);
    }
  });

  it.each([
    ['nothing', new Uint8Array()],
    ['text', new TextEncoder().encode('not a font at all')],
    ['a header without a font', Uint8Array.of(0, 1, 0, 0, 0, 1, 0, 0)],
    ['a WOFF cut short', file(SERIF.replace('woff2', 'woff')).subarray(0, 900)],
    ['a WOFF 2 cut short', file(SERIF).subarray(0, 900)],
  ])('made of %s is refused in one sentence', async (_, bytes) => {
    await expect(openFont(bytes, ENGINES, 'x.ttf')).rejects.toThrow(/^x\.ttf is (not a font|damaged).*\.$/);
  });

  it.each([
    ['a WOFF whose tables share bytes', sharingWoff(48, 30 * 2 ** 20)],
    ['a WOFF of thousands of tables', sharingWoff(3000, 8)],
    ['a WOFF 2 that says it is huge', hugeWoff2()],
  ])('in %s is refused before anything is unpacked', async (_, bytes) => {
    const before = process.memoryUsage().arrayBuffers;
    await expect(openFont(bytes, ENGINES, 'x.woff')).rejects.toMatchObject({
      code: 'too-large',
      message: expect.stringMatching(/^x\.woff unpacks to more than 32 MB or 80 tables.*\.$/),
    });
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(2 ** 20);
  });
});

/** A WOFF whose directory names the same packed bytes again and again (WOFF 1.0 §4, §5). */
function sharingWoff(count: number, length: number): Uint8Array {
  const packed = zlibSync(new Uint8Array(length));
  const start = 44 + 20 * count;
  const bytes = new Uint8Array(start + packed.length);
  const view = new DataView(bytes.buffer);
  for (const [i, v] of [0x774f4646, 0x00010000, bytes.length].entries()) view.setUint32(4 * i, v);
  view.setUint16(12, count);
  for (let i = 0; i < count; i++) {
    const entry = [0x61626300 + i, start, packed.length, length, 0];
    for (const [k, v] of entry.entries()) view.setUint32(44 + 20 * i + 4 * k, v);
  }
  bytes.set(packed, start);
  return bytes;
}

/** A sound WOFF 2 whose header states another size of the font in it (`totalSfntSize`, WOFF 2.0 §4.1). */
function hugeWoff2(): Uint8Array {
  const bytes = file(SERIF).slice();
  new DataView(bytes.buffer).setUint32(16, 0xf0000000);
  return bytes;
}

describe('letters', () => {
  it('are a shape each, with their counters open', () => {
    const drawing = set('ABO', [serif]);
    expect(names(drawing)).toEqual(['A', 'B', 'O']);
    const contours = drawing.shapes.map(({ path }) => path.filter(([letter]) => letter === 'M').length);
    expect(contours).toEqual([2, 3, 2]);
  });

  it('keep their ids when other letters are put in or taken out', () => {
    const ids = (text: string) => set(text, [serif]).shapes.map(({ id }) => id);
    expect(ids('STARRY')).toEqual(expect.arrayContaining(ids('STAR')));
    expect(ids('ASTAR').slice(2)).toEqual(['letter T 1', 'letter A 2', 'letter R 1']);
  });

  it('are kerned, tracked and set in lines', () => {
    const apart = (change: Partial<Lettering>) => {
      const drawing = set('AV', [serif], change);
      return boxOf(drawing, 1).minX - boxOf(drawing, 0).maxX;
    };
    expect(apart({ kerning: true })).toBeLessThan(apart({ kerning: false }));
    expect(apart({ tracking: 100 }) - apart({ tracking: 0 })).toBeCloseTo(100, 6);
    const lines = set('H\nH', [serif], { lineSpacing: 1.5 });
    expect(boxOf(lines, 1).maxY - boxOf(lines, 0).maxY).toBeCloseTo(1500, 6);
  });

  it('are aligned at their start, middle or end', () => {
    const edge = (align: Lettering['align']) => boxOf(set('H', [serif], { align }), 0).minX;
    const { advance } = serif.shape('H', { isRightToLeft: false, kerning: true, ligatures: true })[0]!;
    expect(edge('start') - edge('end')).toBeCloseTo(advance, 6);
    expect(edge('start') - edge('middle')).toBeCloseTo(advance / 2, 6);
  });

  it.each(ROUND)('stands upright %s a circle, on its outline', (side) => {
    const circle = { diameter: 4000, side, centre: [30, -50.25] } as const;
    const drawing = set('H', [serif], { along: circleLine(circle), align: 'middle' });
    const { minX, maxX, minY, maxY } = boxOf(drawing, 0);
    expect((minX + maxX) / 2).toBeCloseTo(30, -1);
    // The foot of the letter is on the circle, its head above it: outside over the top, inside through the bottom.
    const foot = side === 'over' ? -2050.25 : 1949.75;
    expect(Math.abs(maxY - foot)).toBeLessThan(70);
    expect(minY).toBeLessThan(foot - 500);
    expect(circleOf(circleLine(circle))).toEqual(circle);
    expect(circleOf('M0 0L10 0')).toBeNull();
  });

  it('stand upright on a circle, at its radius', () => {
    const circle = 'M0 -5000A5000 5000 0 0 1 5000 0';
    const drawing = set('H', [serif], { along: circle, align: 'middle' });
    const corners = drawing.shapes[0]!.path.flatMap((s) => (s.length === 3 ? [Math.hypot(s[1], s[2])] : []));
    // The feet of the letter lie on the baseline's tangent, a little outside the circle.
    expect(Math.min(...corners)).toBeGreaterThan(4999);
    expect(Math.min(...corners)).toBeLessThan(5040);
  });

  it('say what the font does not have', () => {
    const some = set('Aنج', [serif]);
    expect(some.warnings[0]!.message).toMatch(/The font has no ن ج/);
    expect(names(some)).toEqual(['A']);
    expect(set('  ', [serif]).warnings.map(({ code }) => code)).toEqual(['nothing']);
  });
});

describe('connected script', () => {
  /**
   * Joining types of the letters (Unicode, ArabicShaping.txt): D joins on both sides, R only to the letter before, U to none.
   */
  const TYPES: Record<string, 'D' | 'R' | 'U'> = {
    ن: 'D',
    ج: 'D',
    و: 'R',
    م: 'D',
    س: 'D',
    ل: 'D',
    ا: 'R',
    د: 'R',
    ر: 'R',
    ب: 'D',
    ء: 'U',
  };

  /** Letters that hang together, by their joining types. */
  function joinedGroups(word: string): string[] {
    const groups: string[] = [];
    for (const [i, letter] of [...word].entries()) {
      const joins = i > 0 && TYPES[word[i - 1]!] === 'D' && TYPES[letter] !== 'U';
      if (joins) groups.push(groups.pop() + letter);
      else groups.push(letter);
    }
    return groups;
  }

  it.each(['نجوم', 'سلام', 'باب', 'درب', 'نور', 'سماء'])('%s joins where Unicode says its letters do', (word) => {
    expect(names(set(word, [arabic, latin]))).toEqual(joinedGroups(word));
  });

  it('runs from the right, and numbers and Latin words in it from the left', () => {
    const drawing = set('نجم 12', [arabic, latin]);
    const x = (name: string) => boxOf(drawing, names(drawing).indexOf(name)).minX;
    expect(x('1')).toBeLessThan(x('2'));
    expect(x('2')).toBeLessThan(x('نجم'));
  });

  it('has no seams where letters join, and its dots apart', () => {
    const [word, last] = set('نجوم', [arabic]).shapes;
    // Body with the counter of waw, and two dots; meem with its own counter.
    expect(word!.path.filter(([letter]) => letter === 'M')).toHaveLength(4);
    expect(last!.path.filter(([letter]) => letter === 'M')).toHaveLength(2);
  });

  it('is not torn apart by tracking, and says so', () => {
    const drawing = set('نجوم', [arabic], { tracking: 200 });
    expect(names(drawing)).toEqual(['نجو', 'م']);
    expect(drawing.warnings.map(({ code }) => code)).toEqual(['tracking']);
  });
});

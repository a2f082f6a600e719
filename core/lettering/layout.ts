// layout.ts — a text to shapes: split into runs by direction, script and font, shaped, set in lines or along a path; every
// letter a shape of its own, letters that join one together.
import bidiFactory from 'bidi-js';
import { DisjointSets } from '../base/disjoint-sets.ts';
import type { Warning } from '../base/errors.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { combine, type Filled } from '../outline/combine.ts';
import { roughSize } from '../outline/corners.ts';
import { boundsOf } from '../outline/measure.ts';
import { contoursOf } from '../path/cubic.ts';
import { flatten } from '../path/flatten.ts';
import { transformPath } from '../path/matrix.ts';
import { parsePath } from '../path/parse.ts';
import type { Matrix, Path } from '../path/types.ts';
import { placeOn, type Way, wayAlong } from '../path/way.ts';
import type { Glyph, LetterFont } from './font.ts';
import type { Lettering } from './settings.ts';

const bidi = bidiFactory();

/** How a text is set, whatever its fonts. */
type Setting = Omit<Lettering, 'font'>;

/** The glyph for characters that a font does not have (OpenType: ".notdef" is always the first). */
const NO_GLYPH = 0;

/** Colour of letters until a layer gives them another. */
const INK = '#1f2a44';

/** A letter, or letters that a ligature makes one, on its line: font units of its own font, y up. */
interface Cluster {
  readonly font: LetterFont;
  readonly glyphs: readonly Glyph[];
  /** Place in the whole text, and the characters it stands for. */
  readonly start: number;
  readonly text: string;
  /** In user units. */
  readonly advance: number;
  /** Whether it is joined to its neighbours by its script, so that nothing may come between them. */
  readonly isJoined: boolean;
}

interface Line {
  readonly clusters: readonly Cluster[];
  readonly width: number;
  readonly isRightToLeft: boolean;
}

/**
 * The shapes of a text, in user units, y down; the first baseline is y = 0.
 * @param fonts in the order in which they are asked for a character
 */
export function layLetters(lettering: Setting, fonts: readonly LetterFont[]): Drawing {
  const missing = new Set<string>();
  const lines = lettering.text.split(/\r\n|[\n\r]/).reduce<{ lines: Line[]; start: number }>(
    ({ lines, start }, text) => ({
      lines: [...lines, layLine(text, start, lettering, fonts, missing)],
      start: start + text.length + 1,
    }),
    { lines: [], start: 0 },
  ).lines;
  const path = lettering.along === null ? null : alongPath(lettering.along);
  const placed = lines.flatMap((line, i) => placeLine(line, i, lettering, path));
  const shapes = named(united(placed));
  const bounds = boundsOf(shapes.flatMap((shape) => flatten(shape.path, lettering.size / 100)));
  const { minX, minY, maxX, maxY } = bounds ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  return {
    shapes,
    sheet: { x: minX, y: minY, width: maxX - minX, height: maxY - minY },
    mmPerUnit: null,
    leftOut: [],
    warnings: warningsOf(lettering, lines, missing, path, placed.length),
  };
}

// --- lines ----------------------------------------------------------------------------------------------------------

function layLine(
  text: string,
  start: number,
  lettering: Setting,
  fonts: readonly LetterFont[],
  missing: Set<string>,
): Line {
  const levels = bidi.getEmbeddingLevels(text);
  const runs = runsOf(text, levels.levels, fonts, missing);
  const order = visualOrder(runs.map(({ level }) => level));
  const clusters = order.flatMap((i) => {
    const run = runs[i]!;
    // Brackets look the other way in a text that runs to the left (Unicode Bidirectional Algorithm, rule L4); HarfBuzz
    // mirrors them itself.
    return clustersOf(run.font, text.slice(run.from, run.to), start + run.from, run.level % 2 === 1, lettering);
  });
  const track = (lettering.tracking / 1000) * lettering.size;
  const spaced = clusters.map((cluster) =>
    cluster.isJoined ? cluster : { ...cluster, advance: cluster.advance + track },
  );
  return {
    clusters: spaced,
    width: spaced.reduce((sum, { advance }) => sum + advance, 0) - (spaced.at(-1)?.isJoined ? 0 : track),
    isRightToLeft: (levels.paragraphs[0]?.level ?? 0) % 2 === 1,
  };
}

interface Run {
  readonly from: number;
  readonly to: number;
  readonly level: number;
  readonly font: LetterFont;
}

/** Stretches of one direction, one script and one font. */
function runsOf(text: string, levels: Uint8Array, fonts: readonly LetterFont[], missing: Set<string>): Run[] {
  const runs: (Run & { script: string })[] = [];
  let from = 0;
  for (const character of text) {
    const codePoint = character.codePointAt(0)!;
    const to = from + character.length;
    const last = runs.at(-1);
    const script = scriptOf(character) ?? last?.script ?? '';
    const isMark = /\p{M}|\p{Cf}/u.test(character);
    // A mark stays with its letter as long as the letter's font has it.
    const able = (font: LetterFont) => font.has(codePoint);
    const found = last && (isMark || scriptOf(character) === null) && able(last.font) ? last.font : fonts.find(able);
    if (!found && !/\s|\p{Cf}/u.test(character)) missing.add(character);
    const font = found ?? last?.font ?? fonts[0]!;
    const level = levels[from]!;
    if (last && last.level === level && last.font === font && (last.script === script || last.script === '')) {
      runs[runs.length - 1] = { ...last, to, script };
    } else runs.push({ from, to, level, font, script });
    from = to;
  }
  return runs;
}

/** Scripts that shape differently; the rest may share a run. */
const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Arabic',
  'Hebrew',
  'Devanagari',
  'Bengali',
  'Thai',
  'Hangul',
  'Han',
  'Hiragana',
  'Katakana',
  'Armenian',
  'Georgian',
  'Syriac',
  'Tamil',
].map((name) => [name, new RegExp(`\\p{Script=${name}}`, 'u')] as const);

/** Null for what belongs to every script: spaces, digits, punctuation, marks. */
function scriptOf(character: string): string | null {
  return SCRIPTS.find(([, pattern]) => pattern.test(character))?.[0] ?? null;
}

/** Runs from left to right (Unicode Bidirectional Algorithm, rule L2). */
function visualOrder(levels: readonly number[]): number[] {
  const order = levels.map((_, i) => i);
  for (let level = Math.max(0, ...levels); level > 0; level--) {
    for (let i = 0; i < order.length; ) {
      if (levels[order[i]!]! < level) {
        i++;
        continue;
      }
      let end = i;
      while (end < order.length && levels[order[end]!]! >= level) end++;
      order.splice(i, end - i, ...order.slice(i, end).reverse());
      i = end;
    }
  }
  return order;
}

const JOINING = /[\p{Script=Arabic}\p{Script=Syriac}]/u;

function clustersOf(
  font: LetterFont,
  text: string,
  start: number,
  isRightToLeft: boolean,
  { size, kerning, ligatures }: Setting,
): Cluster[] {
  const glyphs = font.shape(text, { isRightToLeft, kerning, ligatures });
  const starts = [...new Set(glyphs.map(({ cluster }) => cluster))].sort((a, b) => a - b);
  const groups: Glyph[][] = [];
  for (const glyph of glyphs) {
    if (groups.at(-1)?.[0]?.cluster === glyph.cluster) groups.at(-1)!.push(glyph);
    else groups.push([glyph]);
  }
  return groups.map((group) => {
    const from = group[0]!.cluster;
    const own = text.slice(from, starts.find((other) => other > from) ?? text.length);
    return {
      font,
      glyphs: group,
      start: start + from,
      text: own,
      advance: (group.reduce((sum, { advance }) => sum + advance, 0) * size) / font.unitsPerEm,
      isJoined: JOINING.test(own),
    };
  });
}

// --- places ---------------------------------------------------------------------------------------------------------

interface Placed {
  readonly path: Path;
  readonly start: number;
  readonly text: string;
}

function alongPath(d: string): Way | null {
  const [contour] = contoursOf(parsePath(d).path);
  return contour ? wayAlong(contour) : null;
}

function placeLine(line: Line, index: number, { size, align, lineSpacing }: Setting, way: Way | null): Placed[] {
  const down = index * lineSpacing * size;
  // The start is on the right of a line that runs to the left.
  const share = align === 'middle' ? 0.5 : (align === 'start') === line.isRightToLeft ? 1 : 0;
  let x = share * ((way?.length ?? 0) - line.width);
  return line.clusters.flatMap(({ font, glyphs, start, text, advance }): Placed[] => {
    const scale = size / font.unitsPerEm;
    const frame = way ? frameOn(way, x + advance / 2, advance / 2, down) : ([1, 0, 0, 1, x, down] as const);
    let pen = 0;
    const path = glyphs.flatMap((glyph): Path => {
      const place: Matrix = [scale, 0, 0, -scale, (pen + glyph.x) * scale, -glyph.y * scale];
      pen += glyph.advance;
      // What a font draws for a letter it does not have is no letter; the warning says which.
      if (glyph.id === NO_GLYPH) return [];
      return transformPath(transformPath(font.outline(glyph.id), place), frame);
    });
    x += advance;
    return path.length > 0 ? [{ path, start, text }] : [];
  });
}

/** A letter stands upright on the path at its middle; letters beyond the path's ends go straight on. */
function frameOn(way: Way, place: number, half: number, down: number): Matrix {
  const { x, y, ux, uy } = placeOn(way, place);
  const back = place - Math.min(way.length, Math.max(0, place)) - half;
  return [ux, uy, -uy, ux, x + back * ux - down * uy, y + back * uy + down * ux];
}

// --- shapes ---------------------------------------------------------------------------------------------------------

/** Letters whose outlines overlap become one; contours of one letter that overlap are united. */
function united(placed: readonly Placed[]): Placed[] {
  const boxes = placed.map(({ path }) => boundsOf(flatten(path, 1e-2 * roughSize([path]))));
  const words = new DisjointSets(placed.length);
  for (const [i, a] of boxes.entries()) {
    for (let j = i + 1; j < boxes.length; j++) {
      const b = boxes[j];
      if (!a || !b || a.maxX <= b.minX || b.maxX <= a.minX || a.maxY <= b.minY || b.maxY <= a.minY) continue;
      const operands = [placed[i]!, placed[j]!].map(({ path }): Filled => ({ path, fillRule: 'nonzero' }));
      if (combine(operands, 'intersect').length > 0) words.join(i, j);
    }
  }
  const groups = new Map<number, Placed[]>();
  for (const [i, letter] of placed.entries()) {
    const group = groups.get(words.find(i));
    if (group) group.push(letter);
    else groups.set(words.find(i), [letter]);
  }
  return [...groups.values()].map((group) => ({
    path: combine(
      group.map(({ path }): Filled => ({ path, fillRule: 'nonzero' })),
      'union',
    ),
    start: Math.min(...group.map(({ start }) => start)),
    text: [...group]
      .sort((a, b) => a.start - b.start)
      .map(({ text }) => text)
      .join(''),
  }));
}

/** In reading order. An id is the letter and how often it has come before, so that it survives changes elsewhere. */
function named(letters: readonly Placed[]): Shape[] {
  const seen = new Map<string, number>();
  return [...letters]
    .sort((a, b) => a.start - b.start)
    .filter(({ path }) => path.length > 0)
    .map(({ path, text }): Shape => {
      const n = (seen.get(text) ?? 0) + 1;
      seen.set(text, n);
      return {
        id: `letter ${text} ${n}`,
        name: text,
        group: '',
        path,
        fillRule: 'nonzero',
        colour: INK,
        opacity: 1,
      };
    });
}

function warningsOf(
  { tracking, along }: Setting,
  lines: readonly Line[],
  missing: ReadonlySet<string>,
  way: Way | null,
  letters: number,
): Warning[] {
  const warnings: Warning[] = [];
  if (missing.size > 0) {
    const some = [...missing].slice(0, 12).join(' ');
    warnings.push({ code: 'missing-letters', message: `The font has no ${some}; choose another font for them.` });
  }
  if (tracking !== 0 && lines.some((line) => line.clusters.some(({ isJoined }) => isJoined))) {
    warnings.push({
      code: 'tracking',
      message: 'Letters that join are not moved apart; tracking holds between the others.',
    });
  }
  if (along !== null && !way) {
    warnings.push({ code: 'path', message: 'The line to set the text on has no length; it is set straight.' });
  }
  const longest = Math.max(0, ...lines.map(({ width }) => width));
  if (way && longest > way.length * (1 + 1e-9)) {
    warnings.push({ code: 'path', message: 'The text is longer than its line; it goes on straight at the ends.' });
  }
  if (letters === 0) warnings.push({ code: 'nothing', message: 'There is no letter to build.' });
  return warnings;
}

// drawings.ts — thousands of real drawings: open icon sets, the letters of the fonts that ship, and countries.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import {
  BUNDLED_FONTS,
  boundsOf,
  type Drawing,
  type LetterFont,
  type Path,
  type Region,
  readSvg,
  type Shape,
  toleranceFor,
} from '../core/index.ts';
import { longestSide } from '../core/outline/measure.ts';
import { regionsOf } from '../core/outline/regions.ts';
import type { Bounds } from '../core/outline/types.ts';
import { shapeBounds, shapeRegions } from '../core/sources/placing.ts';
import { bundledFonts } from '../node/fonts.ts';

export interface RealDrawing {
  readonly set: string;
  readonly name: string;
  /** About the origin, as sources lie on the sheet. */
  readonly regions: () => Region[];
}

/** Packages with a file for each icon. Only the last two are installed for the tests; the others are used where they are found. */
const ICONS = ['bootstrap-icons/icons', '@tabler/icons/icons/filled', 'lucide-static/icons', '@mdi/svg/svg'];
const COUNTRIES = 'world-atlas/countries-10m.json';

/** @returns the drawings, and the sets that are not installed */
export async function realDrawings(): Promise<{ drawings: RealDrawing[]; missing: string[] }> {
  const [there, missing] = [
    [COUNTRIES, ...ICONS].filter(isInstalled),
    [COUNTRIES, ...ICONS].filter((set) => !isInstalled(set)),
  ];
  const drawings = there.flatMap((set) => (set === COUNTRIES ? countries() : icons(set)));
  return { drawings: [...(await letters()), ...drawings], missing };
}

const isInstalled = (set: string) => existsSync(`bench/sets/node_modules/${set}`);

function icons(set: string): RealDrawing[] {
  const names = readdirSync(`bench/sets/node_modules/${set}`).filter((name) => name.endsWith('.svg'));
  return names.sort().map((name) => ({
    set,
    name,
    regions: () => {
      const { shapes, sheet } = readSvg(readFileSync(`bench/sets/node_modules/${set}/${name}`, 'utf8'));
      return covered(shapes, sheet);
    },
  }));
}

/** All shapes as one, as a layer of a project takes them. */
function covered(shapes: readonly Shape[], sheet: Drawing['sheet']): Region[] {
  const box = shapeBounds(shapes, sheet);
  if (!box) return [];
  return shapeRegions(shapes, { scale: 1, origin: middleOf(box) }, toleranceFor(longestSide(box)));
}

const middleOf = ({ minX, minY, maxX, maxY }: Bounds): [x: number, y: number] => [(minX + maxX) / 2, (minY + maxY) / 2];

/** Every glyph that a character brings about on its own or between others. */
async function letters(): Promise<RealDrawing[]> {
  const drawings: RealDrawing[] = [];
  for (const name of BUNDLED_FONTS) {
    for (const [file, font] of (await bundledFonts(name)).entries()) {
      const glyphs = new Map<number, string>();
      for (let code = 0x21; code < 0x10000; code++) {
        if (!font.has(code)) continue;
        const letter = String.fromCodePoint(code);
        for (const glyph of glyphsOf(font, letter)) if (!glyphs.has(glyph)) glyphs.set(glyph, letter);
      }
      for (const [glyph, letter] of glyphs) {
        const path = font.outline(glyph);
        if (path.length === 0) continue;
        const em = { x: 0, y: 0, width: font.unitsPerEm, height: font.unitsPerEm };
        drawings.push({
          set: name,
          name: `${file}:${glyph} ${letter}`,
          regions: () => covered([letterShape(path)], em),
        });
      }
    }
  }
  return drawings;
}

/** Arabic letters have forms of their own at the beginning, in the middle and at the end: a tatweel joins them to it. */
function glyphsOf(font: LetterFont, letter: string): number[] {
  const isRightToLeft = /\p{Script=Arabic}|\p{Script=Hebrew}/u.test(letter);
  const contexts = isRightToLeft ? [letter, `ـ${letter}`, `${letter}ـ`, `ـ${letter}ـ`] : [letter];
  return contexts.flatMap((text) =>
    font.shape(text, { isRightToLeft, kerning: true, ligatures: true }).map(({ id }) => id),
  );
}

function letterShape(path: Path): Shape {
  return { id: 'letter', name: 'letter', group: '', path, fillRule: 'nonzero', colour: '#000000', opacity: 1 };
}

interface Topology {
  readonly transform: { readonly scale: readonly [number, number]; readonly translate: readonly [number, number] };
  /** Lines that countries share: differences of whole numbers. */
  readonly arcs: readonly (readonly (readonly [number, number])[])[];
  readonly objects: { readonly countries: { readonly geometries: readonly Country[] } };
}

type Country = { readonly properties: { readonly name: string } } & (
  | { readonly type: 'Polygon'; readonly arcs: readonly (readonly number[])[] }
  | { readonly type: 'MultiPolygon'; readonly arcs: readonly (readonly (readonly number[])[])[] }
);

/** Degrees as plane coordinates (TopoJSON 1.0: arcs count from 0, and are run backwards where ~arc is given). */
function countries(): RealDrawing[] {
  const { transform, arcs, objects } = JSON.parse(
    readFileSync(`bench/sets/node_modules/${COUNTRIES}`, 'utf8'),
  ) as Topology;
  const lines = arcs.map((arc) => {
    let [x, y] = [0, 0];
    return arc.map(([dx, dy]) => {
      x += dx;
      y += dy;
      return [x, y].map((v, k) => v * transform.scale[k]! + transform.translate[k]!);
    });
  });
  const ringOf = (numbers: readonly number[]) =>
    Float64Array.from(numbers.flatMap((i) => (i < 0 ? lines[~i]!.toReversed() : lines[i]!).slice(1).flat()));
  return objects.countries.geometries.map((country) => ({
    set: COUNTRIES,
    name: country.properties.name,
    regions: () => {
      const rings = (country.type === 'Polygon' ? country.arcs : country.arcs.flat()).map(ringOf);
      const middle = middleOf(boundsOf(rings)!);
      return regionsOf(
        rings.map((ring) => ring.map((v, i) => v - middle[i % 2]!)),
        'evenodd',
      );
    },
  }));
}

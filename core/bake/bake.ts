// bake.ts — colours and contact shade of everything in one picture, for what takes no more than one: every part gets a place of its
// own on it.
import type { Pictures } from '../formats/format.ts';
import type { Part } from '../formats/part.ts';
import { type Material, wholeOf } from '../materials/schema.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { LINEAR, linearOfHex, toEncoded } from '../picture/colour.ts';
import { encodePng } from '../picture/png.ts';
import type { Picture } from '../picture/types.ts';
import type { Report } from '../sources/kind.ts';
import { spread } from './bleed.ts';
import { OPEN, shadeOf, sharesOf } from './shade.ts';
import { type Surface, surfaceOf } from './surface.ts';
import { NOTHING, texelsOf } from './texels.ts';
import type { BakeWishes } from './wishes.ts';

export interface Baked {
  /** The same parts, all of one material that shows the picture. */
  readonly parts: readonly Part[];
  /** A PNG, by the asset that the material names it by. */
  readonly pictures: Pictures;
  /** Share of the picture that something is on. */
  readonly used: number;
}

/** What has no bytes of its own in the project. */
const BAKED = 'baked';

/** @param shown pictures that materials of the parts show, by their assets */
export function bake(
  parts: readonly Part[],
  wishes: BakeWishes,
  shown: ReadonlyMap<string, Picture> = new Map(),
  report: Report = () => {},
): Baked {
  const { size } = wishes;
  const { pixels, uvs, used } = paint(parts, wishes, shown, (share) => report(0.95 * share));
  const png = encodePng(pixels, size, size);
  report(1);
  const picture = { asset: BAKED, name: 'Baked' };
  const material: Material = { colour: '#ffffff', opacity: 1, roughness: 1, metalness: 0, picture };
  const made = parts.map(({ sideMaterials: _, ...part }, i) => ({
    ...part,
    material,
    materialName: 'Baked',
    uvs: uvs[i]!,
  }));
  return { parts: made, pictures: new Map([[BAKED, png]]), used };
}

/** Steps of linear light, so many that each of the 256 encoded values is hit. */
const FINE = 16_384;
const ENCODED = Uint8Array.from({ length: FINE + 1 }, (_, i) => Math.round(255 * toEncoded(i / FINE)));

/** What glass lets through of what is behind it cannot be in a picture of it: it is seen through this much. */
const THROUGH = 0.85;

/** Red, green, blue and opacity of each pixel, sRGB-encoded, row after row from above. */
function paint(
  parts: readonly Part[],
  { size, bleed, shade, reach }: BakeWishes,
  shown: ReadonlyMap<string, Picture>,
  report: Report,
): { pixels: Uint8Array; uvs: readonly Float32Array[]; used: number } {
  const surface = surfaceOf(parts, size, bleed + 1);
  const texels = texelsOf(surface, size);
  report(0.1);
  const { min, max } = boxOfPoints([surface.positions]);
  const longest = Math.max(...max.map((v, k) => v - min[k]!));
  const shades = shade > 0 ? shadeOf(surface, texels, size, reach * longest, (part) => report(0.1 + 0.8 * part)) : null;
  const pixels = new Uint8Array(4 * size * size);
  const looks = surface.materials.map((material) => lookOf(material, shown));
  const tint = [1, 1, 1, 1];
  let used = 0;
  for (let i = 0; i < texels.length; i++) {
    if (texels[i] === NOTHING) continue;
    const t = texels[i]! - 1;
    const { light, glow, opacity, picture } = looks[surface.paints[t]!]!;
    const open = shades ? 1 - shade * (1 - (shades[i]! - 1) / OPEN) : 1;
    if (picture) tintAt(tint, picture, surface, t, (i % size) + 0.5, Math.floor(i / size) + 0.5);
    else tint.fill(1);
    for (let k = 0; k < 3; k++) {
      pixels[4 * i + k] = ENCODED[Math.round(FINE * Math.min(1, open * tint[k]! * light[k]! + glow[k]!))]!;
    }
    pixels[4 * i + 3] = Math.round(255 * opacity * tint[3]!);
    used++;
  }
  spread(pixels, texels, size, bleed);
  return { pixels, uvs: surface.uvs, used: used / texels.length };
}

/** What a picture on a triangle has at a place of the baked one: linear light and opacity, of four pixels by their nearness. */
function tintAt(
  tint: number[],
  { width, height, data }: Picture,
  surface: Surface,
  t: number,
  x: number,
  y: number,
): void {
  const shares = sharesOf(surface.places, 6 * t, x, y);
  const own = (k: number) =>
    shares.reduce((sum, share, corner) => sum + share * surface.shown[6 * t + 2 * corner + k]!, 0);
  const [u, v] = [own(0) * width - 0.5, (1 - own(1)) * height - 0.5];
  const [left, top] = [Math.floor(u), Math.floor(v)];
  tint.fill(0);
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    const share = (dx ? u - left : 1 - u + left) * (dy ? v - top : 1 - v + top);
    const at = 4 * (within(top + dy, height) * width + within(left + dx, width));
    for (let k = 0; k < 3; k++) tint[k]! += share * LINEAR[data[at + k]!]!;
    tint[3]! += (share * data[at + 3]!) / 255;
  }
}

/** Pictures go on where they end. */
const within = (i: number, count: number) => ((i % count) + count) % count;

interface Look {
  /** Linear. */
  readonly light: readonly number[];
  readonly glow: readonly number[];
  readonly opacity: number;
  readonly picture: Picture | undefined;
}

/** What a material comes to in a picture without lights and reflections. */
function lookOf(material: Material, shown: ReadonlyMap<string, Picture>): Look {
  const { colour, opacity, glow, glowStrength, transmission, picture } = wholeOf(material);
  return {
    light: linearOfHex(colour),
    glow: linearOfHex(glow).map((v) => glowStrength * v),
    opacity: opacity * (1 - THROUGH * transmission),
    picture: picture && shown.get(picture.asset),
  };
}

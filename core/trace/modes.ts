// modes.ts — the flat colours of a picture: the modes of the colours of its flat places, found by mean shift (Comaniciu & Meer,
// “Mean shift: a robust approach toward feature space analysis”, 2002), each of which must have a core: places that are flat all
// around and hold together. What share of the sheet a colour has does not matter.
import { type Cores, coresOf } from './cores.ts';
import { noiseIn } from './grain.ts';
import { apart, type Planes, type Shade } from './planes.ts';

export interface Mode {
  readonly shade: Shade;
  /** Pixels whose whole neighbourhood has it. */
  readonly core: number;
}

/** How far colours of flat places lie from their mode: at least, and by the noise, of which a mean over nine pixels has a third. */
const [RADIUS, RADIUS_BY_NOISE] = [4, 1.6];
/** Most colours of flat places that are looked at; those that are left out are rare ones of pictures that are not flat. */
const MOST_SWATCHES = 4000;
const ROUNDS = 12;

interface Swatch {
  readonly shade: Shade;
  readonly weight: number;
}

type Bin = [n: number, y: number, u: number, v: number];

/** Core pixels by colour, in steps of two bytes, the most frequent first. */
function swatchesOf({ y, u, v, isCore }: Cores): Swatch[] {
  const bins = new Map<number, Bin>();
  let [bin, before]: [Bin, number] = [[0, 0, 0, 0], -1];
  for (let i = 0; i < isCore.length; i++) {
    if (!isCore[i]) continue;
    // Most have the very colour of the one before.
    if (before < 0 || y[i] !== y[before] || u[i] !== u[before] || v[i] !== v[before]) {
      const key = ((y[i]! >> 1) << 16) | (((u[i]! + 128) >> 1) << 8) | ((v[i]! + 128) >> 1);
      bin = bins.get(key) ?? [0, 0, 0, 0];
      bins.set(key, bin);
      before = i;
    }
    bin[0]++;
    bin[1] += y[i]!;
    bin[2] += u[i]!;
    bin[3] += v[i]!;
  }
  return [...bins.values()]
    .map(([weight, a, b, c]): Swatch => ({ weight, shade: [a / weight, b / weight, c / weight] }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_SWATCHES);
}

/** A colour has this many core pixels: at least, by the noise, and enough in any case. */
const [CORE, CORE_BY_NOISE, CORE_ENOUGH] = [3, 30, 14];

/** The flat colours of a picture, where they are flat, and its noise in bytes. @param most where the search ends */
export function flatColours(planes: Planes, most: number): { modes: Mode[]; cores: Cores; noise: number } {
  const noise = noiseIn(planes);
  const cores = coresOf(planes, noise);
  const radius = Math.max(RADIUS, RADIUS_BY_NOISE * noise);
  const found = modesOf(cores, { noise, radius, most });
  // Grain and texture are flat nowhere: their colours are those that most pixels have.
  const modes = found.length > 0 ? found : modesOf(everywhere(planes), { noise, radius, most });
  if (modes.length === 1 && doMostStray(planes, modes[0]!.shade, Math.max(RADIUS, STRAY_BY_NOISE * noise))) {
    // Soft changes alone come together in one mode: it is all the tones that they go through.
    return { modes: modesOf(everywhere(planes), { noise, radius: RADIUS, most }), cores, noise };
  }
  const square = { width: planes.width, radius, block: blockFor(noise) };
  const isBelieved = (mode: Mode) =>
    !(noise > COMPRESSED && isShade(mode, modes, radius)) &&
    (!isBetween(mode, modes, radius) || hasBlock(cores, { ...square, shade: mode.shade }));
  return { modes: modes.filter(isBelieved), cores, noise };
}

/** Half of the pixels that have but grain lie within 0.67 deviations of their shade. */
const STRAY_BY_NOISE = 0.8;

/** Whether at least half of the pixels have tones further from a shade than `most` bytes: thin lines and small parts do not count. */
function doMostStray({ y, isClear }: Planes, shade: Shade, most: number): boolean {
  let [all, far] = [0, 0];
  for (let i = 0; i < y.length; i++) {
    if (isClear[i]) continue;
    all++;
    if (Math.abs(y[i]! - shade[0]) > most) far++;
  }
  return all > 0 && 2 * far >= all;
}

/** Every pixel that can be seen, as if it lay in a flat place. */
const everywhere = ({ y, u, v, isClear }: Planes): Cores => ({ y, u, v, isCore: isClear.map((clear) => 1 - clear) });

/** Noise of this many bytes is left by compression at the least; drawings and palettes have none. */
export const COMPRESSED = 0.1;
/** Compression tints a few flat places of a colour, not one in so many, by up to this many radii. */
const [TINTED, TINT] = [250, 2.5];

/** Whether a colour is what compression has made of a little of another one. */
const isShade = ({ shade, core }: Mode, modes: readonly Mode[], radius: number): boolean =>
  modes.some((mode) => mode.core > TINTED * core && apart(mode.shade, shade) < TINT * radius);

/** What has this many times the core is much more. */
const MUCH = 4;

/** Whether a colour is a mixture of two that there is much more of, as the middle of a soft edge between them is. */
function isBetween({ shade, core }: Mode, modes: readonly Mode[], radius: number): boolean {
  const large = modes.filter((mode) => mode.core > MUCH * core);
  return large.some(({ shade: a }, i) =>
    large.slice(i + 1).some(({ shade: b }) => {
      const [d, e, f] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
      const t = ((shade[0] - a[0]) * d + (shade[1] - a[1]) * e + (shade[2] - a[2]) * f) / (d * d + e * e + f * f);
      return t > 0 && t < 1 && apart(shade, [a[0] + t * d, a[1] + t * e, a[2] + t * f]) < radius;
    }),
  );
}

/** Pixels along each side of a square that an edge does not fill: in noise, soft edges are flat for longer. */
const blockFor = (noise: number): number => 3 + Math.round(noise);

/** Whether there is a square of core pixels of a colour: along an edge they are a chain. */
function hasBlock(
  { y, u, v, isCore }: Cores,
  { shade, width, radius, block }: { shade: Shade; width: number; radius: number; block: number },
): boolean {
  // Sides of the squares that end at each pixel, row by row.
  let above = new Uint8Array(width);
  for (let start = 0; start < isCore.length; start += width) {
    const row = new Uint8Array(width);
    for (let column = 1; column < width; column++) {
      const i = start + column;
      if (!isCore[i] || apart(shade, [y[i]!, u[i]!, v[i]!]) > radius) continue;
      row[column] = 1 + Math.min(block, row[column - 1]!, above[column]!, above[column - 1]!);
      if (row[column]! >= block) return true;
    }
    above = row;
  }
  return false;
}

interface Search {
  readonly noise: number;
  /** How far colours of flat places lie from their mode, in bytes. */
  readonly radius: number;
  readonly most: number;
}

function modesOf(cores: Cores, { noise, radius, most }: Search): Mode[] {
  const swatches = swatchesOf(cores);
  const free = new Set(swatches);
  const found: Mode[] = [];
  for (const seed of swatches) {
    if (found.length >= most) break;
    if (!free.has(seed)) continue;
    const shade = shifted(swatches, seed.shade, radius);
    let core = 0;
    for (const other of free) {
      if (other !== seed && apart(other.shade, shade) > radius) continue;
      core += other.weight;
      free.delete(other);
    }
    if (core < Math.min(CORE_ENOUGH, CORE + CORE_BY_NOISE * noise)) continue;
    if (found.every((mode) => apart(mode.shade, shade) > radius)) found.push({ shade, core });
  }
  return found;
}

/** Where the mean of what lies within the radius does not move any more. */
function shifted(swatches: readonly Swatch[], start: Shade, radius: number): Shade {
  let at = start;
  for (let round = 0; round < ROUNDS; round++) {
    let [n, y, u, v] = [0, 0, 0, 0];
    for (const { shade, weight } of swatches) {
      if (apart(shade, at) > radius) continue;
      n += weight;
      y += weight * shade[0];
      u += weight * shade[1];
      v += weight * shade[2];
    }
    const next: Shade = [y / n, u / n, v / n];
    const moved = apart(next, at);
    at = next;
    if (moved < 0.01) break;
  }
  return at;
}

/**
 * Fewer colours: again and again the two whose union adds the least squared distance become one (Ward, “Hierarchical grouping to
 * optimize an objective function”, 1963).
 */
export function merged(modes: readonly Mode[], count: number): Mode[] {
  const rest = [...modes];
  while (rest.length > Math.max(1, count)) {
    let [p, q, least] = [0, 1, Infinity];
    for (let i = 0; i < rest.length; i++) {
      for (let j = i + 1; j < rest.length; j++) {
        const [a, b] = [rest[i]!, rest[j]!];
        const cost = ((a.core * b.core) / (a.core + b.core)) * apart(a.shade, b.shade) ** 2;
        if (cost < least) [p, q, least] = [i, j, cost];
      }
    }
    const [a, b] = [rest[p]!, rest[q]!];
    const core = a.core + b.core;
    const mean = (k: 0 | 1 | 2) => (a.core * a.shade[k] + b.core * b.shade[k]) / core;
    rest[p] = { core, shade: [mean(0), mean(1), mean(2)] };
    rest.splice(q, 1);
  }
  return rest;
}

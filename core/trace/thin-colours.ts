// thin-colours.ts — colours that only thin lines and small dots have, which are flat nowhere: the crests of what no mixture of known
// colours explains.
import { componentsOf } from '../picture/components.ts';
import { Labeller, type Palette, PENDING } from './labels.ts';
import { apart, type Planes, type Shade } from './planes.ts';

/** Bytes that a pixel strays from any mixture before it counts: at least, and by what others stray. */
const [UNEXPLAINED, BY_SCATTER] = [24, 3.5];
/** Compression that spoils a picture leaves this; what strays further is a colour that is not known yet. */
const MOST_SCATTER = 12;
/** Crests of one colour hold together; shorter ones are specks. */
const LEAST_PIXELS = 10;
const LEAST_CRESTS = 5;
/** Crests this near to each other, in bytes, have one colour, which the clearest of them show. */
const RADIUS = 24;
const CLEAREST = 0.25;
/** Each of them may explain what seemed to be another. */
const MOST = 8;
/** Crests that are tried: where the clearest are not alike, there is grain and no line. */
const TRIED = 400;
/** Lines run through flat places: where less than this share of a picture is flat, crests are those of grain and shading. */
const FLAT_SHARE = 0.3;

/** Those found already, and the thin ones. @param settled labels of flat places, see {@link settledLabels} @param shades of these */
export function withThinColours(planes: Planes, settled: Uint8Array, shades: readonly Shade[]): Palette {
  const known = [...shades];
  let scatter = 0;
  const rounds = isMostlyFlat(settled) ? MOST : 0;
  for (let round = 0; round <= rounds; round++) {
    const strays = new Labeller(planes, { shades: known, scatter }).straysFrom(settled);
    scatter = scatterOf(strays, settled);
    const next = round < rounds && crestColour(planes, strays, Math.max(UNEXPLAINED, BY_SCATTER * scatter), known);
    if (!next) break;
    known.push(next);
  }
  return { shades: known, scatter };
}

function isMostlyFlat(settled: Uint8Array): boolean {
  let [seen, flat] = [0, 0];
  for (const label of settled) {
    if (label === 0) continue;
    seen++;
    if (label !== PENDING) flat++;
  }
  return flat >= FLAT_SHARE * seen;
}

/** Three quarters of the pixels along edges stray by no more than this. */
function scatterOf(strays: Float32Array, settled: Uint8Array): number {
  const along = strays.filter((_, i) => settled[i] === PENDING).sort();
  return along.length > 0 ? Math.min(MOST_SCATTER, Math.sqrt(along[Math.floor(0.75 * along.length)]!)) : 0;
}

function crestColour(planes: Planes, strays: Float32Array, limit: number, shades: readonly Shade[]): Shade | null {
  const { width, height, y, u, v } = planes;
  const map = new Uint8Array(strays.length);
  let count = 0;
  for (let i = 0; i < strays.length; i++) {
    if (strays[i]! <= limit * limit) continue;
    map[i] = 1;
    count++;
  }
  if (count < LEAST_PIXELS) return null;
  const { of, areas } = componentsOf(map, width, height, (label) => label === 1);
  const crests: { shade: Shade; stray: number }[] = [];
  for (let row = 1; row + 1 < height; row++) {
    for (let column = 1; column + 1 < width; column++) {
      const i = row * width + column;
      if (!map[i] || areas[of[i]!]! < LEAST_PIXELS || !isCrest(strays, i, width)) continue;
      crests.push({ shade: [y[i]!, u[i]!, v[i]!], stray: strays[i]! });
    }
  }
  crests.sort((a, b) => b.stray - a.stray);
  // The clearest crest that others are like.
  for (const { shade } of crests.slice(0, TRIED)) {
    const alike = crests.filter((other) => apart(other.shade, shade) < RADIUS);
    if (alike.length < LEAST_CRESTS) continue;
    const clearest = alike.slice(0, Math.max(LEAST_CRESTS, Math.ceil(CLEAREST * alike.length)));
    const mean = (k: 0 | 1 | 2) => clearest.reduce((sum, each) => sum + each.shade[k], 0) / clearest.length;
    const found: Shade = [mean(0), mean(1), mean(2)];
    if (shades.every((other) => apart(other, found) > limit / 2)) return found;
  }
  return null;
}

/** Whether a pixel strays no less than its neighbours to the left and right, or above and below. */
const isCrest = (strays: Float32Array, i: number, width: number): boolean =>
  (strays[i]! >= strays[i - 1]! && strays[i]! >= strays[i + 1]!) ||
  (strays[i]! >= strays[i - width]! && strays[i]! >= strays[i + width]!);

// surfaces.ts — shades that are one surface: light that falls off, a soft shadow and a gradient have no edge between their shades,
// which are one piece to whoever cuts them out.
import { apart, type Planes, type Shade } from './planes.ts';

/** How far to either side of a border it is looked at, px, in pictures whose edges are sharp. */
const NEAR = 3;
/** Edges are in focus up to this width, px. */
const SHARP = 2.5;
/** Of borders with fewer places nothing is known, … */
const TELLING = 24;
/** … nor of those that are a smaller share of all borders of either shade: ringing makes specks of one in another. */
const COMMON = 0.1;
/** There is no edge where the tone changes by less than this share of the step between two shades … */
const [NO_STEP, NO_STEP_CLOSE] = [0.6, 0.45];
/** … nor where this share of the change lies beyond an edge's width on either side: a ramp goes on. */
const ONWARD = 0.12;
/** A tone that goes this many steps further than between the two shades has more of a ramp on either side, of which less is enough. */
const [FURTHER, ONWARD_FURTHER] = [1.6, 0.06];
/** Shades that differ by less than this, in bytes, or by so many deviations of the noise are told by what lies further off alone. */
const [UNCLEAR, UNCLEAR_BY_NOISE] = [6, 3];
/** On both sides of it the tone changes by less than this share. */
const LEVEL = 0.25;
/** Of a shade that is no thin line this share of the pixels lies within it. */
const WIDE_SHARE = 0.1;
/** Shades further apart than this, in bytes, are never one: their ramp is an edge that is out of focus. */
const FARTHEST = 24;

interface Border {
  count: number;
  /** Changes of tone across it, as shares of the step between the shades: next to it, within twice the reach, and beyond it on either side. */
  close: number;
  whole: number;
  before: number;
  behind: number;
}

/**
 * For each label the one that stands for its surface: itself where it is one of its own.
 * @param labels of pixels; n + 1 for shade n
 * @param edge how wide edges are, px; null where there are none
 * @param noise in bytes
 */
export function surfacesOf(
  planes: Planes,
  labels: Uint8Array,
  { shades, edge, noise }: { shades: readonly Shade[]; edge: number | null; noise: number },
): number[] {
  const reach = Math.max(NEAR, Math.round(edge ?? 0));
  const isSharp = (edge ?? 0) < SHARP;
  const isWide = wideLabels(labels, planes.width, reach, shades.length);
  const groups = Array.from({ length: shades.length + 1 }, (_, label) => new Set([label]));
  const edges = new Set<number>();
  const joins: { key: number; count: number }[] = [];
  const { borders, lengths } = bordersOf(planes, labels, shades, reach);
  for (const [key, border] of borders) {
    const [a, b] = [key >> 8, key & 255];
    if (border.count < Math.max(TELLING, COMMON * Math.min(lengths[a]!, lengths[b]!))) continue;
    const isClear = apart(shades[a - 1]!, shades[b - 1]!) > Math.max(UNCLEAR, UNCLEAR_BY_NOISE * noise);
    const isOne = isOneSurface(border, { areWide: isWide[a]! && isWide[b]!, isClear, isSharp });
    if (isOne) joins.push({ key, count: border.count });
    else edges.add(key);
  }
  // The longest borders first; what an edge parts is not joined by way of others.
  for (const { key } of joins.sort((a, b) => b.count - a.count || a.key - b.key)) {
    const [p, q] = [groups[key >> 8]!, groups[key & 255]!];
    if (p === q || [...p].some((a) => [...q].some((b) => edges.has(keyOf(a, b))))) continue;
    for (const label of q) {
      p.add(label);
      groups[label] = p;
    }
  }
  return groups.map((group) => Math.min(...group));
}

/** Of two labels, whichever comes first. */
const keyOf = (a: number, b: number) => (Math.min(a, b) << 8) | Math.max(a, b);

interface Looks {
  /** Whether neither shade is but thin lines. */
  readonly areWide: boolean;
  /** Whether they differ by more than grain. */
  readonly isClear: boolean;
  /** Whether edges in the picture have most of their step next to them. */
  readonly isSharp: boolean;
}

function isOneSurface({ count, close, whole, before, behind }: Border, looks: Looks): boolean {
  if (looks.isSharp && close < NO_STEP_CLOSE * count && whole < FURTHER * count) return looks.areWide;
  if (whole < NO_STEP * count) {
    // Across a thin line the tone comes back, and beside another edge it goes further off.
    const isLevel = Math.max(Math.abs(before), Math.abs(behind)) < LEVEL * count;
    // Grain alone makes steps between shades that differ by little more than it.
    const isStep = looks.isClear && close > NO_STEP * count;
    return looks.areWide && isLevel && !isStep && Math.abs(whole - before - behind) < NO_STEP * count;
  }
  return Math.min(before, behind) > (whole > FURTHER * count ? ONWARD_FURTHER : ONWARD) * whole;
}

/** Which labels are more than thin lines. */
function wideLabels(labels: Uint8Array, width: number, reach: number, count: number): boolean[] {
  const [all, within] = [new Float64Array(count + 1), new Float64Array(count + 1)];
  for (let i = reach * width + reach; i + reach * width + reach < labels.length; i++) {
    const label = labels[i]!;
    all[label]!++;
    const isWithin =
      labels[i - reach] === label &&
      labels[i + reach] === label &&
      labels[i - reach * width] === label &&
      labels[i + reach * width] === label;
    if (isWithin) within[label]!++;
  }
  return Array.from(all, (total, label) => within[label]! >= WIDE_SHARE * total);
}

/** Of labels that meet, by both their numbers; and how long the borders of each label are in all, px. */
function bordersOf(planes: Planes, labels: Uint8Array, shades: readonly Shade[], reach: number) {
  const { width, height } = planes;
  const borders = new Map<number, Border>();
  const lengths = new Float64Array(shades.length + 1);
  const isNear = shades.map((a) => shades.map((b) => apart(a, b) <= FARTHEST));
  const look = (i: number, step: number, before: number, behind: number) => {
    const [first, second] = [labels[i]!, labels[i + step]!];
    lengths[first]!++;
    lengths[second]!++;
    if (first === second || first === 0 || second === 0 || !isNear[first - 1]![second - 1]) return;
    if (before < 2 * reach || behind < 2 * reach) return;
    const key = keyOf(first, second);
    const border = borders.get(key) ?? { count: 0, close: 0, whole: 0, before: 0, behind: 0 };
    borders.set(key, border);
    const along = sharesBetween(planes, shades[first - 1]!, shades[second - 1]!);
    const [start, end] = [along(i - 2 * reach * step), along(i + step + 2 * reach * step)];
    border.count++;
    border.close += Math.max(along(i + step) - along(i), along(i + 2 * step) - along(i - step));
    border.whole += end - start;
    border.before += along(i - reach * step) - start;
    border.behind += end - along(i + step + reach * step);
  };
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (x + 1 < width && labels[i] !== labels[i + 1]) look(i, 1, x, width - 2 - x);
      if (y + 1 < height && labels[i] !== labels[i + width]) look(i, width, y, height - 2 - y);
    }
  }
  return { borders, lengths };
}

/** How far a pixel is from one shade to another, as a share of that way. */
function sharesBetween({ y, u, v }: Planes, from: Shade, to: Shade): (i: number) => number {
  const way = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
  const length = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
  return (i) => ((y[i]! - from[0]) * way[0] + (u[i]! - from[1]) * way[1] + (v[i]! - from[2]) * way[2]) / length;
}

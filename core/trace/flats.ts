// flats.ts — a picture of flat tones or colours to one set of outlines a colour: abutting, where neighbours share their
// boundary, or stacked, where what is enclosed lies on what encloses it, like cut paper.
import { TOLERANCE_SHARE } from '../base/tolerance.ts';
import { isDust } from '../outline/dust.ts';
import { flatten } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { hexOf, labOf, rgbOfHex } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';
import { BEYOND, framedLabels, type TonesFor } from './boundary.ts';
import { labelled, settledLabels, withoutSmall } from './labels.ts';
import { edgeWidth } from './look.ts';
import { COMPRESSED, flatColours, merged } from './modes.ts';
import { type Network, networkOf } from './network.ts';
import type { Tones } from './place.ts';
import { type Planes, planesOf, rgbOfShade, type Shade, shadeOf } from './planes.ts';
import { type Piece, piecesOf } from './rings.ts';
import { stackedPieces } from './stacking.ts';
import { surfacesOf } from './surfaces.ts';
import { withThinColours } from './thin-colours.ts';

export const LAYERINGS = ['stacked', 'abutting'] as const;
export type Layering = (typeof LAYERINGS)[number];

export interface FlatOptions {
  /** Greys instead of colours. */
  readonly isGrey: boolean;
  /** How many; null takes as many as stand apart. Ignored where colours are picked. */
  readonly count: number | null;
  /** Colours picked by hand, `#rrggbb`. */
  readonly picked: readonly string[];
  readonly layering: Layering;
  /** Smallest piece that is kept, square px. */
  readonly detail: number;
  /** Turns sharper than this are corners, radians. */
  readonly corner: number;
  /** How far curves may stray from the boundaries, px; null takes what their noise asks for. */
  readonly smooth: number | null;
}

export interface FlatPiece extends Piece {
  /** Of its colour, from 1 for the lowest. */
  readonly rank: number;
  /** On how many others it lies where they are stacked, one upon the other. */
  readonly tier: number;
  /** Paper around what is drawn. */
  readonly isGround: boolean;
}

export interface FlatColour {
  /** `#rrggbb` */
  readonly colour: string;
  readonly pieces: readonly FlatPiece[];
  /** The colour that lies along most of the sheet's border. */
  readonly isGround: boolean;
}

export interface FlatTrace {
  /** The lowest first. */
  readonly colours: readonly FlatColour[];
  readonly network: Network;
  /** Colours that stand apart in the picture, those of the trace or more. */
  readonly seen: number;
  /** How many of those are only in pieces that are smaller than what is kept. */
  readonly small: number;
  /** Which colour of `colours` each pixel has, counted from 1; 0 where the picture can be seen through. */
  readonly labels: Uint8Array;
}

/** A picture of more flat colours than this is none of flat colours, and is made of a few unless more are asked for. */
const [MOST_FOUND, FEW] = [32, 12];
const MOST_COUNTED = 64;

/** @param report is called with the share done */
export function traceFlats(
  picture: Picture,
  options: FlatOptions,
  report: (share: number) => void = () => {},
): FlatTrace {
  const { width, height } = picture;
  const planes = planesOf(picture, options.isGrey);
  const { labels: found, shades, seen, isClean } = labelsOf(picture, planes, options, (share) => report(0.7 * share));
  const raw = withoutSmall(found, width, height, options.detail);
  const ground = groundOf(raw, width, height);
  const order = paintOrder(raw, width, height, shades.length, ground);
  const ranks = new Uint8Array(shades.length + 1);
  for (const [rank, label] of order.entries()) ranks[label] = rank + 1;
  const labels = raw.map((label) => ranks[label]!);
  const ranked = order.map((label) => shades[label - 1]!);
  const network = networkOf(
    framedLabels(labels, width, height),
    tonesFor(picture, planes, { shades: ranked, isClean }),
    { ...options, isClean },
  );
  report(0.9);
  const present = coloursIn(found);
  const colours = ranked.map((shade) => hexOf(rgbOfShade(shade)));
  const isPaperGround = ground > 0 && isPaper(colours[0]!);
  const tolerance = TOLERANCE_SHARE * Math.max(width, height);
  const pieces = flatPieces(network, colours.length, isPaperGround, options.layering).flatMap((piece) => {
    const path = withoutDust(piece.path, tolerance);
    return path.length > 0 ? [{ ...piece, path }] : [];
  });
  return {
    colours: colours.map((colour, i) => ({
      colour,
      pieces: pieces.filter(({ rank }) => rank === i + 1),
      isGround: order[i] === ground,
    })),
    network,
    seen: seen ?? present,
    small: present - order.length,
    labels,
  };
}

/** An outline without holes of which nothing is left, as where two fits lie on each other; no path where that is the outline. */
function withoutDust(path: Path, tolerance: number): Path {
  const starts = path.flatMap(([letter], i) => (letter === 'M' ? [i] : []));
  const rings = starts.map((start, k) => path.slice(start, starts[k + 1]));
  const isLeft = (ring: Path) => flatten(ring, tolerance).some((points) => !isDust(points, tolerance));
  return isLeft(rings[0]!) ? rings.filter(isLeft).flat() : [];
}

/** How many labels there are in a map, 0 left out. */
function coloursIn(labels: Uint8Array): number {
  const isIn = new Uint8Array(256);
  for (const label of labels) isIn[label] = 1;
  return isIn.subarray(1).reduce((sum, one) => sum + one, 0);
}

/** The pieces of all ranks, by their ranks. @param hasGround whether what reaches the border of the first rank is the ground */
function flatPieces(network: Network, ranks: number, hasGround: boolean, layering: Layering): FlatPiece[] {
  const all = Array.from({ length: ranks }, (_, i) =>
    piecesOf(network, (label) => label === i + 1).map((piece) => ({
      ...piece,
      rank: i + 1,
      tier: 0,
      isGround: hasGround && i === 0 && reachesBorder(network, piece),
    })),
  ).flat();
  if (layering === 'abutting') return all;
  const built = all.filter(({ isGround }) => !isGround);
  const holes = piecesOf(network, (label) => label === 0).filter((piece) => !reachesBorder(network, piece));
  const isAlike = (a: number, b: number) => built[a]!.rank === built[b]!.rank;
  const stacked = stackedPieces(network, built, holes, isAlike).flatMap((piece, i) =>
    piece ? [{ ...built[i]!, ...piece }] : [],
  );
  if (built.length === all.length) return stacked;
  // The ground goes on beneath everything.
  const sheet = piecesOf(network, (label) => label > 0 && label !== BEYOND).filter(({ labels }) => labels.has(1));
  return [...sheet.map((piece) => ({ ...piece, rank: 1, tier: 0, isGround: true })), ...stacked];
}

function reachesBorder({ edges, labels: { labels } }: Network, { sides }: Piece): boolean {
  return sides.some(({ edge, isForward }) => {
    const { chain } = edges[edge]!;
    return labels[isForward ? chain.left : chain.right] === BEYOND;
  });
}

/** Paper: this light, this colourless (OKLab). */
const PAPER = { lightness: 0.85, chroma: 0.06 } as const;

function isPaper(colour: string): boolean {
  const [l, a, b] = labOf(...rgbOfHex(colour));
  return l >= PAPER.lightness && Math.hypot(a, b) <= PAPER.chroma;
}

function labelsOf(
  picture: Picture,
  planes: Planes,
  { isGrey, count, picked }: FlatOptions,
  report: (share: number) => void,
) {
  const { modes, cores, noise } = flatColours(planes, MOST_COUNTED);
  report(0.3);
  const own = picked.map((hex) => shadeOf(rgbOfHex(hex))).map(([y, u, v]): Shade => (isGrey ? [y, 0, 0] : [y, u, v]));
  const wanted = count ?? (modes.length > MOST_FOUND ? FEW : modes.length);
  const flat = own.length > 0 ? own : merged(modes, wanted).map(({ shade }) => shade);
  const settled = settledLabels(planes, cores, flat);
  // Nothing is added to what was asked for.
  const isAsked = own.length > 0 || wanted < modes.length || count !== null;
  const { shades, scatter } = isAsked ? { shades: flat, scatter: 0 } : withThinColours(planes, settled, flat);
  report(0.6);
  const labels = labelled(planes, cores, settled, { shades, scatter });
  report(0.9);
  const isClean = noise <= COMPRESSED;
  if (isAsked) return { labels, shades, seen: Math.max(modes.length, shades.length), isClean };
  const surfaces = surfacesOf(planes, labels, { shades, edge: edgeWidth(picture), noise });
  // A picture of nothing but soft changes keeps its shades: one surface would leave nothing to cut out.
  const isAllOne = surfaces.every((root) => root <= 1) && !labels.includes(0);
  const joined = isAllOne ? { labels, shades } : joinedSurfaces(labels, shades, surfaces);
  return { ...joined, seen: null, isClean };
}

/** A shade that covers this share of its surface stands for it; else their mean does. */
const STANDS = 0.6;

/** One label and one shade for each surface. @param surfaces for each label the one that stands for its surface */
function joinedSurfaces(labels: Uint8Array, shades: readonly Shade[], surfaces: readonly number[]) {
  const roots = [...new Set(surfaces.slice(1))];
  const numbers = Uint8Array.from(surfaces, (root) => roots.indexOf(root) + 1);
  const counts = new Float64Array(shades.length + 1);
  for (const label of labels) counts[label]!++;
  return {
    labels: labels.map((label) => numbers[label]!),
    shades: roots.map((root): Shade => {
      const members = shades.flatMap((shade, i) =>
        surfaces[i + 1] === root ? [{ shade, count: counts[i + 1]! }] : [],
      );
      const total = members.reduce((sum, { count }) => sum + count, 0) || 1;
      const most = members.reduce((a, b) => (b.count > a.count ? b : a));
      if (most.count >= STANDS * total || members.length === 1) return most.shade;
      const mean = (k: 0 | 1 | 2) => members.reduce((sum, { shade, count }) => sum + count * shade[k], 0) / total;
      return [mean(0), mean(1), mean(2)];
    }),
  };
}

/** Labels from the lowest to the topmost: the ground, then what covers more with its holes filled. */
function paintOrder(labels: Uint8Array, width: number, height: number, count: number, ground: number): number[] {
  const boxes = Array.from({ length: count + 1 }, () => [Infinity, Infinity, -Infinity, -Infinity, 0]);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const box = boxes[labels[i]!]!;
      if (x < box[0]!) box[0] = x;
      if (y < box[1]!) box[1] = y;
      if (x > box[2]!) box[2] = x;
      if (y > box[3]!) box[3] = y;
      box[4]!++;
    }
  }
  const cover = (label: number) => {
    const [minX, minY, maxX, maxY, pixels] = boxes[label] as [number, number, number, number, number];
    // The box tells what a colour spans, the pixels decide between those that span the same.
    return (maxX - minX + 1) * (maxY - minY + 1) + pixels / (width * height + 1);
  };
  const present = boxes.flatMap((box, label) => (label > 0 && box[4]! > 0 ? [label] : []));
  return present.sort((a, b) => Number(b === ground) - Number(a === ground) || cover(b) - cover(a));
}

/** From this share of the border on a colour is the ground. */
const GROUND_SHARE = 0.6;

/** The label along most of the sheet's border; 0 where none prevails or it can be seen through. */
function groundOf(labels: Uint8Array, width: number, height: number): number {
  const counts = new Map<number, number>();
  const add = (i: number) => counts.set(labels[i]!, (counts.get(labels[i]!) ?? 0) + 1);
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) add(y * width + x);
  for (let y = 0; y < height; y++) for (const x of [0, width - 1]) add(y * width + x);
  const [label, count] = [...counts].reduce((most, next) => (next[1] > most[1] ? next : most));
  return count >= GROUND_SHARE * 2 * (width + height) ? label : 0;
}

/** Shares of pixels between two colours; what can be seen through is the lighter of any two. */
function tonesFor(
  picture: Picture,
  planes: Planes,
  { shades, isClean }: { shades: readonly Shade[]; isClean: boolean },
): TonesFor {
  return (light, dark) => {
    if (dark === BEYOND) return BORDER;
    if (light === 0) return new AlphaTones(picture, isClean);
    return new MixedTones(planes, { light: shades[light - 1]!, dark: shades[dark - 1]!, isClean });
  };
}

/** Puts the border of the sheet in the middle between its pixels and those beyond. */
const BORDER: Tones = { level: 0.5, isClean: true, at: () => 0.5 };

class AlphaTones implements Tones {
  readonly level = 0.5;
  readonly isClean: boolean;
  private readonly picture: Picture;

  constructor(picture: Picture, isClean: boolean) {
    this.picture = picture;
    this.isClean = isClean;
  }

  at(x: number, y: number): number {
    const { width, height, data } = this.picture;
    return x < 0 || y < 0 || x >= width || y >= height ? 1 : 1 - data[4 * (y * width + x) + 3]! / 255;
  }
}

/** Where a pixel lies between two colours, mostly by its luma, which compression spares. */
class MixedTones implements Tones {
  readonly level = 0.5;
  readonly isClean: boolean;
  private readonly planes: Planes;
  private readonly dark: Shade;
  /** From dark to light, over its squared length. */
  private readonly way: Shade;

  constructor(planes: Planes, { light, dark, isClean }: { light: Shade; dark: Shade; isClean: boolean }) {
    this.planes = planes;
    this.isClean = isClean;
    this.dark = dark;
    const [y, u, v] = [light[0] - dark[0], light[1] - dark[1], light[2] - dark[2]];
    const length = y * y + u * u + v * v || 1;
    this.way = [y / length, u / length, v / length];
  }

  /** Beyond the picture its border goes on. */
  at(x: number, y: number): number {
    const { width, height, y: luma, u, v } = this.planes;
    const i = Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x));
    const [a, b, c] = this.dark;
    const share = (luma[i]! - a) * this.way[0] + (u[i]! - b) * this.way[1] + (v[i]! - c) * this.way[2];
    return Math.min(1, Math.max(0, share));
  }
}

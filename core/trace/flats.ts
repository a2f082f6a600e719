// flats.ts — a picture of flat tones or colours to one set of outlines a colour: abutting, where neighbours share their
// boundary, or stacked, where each colour goes on beneath those that lie on it, like cut paper.
import { hexOf, labOf, type Rgb, rgbOf, rgbOfHex } from '../picture/colour.ts';
import type { Picture } from '../picture/types.ts';
import { BEYOND, framedLabels, type TonesFor } from './boundary.ts';
import { labelled, shareOf, withoutSmall } from './labels.ts';
import { type Network, networkOf } from './network.ts';
import { distinctColours, palette, swatchesOf } from './palette.ts';
import type { Tones } from './place.ts';
import { isIn, type Piece, piecesOf } from './rings.ts';

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

export interface FlatColour {
  /** `#rrggbb` */
  readonly colour: string;
  readonly pieces: readonly Piece[];
  /** The colour that lies along most of the sheet's border. */
  readonly isGround: boolean;
}

export interface FlatTrace {
  /** The lowest first. */
  readonly colours: readonly FlatColour[];
  readonly network: Network;
  /** Colours that stand apart in the picture, those of the trace or more. */
  readonly seen: number;
  /** Which colour of `colours` each pixel has, counted from 1; 0 where the picture can be seen through. */
  readonly labels: Uint8Array;
}

/** The most colours that are looked for without being asked. */
const MOST_FOUND = 12;
const MOST_COUNTED = 64;

export function traceFlats(picture: Picture, options: FlatOptions): FlatTrace {
  const { width, height } = picture;
  const { colours, seen } = coloursOf(picture, options);
  const raw = withoutSmall(labelled(picture, colours, options.isGrey), width, height, options.detail);
  const ground = groundOf(raw, width, height);
  const order = paintOrder(raw, width, height, colours.length, ground);
  const ranks = new Uint8Array(colours.length + 1);
  for (const [rank, label] of order.entries()) ranks[label] = rank + 1;
  const labels = raw.map((label) => ranks[label]!);
  const ranked = order.map((label) => colours[label - 1]!);
  const network = networkOf(framedLabels(labels, width, height), tonesFor(picture, ranked), options);
  return {
    colours: ranked.map((rgb, i) => ({
      colour: hexOf(rgb),
      pieces:
        options.layering === 'abutting' ? piecesOf(network, (label) => label === i + 1) : stackedPieces(network, i + 1),
      isGround: order[i] === ground,
    })),
    network,
    seen,
    labels,
  };
}

function coloursOf(picture: Picture, { isGrey, count, picked }: FlatOptions): { colours: Rgb[]; seen: number } {
  const swatches = swatchesOf(picture, isGrey);
  const distinct = distinctColours(swatches, MOST_COUNTED);
  const seen = distinct.length;
  if (picked.length > 0) return { colours: picked.map(rgbOfHex).map((rgb) => (isGrey ? greyed(rgb) : rgb)), seen };
  const wanted = count ?? Math.max(1, Math.min(MOST_FOUND, seen));
  // As many as stand apart begin where they stand.
  return { colours: palette(swatches, wanted, wanted <= seen ? distinct.slice(0, wanted) : undefined), seen };
}

function greyed([r, g, b]: Rgb): Rgb {
  const [l] = labOf(r, g, b);
  return rgbOf([l, 0, 0]);
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

/** What one colour covers with all that lies on it: pieces of the union that hold some of the colour itself. */
function stackedPieces(network: Network, rank: number): Piece[] {
  const pieces = piecesOf(network, (label) => label >= rank && label !== BEYOND);
  const { labels } = network.labels;
  const own = network.edges.filter(({ chain }) => labels[chain.left] === rank || labels[chain.right] === rank);
  return pieces.filter(
    ({ labels: along, rings }) =>
      along.has(rank) ||
      own.some(({ chain: { points } }) => {
        const middle = 2 * Math.floor(points.length / 4);
        return rings.filter((ring) => isIn(ring, points[middle]!, points[middle + 1]!)).length % 2 === 1;
      }),
  );
}

/** Shares of pixels between two colours; what can be seen through is the lighter of any two. */
function tonesFor(picture: Picture, colours: readonly Rgb[]): TonesFor {
  return (light, dark) => {
    if (dark === BEYOND) return BORDER;
    return light === 0 ? new AlphaTones(picture) : new MixedTones(picture, colours[light - 1]!, colours[dark - 1]!);
  };
}

/** Puts the border of the sheet in the middle between its pixels and those beyond. */
const BORDER: Tones = { level: 0.5, at: () => 0.5 };

class AlphaTones implements Tones {
  readonly level = 0.5;
  private readonly picture: Picture;

  constructor(picture: Picture) {
    this.picture = picture;
  }

  at(x: number, y: number): number {
    const { width, height, data } = this.picture;
    return x < 0 || y < 0 || x >= width || y >= height ? 1 : 1 - data[4 * (y * width + x) + 3]! / 255;
  }
}

class MixedTones implements Tones {
  readonly level = 0.5;
  private readonly picture: Picture;
  private readonly light: Rgb;
  private readonly dark: Rgb;

  constructor(picture: Picture, light: Rgb, dark: Rgb) {
    this.picture = picture;
    this.light = light;
    this.dark = dark;
  }

  /** Beyond the picture its border goes on. */
  at(x: number, y: number): number {
    const { width, height, data } = this.picture;
    const [u, v] = [Math.min(width - 1, Math.max(0, x)), Math.min(height - 1, Math.max(0, y))];
    return Math.min(1, Math.max(0, shareOf(data, 4 * (v * width + u), this.dark, this.light)));
  }
}

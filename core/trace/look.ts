// look.ts — what a picture is like before it is traced: how noisy it is, how wide its edges are, what compression left in it, how many
// flat colours it has, how the light falls on its paper.
import { componentsOf } from '../picture/components.ts';
import { smoothPaper } from '../picture/paper.ts';
import { unprepared } from '../picture/prepare.ts';
import { inkMap } from '../picture/steps/ink-map.ts';
import { scaled } from '../picture/steps/resample.ts';
import type { Picture } from '../picture/types.ts';
import type { Cores } from './cores.ts';
import { COMPRESSED, flatColours } from './modes.ts';
import { lumaOf, type Planes, planesOf, type Shade } from './planes.ts';

export interface Look {
  /** Standard deviation of the noise, bytes of luma. */
  readonly noise: number;
  /** From tone to tone across an edge, px: 1 to 2 in a drawing, √(2π) times the deviation of a blur. Null without edges. */
  readonly edge: number | null;
  /** Whether the borders of JPEG's blocks of 8 × 8 show in flat places. */
  readonly hasBlocks: boolean;
  /** By how much the picture may be made smaller before it is traced: large ones as far as their edges stay sharp. */
  readonly factor: number;
  /** Flat colours, the ones that most is flat in first. */
  readonly colours: readonly Shade[];
  /** Share of the picture's flat places that have the very colours of those: a ramp of light has others in between. */
  readonly flat: number;
  /** How dark the paper is where it is lit worst, as a share of where it is lit best; 1 where no light falls off. */
  readonly shading: number;
  /** Whether it is many small parts of one size in two tones, as a page of text is. */
  readonly isText: boolean;
}

/** More colours than this make no difference to how one begins. */
export const MOST_SEEN = 32;

/** Paper is at least this share of a scan, and its light falls off by more than that where it matters. */
const [PAPER_SHARE, UNEVEN] = [0.1, 0.9];
/** Of a drawing in flat colours this share of the flat places has one of them, but for so many bytes of luma and for noise, of which a
 * mean of nine pixels has a third. */
const FLAT_SHARE = 0.7;
const VERY = 1;

export function lookAt(picture: Picture): Look {
  const size = sizeFor(picture);
  return lookCloser(scaled(picture, size.factor), size);
}

/** What a picture's edges are like, and by how much it may be made smaller before anything else is looked at. */
export function sizeFor(picture: Picture): Pick<Look, 'edge' | 'factor'> {
  const edge = edgeWidth(picture);
  return { edge, factor: workingFactor(picture, edge) };
}

/** @param picture made smaller by the factor */
export function lookCloser(picture: Picture, { edge, factor }: Pick<Look, 'edge' | 'factor'>): Look {
  const planes = planesOf(picture, false);
  const { modes, cores, noise } = flatColours(planes, MOST_SEEN);
  const colours = modes.map(({ shade }) => shade);
  const flat = flatShare(cores, colours, VERY + noise / 3);
  const paper = smoothPaper(picture);
  // The ground of a drawing in flat colours may well be lighter on one side: that is drawn.
  const isDrawn = flat >= FLAT_SHARE;
  const isScan = !isDrawn && paper.share >= PAPER_SHARE && paper.isSpread;
  const shading = isScan ? paper.dark / paper.light : 1;
  return {
    isText: modes.length <= TWO_TONES && isText(picture),
    noise,
    edge,
    factor,
    hasBlocks: noise > COMPRESSED && hasBlocks(planes),
    colours,
    flat,
    shading: shading < UNEVEN ? shading : 1,
  };
}

/** What to know before such a picture is traced; null where there is nothing to say. */
export function adviceFor({ colours, flat, isText: text, edge, shading }: Look): string | null {
  if (edge === null) return 'Nothing in it has an edge: there is hardly anything to trace.';
  if (colours.length >= MOST_SEEN && flat < FLAT_SHARE && shading === 1)
    return 'Hardly any of its colours is flat, as in a photograph: ask for a number of tones or colours, or draw over it.';
  if (colours.length >= MOST_SEEN)
    return `It has ${MOST_SEEN} flat colours or more: ask for as many as you want layers.`;
  if (text)
    return 'So many small parts of one size look like a page of text: letters that are set as a text are cleaner than traced ones.';
  return null;
}

/** Ink and paper, and what lies between them. */
const TWO_TONES = 3;
/** A page of text has so many parts, most of which differ from the middle one by this factor of area at the most. */
const [LETTERS, MOST_ALIKE, ALIKE] = [150, 0.75, 4];

function isText(picture: Picture): boolean {
  const { width, height } = picture;
  const { areas, labels } = componentsOf(inkMap(unprepared(picture)), width, height, (label) => label === 1);
  const parts = areas.filter((area, i) => labels[i] === 1 && area > SPECK).sort();
  const middle = parts[parts.length >> 1]!;
  const alike = parts.filter((area) => area * ALIKE > middle && area < ALIKE * middle).length;
  return parts.length >= LETTERS && alike > MOST_ALIKE * parts.length;
}

/** Smaller parts are dirt, px². */
const SPECK = 4;

function flatShare({ isCore, y }: Cores, colours: readonly Shade[], reach: number): number {
  const isVery = Uint8Array.from({ length: 256 }, (_, luma) =>
    Number(colours.some((shade) => Math.abs(shade[0] - luma) <= reach)),
  );
  let [all, very] = [0, 0];
  for (let i = 0; i < isCore.length; i++) {
    if (!isCore[i]) continue;
    all++;
    very += isVery[Math.round(y[i]!)]!;
  }
  return all > 0 ? very / all : 0;
}

/** Luma that changes by less than this across an edge is none. */
const EDGE = 40;
/** Edges that are looked at, at the most, and how many tell anything. */
const [LOOKED, TELLING] = [20_000, 32];

/** The median, over steep places along rows and columns, of how far the tone goes to how fast it goes at most. */
export function edgeWidth({ width, height, data }: Picture): number | null {
  const widths: number[] = [];
  const y = new Float32Array(Math.max(width, height));
  const step = Math.max(1, Math.floor((width * height) / (64 * LOOKED)));
  const along = (first: number, count: number, next: number) => {
    for (let k = 0, p = 4 * first; k < count; k++, p += 4 * next) y[k] = lumaOf(data[p]!, data[p + 1]!, data[p + 2]!);
    for (let k = 1; k + 1 < count; ) {
      const start = k - 1;
      const slope = y[k]! - y[start]!;
      let [end, steepest] = [k, Math.abs(slope)];
      // As long as it goes on the same way.
      while (end + 1 < count) {
        const further = y[end + 1]! - y[end]!;
        if (further * slope <= 0) break;
        steepest = Math.max(steepest, Math.abs(further));
        end++;
      }
      const height = Math.abs(y[end]! - y[start]!);
      if (height > EDGE) widths.push(height / steepest);
      k = end + 1;
    }
  };
  for (let row = 0; row < height; row += step) along(row * width, width, 1);
  for (let column = 0; column < width; column += step) along(column, height, width);
  if (widths.length < TELLING) return null;
  return widths.sort((a, b) => a - b)[widths.length >> 1]!;
}

/** Smaller pictures than this are traced as they are. Larger ones have so many pixels at the most. */
const LARGE = { pixels: 2_000_000, most: 4_000_000 } as const;
/** Edges are no wider than this, px, once a picture is made smaller: as drawings are rendered. */
export const CRISP = 1.6;

function workingFactor({ width, height }: Picture, edge: number | null): number {
  const pixels = width * height;
  if (pixels <= LARGE.pixels) return 1;
  const bySharpness = Math.max(CRISP / Math.max(CRISP, edge ?? CRISP), Math.sqrt(LARGE.pixels / pixels));
  // In steps of a hundredth, as the sentence shows it.
  return Math.floor(100 * Math.min(bySharpness, Math.sqrt(LARGE.most / pixels), 1)) / 100;
}

/** Sides of JPEG's blocks, px. */
const BLOCK = 8;
/** Steps at the borders of blocks are this many times those within them. */
const BORDERS = 1.35;
/** Larger steps than this are drawn, not left by compression. */
const LEFT = 8;

function hasBlocks({ width, height, y }: Planes): boolean {
  // A picture that was cut has its borders elsewhere.
  const sums = [new Float64Array(BLOCK), new Float64Array(BLOCK)] as const;
  for (let row = 0, i = 0; row < height; row++) {
    for (let column = 0; column < width; column++, i++) {
      const right = column + 1 < width ? Math.abs(y[i + 1]! - y[i]!) : LEFT;
      const below = row + 1 < height ? Math.abs(y[i + width]! - y[i]!) : LEFT;
      if (right < LEFT) sums[0][column % BLOCK]! += right;
      if (below < LEFT) sums[1][row % BLOCK]! += below;
    }
  }
  return sums.every((sum) => {
    const most = Math.max(...sum);
    const rest = (sum.reduce((all, v) => all + v, 0) - most) / (BLOCK - 1);
    return most > BORDERS * rest;
  });
}

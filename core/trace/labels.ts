// labels.ts — each pixel to one of a few colours. A pixel is of one colour or a mixture of two that meet near it; of all labellings
// the one is sought in which pixels stray least and boundaries are shortest (Potts; by iterated conditional modes: Besag, “On the
// statistical analysis of dirty pictures”, 1986), so that fringes, grain and ringing do not become pieces of a third colour.
import { componentsOf } from '../picture/components.ts';
import type { Cores } from './cores.ts';
import type { Planes, Shade } from './planes.ts';

/** Colours that may have a part in a pixel are looked for this far from it. */
const WINDOW = 3;
/** What a pixel strays by chance, in bytes: at least, and by what pixels along edges do. */
const [STRAY, STRAY_BY_SCATTER] = [3, 0.8];
/** What a step of boundary weighs, against half the squared stray in deviations; straying further than this costs no more. */
const [BOUNDARY, MOST_COST] = [1.2, 40];
const ROUNDS = 6;
/** What a pixel near a boundary may stray from mixtures of what is there, in half squares of deviations. */
const UNEXPLAINED = 8;

export interface Palette {
  readonly shades: readonly Shade[];
  /** How far pixels along edges stray from mixtures of them, in bytes: what compression and dithering leave. */
  readonly scatter: number;
}

/** Labels of a picture's pixels: 0 for what can be seen through, n + 1 for the palette's colour n. */
export function labelled(planes: Planes, cores: Cores, settled: Uint8Array, palette: Palette): Uint8Array {
  const labeller = new Labeller(planes, palette);
  const labels = labeller.begun(settled);
  labeller.settle(labels, settled);
  return labeller.confirmed(labels, cores);
}

/** Labels of flat places and what touches them; {@link PENDING} elsewhere. */
export const PENDING = 255;

export function settledLabels({ width, height, isClear }: Planes, cores: Cores, shades: readonly Shade[]): Uint8Array {
  const settled = new Uint8Array(width * height).fill(PENDING);
  let [y, u, v, label] = [NaN, 0, 0, 0];
  for (let i = 0; i < settled.length; i++) {
    if (isClear[i]) settled[i] = 0;
    if (!cores.isCore[i]) continue;
    // Neighbours mostly have the very same colour.
    if (cores.y[i] !== y || cores.u[i] !== u || cores.v[i] !== v) {
      [y, u, v] = [cores.y[i]!, cores.u[i]!, cores.v[i]!];
      label = nearestTo(shades, y, u, v) + 1;
    }
    for (let j = i - width; j <= i + width; j += width) {
      settled[j - 1] = label;
      settled[j] = label;
      settled[j + 1] = label;
    }
  }
  return settled;
}

function nearestTo(shades: readonly Shade[], y: number, u: number, v: number): number {
  let [best, least] = [0, Infinity];
  for (let k = 0; k < shades.length; k++) {
    const [a, b, c] = shades[k]!;
    const distance = (y - a) ** 2 + (u - b) ** 2 + (v - c) ** 2;
    if (distance < least) [best, least] = [k, distance];
  }
  return best;
}

export class Labeller {
  private readonly planes: Planes;
  private readonly shades: readonly Shade[];
  /** Half of one over the squared deviation. */
  private readonly weight: number;
  private readonly isSpoilt: boolean;
  /** Labels near the pixel at hand, and how many. */
  private readonly near = new Uint8Array((2 * WINDOW + 1) ** 2 + 1);
  private count = 0;

  constructor(planes: Planes, { shades, scatter }: Palette) {
    this.planes = planes;
    this.shades = shades;
    this.isSpoilt = scatter > SPOILT;
    this.weight = 0.5 / Math.max(STRAY, STRAY_BY_SCATTER * scatter) ** 2;
  }

  /** Every pixel to the colour it has most of, of those that are settled near it; where none is, to the nearest of all. */
  begun(settled: Uint8Array): Uint8Array {
    const labels = settled.slice();
    this.explain(settled, (i, { label }) => {
      labels[i] = label;
    });
    return labels;
  }

  /** Squared distances of the pixels from what the colours can be mixed to; 0 where they are settled. */
  straysFrom(settled: Uint8Array): Float32Array {
    const strays = new Float32Array(settled.length);
    this.explain(settled, (i, { stray }) => {
      strays[i] = stray;
    });
    return strays;
  }

  private explain(settled: Uint8Array, note: (i: number, best: { label: number; stray: number }) => void): void {
    const { width } = this.planes;
    for (let i = 0; i < settled.length; i++) {
      if (settled[i] !== PENDING) continue;
      this.look(settled, i % width, Math.floor(i / width));
      note(i, this.best(i));
    }
  }

  /**
   * The label that a pixel strays least from, as far as it is one of those that are near or a mixture of two of them; where that
   * leaves much, any of the palette, or a mixture of it with one that is near: a thin line is settled nowhere.
   */
  private best(i: number): { label: number; stray: number } {
    let [label, stray] = [this.near[0] ?? 0, Infinity];
    const settled = this.count;
    const tryIt = (own: number) => {
      const found = this.strayOf(i, own);
      if (found < stray) [label, stray] = [own, found];
    };
    for (let k = 0; k < settled; k++) tryIt(this.near[k]!);
    if (stray * this.weight < UNEXPLAINED) return { label, stray };
    for (let other = 1; other <= this.shades.length; other++) {
      if (this.near.subarray(0, settled).includes(other)) continue;
      this.near[settled] = other;
      this.count = settled + 1;
      for (let k = 0; k <= settled; k++) tryIt(this.near[k]!);
    }
    this.count = settled;
    return { label, stray };
  }

  /** Notes the labels around a pixel. */
  private look(labels: Uint8Array, column: number, row: number): void {
    const { width, height } = this.planes;
    this.count = 0;
    const [left, right] = [Math.max(0, column - WINDOW), Math.min(width - 1, column + WINDOW)];
    for (let r = Math.max(0, row - WINDOW); r <= Math.min(height - 1, row + WINDOW); r++) {
      for (let i = r * width + left; i <= r * width + right; i++) {
        const label = labels[i]!;
        if (label === PENDING) continue;
        let k = 0;
        while (k < this.count && this.near[k] !== label) k++;
        if (k === this.count) this.near[this.count++] = label;
      }
    }
  }

  /** Squared distance of a pixel from a colour, or from a mixture of it with one that is near, at least half of it this one. */
  private strayOf(i: number, label: number): number {
    const { y, u, v, isClear } = this.planes;
    if (label === 0 || isClear[i]) return label === 0 && isClear[i] ? 0 : Infinity;
    const [a, b, c] = this.shades[label - 1]!;
    const [p, q, r] = [y[i]! - a, u[i]! - b, v[i]! - c];
    const whole = p * p + q * q + r * r;
    let least = whole;
    for (let k = 0; k < this.count; k++) {
      const other = this.near[k]!;
      if (other === label || other === 0) continue;
      const shade = this.shades[other - 1]!;
      const [d, e, f] = [shade[0] - a, shade[1] - b, shade[2] - c];
      const length = d * d + e * e + f * f;
      const t = Math.min(0.5, Math.max(0, (p * d + q * e + r * f) / length));
      const stray = (p - t * d) ** 2 + (q - t * e) ** 2 + (r - t * f) ** 2;
      if (stray < least) least = stray;
    }
    return least;
  }

  /** Changes labels along boundaries until none gets cheaper; to and fro, so that no direction is preferred. */
  settle(labels: Uint8Array, settled: Uint8Array): void {
    const { width } = this.planes;
    const pending: number[] = [];
    for (let i = 0; i < settled.length; i++) if (settled[i] === PENDING) pending.push(i);
    for (let round = 0; round < ROUNDS; round++) {
      let changed = 0;
      for (let k = 0; k < pending.length; k++) {
        const i = pending[round % 2 === 0 ? k : pending.length - 1 - k]!;
        const [column, row] = [i % width, Math.floor(i / width)];
        if (this.boundary(labels, i, column, row, labels[i]!) === 0) continue;
        this.look(labels, column, row);
        if (this.improve(labels, i, column, row)) changed++;
      }
      if (changed === 0) break;
    }
  }

  private improve(labels: Uint8Array, i: number, column: number, row: number): boolean {
    const own = labels[i]!;
    let [best, least] = [own, Infinity];
    for (let k = 0; k < this.count; k++) {
      const label = this.near[k]!;
      const stray = this.strayOf(i, label);
      if (stray === Infinity) continue;
      const cost = Math.min(MOST_COST, stray * this.weight) + BOUNDARY * this.boundary(labels, i, column, row, label);
      if (cost < least || (cost === least && label === own)) [best, least] = [label, cost];
    }
    labels[i] = best;
    return best !== own;
  }

  /** Length of boundary that a pixel of a label has, in sides; those across corners are shorter. */
  private boundary(labels: Uint8Array, i: number, column: number, row: number, label: number): number {
    const { width, height } = this.planes;
    const [isLeft, isRight, isTop, isBottom] = [column > 0, column + 1 < width, row > 0, row + 1 < height];
    let [sides, corners] = [0, 0];
    if (isLeft && labels[i - 1] !== label) sides++;
    if (isRight && labels[i + 1] !== label) sides++;
    if (isTop) {
      if (labels[i - width] !== label) sides++;
      if (isLeft && labels[i - width - 1] !== label) corners++;
      if (isRight && labels[i - width + 1] !== label) corners++;
    }
    if (isBottom) {
      if (labels[i + width] !== label) sides++;
      if (isLeft && labels[i + width - 1] !== label) corners++;
      if (isRight && labels[i + width + 1] !== label) corners++;
    }
    return sides + corners * Math.SQRT1_2;
  }

  /**
   * A part without a flat place in it is believed only where its colour is no mixture of the two it lies between; others are
   * shared out between these.
   */
  confirmed(labels: Uint8Array, cores: Cores): Uint8Array {
    const { width, height, y, u, v } = this.planes;
    const { of, areas } = componentsOf(labels, width, height);
    const isFlat = new Uint8Array(areas.length);
    for (let i = 0; i < labels.length; i++) if (cores.isCore[i]) isFlat[of[i]!] = 1;
    const doubtful = new Map<number, number[]>();
    for (let i = 0; i < labels.length; i++) {
      if (isFlat[of[i]!] || labels[i] === 0) continue;
      const pixels = doubtful.get(of[i]!);
      if (pixels) pixels.push(i);
      else doubtful.set(of[i]!, [i]);
    }
    const result = labels.slice();
    const enough = CONFIRMED / this.weight;
    for (const pixels of doubtful.values()) {
      const [a, b] = [...bordersOf(pixels, labels, width, height)]
        .filter(([label]) => label !== 0)
        .sort((p, q) => q[1] - p[1])
        .map(([label]) => label);
      if (a === undefined) continue;
      const [from, to] = [this.shades[a - 1]!, this.shades[(b ?? a) - 1]!];
      const [d, e, f] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
      const length = d * d + e * e + f * f;
      const own = this.shades[labels[pixels[0]!]! - 1]!;
      let [stray, clear] = [0, 0];
      const shares = pixels.map((i) => {
        const [p, q, r] = [y[i]! - from[0], u[i]! - from[1], v[i]! - from[2]];
        const t = length > 0 ? Math.min(1, Math.max(0, (p * d + q * e + r * f) / length)) : 0;
        const off = (p - t * d) ** 2 + (q - t * e) ** 2 + (r - t * f) ** 2;
        stray += off;
        if ((y[i]! - own[0]) ** 2 + (u[i]! - own[1]) ** 2 + (v[i]! - own[2]) ** 2 < CLEARLY * off) clear++;
        return t;
      });
      const isCrest = !this.isSpoilt || (pixels.length >= LEAST_CREST && clear >= CREST * pixels.length);
      if (isCrest && stray / pixels.length > enough) continue;
      for (const [k, i] of pixels.entries()) result[i] = shares[k]! > 0.5 ? b! : a;
    }
    return result;
  }
}

/** In a picture that compression or noise has spoilt it has so many pixels, and this share of them … */
const [LEAST_CREST, CREST] = [16, 0.2];
/** … lie this much nearer to its colour than to such a mixture, in squares; pixels along edges stray by so many bytes there. */
const [CLEARLY, SPOILT] = [0.5, 2];

/** A part without a flat place has strayed by this, in half squares of deviations, from any mixture of its neighbours. */
const CONFIRMED = 8;

/** Sides that a part shares with each of the labels around it. */
function bordersOf(pixels: readonly number[], labels: Uint8Array, width: number, height: number): Map<number, number> {
  const borders = new Map<number, number>();
  const note = (own: number, other: number) => {
    if (labels[own] !== labels[other]) borders.set(labels[other]!, (borders.get(labels[other]!) ?? 0) + 1);
  };
  for (const i of pixels) {
    const [column, row] = [i % width, Math.floor(i / width)];
    if (column > 0) note(i, i - 1);
    if (column + 1 < width) note(i, i + 1);
    if (row > 0) note(i, i - width);
    if (row + 1 < height) note(i, i + width);
  }
  return borders;
}

/** Small pieces given to small pieces may need another round. */
const MERGE_ROUNDS = 4;

/** The map with every piece smaller than `detail` given to the neighbour it borders on most. */
export function withoutSmall(labels: Uint8Array, width: number, height: number, detail: number): Uint8Array {
  let result = labels;
  for (let round = 0; round < MERGE_ROUNDS && detail > 1; round++) {
    const { of, areas } = componentsOf(result, width, height);
    if (areas.every((area) => area >= detail)) break;
    const borders = new Map<number, Map<number, number>>();
    const meet = (i: number, j: number) => {
      if (areas[of[i]!]! >= detail || result[i] === result[j]) return;
      const border = borders.get(of[i]!) ?? new Map<number, number>();
      // What is small itself counts little, so that two specks do not just exchange their colours.
      border.set(result[j]!, (border.get(result[j]!) ?? 0) + (areas[of[j]!]! >= detail ? 1 : 0.001));
      borders.set(of[i]!, border);
    };
    for (let y = 0, i = 0; y < height; y++) {
      for (let x = 0; x < width; x++, i++) {
        if (x + 1 < width && of[i] !== of[i + 1]) {
          meet(i, i + 1);
          meet(i + 1, i);
        }
        if (y + 1 < height && of[i] !== of[i + width]) {
          meet(i, i + width);
          meet(i + width, i);
        }
      }
    }
    if (borders.size === 0) break;
    const given = new Map(
      [...borders].map(([piece, border]) => [
        piece,
        [...border].reduce((most, next) => (next[1] > most[1] ? next : most))[0],
      ]),
    );
    result = result.map((label, i) => given.get(of[i]!) ?? label);
  }
  return result;
}

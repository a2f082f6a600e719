// shade.ts — how much light gets to each pixel's place from all round: ambient occlusion (Zhukov, Iones & Kronin 1998) that fades with
// distance, so that things darken each other where they touch. Where it changes little it is asked for at every eighth pixel and
// runs straight between them; where it does, ever more of them are asked.
import type { Report } from '../sources/kind.ts';
import { Beams } from './beams.ts';
import type { Surface } from './surface.ts';
import { NOTHING } from './texels.ts';

/** Directions in half of a sphere, each of which is looked along both ways. */
const DIRECTIONS = 64;
/** Pixels between places that are asked for at first. */
const STRIDE = 8;
/** Where the middle of a square is off by less from what its corners say, values run straight between them. */
const ALIKE = 0.02;
/** Of a place that no light gets to. */
const COVERED = 1;
/** Rays begin so far off their face, as a share of their reach. */
const LIFT = 1e-4;

/** Steps between one in the dark and one in the open. */
export const OPEN = 65_534;

/**
 * By pixel: 1 for one in the dark to 65,535 for one in the open, 0 where nothing is.
 * @param reach how far things darken each other, in project units
 */
export function shadeOf(
  surface: Surface,
  texels: Uint32Array,
  size: number,
  reach: number,
  report: Report,
): Uint16Array {
  const shades = new Shades(surface, texels, size, reach);
  let blocks = shades.firstBlocks();
  const passes = Math.log2(STRIDE);
  for (let stride = STRIDE, pass = 0; stride > 1; stride /= 2, pass++) {
    const asked = shades.ask(blocks, stride);
    shades.answer((share) => report((pass + share) / passes));
    blocks = shades.take(asked, stride);
  }
  return shades.values;
}

/** Upper left pixel of a square of pixels, as their number in the picture. */
type Block = number;

/** Squares of one stride whose corners were asked for, and squares half as wide that take their place anyway. */
interface Asked {
  readonly whole: readonly Block[];
  readonly halves: readonly Block[];
}

class Shades {
  readonly values: Uint16Array;
  private readonly surface: Surface;
  private readonly texels: Uint32Array;
  private readonly size: number;
  private readonly reach: number;
  private readonly beams: Beams;
  /** Pixels that were asked for and not answered yet; and pairs of those that get what another one gets. */
  private asked: number[] = [];
  private alike: [to: number, from: number][] = [];

  constructor(surface: Surface, texels: Uint32Array, size: number, reach: number) {
    this.surface = surface;
    this.texels = texels;
    this.size = size;
    this.reach = reach;
    this.values = new Uint16Array(texels.length);
    this.beams = new Beams(surface.positions);
  }

  firstBlocks(): Block[] {
    const blocks: Block[] = [];
    for (let y = 0; y < this.size; y += STRIDE) {
      for (let x = 0; x < this.size; x += STRIDE) blocks.push(y * this.size + x);
    }
    return blocks;
  }

  /** Asks for what tells whether squares are plain. */
  ask(blocks: readonly Block[], stride: number): Asked {
    const [whole, halves]: [Block[], Block[]] = [[], []];
    for (const block of blocks) {
      const [x, y, right, low] = this.sides(block, stride);
      const chart = this.commonChart(x, y, right, low);
      if (chart === null) continue;
      if (chart >= 0) {
        for (const i of this.cornersOf(block, stride)) this.want(i);
        this.want(this.middleOf(block, stride));
        whole.push(block);
      } else if (stride === 2) this.wantRim(block);
      else halves.push(...this.quarters(block, stride));
    }
    return { whole, halves };
  }

  /** Fills the squares that are plain. @returns what is to be asked for next */
  take({ whole, halves }: Asked, stride: number): Block[] {
    const next = [...halves];
    for (const block of whole) {
      const [a, b, c, d] = this.valuesAt(this.cornersOf(block, stride));
      const middle = this.values[this.middleOf(block, stride)]!;
      const slack = ALIKE * OPEN;
      const isPlain = Math.abs(a + d - b - c) < 2 * slack && Math.abs((a + b + c + d) / 4 - middle) < slack;
      if (isPlain) this.between(block, stride, [a, b, c, d]);
      // Nobody sees what is covered: what is seen beside it goes on below it.
      else if (stride === 2) this.between(block, stride, uncovered([a, b, c, d]));
      else next.push(...this.quarters(block, stride));
    }
    return next;
  }

  private valuesAt([a, b, c, d]: Four): Four {
    const { values } = this;
    return [values[a]!, values[b]!, values[c]!, values[d]!];
  }

  private sides(block: Block, stride: number): Four {
    const [x, y] = [block % this.size, Math.floor(block / this.size)];
    return [x, y, Math.min(this.size - 1, x + stride), Math.min(this.size - 1, y + stride)];
  }

  private cornersOf(block: Block, stride: number): Four {
    const [x, y, right, low] = this.sides(block, stride);
    return [y * this.size + x, y * this.size + right, low * this.size + x, low * this.size + right];
  }

  private middleOf(block: Block, stride: number): number {
    const [x, y, right, low] = this.sides(block, stride);
    return ((y + low) >> 1) * this.size + ((x + right) >> 1);
  }

  private quarters(block: Block, stride: number): Block[] {
    const half = stride / 2;
    return [block, block + half, block + half * this.size, block + half * this.size + half];
  }

  /** The piece that all pixels are on; −1 for several, null where there is nothing. */
  private commonChart(x: number, y: number, right: number, low: number): number | null {
    const { texels, surface, size } = this;
    let [common, isEmpty] = [-2, true];
    for (let row = y; row <= low; row++) {
      for (let column = x; column <= right; column++) {
        const texel = texels[row * size + column]!;
        const own = texel === NOTHING ? -1 : surface.charts[texel - 1]!;
        if (texel !== NOTHING) isEmpty = false;
        if (common === -2) common = own;
        else if (common !== own) common = -1;
      }
    }
    return isEmpty ? null : common;
  }

  private between(block: Block, stride: number, [a, b, c, d]: Four): void {
    const [x, y, right, low] = this.sides(block, stride);
    for (let row = y; row <= low; row++) {
      for (let column = x; column <= right; column++) {
        const at = row * this.size + column;
        if (this.values[at]! > 0) continue;
        const [u, v] = [(column - x) / (right - x || 1), (row - y) / (low - y || 1)];
        this.values[at] = Math.round((1 - v) * (a + u * (b - a)) + v * (c + u * (d - c)));
      }
    }
  }

  /** Asks for one of each piece among the four pixels of a square on a rim; it speaks for all. */
  private wantRim(block: Block): void {
    const known = new Map<number, number>();
    for (const i of this.quarters(block, 2)) {
      const texel = this.texels[i] ?? NOTHING;
      if (texel === NOTHING) continue;
      const chart = this.surface.charts[texel - 1]!;
      const from = known.get(chart);
      if (from === undefined) this.want(i);
      else this.alike.push([i, from]);
      known.set(chart, from ?? i);
    }
  }

  private want(i: number): void {
    if (this.values[i] !== 0 || (this.texels[i] ?? NOTHING) === NOTHING) return;
    // Until it is answered.
    this.values[i] = OPEN + 1;
    this.asked.push(i);
  }

  /** Computes what was asked for. */
  answer(report: Report): void {
    const { values, beams } = this;
    const isCovered = this.covered(this.asked);
    for (const [k, i] of this.asked.entries()) if (isCovered[k] === 1) values[i] = COVERED;
    const open = this.asked.filter((_, k) => isCovered[k] === 0);
    const places = this.placesOf(open);
    const dark = new Float32Array(open.length);
    const weights = new Float32Array(open.length);
    for (let i = 0; i < DIRECTIONS && open.length > 0; i++) {
      beams.aim(...direction(i));
      beams.darken(places, this.reach, dark, weights);
      report((i + 1) / DIRECTIONS);
    }
    for (const [k, i] of open.entries()) {
      values[i] = 1 + Math.round((OPEN - 1) * Math.min(1, Math.max(0, 1 - dark[k]! / weights[k]!)));
    }
    for (const [to, from] of this.alike) if (values[to] === 0) values[to] = values[from]!;
    this.asked = [];
    this.alike = [];
  }

  /** What lies on something, or in it, gets no light, however far its other side is. */
  private covered(pixels: readonly number[]): Uint8Array {
    this.beams.aim(...direction(DIRECTIONS - 1));
    return this.beams.covered(this.placesOf(pixels));
  }

  /** Where pixels are in the world, a little off their faces, and the normals there: six numbers each. */
  private placesOf(pixels: readonly number[]): Float64Array {
    const { surface, texels, size, reach } = this;
    const result = new Float64Array(6 * pixels.length);
    const at = [0, 0, 0];
    const normal = [0, 0, 0];
    for (const [k, i] of pixels.entries()) {
      const t = texels[i]! - 1;
      const shares = sharesOf(surface.places, 6 * t, (i % size) + 0.5, Math.floor(i / size) + 0.5);
      mix(surface.positions, t, shares, at);
      mix(surface.normals, t, shares, normal);
      const length = Math.hypot(normal[0]!, normal[1]!, normal[2]!) || 1;
      for (let axis = 0; axis < 3; axis++) {
        const n = normal[axis]! / length;
        result[6 * k + axis] = at[axis]! + LIFT * reach * n;
        result[6 * k + 3 + axis] = n;
      }
    }
    return result;
  }
}

type Four = readonly [number, number, number, number];

/** The mean of what light gets to in place of what it does not. */
function uncovered(values: Four): Four {
  const open = values.filter((v) => v > COVERED);
  if (open.length === 0) return values;
  const mean = open.reduce((sum, v) => sum + v, 0) / open.length;
  return values.map((v) => (v > COVERED ? v : mean)) as unknown as Four;
}

/** One of {@link DIRECTIONS}, evenly spread: golden angles at equal heights (Vogel 1979, on the sphere). */
function direction(i: number): readonly [number, number, number] {
  const z = (i + 0.5) / DIRECTIONS;
  const [across, round] = [Math.sqrt(1 - z * z), GOLDEN * i];
  return [across * Math.cos(round), across * Math.sin(round), z];
}

const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** Of what the three corners of a triangle have, so much of each. */
function mix(of: ArrayLike<number>, t: number, [u, v, w]: readonly [number, number, number], to: number[]): void {
  for (let k = 0; k < 3; k++) to[k] = u * of[9 * t + k]! + v * of[9 * t + 3 + k]! + w * of[9 * t + 6 + k]!;
}

/** How much of a place is each of the three corners of a triangle; the nearest place of it for one beside it. */
export function sharesOf(places: Float32Array, at: number, x: number, y: number): [number, number, number] {
  const [ax, ay] = [places[at]!, places[at + 1]!];
  const [bx, by] = [places[at + 2]! - ax, places[at + 3]! - ay];
  const [cx, cy] = [places[at + 4]! - ax, places[at + 5]! - ay];
  const turns = bx * cy - by * cx;
  if (turns === 0) return [1 / 3, 1 / 3, 1 / 3];
  const v = Math.max(0, ((x - ax) * cy - (y - ay) * cx) / turns);
  const w = Math.max(0, (bx * (y - ay) - by * (x - ax)) / turns);
  const u = Math.max(0, 1 - v - w);
  const sum = u + v + w;
  return [u / sum, v / sum, w / sum];
}

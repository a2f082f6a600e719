// snap.ts — where a point under the hand is meant to go: onto another point, an edge, a line in a round angle, level with
// a neighbour, or onto a grid.
import { numbersAt } from '../base/arrays.ts';
import { at, type Cubic, contoursOf, nearestParameter, type Piece } from '../path/cubic.ts';
import type { Spot } from '../path/points.ts';
import type { Path } from '../path/types.ts';
import { type GridIndex, SegmentGrid } from './segment-grid.ts';

export interface SnapWishes {
  readonly points: boolean;
  readonly edges: boolean;
  /** Level with, or straight above or below, one of `SnapQuery.level`. */
  readonly alignment: boolean;
  /** Its width, and one of its crossings; null for none. */
  readonly grid: { readonly width: number; readonly through: Spot } | null;
  /** Directions from `SnapQuery.from` in whole multiples of this many degrees; null for any. */
  readonly angle: number | null;
}

export interface SnapQuery {
  /** How far away something is still meant. */
  readonly reach: number;
  /** The point a line is drawn from; null where there is none. */
  readonly from?: Spot | null;
  /** Points it may be level with. */
  readonly level?: readonly Spot[];
  /** Number of the path that is left out, because it is what is moved. */
  readonly except?: number | null;
}

export type SnapKind = 'point' | 'edge' | 'angle' | 'alignment' | 'grid';

export interface Snapped {
  readonly at: Spot;
  /** Null where nothing is near. */
  readonly to: SnapKind | null;
}

/** A field as plain data, so that one thread can build it for another. */
export interface SnapParts {
  /** Start, two handles and end of each piece, flat. */
  readonly pieces: Float64Array;
  /** Number of the first piece of each path, and of all pieces at the end. */
  readonly starts: Uint32Array;
  /** Chords by which pieces are found: their ends, flat, and which piece each is of and where on it its middle lies. */
  readonly chords: Float64Array;
  readonly owners: Uint32Array;
  readonly middles: Float32Array;
  /** Null where there is no piece. */
  readonly index: GridIndex | null;
}

/** Chords by which a curve is found; the place on it is then exact. */
const CHORDS = 8;

/** The pieces of paths, indexed. */
export function snapParts(paths: readonly Path[]): SnapParts {
  const starts = new Uint32Array(paths.length + 1);
  const all: Piece[] = [];
  for (const [i, path] of paths.entries()) {
    for (const { pieces } of contoursOf(path)) for (const piece of pieces) all.push(piece);
    starts[i + 1] = all.length;
  }
  const pieces = new Float64Array(8 * all.length);
  for (const [i, { cubic }] of all.entries()) pieces.set(cubic, 8 * i);
  const count = all.reduce((sum, { isLine }) => sum + (isLine ? 1 : CHORDS), 0);
  const [chords, owners, middles] = [new Float64Array(4 * count), new Uint32Array(count), new Float32Array(count)];
  let chord = 0;
  for (const [i, { isLine, cubic }] of all.entries()) {
    const parts = isLine ? 1 : CHORDS;
    for (let k = 0; k < parts; k++, chord++) {
      owners[chord] = i;
      middles[chord] = (k + 0.5) / parts;
      for (const end of [0, 1] as const) {
        for (const axis of [0, 1] as const) chords[4 * chord + 2 * end + axis] = at(cubic, axis, (k + end) / parts);
      }
    }
  }
  return { pieces, starts, chords, owners, middles, index: count > 0 ? new SegmentGrid(chords).index() : null };
}

/** The pieces of all paths in view. */
export class SnapField {
  private readonly parts: SnapParts;
  private readonly grid: SegmentGrid | null;

  constructor(parts: SnapParts) {
    this.parts = parts;
    this.grid = parts.index && new SegmentGrid(parts.chords, { index: parts.index });
  }

  /** Points come first, then edges, then round angles, then alignment and the grid, each axis by itself. */
  snap(place: Spot, wishes: SnapWishes, query: SnapQuery): Snapped {
    const near = wishes.points || wishes.edges ? this.nearest(place, wishes, query) : null;
    if (near) return near;
    const turned = wishes.angle !== null && query.from ? turnedTo(place, query.from, wishes.angle, query.reach) : null;
    if (turned) return { at: turned, to: 'angle' };
    const result: [number, number] = [place[0], place[1]];
    let to: SnapKind | null = null;
    for (const axis of [0, 1] as const) {
      const level = wishes.alignment ? nearestOf(query.level ?? [], axis, place[axis], query.reach) : null;
      const line = wishes.grid && onGrid(place[axis], wishes.grid.width, wishes.grid.through[axis]);
      if (level !== null) [result[axis], to] = [level, 'alignment'];
      else if (line !== null && Math.abs(line - place[axis]) <= query.reach) {
        [result[axis], to] = [line, to ?? 'grid'];
      }
    }
    return { at: result, to };
  }

  private piece(i: number): Cubic {
    return numbersAt(this.parts.pieces, 8 * i, 8);
  }

  private nearest([x, y]: Spot, { points, edges }: SnapWishes, { reach, except }: SnapQuery): Snapped | null {
    const { pieces, starts, owners, middles } = this.parts;
    let point: Spot | null = null;
    let least = reach;
    const close = new Map<number, number>();
    this.grid?.near(x, y, reach, (chord) => {
      const i = owners[chord]!;
      if (except != null && i >= starts[except]! && i < starts[except + 1]!) return;
      // Several chords of a piece may be near: the middle one of them is a good guess.
      close.set(i, middles[chord]!);
      for (const end of [0, 6]) {
        const spot: Spot = [pieces[8 * i + end]!, pieces[8 * i + end + 1]!];
        const distance = Math.hypot(spot[0] - x, spot[1] - y);
        if (distance <= least) [least, point] = [distance, spot];
      }
    });
    if (points && point) return { at: point, to: 'point' };
    if (!edges) return null;
    let on: Spot | null = null;
    least = reach;
    for (const [i, guess] of close) {
      const cubic = this.piece(i);
      const t = nearestParameter(cubic, x, y, guess);
      const spot: Spot = [at(cubic, 0, t), at(cubic, 1, t)];
      const distance = Math.hypot(spot[0] - x, spot[1] - y);
      if (distance <= least) [least, on] = [distance, spot];
    }
    return on && { at: on, to: 'edge' };
  }
}

const onGrid = (v: number, width: number, through: number) => through + width * Math.round((v - through) / width);

/** The place moved onto the nearest line through `from` in a multiple of `step` degrees; null where none is near. */
function turnedTo([x, y]: Spot, from: Spot, step: number, reach: number): Spot | null {
  const [dx, dy] = [x - from[0], y - from[1]];
  const turn = (step * Math.PI) / 180;
  const angle = turn * Math.round(Math.atan2(dy, dx) / turn);
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  if (Math.abs(dx * uy - dy * ux) > reach) return null;
  return ahead(from, [ux, uy], dx * ux + dy * uy);
}

const ahead = (from: Spot, [ux, uy]: Spot, length: number): Spot => [from[0] + ux * length, from[1] + uy * length];

/** A line from `from` held to the nearest multiple of `step` degrees, however far that is from the place. */
export function heldTo(place: Spot, from: Spot, step: number): Spot {
  return turnedTo(place, from, step, Infinity) ?? place;
}

function nearestOf(spots: readonly Spot[], axis: 0 | 1, value: number, reach: number): number | null {
  let best: number | null = null;
  let least = reach;
  for (const spot of spots) {
    const off = Math.abs(spot[axis] - value);
    if (off <= least) [least, best] = [off, spot[axis]];
  }
  return best;
}

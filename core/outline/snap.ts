// snap.ts — where a point under the hand is meant to go: onto another point, an edge, a line in a round angle, level with
// a neighbour, or onto a grid.
import { at, type Cubic, contoursOf, nearestParameter } from '../path/cubic.ts';
import type { Spot } from '../path/points.ts';
import type { Path } from '../path/types.ts';
import { SegmentGrid } from './segment-grid.ts';

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
  /** Pieces that are left out, because they are what is moved: from the first, up to the second. */
  readonly except?: readonly [from: number, to: number] | null;
}

export type SnapKind = 'point' | 'edge' | 'angle' | 'alignment' | 'grid';

export interface Snapped {
  readonly at: Spot;
  /** Null where nothing is near. */
  readonly to: SnapKind | null;
}

/** The pieces of paths as a field takes them, and where those of each path begin. */
export function snapPieces(paths: readonly Path[]): { pieces: Float64Array; starts: Uint32Array } {
  const starts = new Uint32Array(paths.length + 1);
  const cubics = paths.map((path, i) => {
    const own = contoursOf(path).flatMap(({ pieces }) => pieces.map(({ cubic }) => cubic));
    starts[i + 1] = starts[i]! + own.length;
    return own;
  });
  return { pieces: Float64Array.from(cubics.flat(2)), starts };
}

/** Chords by which a curve is found; the place on it is then exact. */
const CHORDS = 8;

/** The pieces of all paths in view. Built once per drawing. */
export class SnapField {
  private readonly pieces: Float64Array;
  private readonly grid: SegmentGrid | null;

  /** @param pieces start, two handles and end of each, flat */
  constructor(pieces: Float64Array) {
    this.pieces = pieces;
    const count = pieces.length / 8;
    const chords = new Float64Array(4 * CHORDS * count);
    for (let i = 0; i < count; i++) {
      const cubic = this.piece(i);
      for (let k = 0; k < CHORDS; k++) {
        for (const end of [0, 1] as const) {
          for (const axis of [0, 1] as const) {
            chords[4 * (CHORDS * i + k) + 2 * end + axis] = at(cubic, axis, (k + end) / CHORDS);
          }
        }
      }
    }
    this.grid = count > 0 ? new SegmentGrid(chords) : null;
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
    return this.pieces.subarray(8 * i, 8 * i + 8) as unknown as Cubic;
  }

  private nearest([x, y]: Spot, { points, edges }: SnapWishes, { reach, except }: SnapQuery): Snapped | null {
    let point: Spot | null = null;
    let least = reach;
    const close = new Map<number, number>();
    this.grid?.near(x, y, reach, (chord) => {
      const i = Math.floor(chord / CHORDS);
      if (except && i >= except[0] && i < except[1]) return;
      // Several chords of a piece may be near: the middle one of them is a good guess.
      close.set(i, ((chord % CHORDS) + 0.5) / CHORDS);
      for (const end of [0, 6]) {
        const spot: Spot = [this.pieces[8 * i + end]!, this.pieces[8 * i + end + 1]!];
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

// combine.ts — Boolean operations on outlines that keep their curves. Curves become chords on the grid, where the exact
// arrangement decides; every edge of the result then finds the curve it came from, and neighbouring edges of one curve
// become the stretch of it they lie on. Ends of stretches are where the curves truly meet, not where their chords do.
import { numbersAt } from '../base/arrays.ts';
import {
  at,
  type Cubic,
  contoursOf,
  cutCubic,
  isPoint,
  linePiece,
  nearestParameter,
  type Piece,
  pathOf,
  slopeAt,
} from '../path/cubic.ts';
import { chordPoints } from '../path/flatten.ts';
import type { Path, Segment } from '../path/types.ts';
import { fillRegions, type GridFill, type GridPath, type GridPoint, type GridRegion } from './arrangement.ts';
import { cornersOf, roughSize } from './corners.ts';
import { type Grid, gridFor, toGrid } from './grid.ts';
import { ringArea, ringLength } from './measure.ts';
import { SegmentGrid } from './segment-grid.ts';

export const COMBINATIONS = ['union', 'subtract', 'intersect', 'exclude'] as const;
export type Combination = (typeof COMBINATIONS)[number];

export interface Filled {
  readonly path: Path;
  readonly fillRule: 'nonzero' | 'evenodd';
}

/** Chords stray this share of the extent from their curves while it is decided what meets what. */
const CHORD_SHARE = 3e-5;

/**
 * Filled paths as one: `subtract` takes all others from the first, `exclude` keeps what an odd number of them covers.
 * @param report is called with the share done; may throw to stop
 * @returns closed contours that do not cross, outer ones counter-clockwise (y up) and holes clockwise; `[]` for nothing
 */
export function combine(operands: readonly Filled[], how: Combination, report?: (share: number) => void): Path {
  return joined(combinedRegions(operands, how, report));
}

/** Share of the work until each operand is settled by itself. */
const SETTLED = 0.4;

/** What {@link combine} makes, region by region: each an outer contour and its holes. */
export function combinedRegions(
  operands: readonly Filled[],
  how: Combination,
  report: (share: number) => void = () => {},
): Path[] {
  const tracks = new Tracks(operands.map(({ path }) => path));
  const each = operands.map(({ fillRule }, i) => {
    report((SETTLED * i) / operands.length);
    return ringsOf(fillRegions(tracks.rings(i), fillRule));
  });
  return tracks.regions(merged(each, how));
}

/** The outline of everything that closed paths cover. */
export function outlineOf(paths: readonly Path[], fill: GridFill): Path {
  const tracks = new Tracks(paths);
  return joined(
    tracks.regions(
      fillRegions(
        paths.flatMap((_, i) => tracks.rings(i)),
        fill,
      ),
    ),
  );
}

/** @param each oriented rings of each operand */
function merged(each: readonly (readonly GridPath[])[], how: Combination): GridRegion[] {
  const [first = [], ...others] = each;
  switch (how) {
    case 'union':
      return fillRegions(each.flat(), 'positive');
    case 'exclude':
      return fillRegions(each.flat(), 'evenodd');
    case 'subtract':
      return fillRegions([...first, ...others.flat().map((ring) => ring.toReversed())], 'positive');
    case 'intersect': {
      const common = (a: readonly GridPath[], b: readonly GridPath[]) => ringsOf(fillRegions([...a, ...b], 'twice'));
      const rings = others.reduce<readonly GridPath[]>(common, first);
      return fillRegions(rings, 'positive');
    }
  }
}

const ringsOf = (regions: readonly GridRegion[]): GridPath[] =>
  regions.flatMap(({ outer, holes }) => [outer, ...holes]);

const joined = (regions: readonly Path[]): Path => regions.flat();

// --- from edges back to curves --------------------------------------------------------------------------------------

/** An edge belongs to a chord when both its ends lie within this many grid steps of it. */
const NEAR = 4;
/** Edges up to this many steps long say nothing about where they came from. */
const TINY = 12;
/** Where two curves meet is looked for this many chord tolerances around the place where their chords do. */
const MEETING = 40;

/** Parameters nearer than this are of one place; a curve that crosses itself has two far apart. */
const SAME = 1e-4;

/** A stretch of a piece, in the direction of the result. */
interface Run {
  /** Number of the piece; −1 for an edge that comes from none. */
  readonly piece: number;
  from: number;
  to: number;
  /** First and last point on the grid. */
  readonly start: GridPoint;
  end: GridPoint;
}

/** Curves on the grid that know where they came from. */
export class Tracks {
  private readonly pieces: Piece[] = [];
  /** The piece that follows in its contour. */
  private readonly next: number[] = [];
  private readonly lines: GridPath[][] = [];
  private readonly grid: Grid;
  private readonly tolerance: number;
  /** Four numbers a chord, on the grid. */
  private readonly chords: Float64Array;
  private readonly chordPiece: number[] = [];
  private readonly chordFrom: number[] = [];
  private readonly chordTo: number[] = [];
  private readonly index: SegmentGrid;

  /** @param areClosed whether open contours are taken as closed, as fill does */
  constructor(paths: readonly Path[], areClosed = true) {
    this.tolerance = CHORD_SHARE * roughSize(paths);
    this.grid = gridFor(paths.map(cornersOf));
    const chords: number[] = [];
    for (const path of paths) {
      const contours = contoursOf(areClosed ? closedPath(path) : path);
      this.lines.push(contours.map(({ pieces }) => this.add(pieces, chords, areClosed)));
    }
    this.chords = Float64Array.from(chords);
    this.index = new SegmentGrid(this.chords);
  }

  private add(pieces: readonly Piece[], chords: number[], isClosed: boolean): GridPath {
    const line: GridPoint[] = [];
    const first = this.pieces.length;
    for (const piece of pieces) {
      const { cubic } = piece;
      const inner = piece.isLine ? [] : chordPoints(cubic, this.tolerance);
      const stops = [{ x: cubic[0], y: cubic[1], t: 0 }, ...inner, { x: cubic[6], y: cubic[7], t: 1 }];
      const places = toGrid(Float64Array.from(stops.flatMap(({ x, y }) => [x, y])), this.grid);
      for (let i = 1; i < stops.length; i++) {
        const [p, q] = [places[i - 1]!, places[i]!];
        line.push(p);
        if (!isClosed && piece === pieces.at(-1) && i + 1 === stops.length) line.push(q);
        if (p.x === q.x && p.y === q.y) continue;
        chords.push(p.x, p.y, q.x, q.y);
        this.chordPiece.push(this.pieces.length);
        this.chordFrom.push(stops[i - 1]!.t);
        this.chordTo.push(stops[i]!.t);
      }
      this.pieces.push(piece);
      this.next.push(this.pieces.length);
    }
    if (this.pieces.length > first) this.next[this.pieces.length - 1] = first;
    return line;
  }

  /** The contours of one of the paths. */
  rings(path: number): readonly GridPath[] {
    return this.lines[path]!;
  }

  /** Regions of chords as paths of curves: an outer contour and its holes each. */
  regions(regions: readonly GridRegion[]): Path[] {
    return regions
      .map(({ outer, holes }) => (isSliver(outer) ? [] : [outer, ...holes.filter((hole) => !isSliver(hole))]))
      .map((rings) => rings.flatMap((ring) => this.contour(ring)))
      .filter((path) => path.length > 0);
  }

  private contour(ring: GridPath): Path {
    const runs = this.runs(ring);
    if (runs.length === 0) return [];
    const places = runs.map((run, i) => this.meeting(runs.at(i - 1)!, run));
    const drawn = runs.map((run, i) => this.drawn(run, places[i]!, places[(i + 1) % runs.length]!));
    const kept = this.withoutFlatCorners(drawn, runs);
    const first = kept[0];
    if (!first || (kept.length < 3 && kept.every(({ isLine }) => isLine))) return [];
    return pathOf([{ start: [first.cubic[0], first.cubic[1]], pieces: kept, isClosed: true }]);
  }

  /** Neighbouring edges of one piece, together. */
  private runs(ring: GridPath): Run[] {
    const runs: Run[] = [];
    for (const [i, p] of ring.entries()) {
      const q = ring[(i + 1) % ring.length]!;
      const last = runs.at(-1);
      const chord = this.chordOf(p, q, last?.piece ?? -1);
      if (chord === -1 && last && Math.hypot(q.x - p.x, q.y - p.y) < TINY) {
        last.end = q;
        continue;
      }
      const piece = chord === -1 ? -1 : this.chordPiece[chord]!;
      const [from, to] = chord === -1 ? [0, 1] : [this.parameter(chord, p), this.parameter(chord, q)];
      const goesOn = last && piece !== -1 && last.piece === piece && last.to - last.from > 0 === to - from > 0;
      if (goesOn && last.end === p && Math.abs(last.to - from) < SAME) {
        last.to = to;
        last.end = q;
      } else runs.push({ piece, from, to, start: p, end: q });
    }
    // The ring may begin in the middle of a run.
    const [first, last] = [runs[0], runs.at(-1)];
    if (first && last && first !== last && last.piece === first.piece && first.piece !== -1) {
      const sameWay = last.to - last.from > 0 === first.to - first.from > 0;
      if (sameWay && Math.abs(last.to - first.from) < SAME) {
        runs.shift();
        last.to = first.to;
        last.end = first.end;
      }
    }
    return runs;
  }

  /** The chord an edge lies on, of `preferred` where several do; −1 for none. */
  private chordOf(p: GridPoint, q: GridPoint, preferred: number): number {
    let found = -1;
    let best = NEAR;
    this.index.near((p.x + q.x) / 2, (p.y + q.y) / 2, 2, (chord) => {
      const [ax, ay, bx, by] = numbersAt(this.chords, 4 * chord, 4);
      const away = Math.max(distanceToLine(p, ax, ay, bx, by), distanceToLine(q, ax, ay, bx, by));
      const rank = this.chordPiece[chord] === preferred ? away / 8 : away;
      if (rank >= best) return;
      const along = (v: GridPoint) => (v.x - ax) * (bx - ax) + (v.y - ay) * (by - ay);
      const length = (bx - ax) ** 2 + (by - ay) ** 2;
      const slack = NEAR * Math.sqrt(length);
      if (Math.min(along(p), along(q)) < -slack || Math.max(along(p), along(q)) > length + slack) return;
      best = rank;
      found = chord;
    });
    return found;
  }

  /** Where a grid point lies on the piece of a chord. Corners of chords are taken as just where they were put. */
  private parameter(chord: number, { x, y }: GridPoint): number {
    const [ax, ay, bx, by] = numbersAt(this.chords, 4 * chord, 4);
    const [from, to] = [this.chordFrom[chord]!, this.chordTo[chord]!];
    if (Math.hypot(x - ax, y - ay) < 2) return from;
    if (Math.hypot(x - bx, y - by) < 2) return to;
    const length = (bx - ax) ** 2 + (by - ay) ** 2;
    const share = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length;
    const guess = from + Math.min(1, Math.max(0, share)) * (to - from);
    const { isLine, cubic } = this.pieces[this.chordPiece[chord]!]!;
    return isLine ? guess : nearestParameter(cubic, x * this.grid.step, y * this.grid.step, guess);
  }

  /** Where one run ends and the next begins; their parameters follow. */
  private meeting(before: Run, behind: Run): readonly [number, number] {
    const { x, y } = behind.start;
    const place = [x * this.grid.step, y * this.grid.step] as const;
    const [a, b] = [this.pieces[before.piece]?.cubic, this.pieces[behind.piece]?.cubic];
    // A corner of what came in stays exactly where it was.
    if (b && (behind.from === 0 || behind.from === 1)) return endOf(b, behind.from);
    if (a && (before.to === 0 || before.to === 1)) return endOf(a, before.to);
    if (!a || !b || before === behind) return place;
    const found = meet(a, before.to, b, behind.from);
    if (!found) return place;
    const [t, s] = found;
    const [mx, my] = [at(a, 0, t), at(a, 1, t)];
    if (Math.hypot(mx - place[0], my - place[1]) > MEETING * this.tolerance) return place;
    before.to = t;
    behind.from = s;
    return [mx, my];
  }

  private drawn(
    { piece, from, to }: Run,
    [x0, y0]: readonly [number, number],
    [x3, y3]: readonly [number, number],
  ): Piece {
    const source = this.pieces[piece];
    if (!source || source.isLine) return linePiece(x0, y0, x3, y3);
    const c = cutCubic(source.cubic, from, to);
    // Handles move with the ends they belong to.
    return {
      isLine: false,
      cubic: [x0, y0, c[2] + (x0 - c[0]), c[3] + (y0 - c[1]), c[4] + (x3 - c[6]), c[5] + (y3 - c[7]), x3, y3],
    };
  }

  /** Two lines in a row that were not neighbours before become one where they run on straight. */
  private withoutFlatCorners(drawn: readonly Piece[], runs: readonly Run[]): Piece[] {
    const kept: { piece: Piece; run: Run }[] = [];
    const isFlat = (p: { piece: Piece; run: Run }, q: { piece: Piece; run: Run }) => {
      if (!p.piece.isLine || !q.piece.isLine) return false;
      const areNeighbours = this.next[p.run.piece] === q.run.piece || this.next[q.run.piece] === p.run.piece;
      const isCorner = (t: number) => t === 0 || t === 1;
      if (areNeighbours && isCorner(p.run.to) && isCorner(q.run.from)) return false;
      const [[x0, y0, , , , , x1, y1], [, , , , , , x2, y2]] = [p.piece.cubic, q.piece.cubic];
      const [ux, uy, vx, vy] = [x1 - x0, y1 - y0, x2 - x1, y2 - y1];
      const [along, length] = [ux * vx + uy * vy, Math.hypot(x2 - x0, y2 - y0)];
      return along > 0 && Math.abs(ux * vy - uy * vx) <= 2 * this.grid.step * length;
    };
    for (const [i, piece] of drawn.entries()) {
      if (isPoint(piece)) continue;
      const entry = { piece, run: runs[i]! };
      const last = kept.at(-1);
      if (last && isFlat(last, entry)) kept[kept.length - 1] = { piece: joinedLine(last.piece, piece), run: entry.run };
      else kept.push(entry);
    }
    const [first, last] = [kept[0], kept.at(-1)];
    if (first && last && kept.length > 3 && isFlat(last, first)) {
      kept[0] = { piece: joinedLine(last.piece, first.piece), run: first.run };
      kept.pop();
    }
    return kept.map(({ piece }) => piece);
  }
}

/** Whether a ring is so thin that only rounding can have made it. */
function isSliver(ring: GridPath): boolean {
  const flat = Float64Array.from(ring.flatMap(({ x, y }) => [x, y]));
  return Math.abs(ringArea(flat)) <= NEAR * ringLength(flat);
}

/** Every contour with its closing line. */
function closedPath(path: Path): Path {
  return path.flatMap((segment, i): Segment[] => {
    const isLast = i + 1 === path.length || path[i + 1]![0] === 'M';
    return isLast && segment[0] !== 'Z' ? [segment, ['Z']] : [segment];
  });
}

function joinedLine({ cubic: a }: Piece, { cubic: b }: Piece): Piece {
  return linePiece(a[0], a[1], b[6], b[7]);
}

const endOf = (c: Cubic, t: number) => (t === 0 ? ([c[0], c[1]] as const) : ([c[6], c[7]] as const));

function distanceToLine({ x, y }: GridPoint, ax: number, ay: number, bx: number, by: number): number {
  return Math.abs((x - ax) * (by - ay) - (y - ay) * (bx - ax)) / Math.hypot(bx - ax, by - ay);
}

/** Parameters at which two curves meet, from a guess, by Newton's method; null where they run alongside each other. */
function meet(a: Cubic, t0: number, b: Cubic, s0: number): readonly [number, number] | null {
  let [t, s] = [t0, s0];
  for (let round = 0; round < 12; round++) {
    const [ex, ey] = [at(a, 0, t) - at(b, 0, s), at(a, 1, t) - at(b, 1, s)];
    const [ax, ay, bx, by] = [slopeAt(a, 0, t), slopeAt(a, 1, t), slopeAt(b, 0, s), slopeAt(b, 1, s)];
    const determinant = ay * bx - ax * by;
    if (Math.abs(determinant) < 1e-4 * Math.hypot(ax, ay) * Math.hypot(bx, by)) return null;
    const [dt, ds] = [(by * ex - bx * ey) / determinant, (ay * ex - ax * ey) / determinant];
    [t, s] = [t + dt, s + ds];
    if (!(t >= 0 && t <= 1 && s >= 0 && s <= 1)) return null;
    if (Math.abs(dt) + Math.abs(ds) < 1e-14) break;
  }
  return [t, s];
}

// stroke.ts — what a pen covers along a path, as closed paths whose curves stay curves: a band for every piece, a wedge at
// every corner, a cap at every end. Pieces share their corners exactly, so that their union has no seams. Joins, caps and
// dashes follow SVG 2 §13.5 ("Stroke properties") and §13.7 ("Computing the shape of an object's stroke").
import type { Stroke } from '../drawing.ts';
import { arcToCubics, ellipsePath } from '../path/arc.ts';
import {
  at,
  type Contour,
  type Cubic,
  contoursOf,
  curvatureAt,
  cutCubic,
  directionAt,
  nearestParameter,
  type Piece,
} from '../path/cubic.ts';
import { chordPoints, flatten } from '../path/flatten.ts';
import { lengthOf, parameterAt } from '../path/length.ts';
import type { Path, Segment } from '../path/types.ts';
import { ringArea } from './measure.ts';
import { regionsOf } from './regions.ts';
import type { Region } from './types.ts';

/**
 * The regions of a stroke.
 * @param tolerance largest distance between chord and curve
 */
export function strokeRegions(path: Path, stroke: Stroke, tolerance: number): Region[] {
  const rings = strokePaths(path, stroke, tolerance).flatMap((part) => flatten(part, tolerance));
  return regionsOf(rings, 'nonzero');
}

/**
 * Closed paths that together cover the stroke, counter-clockwise with y up.
 * @param path open or closed contours; one of no length is a dot, if its caps show
 * @param tolerance largest distance of a side from where it should run
 */
export function strokePaths(path: Path, stroke: Stroke, tolerance: number): Path[] {
  const pen = new Pen(stroke, tolerance);
  for (const contour of contoursOf(path)) for (const dash of dashed(contour, stroke)) pen.draw(dash);
  return pen.parts;
}

/** Normals of neighbours are made one where that moves their sides by less than this share of the tolerance. */
const SMOOTH_SHARE = 0.25;
/** One side of a piece is one cubic up to this turn. */
const LARGEST_TURN = Math.PI / 2;
const MAX_DEPTH = 10;
/** Where a piece is looked at for bends tighter than the pen: radius times curvature. */
const TIGHT_PLACES = [0, 0.25, 0.5, 0.75, 1];
const TIGHT = 0.98;
/** How much of the other side a chord's band takes along, as a share of the radius. */
const OVERLAP = 0.25;
/** Where a side is measured against its cubic. */
const SAMPLES = 7;
/** Pieces shorter than this share of the width have no direction worth following. */
const NO_LENGTH = 1e-9;

type Vector = readonly [x: number, y: number];

/** A piece with the left-hand normals of its ends. */
interface Stretch {
  readonly piece: Piece;
  normalIn: Vector;
  normalOut: Vector;
}

class Pen {
  readonly parts: Path[] = [];
  private readonly stroke: Stroke;
  private readonly radius: number;
  private readonly tolerance: number;

  constructor(stroke: Stroke, tolerance: number) {
    this.stroke = stroke;
    this.radius = stroke.width / 2;
    this.tolerance = tolerance;
  }

  draw({ start, pieces, isClosed }: Contour): void {
    const stretches = pieces.flatMap((piece) => this.stretch(piece) ?? []);
    const [first, last] = [stretches[0], stretches.at(-1)];
    if (!first || !last) {
      this.dot(start);
      return;
    }
    // A contour whose end meets its start without a `Z` has two caps there all the same.
    const corners = isClosed ? stretches.length : stretches.length - 1;
    const joints = Array.from({ length: corners }, (_, i) => [stretches[i]!, stretches[(i + 1) % stretches.length]!]);
    for (const [before, behind] of joints as [Stretch, Stretch][]) {
      const middle = this.common(before.normalOut, behind.normalIn);
      if (middle) [before.normalOut, behind.normalIn] = [middle, middle];
    }
    for (const stretch of stretches) this.band(stretch.piece, stretch.normalIn, stretch.normalOut, 0);
    for (const [before, behind] of joints as [Stretch, Stretch][]) {
      if (before.normalOut !== behind.normalIn) {
        this.corner([behind.piece.cubic[0], behind.piece.cubic[1]], before.normalOut, behind.normalIn);
      }
    }
    if (isClosed) return;
    const { cubic } = last.piece;
    this.cap([first.piece.cubic[0], first.piece.cubic[1]], negative(first.normalIn));
    this.cap([cubic[6], cubic[7]], last.normalOut);
  }

  private stretch(piece: Piece): Stretch | null {
    const { cubic } = piece;
    const size = Math.max(...cubic.map((v, i) => Math.abs(v - cubic[(i % 2) as 0 | 1])));
    if (size <= NO_LENGTH * this.stroke.width) return null;
    const [entry, exit] = [directionAt(cubic, 0), directionAt(cubic, 1)];
    return entry && exit && { piece, normalIn: leftOf(entry), normalOut: leftOf(exit) };
  }

  /** The normal that serves both, where that makes no difference to be seen; null at a corner. */
  private common(n: Vector, m: Vector): Vector | null {
    // What turns back has none, however thin it is.
    if (n[0] * m[0] + n[1] * m[1] <= 0) return null;
    const gap = this.radius * Math.hypot(n[0] - m[0], n[1] - m[1]);
    return gap < SMOOTH_SHARE * this.tolerance ? unit([n[0] + m[0], n[1] + m[1]]) : null;
  }

  private beside([x, y]: Vector, [nx, ny]: Vector, distance = this.radius): Vector {
    return [x + distance * nx, y + distance * ny];
  }

  private band(piece: Piece, normalIn: Vector, normalOut: Vector, depth: number): void {
    const { cubic } = piece;
    const [start, end]: [Vector, Vector] = [
      [cubic[0], cubic[1]],
      [cubic[6], cubic[7]],
    ];
    if (piece.isLine) {
      const [right, left] = [negative(normalIn), negative(normalOut)].map((n, i) => this.beside(i ? end : start, n));
      // The ends of the path itself are corners too: caps and wedges meet the band there.
      this.parts.push(polygon(right!, left!, end, this.beside(end, normalOut), this.beside(start, normalIn), start));
      return;
    }
    const tight = this.tightPlaces(cubic);
    const isOneWay = tight === 0 || tight === TIGHT_PLACES.length;
    const isTurned = turnBetween(normalIn, normalOut) > LARGEST_TURN;
    if (isOneWay && !isTurned && this.sides(cubic, normalIn, normalOut, tight > 0)) return;
    const middle = depth < MAX_DEPTH ? directionAt(cubic, 0.5) : null;
    if (middle) {
      const normal = leftOf(middle);
      this.band({ isLine: false, cubic: cutCubic(cubic, 0, 0.5) }, normalIn, normal, depth + 1);
      this.band({ isLine: false, cubic: cutCubic(cubic, 0.5, 1) }, normal, normalOut, depth + 1);
    } else for (const side of [-1, 1]) this.sweep(cubic, normalIn, normalOut, side);
  }

  /** What lies on both sides of a piece that bends only a little; false when one is not a single cubic. */
  private sides(cubic: Cubic, normalIn: Vector, normalOut: Vector, isTight: boolean): boolean {
    // Towards the middle of a tight bend there is no side: the pen turns on the spot.
    const inner = isTight ? Math.sign(curvatureAt(cubic, 0.5)) : 0;
    const right = inner === -1 ? cubic : this.side(cubic, normalIn, normalOut, -1);
    const left = inner === 1 ? cubic : this.side(cubic, normalIn, normalOut, 1);
    if (!right || !left) return false;
    this.parts.push([
      ['M', right[0], right[1]],
      curve(right),
      ['L', cubic[6], cubic[7]],
      ['L', left[6], left[7]],
      ['C', left[4], left[5], left[2], left[3], left[0], left[1]],
      ['L', cubic[0], cubic[1]],
      ['Z'],
    ]);
    if (inner !== 0) this.sweep(cubic, normalIn, normalOut, inner);
    return true;
  }

  /** At how many places a side would run backwards because the curve bends more tightly than the pen is wide. */
  private tightPlaces(cubic: Cubic): number {
    return TIGHT_PLACES.filter((t) => Math.abs(curvatureAt(cubic, t)) * this.radius > TIGHT).length;
  }

  /**
   * The cubic that runs beside another at the same parameters: at its ends it has the derivative of the true offset, which
   * for arcs of circles makes it an arc too. Null where it strays.
   * @param side 1 for the left, −1 for the right
   */
  private side(cubic: Cubic, normalIn: Vector, normalOut: Vector, side: number): Cubic | null {
    const distance = side * this.radius;
    const [x0, y0] = this.beside([cubic[0], cubic[1]], normalIn, distance);
    const [x3, y3] = this.beside([cubic[6], cubic[7]], normalOut, distance);
    const [into, out] = [1 - distance * curvatureAt(cubic, 0), 1 - distance * curvatureAt(cubic, 1)];
    const reach = [
      into * Math.hypot(cubic[2] - cubic[0], cubic[3] - cubic[1]),
      out * Math.hypot(cubic[6] - cubic[4], cubic[7] - cubic[5]),
    ] as const;
    const found: Cubic = [
      x0,
      y0,
      x0 + reach[0] * normalIn[1],
      y0 - reach[0] * normalIn[0],
      x3 - reach[1] * normalOut[1],
      y3 + reach[1] * normalOut[0],
      x3,
      y3,
    ];
    for (let i = 1; i <= SAMPLES; i++) {
      const t = i / (SAMPLES + 1);
      const direction = directionAt(cubic, t);
      if (!direction) return null;
      const [x, y] = this.beside([at(cubic, 0, t), at(cubic, 1, t)], leftOf(direction), distance);
      const nearest = nearestParameter(found, x, y, t);
      if (!(Math.hypot(at(found, 0, nearest) - x, at(found, 1, nearest) - y) <= this.tolerance)) return null;
    }
    return found;
  }

  /**
   * One side, chord by chord: where the curve bends more tightly than the pen is wide, each chord's band may turn over.
   * @param side 1 for the left, −1 for the right
   */
  private sweep(cubic: Cubic, normalIn: Vector, normalOut: Vector, side: number): void {
    const inner = chordPoints(cubic, this.tolerance).flatMap(({ x, y, t }) => {
      const direction = directionAt(cubic, t);
      return direction ? [{ place: [x, y] as Vector, normal: leftOf(direction) }] : [];
    });
    const stops = [
      { place: [cubic[0], cubic[1]] as Vector, normal: normalIn },
      ...inner,
      { place: [cubic[6], cubic[7]] as Vector, normal: normalOut },
    ].map(({ place, normal }) => ({
      // A little of the other side too, so that no sliver is left between chords and curve.
      foot: this.beside(place, normal, -OVERLAP * side * this.radius),
      tip: this.beside(place, normal, side * this.radius),
    }));
    // Where two normals in a row meet within the band, it turns over: it has a part towards the feet and one to the tips.
    const meetings = stops.slice(1).map((to, i) => meetingOf(stops[i]!, to));
    for (let i = 0; i < meetings.length; ) {
      let end = i + 1;
      while (end < meetings.length && (meetings[end] === null) === (meetings[i] === null)) end++;
      const run = stops.slice(i, end + 1);
      const [feet, tips] = [run.map(({ foot }) => foot), run.map(({ tip }) => tip)];
      const middles = meetings
        .slice(i, end)
        .flatMap((middle) => (middle ? [middle] : []))
        .reverse();
      if (middles.length === 0) this.parts.push(polygon(...feet, ...tips.reverse()));
      else this.parts.push(polygon(...feet, ...middles), polygon(...tips, ...middles));
      i = end;
    }
  }

  private corner(place: Vector, before: Vector, behind: Vector): void {
    const isLeft = cross(before, behind) >= 0;
    // The outer side, taken so that it turns counter-clockwise.
    const [n, m] = isLeft ? [negative(before), negative(behind)] : [behind, before];
    const [from, to] = [this.beside(place, n), this.beside(place, m)];
    const half = turnBetween(n, m) / 2;
    const { join, mitreLimit } = this.stroke;
    if (join === 'round') {
      this.parts.push([['M', ...place], ['L', ...from], ...this.arc(from, to), ['Z']]);
    } else if (join === 'mitre' && Math.cos(half) * mitreLimit >= 1) {
      const tip = this.beside(place, unit([n[0] + m[0], n[1] + m[1]]), this.radius / Math.cos(half));
      this.parts.push(polygon(place, from, tip, to));
    } else this.parts.push(polygon(place, from, to));
  }

  private arc(from: Vector, to: Vector): Segment[] {
    const arc = { rx: this.radius, ry: this.radius, rotationDeg: 0, largeArc: false, sweep: true };
    return arcToCubics(...from, arc, ...to);
  }

  /** @param normal left of the direction in which the stroke ends */
  private cap(place: Vector, normal: Vector): void {
    const [left, right] = [this.beside(place, normal), this.beside(place, negative(normal))];
    if (this.stroke.cap === 'round')
      this.parts.push([['M', ...place], ['L', ...right], ...this.arc(right, left), ['Z']]);
    if (this.stroke.cap === 'square') {
      const ahead: Vector = [normal[1], -normal[0]];
      this.parts.push(polygon(place, right, this.beside(right, ahead), this.beside(left, ahead), left));
    }
  }

  private dot([x, y]: Vector): void {
    const r = this.radius;
    if (this.stroke.cap === 'round') this.parts.push(ellipsePath(x, y, r, r));
    if (this.stroke.cap === 'square') {
      this.parts.push(polygon([x - r, y - r], [x + r, y - r], [x + r, y + r], [x - r, y + r]));
    }
  }
}

// --- dashes ---------------------------------------------------------------------------------------------------------

/** More dashes than this in one contour are drawn as an unbroken line. */
const MOST_DASHES = 20_000;

/** The stretches of a contour that are drawn. */
function dashed(contour: Contour, { dashes, dashOffset }: Stroke): Contour[] {
  // An odd number of lengths is gone through twice.
  const pattern = dashes.length % 2 === 0 ? dashes : [...dashes, ...dashes];
  const period = pattern.reduce((sum, dash) => sum + dash, 0);
  const lengths = contour.pieces.map((piece) => lengthOf(piece));
  const total = lengths.reduce((sum, length) => sum + length, 0);
  if (!(period > 0) || pattern.some((dash) => !(dash >= 0)) || (total / period) * pattern.length > MOST_DASHES) {
    return [contour];
  }
  const drawn: Contour[] = [];
  let place = -(((dashOffset % period) + period) % period);
  for (let i = 0; place < total; i = (i + 1) % pattern.length) {
    const end = place + pattern[i]!;
    if (i % 2 === 0 && end >= 0) drawn.push(...stretchOf(contour, lengths, Math.max(0, place), Math.min(total, end)));
    place = end;
  }
  return drawn;
}

/** The part of a contour between two lengths along it. */
function stretchOf({ pieces }: Contour, lengths: readonly number[], from: number, to: number): Contour[] {
  const kept: Piece[] = [];
  let start = 0;
  for (const [i, piece] of pieces.entries()) {
    const end = start + lengths[i]!;
    if (end >= from && start <= to && lengths[i]! > 0) {
      const t0 = from > start ? parameterAt(piece, from - start) : 0;
      const t1 = to < end ? parameterAt(piece, to - start) : 1;
      if (t1 > t0) kept.push({ isLine: piece.isLine, cubic: cutCubic(piece.cubic, t0, t1) });
    }
    start = end;
  }
  const first = kept[0]?.cubic;
  return first ? [{ start: [first[0], first[1]], pieces: kept, isClosed: false }] : [];
}

// --- small geometry -------------------------------------------------------------------------------------------------

interface Spoke {
  readonly foot: Vector;
  readonly tip: Vector;
}

/** Where two spokes cross; null where they do not. */
function meetingOf(a: Spoke, b: Spoke): Vector | null {
  const [along, back] = [sub(a.tip, a.foot), sub(b.tip, b.foot)];
  const turns = cross(along, back);
  const share = turns === 0 ? -1 : cross(sub(b.foot, a.foot), back) / turns;
  return share > 0 && share < 1 ? [a.foot[0] + share * along[0], a.foot[1] + share * along[1]] : null;
}

const leftOf = ([x, y]: Vector): Vector => [-y, x];
const negative = ([x, y]: Vector): Vector => [-x, -y];
const sub = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1]];
const cross = (a: Vector, b: Vector) => a[0] * b[1] - a[1] * b[0];
const curve = (c: Cubic): Segment => ['C', c[2], c[3], c[4], c[5], c[6], c[7]];

function unit([x, y]: Vector): Vector {
  const length = Math.hypot(x, y);
  return [x / length, y / length];
}

/** Angle between two unit vectors, 0 … π. */
function turnBetween(n: Vector, m: Vector): number {
  return Math.abs(Math.atan2(cross(n, m), n[0] * m[0] + n[1] * m[1]));
}

/** Counter-clockwise, whichever way its corners are given. */
function polygon(...corners: Vector[]): Path {
  const isClockwise = ringArea(Float64Array.from(corners.flat())) < 0;
  const order = isClockwise ? corners.toReversed() : corners;
  return [...order.map(([x, y], i): Segment => [i === 0 ? 'M' : 'L', x, y]), ['Z']];
}

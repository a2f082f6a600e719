// width.ts — how wide strokes are: largest circles inside an outline, by shrinking a circle that touches the boundary
// until it is empty (Ma, Bae, Choi 2012, "3D medial axis point approximation using nearest neighbors and the normal field").
import { floats, uints } from '../base/arrays.ts';
import { segmentsOf } from './apart.ts';
import { boundsOf, longestSide, ringsOf } from './measure.ts';
import { SegmentGrid } from './segment-grid.ts';
import type { Region } from './types.ts';

export interface Width {
  /**
   * The largest reach that keeps a flat front all over: what an edge with mitred corners takes from both sides of the place where
   * they first meet. Half of the thinnest stroke, less where a corner that points inward decides.
   */
  readonly safeReach: number;
  /** Where that is decided, in sheet units. */
  readonly at: readonly [x: number, y: number];
  /** The thinnest places of strokes, the thinnest first, well apart from each other; up to twice as wide as that. At least one. */
  readonly thin: readonly [Place, ...Place[]];
}

/** Where a stroke is thin. */
export interface Place {
  readonly halfWidth: number;
  readonly at: readonly [x: number, y: number];
}

/** Circles that touch at two places at least this far round (in radians) measure a stroke and not a corner. */
const OPPOSITE = (170 * Math.PI) / 180;
/**
 * Sides that come together by at least this, in radians, all the way from where they meet are the tip of a corner, however sharp:
 * an edge that reaches in shortens it, as it shortens every corner, and takes no front away. Sides that are nearer to parallel
 * are a stroke.
 */
const TAPER = (3.5 * Math.PI) / 180;
/** A corner is sharp when the outline turns by this. */
const SHARP = (30 * Math.PI) / 180;
/** Corners that point into the body and turn by this can be the narrowest place of it by themselves. */
const INWARD = (15 * Math.PI) / 180;
/** Edges are measured in their middle and, because a stroke's sides may face each other only there, this near to their ends. */
const NEAR_END = 0.01;
/** An edge is long from this share of the last circle's radius. */
const LONG = 0.25;
/** So many edges are compared with each other without looking for those that are near. */
const FEW = 128;
/** The next circle is looked for at this much of the last one's radius: neighbours are alike. */
const HEADROOM = 1.02;
/** A circle counts as empty when nothing lies deeper in it than this: far finer than chords follow their curve. */
const EMPTY = 1 - 1e-6;

/** Thin places that are told of. */
const MOST_PLACES = 8;
/** They are at most so much wider than the thinnest. */
const MUCH_WIDER = 2;
/** They are apart by so many of their half-widths, and by this share of the outline's size. */
const [APART_WIDTHS, APART_SHARE] = [6, 0.08];

/**
 * The narrowest places of a region, to the accuracy of its chords.
 * @param most places wider than twice this are not measured; where all are, that is the safe reach
 * @param least places thinner than this are touches, which are known no better than their curves are followed
 */
export function narrowest(region: Region, most = Infinity, least = 0): Width {
  const gauge = new Gauge(region, most);
  const samples = [...gauge.samples()];
  markTips(samples, gauge);
  const strokes: Place[] = [];
  let largest: Place = { halfWidth: 0, at: [region.outer[0]!, region.outer[1]!] };
  for (const { circle, opposite, isTip } of samples) {
    if (circle.radius > largest.halfWidth) largest = placeOf(circle);
    if (isTip) continue;
    if (circle.opening >= OPPOSITE && 2 * circle.radius >= least) strokes.push(placeOf(circle));
    if (opposite && 2 * opposite.radius >= least) strokes.push(placeOf(opposite));
  }
  const bound = { least: strokes.reduce((lowest, { halfWidth }) => Math.min(lowest, halfWidth), largest.halfWidth) };
  let first: Place | null = null;
  for (const { across, meeting } of gauge.atInwardCorners(samples, bound)) {
    if (across && 2 * across.halfWidth >= least) strokes.push(across);
    if (meeting && 2 * meeting.halfWidth >= least && !(first && first.halfWidth <= meeting.halfWidth)) first = meeting;
    bound.least = Math.min(bound.least, across?.halfWidth ?? Infinity);
  }
  strokes.sort((p, q) => p.halfWidth - q.halfWidth);
  const thinnest = strokes[0] && strokes[0].halfWidth < largest.halfWidth ? strokes[0] : largest;
  const decided = first && first.halfWidth < thinnest.halfWidth ? first : thinnest;
  const size = longestSide(boundsOf([region.outer])!);
  return { safeReach: decided.halfWidth, at: decided.at, thin: apart(thinnest, strokes, size) };
}

/** The narrowest places of several regions; null of none. @param least as for {@link narrowest} */
export function narrowestOfAll(regions: readonly Region[], least = 0): Width | null {
  const widths = regions.map((region) => narrowest(region, Infinity, least)).sort((v, w) => v.safeReach - w.safeReach);
  const [first] = widths;
  if (!first) return null;
  const [thinnest, ...others] = widths.flatMap(({ thin }) => thin).sort((p, q) => p.halfWidth - q.halfWidth);
  const near = others.filter(({ halfWidth }) => halfWidth <= MUCH_WIDER * thinnest!.halfWidth);
  return { ...first, thin: [thinnest!, ...near.slice(0, MOST_PLACES - 1)] };
}

const placeOf = ({ radius, x, y }: Circle): Place => ({ halfWidth: radius, at: [x, y] });

const plain = ({ halfWidth, at }: Place): Place => ({ halfWidth, at });

/** @param places the thinnest first */
function apart(thinnest: Place, places: readonly Place[], size: number): [Place, ...Place[]] {
  const kept: [Place, ...Place[]] = [thinnest];
  for (const place of places) {
    if (place.halfWidth > MUCH_WIDER * thinnest.halfWidth || kept.length >= MOST_PLACES) break;
    const least = Math.max(APART_WIDTHS * place.halfWidth, APART_SHARE * size);
    const isNear = kept.some(({ at: [x, y] }) => Math.hypot(place.at[0] - x, place.at[1] - y) < least);
    if (!isNear) kept.push(place);
  }
  return kept;
}

/** A thin place, and the edges on its other side: the one that comes there and the one that goes on. −1 for none. */
interface Facing extends Place {
  readonly begins: number;
  readonly ends: number;
}

/** By how much the corner between two edges moves when both are moved to their left by one. */
function mitreOf(ax: number, ay: number, bx: number, by: number): [x: number, y: number] {
  const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  const [mx, my] = [-ay / a - by / b, ax / a + bx / b];
  const scale = 2 / (mx * mx + my * my);
  return [scale * mx, scale * my];
}

/** The widest circles along stretches of a ring, by blocks of edges. */
class WidestBetween {
  private readonly widest: Float64Array;
  private readonly blocks: Float64Array;

  constructor(samples: readonly Sample[], edges: number) {
    this.widest = new Float64Array(edges);
    this.blocks = new Float64Array(Math.ceil(edges / BLOCK));
    for (const { edge, circle } of samples) {
      this.widest[edge] = Math.max(this.widest[edge]!, circle.radius);
      const block = Math.floor(edge / BLOCK);
      this.blocks[block] = Math.max(this.blocks[block]!, circle.radius);
    }
  }

  /**
   * Whether a cut from where edge `corner` begins to a place on the same ring leaves something wider on either side. Edges at
   * both ends of the cut do not count: circles there reach through it.
   * @param ring the first edge of the ring, and the one after its last
   */
  isWiderOnBothSides([first, end]: readonly [number, number], corner: number, other: Facing): boolean {
    const least = other.halfWidth * WIDER;
    const count = end - first;
    const isWider = (from: number, to: number) => {
      const begin = first + ((from - first + count) % count);
      const length = (to - from + count) % count;
      return begin + length <= end
        ? this.hasWider(begin, begin + length, least)
        : this.hasWider(begin, end, least) || this.hasWider(first, begin + length - count, least);
    };
    return isWider(corner + 1, other.begins) && isWider(other.ends + 1, corner - 1);
  }

  private hasWider(from: number, to: number, least: number): boolean {
    for (let i = from; i < to; i++) {
      if (i % BLOCK === 0 && i + BLOCK <= to && this.blocks[i / BLOCK]! <= least) i += BLOCK - 1;
      else if (this.widest[i]! > least) return true;
    }
    return false;
  }
}

/** Edges in a block. */
const BLOCK = 64;
/** Something is wider than a place when it is so by this factor: a place is not wider than itself. */
const WIDER = 1.02;

/** A circle at a place of the boundary. */
interface Sample {
  readonly circle: Circle;
  /** That which stands square across, where it is smaller. */
  readonly opposite: Circle | null;
  /** The edge it is on. */
  readonly edge: number;
  /** Whether it says nothing of a stroke: it lies in the tip of a corner, or touches one. */
  isTip: boolean;
}

/** Marks what lies between a sharp corner and where its sides have stopped coming together. */
function markTips(samples: Sample[], gauge: Gauge): void {
  const firstOf = new Map<number, number>();
  const lastOf = new Map<number, number>();
  samples.forEach(({ edge }, k) => {
    if (!firstOf.has(edge)) firstOf.set(edge, k);
    lastOf.set(edge, k);
  });
  const next = (k: number, by: 1 | -1): number => {
    const { edge } = samples[k]!;
    if (samples[k + by]?.edge === edge) return k + by;
    return by > 0 ? firstOf.get(gauge.after(edge))! : lastOf.get(gauge.before(edge))!;
  };
  for (const [edge, first] of firstOf) {
    const turn = gauge.turnAt(edge);
    if (turn < SHARP) continue;
    const least = Math.min(TAPER, (Math.PI - turn) / 2);
    for (const [start, by] of [
      [first, 1],
      [lastOf.get(gauge.before(edge))!, -1],
    ] as const) {
      let before = 0;
      let k = start;
      for (let i = 0; i < samples.length; i++) {
        const { circle } = samples[k]!;
        // A circle that touches nothing else is no narrower than what is asked for.
        if (!(circle.radius >= before && Math.PI - circle.opening >= least)) break;
        samples[k]!.isTip = true;
        before = circle.radius;
        k = next(k, by);
      }
    }
  }
}

interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  /** Angle at the centre between the two places it touches, 0 … π. */
  readonly opening: number;
  /** Where it touches the other side. */
  readonly touchX: number;
  readonly touchY: number;
}

class Gauge {
  private readonly segments: Float64Array;
  /** Of few edges, all are looked at. */
  private readonly all: Uint32Array | null;
  private index: SegmentGrid | null = null;
  private readonly lengths: Float64Array;
  readonly size: number;
  /** Of each edge, the one that follows it on its ring, and the one before. */
  private readonly follows: Uint32Array;
  private readonly precedes: Uint32Array;
  readonly ringOf: Uint32Array;
  /** Of each ring, its first edge and the one after its last. */
  readonly ends: (readonly [first: number, end: number])[] = [];
  /** The edge that the last circle touches besides its own, and where. */
  private touchX = 0;
  private touchY = 0;
  private touched = 0;

  constructor(region: Region, most: number) {
    const rings = ringsOf([region]);
    this.segments = segmentsOf(rings);
    const s = this.segments;
    this.all = s.length <= 4 * FEW ? uints(s.length / 4, (i) => i) : null;
    this.lengths = floats(s.length / 4, (i) => Math.hypot(s[4 * i + 2]! - s[4 * i]!, s[4 * i + 3]! - s[4 * i + 1]!));
    this.follows = new Uint32Array(s.length / 4);
    this.precedes = new Uint32Array(s.length / 4);
    this.ringOf = new Uint32Array(s.length / 4);
    let begin = 0;
    for (const [r, ring] of rings.entries()) {
      const count = ring.length / 2;
      for (let i = 0; i < count; i++) {
        this.follows[begin + i] = begin + ((i + 1) % count);
        this.precedes[begin + i] = begin + ((i + count - 1) % count);
      }
      this.ringOf.fill(r, begin, begin + count);
      this.ends.push([begin, begin + count]);
      begin += count;
    }
    const { minX, minY, maxX, maxY } = boundsOf(rings)!;
    this.size = Math.min(most, Math.hypot(maxX - minX, maxY - minY));
  }

  private get grid(): SegmentGrid {
    this.index ??= new SegmentGrid(this.segments);
    return this.index;
  }

  after = (edge: number): number => this.follows[edge]!;
  before = (edge: number): number => this.precedes[edge]!;

  /** By how much the outline turns where an edge begins, in radians: above 0 where the body's corner points outward. */
  turnAt(edge: number): number {
    const s = this.segments;
    const [i, j] = [4 * this.precedes[edge]!, 4 * edge];
    const [ax, ay, bx, by] = [s[i + 2]! - s[i]!, s[i + 3]! - s[i + 1]!, s[j + 2]! - s[j]!, s[j + 3]! - s[j + 1]!];
    return Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  }

  *samples(): Generator<Sample> {
    const s = this.segments;
    // At their middle: circles in a corner say nothing of how wide it is.
    let guess = this.size / 64;
    for (let i = 0; i < s.length; i += 4) {
      const dx = s[i + 2]! - s[i]!;
      const dy = s[i + 3]! - s[i + 1]!;
      const length = Math.hypot(dx, dy);
      const at = (place: number) =>
        this.touching(i / 4, s[i]! + place * dx, s[i + 1]! + place * dy, -dy / length, dx / length, guess);
      const middle = at(0.5);
      guess = middle.radius;
      if (this.turnAt(i / 4) < -INWARD)
        yield { circle: this.atCorner(i / 4, guess), opposite: null, edge: i / 4, isTip: true };
      // Short edges lie on curves, where the neighbours measure what happens at their ends.
      const circles = length > LONG * guess ? [at(NEAR_END), middle, at(1 - NEAR_END)] : [middle];
      for (const circle of circles) yield { circle, opposite: this.squareOn(i, circle), edge: i / 4, isTip: false };
    }
  }

  /**
   * What corners that point inward decide: the stroke between one and what is nearest before it, across the body; and where edges
   * that reach in from both sides first meet, the corner running ahead along its mitre (Aichholzer, Aurenhammer 1996: the split
   * events of the straight skeleton, each by itself). A place counts where the outline goes on to something wider on both sides:
   * the foot of a tooth is none.
   * @param bound of the thinnest stroke that is known meanwhile: what is much wider need not be looked for
   */
  *atInwardCorners(
    samples: readonly Sample[],
    bound: { readonly least: number },
  ): Generator<{ across: Place | null; meeting: Place | null }> {
    const { segments: s } = this;
    let widest: WidestBetween | null = null;
    let last = -1;
    for (const { edge } of samples) {
      if (edge === last) continue;
      last = edge;
      if (this.turnAt(edge) > -INWARD) continue;
      widest ??= new WidestBetween(samples, s.length / 4);
      const most = 2 * Math.min(this.size, MUCH_WIDER * HEADROOM * bound.least);
      const { across, meeting } = this.beforeCorner(edge, most);
      const ring = this.ringOf[edge]!;
      const goesOn = (other: Facing) =>
        other.begins >= 0 &&
        (this.ringOf[other.begins] !== ring || widest!.isWiderOnBothSides(this.ends[ring]!, edge, other));
      yield {
        across: goesOn(across) && this.isEmpty(across) ? plain(across) : null,
        meeting: goesOn(meeting) ? meeting : null,
      };
    }
  }

  /** The largest empty circle that touches an inward corner, square before it: bodies can be held by corners alone. */
  private atCorner(edge: number, guess: number): Circle {
    const { segments: s } = this;
    const [i, j] = [4 * this.precedes[edge]!, 4 * edge];
    const [x, y] = [s[j]!, s[j + 1]!];
    const [uX, uY] = mitreOf(x - s[i]!, y - s[i + 1]!, s[j + 2]! - x, s[j + 3]! - y);
    const ahead = Math.hypot(uX, uY);
    return this.touching(edge, x, y, uX / ahead, uY / ahead, guess);
  }

  private isEmpty({ at: [x, y], halfWidth }: Place): boolean {
    return this.grid.nearest(x, y, halfWidth * EMPTY) < 0;
  }

  /** @param most what is further away is not looked at */
  private beforeCorner(own: number, most: number): { across: Facing; meeting: Facing } {
    const { segments: s } = this;
    const before = this.precedes[own]!;
    const [x, y] = [s[4 * own]!, s[4 * own + 1]!];
    const [inX, inY] = [s[4 * before]! - x, s[4 * before + 1]! - y];
    const [outX, outY] = [s[4 * own + 2]! - x, s[4 * own + 3]! - y];
    // The corner of an edge that reaches in runs along the bisector, so far for every unit of reach.
    const [uX, uY] = mitreOf(-inX, -inY, outX, outY);
    const reach = most * (1 + Math.hypot(uX, uY) / 2);
    const count = this.all ? this.all.length : this.grid.collect(x - reach, y - reach, x + reach, y + reach);
    const near = this.all ?? this.grid.collected;
    let least = most;
    let across: Facing = { halfWidth: most / 2, at: [x, y], begins: -1, ends: -1 };
    let meeting: Facing = across;
    for (let k = 0; k < count; k++) {
      const segment = near[k]!;
      if (segment === own || segment === before) continue;
      const i = 4 * segment;
      const [ax, ay] = [s[i]! - x, s[i + 1]! - y];
      const [dx, dy] = [s[i + 2]! - s[i]!, s[i + 3]! - s[i + 1]!];
      const length = this.lengths[segment]!;
      const t = Math.min(1, Math.max(0, -(ax * dx + ay * dy) / (length * length)));
      const [px, py] = [ax + t * dx, ay + t * dy];
      const distance = Math.hypot(px, py);
      // Both edges of the corner lead away from what faces it.
      const isFacing = px * inX + py * inY <= 0 && px * outX + py * outY <= 0;
      if (isFacing && distance > 0 && distance < least) {
        least = distance;
        const [begins, ends] = [
          t === 0 ? this.precedes[segment]! : segment,
          t === 1 ? this.follows[segment]! : segment,
        ];
        across = { halfWidth: distance / 2, at: [x + px / 2, y + py / 2], begins, ends };
      }
      const [nX, nY] = [-dy / length, dx / length];
      const time = -(ax * nX + ay * nY) / (1 - (uX * nX + uY * nY));
      if (!(time > 0 && time < meeting.halfWidth)) continue;
      // How far along the edge it is met there, whose own ends have moved by then.
      const along = ((time * uX - ax) * dx + (time * uY - ay) * dy) / length;
      const begin = time * Math.tan(this.turnAt(segment) / 2);
      const end = length - time * Math.tan(this.turnAt(this.follows[segment]!) / 2);
      if (along >= begin && along <= end) {
        meeting = { halfWidth: time, at: [x + time * uX, y + time * uY], begins: segment, ends: segment };
      }
    }
    return { across, meeting };
  }

  /**
   * The largest empty circle that touches edge `own` at (px, py), where (nx, ny) is the unit normal to the inside. Circles that
   * touch there lie within each other, so that the smallest that touches another edge too is the one; only edges that a circle of
   * the guessed radius comes near can be touched by a smaller one.
   */
  private touching(own: number, px: number, py: number, nx: number, ny: number, guess: number): Circle {
    let radius = Math.min(this.size, HEADROOM * guess);
    for (;;) {
      const [x, y] = [px + radius * nx, py + radius * ny];
      const count = this.all ? this.all.length : this.grid.collect(x - radius, y - radius, x + radius, y + radius);
      const least = this.leastTouching(own, px, py, nx, ny, radius, count);
      // Nothing comes near: either the guess was too small, or there is nothing to find.
      if (least < radius || radius >= this.size) {
        radius = least;
        break;
      }
      radius = Math.min(this.size, 2 * radius);
    }
    const [x, y] = [px + radius * nx, py + radius * ny];
    const cos = ((px - x) * (this.touchX - x) + (py - y) * (this.touchY - y)) / (radius * radius);
    const opening = Math.acos(Math.min(1, Math.max(-1, cos)));
    return { x, y, radius, opening, touchX: this.touchX, touchY: this.touchY };
  }

  /**
   * Radius of the smallest circle that touches (px, py) and one of the first `count` edges that are near; `most` where
   * that is no smaller.
   */
  private leastTouching(
    own: number,
    px: number,
    py: number,
    nx: number,
    ny: number,
    most: number,
    count: number,
  ): number {
    const { segments: s, lengths } = this;
    const near = this.all ?? this.grid.collected;
    let least = most;
    // No place at all, which counts as no corner and no stroke.
    let [touchU, touchV] = [Number.NaN, Number.NaN];
    // The edge that was touched last comes first: most others are then seen to be too far away.
    for (let k = -1; k < count; k++) {
      const segment = k < 0 ? this.touched : near[k]!;
      if (segment === own) continue;
      const i = 4 * segment;
      // Along the edge, and away from it.
      const ax = s[i]! - px;
      const ay = s[i + 1]! - py;
      const bx = s[i + 2]! - s[i]!;
      const by = s[i + 3]! - s[i + 1]!;
      const v = ax * nx + ay * ny;
      const dv = bx * nx + by * ny;
      if (v <= 0 && v + dv <= 0) continue;
      const u = ax * ny - ay * nx;
      const du = bx * ny - by * nx;
      const length = lengths[segment]!;
      const away = v * du - u * dv;
      // The line keeps clear of the least circle so far.
      if (Math.abs(away - least * du) >= least * length) continue;
      // Where the circle about (0, r) touches the line: r away from it.
      const r = away > 0 ? away / (length + du) : away / (du - length);
      const t = ((r - v) * dv - u * du) / (length * length);
      const share = t > 0 ? (t < 1 ? t : 1) : 0;
      const x = u + share * du;
      const y = v + share * dv;
      // As r = (x² + y²) / 2y, which needs no division for most.
      if (!(y > 0) || x * x + y * y >= 2 * y * least) continue;
      least = (x * x + y * y) / (2 * y);
      touchU = x;
      touchV = y;
      this.touched = segment;
    }
    this.touchX = px + touchU * ny + touchV * nx;
    this.touchY = py - touchU * nx + touchV * ny;
    return least;
  }

  /** The circle square across from edge i to where `circle` met the other side; null when it is not empty. */
  private squareOn(i: number, circle: Circle): Circle | null {
    const s = this.segments;
    const { touchX: qx, touchY: qy } = circle;
    const dx = s[i + 2]! - s[i]!;
    const dy = s[i + 3]! - s[i + 1]!;
    const t = ((qx - s[i]!) * dx + (qy - s[i + 1]!) * dy) / (dx * dx + dy * dy);
    if (!(t > 0 && t < 1)) return null;
    const [fx, fy] = [s[i]! + t * dx, s[i + 1]! + t * dy];
    const radius = Math.hypot(qx - fx, qy - fy) / 2;
    if (!(radius > 0 && radius < EMPTY * circle.radius)) return null;
    const [x, y] = [(qx + fx) / 2, (qy + fy) / 2];
    if (this.grid.nearest(x, y, radius * EMPTY) >= 0) return null;
    return { x, y, radius, opening: Math.PI, touchX: qx, touchY: qy };
  }
}

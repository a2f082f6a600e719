// width.ts — how wide strokes are: largest circles inside an outline, by shrinking a circle that touches the boundary
// until it is empty (Ma, Bae, Choi 2012, "3D medial axis point approximation using nearest neighbors and the normal field").
import { floats, uints } from '../base/arrays.ts';
import { segmentsOf } from './apart.ts';
import { boundsOf, ringsOf } from './measure.ts';
import { SegmentGrid } from './segment-grid.ts';
import type { Region } from './types.ts';

export interface Width {
  /** The largest reach that keeps a flat front: the smallest half-width of a stroke, at most the largest inner circle. */
  readonly safeReach: number;
  /** Centre of the circle that decides it, in sheet units. */
  readonly at: readonly [x: number, y: number];
}

/** Circles that touch at two places at least this far round (in radians) measure a stroke and not a corner. */
const OPPOSITE = (170 * Math.PI) / 180;
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

/**
 * The narrowest place of a region, to the accuracy of its chords.
 * @param most places wider than twice this are not measured; where all are, that is the safe reach
 */
export function narrowest(region: Region, most = Infinity): Width {
  const measure = new Gauge(region, most);
  let stroke: Width | null = null;
  let largest: Width = { safeReach: 0, at: [region.outer[0]!, region.outer[1]!] };
  for (const circle of measure.circles()) {
    if (circle.opening >= OPPOSITE && !(stroke && stroke.safeReach <= circle.radius)) {
      stroke = { safeReach: circle.radius, at: [circle.x, circle.y] };
    }
    if (circle.radius > largest.safeReach) largest = { safeReach: circle.radius, at: [circle.x, circle.y] };
  }
  return stroke && stroke.safeReach < largest.safeReach ? stroke : largest;
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
  private readonly size: number;
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
    const { minX, minY, maxX, maxY } = boundsOf(rings)!;
    this.size = Math.min(most, Math.hypot(maxX - minX, maxY - minY));
  }

  private get grid(): SegmentGrid {
    this.index ??= new SegmentGrid(this.segments);
    return this.index;
  }

  *circles(): Generator<Circle> {
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
      // Short edges lie on curves, where the neighbours measure what happens at their ends.
      const circles = length > LONG * guess ? [at(NEAR_END), middle, at(1 - NEAR_END)] : [middle];
      for (const circle of circles) {
        yield circle;
        const opposite = this.squareOn(i, circle);
        if (opposite) yield opposite;
      }
    }
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

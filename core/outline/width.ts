// width.ts — how wide strokes are: largest circles inside an outline, by shrinking a circle that touches the boundary
// until it is empty (Ma, Bae, Choi 2012, "3D medial axis point approximation using nearest neighbors and the normal field").

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
/** Where each edge is measured; close to the ends because a stroke's sides may face each other only there. */
const PLACES = [0.01, 0.5, 0.99];
const MIDDLE = [0.5];
/** An edge is long from this share of the last circle's radius. */
const LONG = 0.25;
/** The next circle is looked for at this much of the last one's radius: neighbours are alike. */
const HEADROOM = 1.02;
const ROUNDS = 40;
/** A circle counts as empty when nothing lies deeper in it than this: far finer than chords follow their curve. */
const EMPTY = 1 - 1e-6;

/** The narrowest place of a region, to the accuracy of its chords. */
export function narrowest(region: Region): Width {
  const measure = new Gauge(region);
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
}

class Gauge {
  private readonly segments: Float64Array;
  private readonly grid: SegmentGrid;
  private readonly size: number;
  private nearestX = 0;
  private nearestY = 0;

  constructor(region: Region) {
    const rings = ringsOf([region]);
    this.segments = segmentsOf(rings);
    this.grid = new SegmentGrid(this.segments);
    const { minX, minY, maxX, maxY } = boundsOf(rings)!;
    this.size = Math.hypot(maxX - minX, maxY - minY);
  }

  *circles(): Generator<Circle> {
    const s = this.segments;
    let guess = this.size / 64;
    for (let i = 0; i < s.length; i += 4) {
      const dx = s[i + 2]! - s[i]!;
      const dy = s[i + 3]! - s[i + 1]!;
      const length = Math.hypot(dx, dy);
      // Short edges lie on curves, where the neighbours measure what happens at their ends.
      for (const place of length > LONG * guess ? PLACES : MIDDLE) {
        const circle = this.shrink(s[i]! + place * dx, s[i + 1]! + place * dy, -dy / length, dx / length, guess);
        guess = circle.radius;
        yield circle;
        const opposite = this.squareOn(i, circle);
        if (opposite) yield opposite;
      }
    }
  }

  /** The largest empty circle that touches the boundary at (px, py), where (nx, ny) is the unit normal to the inside. */
  private shrink(px: number, py: number, nx: number, ny: number, guess: number): Circle {
    let radius = Math.min(this.size, HEADROOM * guess);
    let [qx, qy] = [px, py];
    for (let round = 0; round < ROUNDS; round++) {
      const [x, y] = [px + radius * nx, py + radius * ny];
      const distance = this.nearest(x, y, radius * EMPTY);
      if (distance >= radius * EMPTY) {
        // Nothing inside: either this is the circle, or the guess was too small to meet anything.
        if (qx === px && qy === py && radius < this.size) {
          radius = Math.min(this.size, 2 * radius);
          continue;
        }
        break;
      }
      [qx, qy] = [this.nearestX, this.nearestY];
      const [vx, vy] = [qx - px, qy - py];
      const ahead = vx * nx + vy * ny;
      if (!(ahead > 0)) break;
      radius = (vx * vx + vy * vy) / (2 * ahead);
    }
    const [x, y] = [px + radius * nx, py + radius * ny];
    const cos = ((px - x) * (qx - x) + (py - y) * (qy - y)) / (radius * radius);
    return { x, y, radius, opening: Math.acos(Math.min(1, Math.max(-1, cos))) };
  }

  /** The circle square across from edge i to where `circle` met the other side; null when it is not empty. */
  private squareOn(i: number, circle: Circle): Circle | null {
    const s = this.segments;
    const [qx, qy] = [this.nearestX, this.nearestY];
    const dx = s[i + 2]! - s[i]!;
    const dy = s[i + 3]! - s[i + 1]!;
    const t = ((qx - s[i]!) * dx + (qy - s[i + 1]!) * dy) / (dx * dx + dy * dy);
    if (!(t > 0 && t < 1)) return null;
    const [fx, fy] = [s[i]! + t * dx, s[i + 1]! + t * dy];
    const radius = Math.hypot(qx - fx, qy - fy) / 2;
    if (!(radius > 0 && radius < circle.radius)) return null;
    const [x, y] = [(qx + fx) / 2, (qy + fy) / 2];
    return this.nearest(x, y, radius * EMPTY) >= radius * EMPTY ? { x, y, radius, opening: Math.PI } : null;
  }

  /** Distance to the nearest boundary point, kept in nearestX and nearestY, or `limit` when none is nearer than that. */
  private nearest(x: number, y: number, limit: number): number {
    const s = this.segments;
    let best = limit;
    this.grid.outward(
      x,
      y,
      () => best,
      (id) => {
        const i = 4 * id;
        const [ax, ay] = [s[i]!, s[i + 1]!];
        const dx = s[i + 2]! - ax;
        const dy = s[i + 3]! - ay;
        const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
        const [qx, qy] = [ax + t * dx, ay + t * dy];
        const distance = Math.hypot(x - qx, y - qy);
        if (distance >= best) return;
        best = distance;
        this.nearestX = qx;
        this.nearestY = qy;
      },
    );
    return best;
  }
}

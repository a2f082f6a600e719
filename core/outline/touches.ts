// touches.ts — finds where boundaries meet in a point (or nearly) and opens each meeting by a small cut, so that no
// extruded edge is ever shared by four walls. All coordinates are grid steps.
import { uints } from '../base/arrays.ts';
import type { GridPath, GridPoint } from './arrangement.ts';
import { SegmentGrid } from './segment-grid.ts';

/** Boundaries nearer than this many steps count as touching: 7e-7 of the size, above every rounding made on the way. */
export const TOUCH = 48;

/** Neighbours on one ring must stand further apart than {@link TOUCH}, or every short edge would look like a touch. */
export const MIN_EDGE = 64;

/**
 * Opens touching boundaries.
 * @param rings oriented rings, inside on the left, that may touch but not cross
 * @param gap how far a corner is cut back from the place where it touches, in steps
 * @returns new rings, or null when nothing touches. Rings may be linked differently; unite them with `positive` fill.
 */
export function openTouches(rings: readonly GridPath[], gap: number): GridPath[] | null {
  const plane = new Plane(rings);
  if (!plane.snap()) return null;
  return plane.relink(gap);
}

class Plane {
  /** Corner i is (xs[i], ys[i]) and is followed by next[i] in its ring. */
  private readonly xs: Float64Array;
  private readonly ys: Float64Array;
  private readonly next: Uint32Array;
  private readonly grid: SegmentGrid;
  /** Corners to insert into the edge that starts at the key, with their place along it. */
  private readonly inserted = new Map<number, { along: number; corner: number }[]>();
  /** Which corner's coordinates stand for this corner's point. */
  private readonly point: Uint32Array;

  constructor(rings: readonly GridPath[]) {
    const count = rings.reduce((sum, ring) => sum + ring.length, 0);
    this.xs = new Float64Array(count);
    this.ys = new Float64Array(count);
    this.next = new Uint32Array(count);
    this.point = uints(count, (i) => i);
    const segments = new Float64Array(4 * count);
    let i = 0;
    for (const ring of rings) {
      const first = i;
      for (const [k, { x, y }] of ring.entries()) {
        const after = ring[(k + 1) % ring.length]!;
        segments[4 * i] = x;
        segments[4 * i + 1] = y;
        segments[4 * i + 2] = after.x;
        segments[4 * i + 3] = after.y;
        this.xs[i] = x;
        this.ys[i] = y;
        this.next[i] = k + 1 < ring.length ? i + 1 : first;
        i++;
      }
    }
    this.grid = new SegmentGrid(segments);
  }

  /** Gives touching corners one point and puts corners that lie on an edge into it; false when there is none. */
  snap(): boolean {
    const { xs, ys, next, point } = this;
    let touches = false;
    for (let v = 0; v < xs.length; v++) {
      this.grid.near(xs[v]!, ys[v]!, TOUCH, (e) => {
        const f = next[e]!;
        if (e === v || f === v) return;
        const dx = xs[f]! - xs[e]!;
        const dy = ys[f]! - ys[e]!;
        const length = Math.hypot(dx, dy);
        const along = ((xs[v]! - xs[e]!) * dx + (ys[v]! - ys[e]!) * dy) / length;
        const off = Math.abs((xs[v]! - xs[e]!) * dy - (ys[v]! - ys[e]!) * dx) / length;
        if (off > TOUCH || along < -TOUCH || along > length + TOUCH) return;
        if (this.apart(v, e) <= TOUCH) touches = this.merge(v, e);
        else if (this.apart(v, f) <= TOUCH) touches = this.merge(v, f);
        else if (along > 0 && along < length) {
          const list = this.inserted.get(e);
          if (list) list.push({ along, corner: v });
          else this.inserted.set(e, [{ along, corner: v }]);
          touches = true;
        }
      });
    }
    for (let i = 0; i < point.length; i++) point[i] = this.find(i);
    return touches;
  }

  private apart(a: number, b: number): number {
    return Math.hypot(this.xs[a]! - this.xs[b]!, this.ys[a]! - this.ys[b]!);
  }

  private find(i: number): number {
    let root = i;
    while (this.point[root] !== root) root = this.point[root]!;
    return root;
  }

  private merge(a: number, b: number): true {
    const [x, y] = [this.find(a), this.find(b)];
    this.point[Math.max(x, y)] = Math.min(x, y);
    return true;
  }

  /** Directed edges between points, each running with the inside on its left; edges that cancel are gone. */
  private edges(): Map<number, number[]> {
    const out = new Map<number, number[]>();
    const add = (from: number, to: number) => {
      if (from === to) return;
      const back = out.get(to);
      const opposite = back?.indexOf(from) ?? -1;
      if (back && opposite >= 0) {
        back.splice(opposite, 1);
        return;
      }
      const list = out.get(from);
      if (list) list.push(to);
      else out.set(from, [to]);
    };
    for (let e = 0; e < this.next.length; e++) {
      let from = this.point[e]!;
      for (const { corner } of (this.inserted.get(e) ?? []).sort((a, b) => a.along - b.along)) {
        add(from, this.point[corner]!);
        from = this.point[corner]!;
      }
      add(from, this.point[this.next[e]!]!);
    }
    return out;
  }

  /** Rings in which every pass through a point bounds one sector of the inside; shared points are cut back by `gap`. */
  relink(gap: number): GridPath[] {
    const out = this.edges();
    const rings: GridPath[] = [];
    const shared = new Map<number, number>();
    for (const [from, list] of out) shared.set(from, list.length);
    for (const [start, list] of out) {
      while (list.length > 0) {
        const ring: GridPoint[] = [];
        let before = start;
        let at = list.pop()!;
        const first = at;
        for (;;) {
          const choices = out.get(at);
          if (!choices || (choices.length === 0 && at !== start)) break;
          const to = at === start && choices.length === 0 ? first : this.turn(before, at, choices, start, first);
          this.pushCorner(ring, before, at, to, (shared.get(at) ?? 1) > 1, gap);
          if (at === start && to === first) break;
          choices.splice(choices.indexOf(to), 1);
          before = at;
          at = to;
        }
        if (ring.length >= 3) rings.push(ring);
      }
    }
    return rings;
  }

  /** Of the edges that leave `at`, the first one clockwise from the edge back to `before`: both bound one sector. */
  private turn(before: number, at: number, choices: readonly number[], start: number, first: number): number {
    const candidates = at === start ? [...choices, first] : choices;
    let best = candidates[0]!;
    if (candidates.length === 1) return best;
    let least = Infinity;
    for (const to of candidates) {
      const angle = this.sector(before, at, to);
      if (angle < least) {
        least = angle;
        best = to;
      }
    }
    return best;
  }

  /** The angle of the inside between arriving from `before` and leaving to `to`, in (0, 2π]. */
  private sector(before: number, at: number, to: number): number {
    const { xs, ys } = this;
    const from = Math.atan2(ys[before]! - ys[at]!, xs[before]! - xs[at]!);
    const towards = Math.atan2(ys[to]! - ys[at]!, xs[to]! - xs[at]!);
    const angle = from - towards;
    return angle > 0 ? angle : angle + 2 * Math.PI;
  }

  private pushCorner(ring: GridPoint[], before: number, at: number, to: number, shared: boolean, gap: number): void {
    const { xs, ys } = this;
    const angle = shared ? this.sector(before, at, to) : Math.PI;
    // Sectors round one point sum to a whole turn, so at most one of them is not convex; it may stay.
    if (angle >= Math.PI) {
      ring.push({ x: xs[at]!, y: ys[at]! });
      return;
    }
    const back = gap / Math.max(Math.cos(angle / 2), 1e-3);
    for (const end of [before, to]) {
      const length = this.apart(at, end);
      const share = Math.min(0.4, back / length);
      ring.push({
        x: Math.round(xs[at]! + share * (xs[end]! - xs[at]!)),
        y: Math.round(ys[at]! + share * (ys[end]! - ys[at]!)),
      });
    }
  }
}

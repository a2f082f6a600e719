// wavefront.ts — the outline of a region moving inward at unit speed, on a kinetic triangulation of what it still encloses
// (Palfrader, Held & Huber 2012, "On computing straight skeletons by means of kinetic triangulations"). Every change of
// shape shows as a triangle losing its area, so each triangle's next such moment is the whole agenda. Which change it is
// is decided by order alone; that only one happens at a time is the caller's business (see `roof.ts`).
import FlatQueue from 'flatqueue';
import {
  afterHalf as after,
  type BoundedTriangles,
  beforeHalf as before,
  flipEdge,
  link,
} from '../../geometry/triangulate.ts';
import { cornerSpeed, type Lines, meeting } from './lines.ts';

/** A place where three edges meet, as far as rounding lets one say. */
export interface Meeting {
  readonly edges: readonly [number, number, number];
  readonly x: number;
  readonly y: number;
  readonly time: number;
}

/** What the wavefront tells as it moves. Corners are known by their slot; slots are used again. */
export interface WavefrontEvents {
  /** Edge from → to has shrunk away: its corners end, and `from` goes on as a new corner. */
  collapse(from: number, to: number, at: Meeting): void;
  /** A last triangle has shrunk away. */
  vanish(a: number, b: number, c: number, at: Meeting): void;
  /** `corner` ran into an edge and ends; it goes on behind that edge, and `fresh` before it. */
  split(corner: number, fresh: number, at: Meeting): void;
}

export interface WavefrontStart {
  /** Flat x, y of the corners at time 0. */
  readonly points: Float64Array;
  /** The corner that follows each one; edge i leaves corner i. */
  readonly next: Uint32Array;
  /** What the wavefront encloses at time 0; taken over and changed. */
  readonly triangles: BoundedTriangles;
  /** Of the edges, one a corner. */
  readonly lines: Lines;
  /** What happens later is never asked for. */
  readonly horizon: number;
  /** null for a wavefront that is only watched until it changes. */
  readonly events: WavefrontEvents | null;
}

/** Events a triangle may cause on average; many more mean that rounding leads in circles. */
const PATIENCE = 60;

export class Wavefront {
  time = 0;
  /** Edges that meet in each corner, by number: the one that arrives and the one that leaves, inside on the left. */
  readonly arriving: Int32Array;
  readonly leaving: Int32Array;
  /** Neighbours of each corner along the wavefront. */
  readonly previous: Int32Array;
  readonly next: Int32Array;
  readonly corners: Uint32Array;
  private readonly twins: Int32Array;
  /** When each triangle loses its area, Infinity for never, NaN once it is gone. */
  private readonly due: Float64Array;
  private readonly queue = new FlatQueue<number>();
  private readonly lines: Lines;
  private readonly events: WavefrontEvents | null;
  private readonly horizon: number;
  private patience: number;
  /** Where each corner was when it began, when that was, and where it runs. */
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly since: Float64Array;
  private readonly vx: Float64Array;
  private readonly vy: Float64Array;
  private slots: number;

  constructor({ points, next, triangles, lines, horizon, events }: WavefrontStart) {
    const { corners, twins } = triangles;
    const n = next.length;
    // Every split needs one slot more, and each takes one triangle away.
    const room = n + corners.length / 3;
    this.corners = corners;
    this.twins = twins;
    this.lines = lines;
    this.horizon = horizon;
    this.events = events;
    this.patience = PATIENCE * (n + 16);
    this.arriving = new Int32Array(room);
    this.leaving = new Int32Array(room);
    this.previous = new Int32Array(room).fill(-1);
    this.next = new Int32Array(room).fill(-1);
    [this.x, this.y, this.since] = [new Float64Array(room), new Float64Array(room), new Float64Array(room)];
    [this.vx, this.vy] = [new Float64Array(room), new Float64Array(room)];
    this.due = new Float64Array(corners.length / 3);
    this.slots = n;
    for (let i = 0; i < n; i++) {
      this.next[i] = next[i]!;
      this.previous[next[i]!] = i;
      this.leaving[i] = i;
      this.arriving[next[i]!] = i;
    }
    for (let i = 0; i < n; i++) this.begin(i, points[2 * i]!, points[2 * i + 1]!);
    for (let t = 0; t < this.due.length; t++) this.schedule(t);
  }

  get room(): number {
    return this.x.length;
  }

  /** Where a corner is now. */
  xOf(corner: number): number {
    return this.x[corner]! + this.vx[corner]! * (this.time - this.since[corner]!);
  }

  yOf(corner: number): number {
    return this.y[corner]! + this.vy[corner]! * (this.time - this.since[corner]!);
  }

  isAlive(corner: number): boolean {
    return this.next[corner]! >= 0;
  }

  /** Half-edges of the triangles that are left. */
  *triangles(): Generator<number> {
    for (let t = 0; t < this.due.length; t++) if (!Number.isNaN(this.due[t])) yield 3 * t;
  }

  /** When the next thing happens; Infinity when nothing will. */
  nextTime(): number {
    for (;;) {
      const t = this.queue.peek();
      if (t === undefined) return Infinity;
      const time = this.queue.peekValue()!;
      if (this.due[t] === time) return time;
      this.queue.pop();
    }
  }

  /**
   * Lets everything happen up to a time.
   * @returns false when it leads in circles, or when the wavefront changes and nobody wants to know
   */
  advance(until: number): boolean {
    for (let time = this.nextTime(); time <= until; time = this.nextTime()) {
      this.time = Math.max(this.time, time);
      if (!this.happen(this.queue.pop()!) || this.patience-- < 0) return false;
    }
    this.time = Math.max(this.time, until);
    return true;
  }

  /** Starts a corner here and now. */
  private begin(corner: number, x: number, y: number): void {
    const [vx, vy] = cornerSpeed(this.lines, this.arriving[corner]!, this.leaving[corner]!);
    this.vx[corner] = vx;
    this.vy[corner] = vy;
    this.x[corner] = x;
    this.y[corner] = y;
    this.since[corner] = this.time;
  }

  private meet(edges: Meeting['edges'], nearX: number, nearY: number): Meeting {
    const [x, y] = meeting(this.lines, edges, this.time, nearX, nearY);
    return { edges, x, y, time: this.time };
  }

  private end(corner: number): void {
    this.next[corner] = -1;
  }

  private join(from: number, to: number): void {
    this.next[from] = to;
    this.previous[to] = from;
  }

  // --- the agenda -----------------------------------------------------------------------------------------------------

  private schedule(t: number): void {
    this.due[t] = this.time + Math.max(0, this.timeLeft(3 * t));
    if (this.due[t]! < this.horizon) this.queue.push(t, this.due[t]!);
  }

  /** How long the triangle of half-edge h keeps its area. */
  private timeLeft(h: number): number {
    let [walls, wall] = [0, -1];
    let least = Infinity;
    for (let e = h; e < h + 3; e++) {
      if (this.twins[e]! >= 0) continue;
      walls++;
      wall = e;
      least = Math.min(least, this.edgeLeft(e));
      if (this.twins[after(e)]! < 0 && !this.isConvex(this.corners[after(e)]!)) return 0;
    }
    if (walls === 0) return this.areaLeft(h);
    return walls === 1 ? Math.min(least, this.heightLeft(wall)) : least;
  }

  /** Whether the inside is less than half of what surrounds a corner: between two edges of one triangle it must be. */
  private isConvex(corner: number): boolean {
    const { nx, ny } = this.lines;
    const [a, b] = [this.arriving[corner]!, this.leaving[corner]!];
    return nx[a]! * ny[b]! - ny[a]! * nx[b]! > 0;
  }

  /** How long wavefront edge h keeps its length, which changes evenly. */
  private edgeLeft(h: number): number {
    const [u, w] = [this.corners[h]!, this.corners[after(h)]!];
    const edge = this.leaving[u]!;
    const [dx, dy] = [this.lines.ny[edge]!, -this.lines.nx[edge]!];
    const length = (this.xOf(w) - this.xOf(u)) * dx + (this.yOf(w) - this.yOf(u)) * dy;
    // Overdue: between corners that run very fast, rounding can put one event before another.
    if (length < 0) return length;
    const change = (this.vx[w]! - this.vx[u]!) * dx + (this.vy[w]! - this.vy[u]!) * dy;
    return change < 0 ? -length / change : Infinity;
  }

  /** How long the corner across from wavefront edge h stays clear of its line. */
  private heightLeft(h: number): number {
    const { lines } = this;
    const edge = this.leaving[this.corners[h]!]!;
    const apex = this.corners[before(h)]!;
    const [nx, ny] = [lines.nx[edge]!, lines.ny[edge]!];
    const change = nx * this.vx[apex]! + ny * this.vy[apex]! - 1;
    if (!(change < 0)) return Infinity;
    const height = nx * this.xOf(apex) + ny * this.yOf(apex) - lines.offset[edge]! - this.time;
    return -height / change;
  }

  /** How long a triangle without wavefront edges keeps its area, which is quadratic in time. */
  private areaLeft(h: number): number {
    const [a, b, c] = [this.corners[h]!, this.corners[h + 1]!, this.corners[h + 2]!];
    const [ax, ay] = [this.xOf(a), this.yOf(a)];
    const [bx, by, cx, cy] = [this.xOf(b) - ax, this.yOf(b) - ay, this.xOf(c) - ax, this.yOf(c) - ay];
    const [bu, bv] = [this.vx[b]! - this.vx[a]!, this.vy[b]! - this.vy[a]!];
    const [cu, cv] = [this.vx[c]! - this.vx[a]!, this.vy[c]! - this.vy[a]!];
    const quadratic = bu * cv - bv * cu;
    const linear = bx * cv - by * cu + (bu * cy - bv * cx);
    const area = bx * cy - by * cx;
    if (!(area > 0)) {
      if (linear < 0) return 0;
      return quadratic < 0 ? -linear / quadratic : Infinity;
    }
    const inside = linear * linear - 4 * quadratic * area;
    if (inside < 0) return Infinity;
    const half = -(linear + (linear < 0 ? -1 : 1) * Math.sqrt(inside)) / 2;
    const [p, q] = [half / quadratic, area / half];
    const [first, second] = p < q ? [p, q] : [q, p];
    return first > 0 ? first : second > 0 ? second : Infinity;
  }

  // --- events ---------------------------------------------------------------------------------------------------------

  /** @returns false for a change that nobody wants to know of, and that is not made */
  private happen(t: number): boolean {
    const h = 3 * t;
    let [walls, soonest] = [0, -1];
    for (let e = h; e < h + 3; e++) {
      if (this.twins[e]! >= 0) continue;
      if (walls++ === 0 || this.isSooner(e, soonest)) soonest = e;
    }
    if (walls === 0) {
      this.flip(this.longest(h));
      return true;
    }
    const isHit = walls === 1 && this.edgeLeft(soonest) > this.heightLeft(soonest);
    const spoke = isHit ? this.spokeInTheWay(soonest) : -1;
    if (spoke >= 0) this.flip(spoke);
    else if (!this.events) return false;
    else if (isHit) this.split(soonest);
    else if (walls === 3) this.vanish(t);
    else this.collapse(soonest);
    return true;
  }

  private isSooner(e: number, f: number): boolean {
    const [left, other] = [this.edgeLeft(e), this.edgeLeft(f)];
    return left < other || (left === other && this.squaredLength(e) < this.squaredLength(f));
  }

  private longest(h: number): number {
    return [h, h + 1, h + 2].reduce((best, e) => (this.squaredLength(e) > this.squaredLength(best) ? e : best));
  }

  private squaredLength(h: number): number {
    const [a, b] = [this.corners[h]!, this.corners[after(h)]!];
    return (this.xOf(a) - this.xOf(b)) ** 2 + (this.yOf(a) - this.yOf(b)) ** 2;
  }

  private remove(t: number): void {
    this.due[t] = Number.NaN;
  }

  private vanish(t: number): void {
    const [a, b, c] = [this.corners[3 * t]!, this.corners[3 * t + 1]!, this.corners[3 * t + 2]!];
    const at = this.meet([this.leaving[a]!, this.leaving[b]!, this.leaving[c]!], this.xOf(a), this.yOf(a));
    this.remove(t);
    for (const corner of [a, b, c]) this.end(corner);
    this.events?.vanish(a, b, c, at);
  }

  /** Wavefront edge h has no length left. */
  private collapse(h: number): void {
    const [u, w] = [this.corners[h]!, this.corners[after(h)]!];
    const edges = [this.arriving[u]!, this.leaving[u]!, this.leaving[w]!] as const;
    const at = this.meet(edges, (this.xOf(u) + this.xOf(w)) / 2, (this.yOf(u) + this.yOf(w)) / 2);
    const [a, b] = [this.twins[after(h)]!, this.twins[before(h)]!];
    for (let e = after(h); e >= 0; e = this.right(e)) this.corners[e] = u;
    this.remove(Math.floor(h / 3));
    if (a >= 0) link(this.twins, a, b);
    else link(this.twins, b, a);
    this.leaving[u] = this.leaving[w]!;
    this.join(u, this.next[w]!);
    this.end(w);
    this.begin(u, at.x, at.y);
    this.events?.collapse(u, w, at);
    // One of the two may be the wavefront itself.
    this.reschedule(b >= 0 ? b : after(a));
  }

  /** The spoke to flip where the corner across from wavefront edge h reached its line beyond an end; −1 where on the edge. */
  private spokeInTheWay(h: number): number {
    const [u, w, c] = [this.corners[h]!, this.corners[after(h)]!, this.corners[before(h)]!];
    const edge = this.leaving[u]!;
    const [dx, dy] = [this.lines.ny[edge]!, -this.lines.nx[edge]!];
    const place = this.xOf(c) * dx + this.yOf(c) * dy;
    if (place < this.xOf(u) * dx + this.yOf(u) * dy) return after(h);
    return place > this.xOf(w) * dx + this.yOf(w) * dy ? before(h) : -1;
  }

  /** The corner across from wavefront edge h runs into it. */
  private split(h: number): void {
    const [u, w, c] = [this.corners[h]!, this.corners[after(h)]!, this.corners[before(h)]!];
    const at = this.meet([this.arriving[c]!, this.leaving[c]!, this.leaving[u]!], this.xOf(c), this.yOf(c));
    const fresh = this.slots++;
    const [a, b] = [this.twins[after(h)]!, this.twins[before(h)]!];
    for (let e = a; e >= 0; e = this.left(e)) this.corners[e] = fresh;
    this.remove(Math.floor(h / 3));
    this.twins[a] = -1;
    this.twins[b] = -1;
    this.arriving[fresh] = this.arriving[c]!;
    this.leaving[fresh] = this.leaving[u]!;
    this.arriving[c] = this.leaving[u]!;
    this.join(this.previous[c]!, fresh);
    this.join(fresh, w);
    this.join(u, c);
    this.begin(c, at.x, at.y);
    this.begin(fresh, at.x, at.y);
    this.events?.split(c, fresh, at);
    this.reschedule(a);
    this.reschedule(after(b));
  }

  // --- around a corner ------------------------------------------------------------------------------------------------

  /** The next half-edge to the left that begins where h does; −1 at the wavefront. */
  private left(h: number): number {
    return this.twins[before(h)]!;
  }

  /** The next one to the right. */
  private right(h: number): number {
    const twin = this.twins[h]!;
    return twin < 0 ? -1 : after(twin);
  }

  /** Looks again at all triangles around the corner where h begins. */
  private reschedule(h: number): void {
    for (let e = h; e >= 0; e = this.right(e)) this.schedule(Math.floor(e / 3));
    for (let e = this.left(h); e >= 0; e = this.left(e)) this.schedule(Math.floor(e / 3));
  }

  private flip(e: number): void {
    const f = this.twins[e]!;
    flipEdge(this.corners, this.twins, e);
    this.schedule(Math.floor(e / 3));
    this.schedule(Math.floor(f / 3));
  }
}

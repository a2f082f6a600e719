// refine.ts — Delaunay refinement: points are added to a constrained Delaunay triangulation until no triangle has an angle
// below a bound or is too large (Ruppert 1995, "A Delaunay refinement algorithm for quality 2-dimensional mesh
// generation"; Shewchuk 1996). Where outline edges meet at less than 60°, they are split on circles around their corner,
// and a triangle that fits between them stays as it is (Shewchuk 2002, "Delaunay refinement algorithms", §3).
import { incircle } from 'robust-predicates';
import { listOf } from '../../base/arrays.ts';
import {
  afterHalf as after,
  type BoundedTriangles,
  beforeHalf as before,
  leftTurn,
} from '../../geometry/triangulate.ts';

/** Circumradius over shortest edge at the bound: 1 / (2 sin 20.7°), the most that provably ends. */
const ROUNDNESS = Math.SQRT2;
/** Outline edges that meet at less than this are split on circles around their corner. */
const ACUTE = Math.cos(Math.PI / 3) + 1e-9;
/** Nothing is divided into parts shorter than this share of the extent, or of the largest radius. */
const SHORTEST = 4e-6;
const SHORTEST_OF_LARGEST = 2e-4;
/** Nor is a triangle whose halves would come near what is none: twice an area, over the least there is. */
const SMALLEST_OF_LEAST = 16;
/** Points that may be added for every one there was. */
const MOST_POINTS = 40;

export interface Refined extends BoundedTriangles {
  /** Flat x, y: the points there were, then those added. */
  readonly points: readonly number[];
  /** Added points by the outline edge they lie on, in order. */
  readonly splits: ReadonlyMap<number, readonly number[]>;
}

export interface Bounds {
  /** No triangle keeps a circumcircle larger than this radius. */
  readonly largest: number;
  /** Twice the area below which a triangle is as good as nothing: a front that is next to nothing is not divided into such. */
  readonly least: number;
}

/**
 * @param points flat x, y
 * @param edges what bounds the triangles, as pairs of points, the inside on their left
 */
export function refine(points: Float64Array, edges: Uint32Array, triangles: BoundedTriangles, bounds: Bounds): Refined {
  const refinement = new Refinement(points, edges, triangles, bounds);
  refinement.run();
  return refinement.result();
}

class Refinement {
  private readonly points: number[];
  private readonly corners: number[];
  private readonly twins: number[];
  /** Outline edge of each half-edge on the boundary, −1 inside. */
  private readonly edgeOf: number[];
  private readonly ends: Uint32Array;
  /** Outline edge on which an added point lies; −1 for others. */
  private readonly lieOn: number[];
  private readonly largest: number;
  private readonly shortest: number;
  private readonly smallest: number;
  private readonly most: number;
  /** Half-edges and triangles to look at. */
  private readonly segments: number[] = [];
  private readonly suspects: number[] = [];
  /** Outline edges that leave and reach each original point. */
  private readonly acute: Set<number>;

  constructor(
    points: Float64Array,
    edges: Uint32Array,
    { corners, twins }: BoundedTriangles,
    { largest, least }: Bounds,
  ) {
    this.points = listOf(points);
    this.corners = listOf(corners);
    this.twins = listOf(twins);
    this.ends = edges;
    this.largest = largest;
    this.smallest = SMALLEST_OF_LEAST * least;
    this.lieOn = new Array(points.length / 2).fill(-1);
    const leaving = new Map<number, number[]>();
    for (let i = 0; i < edges.length; i += 2) leaving.set(edges[i]!, [...(leaving.get(edges[i]!) ?? []), i / 2]);
    this.edgeOf = this.twins.map((twin, e) => {
      if (twin >= 0) return -1;
      return leaving.get(this.corners[e]!)!.find((edge) => edges[2 * edge + 1] === this.corners[after(e)])!;
    });
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < points.length; i += 2) {
      [minX, maxX] = [Math.min(minX, points[i]!), Math.max(maxX, points[i]!)];
      [minY, maxY] = [Math.min(minY, points[i + 1]!), Math.max(maxY, points[i + 1]!)];
    }
    this.shortest = Math.max(SHORTEST * Math.max(maxX - minX, maxY - minY), SHORTEST_OF_LARGEST * largest);
    this.most = this.lieOn.length * MOST_POINTS + 1000;
    this.acute = this.acuteCorners();
  }

  run(): void {
    for (let e = 0; e < this.corners.length; e++) if (this.twins[e]! < 0) this.segments.push(e);
    for (let t = 0; t < this.corners.length / 3; t++) this.suspects.push(t);
    while (this.lieOn.length < this.most) {
      const e = this.segments.pop();
      if (e !== undefined) {
        if (this.twins[e]! < 0 && this.isEncroached(e)) this.splitSegment(e);
        continue;
      }
      const t = this.suspects.pop();
      if (t === undefined) break;
      if (this.isBad(t)) this.improve(t);
    }
  }

  result(): Refined {
    const along = new Map<number, number[]>();
    for (const [point, edge] of this.lieOn.entries())
      if (edge >= 0) along.set(edge, [...(along.get(edge) ?? []), point]);
    for (const [edge, list] of along) {
      const from = this.ends[2 * edge]!;
      list.sort((a, b) => this.squared(from, a) - this.squared(from, b));
    }
    return {
      points: this.points,
      corners: new Uint32Array(this.corners),
      twins: new Int32Array(this.twins),
      splits: along,
    };
  }

  // --- what is wrong --------------------------------------------------------------------------------------------------

  private squared(a: number, b: number): number {
    const p = this.points;
    return (p[2 * a]! - p[2 * b]!) ** 2 + (p[2 * a + 1]! - p[2 * b + 1]!) ** 2;
  }

  private isInDiametral(e: number, x: number, y: number): boolean {
    const p = this.points;
    const [a, b] = [2 * this.corners[e]!, 2 * this.corners[after(e)]!];
    return (p[a]! - x) * (p[b]! - x) + (p[a + 1]! - y) * (p[b + 1]! - y) < 0;
  }

  /** Whether a point looks at boundary half-edge e under more than a right angle. */
  private isEncroached(e: number): boolean {
    const apex = this.corners[before(e)]!;
    if (!this.isInDiametral(e, this.points[2 * apex]!, this.points[2 * apex + 1]!)) return false;
    // Neighbours at an acute corner always do; on circles of one radius they are as good as can be.
    return !this.sharesAcute(e, apex);
  }

  /** Whether a point lies on an outline edge that meets e's at an acute corner, as far from it as one end of e. */
  private sharesAcute(e: number, point: number): boolean {
    const own = this.edgeOf[e]!;
    for (const end of [this.corners[e]!, this.corners[after(e)]!]) {
      if (this.areOnShell(own, end, point)) return true;
    }
    return false;
  }

  private areOnShell(own: number, end: number, point: number): boolean {
    for (const corner of [this.ends[2 * own]!, this.ends[2 * own + 1]!]) {
      if (!this.acute.has(corner) || corner === end) continue;
      const other = this.lieOn[point]!;
      const meets =
        other >= 0 && other !== own && (this.ends[2 * other] === corner || this.ends[2 * other + 1] === corner);
      if (!meets) continue;
      const [r, s] = [this.squared(corner, end), this.squared(corner, point)];
      if (Math.abs(r - s) < 1e-6 * r) return true;
    }
    return false;
  }

  private acuteCorners(): Set<number> {
    const p = this.points;
    const [from, to] = [new Map<number, number>(), new Map<number, number>()];
    for (let i = 0; i < this.ends.length; i += 2) {
      from.set(this.ends[i]!, this.ends[i + 1]!);
      to.set(this.ends[i + 1]!, this.ends[i]!);
    }
    const found = new Set<number>();
    for (const [v, next] of from) {
      const last = to.get(v);
      if (last === undefined) continue;
      const [ux, uy] = [p[2 * next]! - p[2 * v]!, p[2 * next + 1]! - p[2 * v + 1]!];
      const [wx, wy] = [p[2 * last]! - p[2 * v]!, p[2 * last + 1]! - p[2 * v + 1]!];
      const isConvex = ux * wy - uy * wx > 0;
      if (isConvex && ux * wx + uy * wy > ACUTE * Math.hypot(ux, uy) * Math.hypot(wx, wy)) found.add(v);
    }
    return found;
  }

  private isBad(t: number): boolean {
    const sides = [0, 1, 2].map((k) => this.squared(this.corners[3 * t + k]!, this.corners[3 * t + ((k + 1) % 3)]!));
    const [a, b, c] = sides as [number, number, number];
    const twice = this.twiceArea(t);
    // Circumradius squared: (abc)² / (4 · area)².
    const radius = (a * b * c) / (4 * twice * twice);
    if (radius > this.largest * this.largest) return true;
    const least = Math.min(a, b, c);
    // Beside an edge that short, points would only draw together further.
    if (least < this.shortest * this.shortest) return false;
    if (!(radius > ROUNDNESS * ROUNDNESS * least)) return false;
    const e = 3 * t + sides.indexOf(least);
    return !this.isGiven(e);
  }

  /** Whether the short side e of a triangle comes from the outline itself: an acute corner across, or two on its circles. */
  private isGiven(e: number): boolean {
    const [u, v, apex] = [this.corners[e]!, this.corners[after(e)]!, this.corners[before(e)]!];
    if (this.twins[after(e)]! < 0 && this.twins[before(e)]! < 0 && this.acute.has(apex)) return true;
    const own = this.lieOn[u]!;
    return own >= 0 && this.areOnShell(own, u, v);
  }

  private twiceArea(t: number): number {
    const p = this.points;
    const [a, b, c] = [2 * this.corners[3 * t]!, 2 * this.corners[3 * t + 1]!, 2 * this.corners[3 * t + 2]!];
    return (p[b]! - p[a]!) * (p[c + 1]! - p[a + 1]!) - (p[b + 1]! - p[a + 1]!) * (p[c]! - p[a]!);
  }

  // --- what is done about it ------------------------------------------------------------------------------------------

  /** Puts a point where the triangle's circumcircle has its centre, or splits what stands in the way. */
  private improve(t: number): void {
    const p = this.points;
    const [a, b, c] = [2 * this.corners[3 * t]!, 2 * this.corners[3 * t + 1]!, 2 * this.corners[3 * t + 2]!];
    const [bx, by, cx, cy] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[c]! - p[a]!, p[c + 1]! - p[a + 1]!];
    const d = 2 * (bx * cy - by * cx);
    const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
    const x = p[a]! + (cy * bb - by * cc) / d;
    const y = p[a + 1]! + (bx * cc - cx * bb) / d;
    const place = this.walk(t, x, y);
    if (place < 0) {
      if (this.splitSegment(-1 - place)) this.suspects.push(t);
      return;
    }
    const blocked = this.blockers(place, x, y);
    let split = false;
    for (const e of blocked)
      if (this.twins[e]! < 0 && this.isInDiametral(e, x, y) && this.splitSegment(e)) split = true;
    if (blocked.length === 0) this.insert(place, x, y);
    else if (split) this.suspects.push(t);
  }

  /** The triangle that holds (x, y), or −1 − e where boundary half-edge e lies before it. */
  private walk(from: number, x: number, y: number): number {
    const p = this.points;
    let t = from;
    for (let steps = this.corners.length; steps > 0; steps--) {
      let leave = -1;
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const [a, b] = [2 * this.corners[e]!, 2 * this.corners[after(e)]!];
        if (leftTurn(p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, x, y) < 0) {
          leave = e;
          break;
        }
      }
      if (leave < 0) return t;
      if (this.twins[leave]! < 0) return -1 - leave;
      t = Math.floor(this.twins[leave]! / 3);
    }
    return t;
  }

  /** Boundary half-edges that a point at (x, y) would encroach upon, among those it would become a neighbour of. */
  private blockers(place: number, x: number, y: number): number[] {
    const found: number[] = [];
    const seen = new Set([place]);
    const stack = [place];
    while (stack.length > 0) {
      const t = stack.pop()!;
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const twin = this.twins[e]!;
        if (twin < 0) {
          if (this.isInDiametral(e, x, y)) found.push(e);
          continue;
        }
        const next = Math.floor(twin / 3);
        if (seen.has(next) || !this.isInCircle(next, x, y)) continue;
        seen.add(next);
        stack.push(next);
      }
    }
    return found;
  }

  private isInCircle(t: number, x: number, y: number): boolean {
    const p = this.points;
    const [a, b, c] = [2 * this.corners[3 * t]!, 2 * this.corners[3 * t + 1]!, 2 * this.corners[3 * t + 2]!];
    return incircle(p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, p[c]!, p[c + 1]!, x, y) > 0;
  }

  /** @returns false where the segment is too short to split, or its triangle too small */
  private splitSegment(e: number): boolean {
    const [a, b] = [this.corners[e]!, this.corners[after(e)]!];
    const length = Math.sqrt(this.squared(a, b));
    if (length < 2 * this.shortest || this.twiceArea(Math.floor(e / 3)) < this.smallest) return false;
    const edge = this.edgeOf[e]!;
    const share = this.shareAt(edge, a, b, length);
    const p = this.points;
    const x = p[2 * a]! + share * (p[2 * b]! - p[2 * a]!);
    const y = p[2 * a + 1]! + share * (p[2 * b + 1]! - p[2 * a + 1]!);
    const m = this.point(x, y, edge);
    // Triangle (a, b, c) becomes (a, m, c) and (m, b, c).
    const c = this.corners[before(e)]!;
    const [behind, ahead] = [this.twins[after(e)]!, after(e)];
    const behindEdge = this.edgeOf[ahead]!;
    const f = this.triangle(m, b, c);
    this.corners[after(e)] = m;
    this.link(f, -1, edge);
    this.link(f + 1, behind, behindEdge);
    this.link(ahead, f + 2, -1);
    this.segments.push(e, f);
    this.restore([before(e), f + 1]);
    this.suspects.push(Math.floor(e / 3), f / 3);
    return true;
  }

  /** In the middle, or where the first circle around an acute end falls: radii are powers of two. */
  private shareAt(edge: number, a: number, b: number, length: number): number {
    const [isA, isB] = [this.isAcuteEnd(edge, a), this.isAcuteEnd(edge, b)];
    if (isA === isB) return 0.5;
    const radius = 2 ** Math.round(Math.log2(length / 2));
    return isA ? radius / length : 1 - radius / length;
  }

  private isAcuteEnd(edge: number, point: number): boolean {
    return this.acute.has(point) && (this.ends[2 * edge] === point || this.ends[2 * edge + 1] === point);
  }

  private insert(t: number, x: number, y: number): void {
    const m = this.point(x, y, -1);
    const [a, b, c] = [this.corners[3 * t]!, this.corners[3 * t + 1]!, this.corners[3 * t + 2]!];
    const [ab, bc, ca] = [3 * t, 3 * t + 1, 3 * t + 2].map((e) => [this.twins[e]!, this.edgeOf[e]!] as const);
    // (a, b, m), (b, c, m), (c, a, m)
    this.corners[3 * t + 2] = m;
    const f = this.triangle(b, c, m);
    const g = this.triangle(c, a, m);
    this.link(3 * t, ab![0], ab![1]);
    this.link(f, bc![0], bc![1]);
    this.link(g, ca![0], ca![1]);
    this.link(3 * t + 1, f + 2, -1);
    this.link(f + 1, g + 2, -1);
    this.link(g + 1, 3 * t + 2, -1);
    this.suspects.push(t, f / 3, g / 3);
    this.restore([3 * t, f, g]);
  }

  private point(x: number, y: number, edge: number): number {
    this.points.push(x, y);
    return this.lieOn.push(edge) - 1;
  }

  private triangle(a: number, b: number, c: number): number {
    this.twins.push(-1, -1, -1);
    this.edgeOf.push(-1, -1, -1);
    return this.corners.push(a, b, c) - 3;
  }

  private link(e: number, twin: number, edge: number): void {
    this.twins[e] = twin;
    this.edgeOf[e] = edge;
    if (twin >= 0) {
      this.twins[twin] = e;
      this.edgeOf[twin] = -1;
    }
  }

  /** Flips edges until all are Delaunay again. */
  private restore(stack: number[]): void {
    while (stack.length > 0) {
      const e = stack.pop()!;
      const f = this.twins[e]!;
      if (f < 0) {
        this.segments.push(e);
        continue;
      }
      const apex = this.corners[before(e)]!;
      if (!this.isInCircle(Math.floor(f / 3), this.points[2 * apex]!, this.points[2 * apex + 1]!)) continue;
      this.flip(e, f);
      stack.push(e, after(f));
      this.suspects.push(Math.floor(e / 3), Math.floor(f / 3));
    }
  }

  /** Turns the diagonal of the quadrilateral around e: afterwards e and after(f) bound it on the far side. */
  private flip(e: number, f: number): void {
    const [el, fl] = [before(e), before(f)];
    const [p, q] = [this.corners[el]!, this.corners[fl]!];
    const [outer, inner] = [this.twins[fl]!, this.twins[el]!];
    const [outerEdge, innerEdge] = [this.edgeOf[fl]!, this.edgeOf[el]!];
    this.corners[e] = q;
    this.corners[f] = p;
    this.link(e, outer, outerEdge);
    this.link(f, inner, innerEdge);
    this.link(el, fl, -1);
  }
}

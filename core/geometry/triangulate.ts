// triangulate.ts — constrained Delaunay triangulation. Delaunay by delaunator; edges are then forced in by flips
// (Sloan 1993, "A fast algorithm for generating constrained Delaunay triangulations") and what the flips disturbed is
// made Delaunay again. Orientation and in-circle tests are exact (robust-predicates).
import Delaunator from 'delaunator';
import { incircle, orient2d } from 'robust-predicates';
import { GeometryError } from '../base/errors.ts';

/** Positive when a, b, c turn left with y up; exact in sign. robust-predicates counts y downwards. */
export function leftTurn(ax: number, ay: number, bx: number, by: number, cx: number, cy: number): number {
  return -orient2d(ax, ay, bx, by, cx, cy);
}

/** Twice the area of the triangle a, b, c of some points, positive when it turns left; exact in sign. */
export function twiceArea(p: ArrayLike<number>, a: number, b: number, c: number): number {
  return leftTurn(p[2 * a]!, p[2 * a + 1]!, p[2 * b]!, p[2 * b + 1]!, p[2 * c]!, p[2 * c + 1]!);
}

const after = (e: number) => (e % 3 === 2 ? e - 2 : e + 1);
const before = (e: number) => (e % 3 === 0 ? e + 2 : e - 1);

/**
 * A triangulation of the convex hull of a point set in which given edges appear.
 * Half-edge e runs from `corners[e]` to `corners[after(e)]` with its triangle ⌊e/3⌋ on the left; triangles turn left.
 */
export class Triangulation {
  /** Flat x, y. */
  readonly points: Float64Array;
  /** Point index at which half-edge e starts. */
  readonly corners: Uint32Array;
  /** The half-edge on the other side, −1 on the hull. */
  readonly twins: Int32Array;
  /** On a given edge: 1 where the half-edge runs as the edge was given, 2 where it runs back; 0 elsewhere. */
  readonly fixed: Uint8Array;
  /** Some half-edge that starts at the point. */
  private readonly leaving: Int32Array;

  /**
   * @param points flat x, y; distinct; not modified
   * @param edges pairs of point indices; edges may meet in end points only
   * @throws {GeometryError} 'crossing-constraints' when an edge passes through a point or crosses another edge
   */
  constructor(points: Float64Array, edges: Uint32Array) {
    this.points = points;
    // Seen in a mirror, delaunator's right-turning triangles turn left.
    const mirrored = points.slice();
    for (let i = 1; i < points.length; i += 2) mirrored[i] = -points[i]!;
    const { triangles, halfedges } = new Delaunator(mirrored);
    this.corners = triangles;
    this.twins = halfedges;
    this.fixed = new Uint8Array(triangles.length);
    this.leaving = new Int32Array(points.length / 2).fill(-1);
    for (let e = 0; e < triangles.length; e++) this.leaving[triangles[e]!] = e;
    for (let i = 0; i < edges.length; i += 2) this.force(edges[i]!, edges[i + 1]!);
  }

  get triangleCount(): number {
    return this.corners.length / 3;
  }

  private turn(a: number, b: number, c: number): number {
    return twiceArea(this.points, a, b, c);
  }

  /** The first half-edge that starts at `v`: on the hull where there is one; −1 for a point without any. */
  private firstAround(v: number): number {
    const known = this.leaving[v]!;
    if (known < 0) return -1;
    let start = known;
    for (let back = this.twins[start]!; back >= 0; back = this.twins[start]!) {
      start = after(back);
      if (start === known) break;
    }
    return start;
  }

  /** The half-edge that starts where e does, counter-clockwise after it; −1 at the hull. */
  private nextAround(e: number): number {
    return this.twins[before(e)]!;
  }

  /** The half-edge from a to b, or from b to a where a–b is on the hull and only that one exists; −1 for none. */
  private edgeBetween(a: number, b: number): number {
    const first = this.leaving[a]!;
    let e = first;
    while (e >= 0) {
      if (this.corners[after(e)] === b) return e;
      if (this.corners[before(e)] === b) return before(e);
      e = this.nextAround(e);
      if (e === first) return -1;
    }
    // What lies on the other side, as far as the hull.
    for (let back = first < 0 ? -1 : this.twins[first]!; back >= 0; back = this.twins[e]!) {
      e = after(back);
      if (this.corners[after(e)] === b) return e;
    }
    return -1;
  }

  private fix(e: number, a: number): void {
    const runsAlong = this.corners[e] === a;
    this.fixed[e] = runsAlong ? 1 : 2;
    const twin = this.twins[e]!;
    if (twin >= 0) this.fixed[twin] = runsAlong ? 2 : 1;
  }

  private force(a: number, b: number): void {
    const present = this.edgeBetween(a, b);
    if (present >= 0) {
      this.fix(present, a);
      return;
    }
    const crossing = this.crossedBy(a, b);
    const fresh: [number, number][] = [];
    let patience = crossing.length * crossing.length + 64;
    while (crossing.length > 0) {
      if (patience-- < 0) throw this.crossed(a, b);
      const [u, v] = crossing.shift()!;
      const e = this.edgeBetween(u, v);
      const twin = this.twins[e]!;
      const p = this.corners[before(e)]!;
      const q = this.corners[before(twin)]!;
      if (!this.isConvex(p, this.corners[e]!, q, this.corners[twin]!)) {
        crossing.push([u, v]);
        continue;
      }
      this.flip(e);
      if ((p === a && q === b) || (p === b && q === a)) continue;
      const meets = p !== a && p !== b && q !== a && q !== b;
      if (meets && this.turn(a, b, p) > 0 !== this.turn(a, b, q) > 0) crossing.push([p, q]);
      else fresh.push([p, q]);
    }
    const forced = this.edgeBetween(a, b);
    if (forced < 0) throw this.crossed(a, b);
    this.fix(forced, a);
    this.restore(fresh);
  }

  /** Edges strictly between a and b, as pairs of points, in order from a. */
  private crossedBy(a: number, b: number): [number, number][] {
    const first = this.firstAround(a);
    let e = -1;
    for (let candidate = first; candidate >= 0; ) {
      const p = this.corners[after(candidate)]!;
      const q = this.corners[before(candidate)]!;
      if (this.turn(a, p, b) >= 0 && this.turn(a, q, b) < 0) {
        if (this.turn(a, p, b) === 0) throw this.crossed(a, b);
        e = after(candidate);
        break;
      }
      candidate = this.nextAround(candidate);
      if (candidate === first) break;
    }
    const found: [number, number][] = [];
    while (e >= 0) {
      if (this.fixed[e]) throw this.crossed(a, b);
      found.push([this.corners[e]!, this.corners[after(e)]!]);
      const twin = this.twins[e]!;
      if (twin < 0) break;
      const apex = this.corners[before(twin)]!;
      if (apex === b) return found;
      const side = this.turn(a, b, apex);
      if (side === 0) throw this.crossed(a, b);
      // The line leaves the next triangle between the apex and whichever end lies on the other side.
      e = side > 0 ? after(twin) : before(twin);
    }
    throw this.crossed(a, b);
  }

  private crossed(a: number, b: number): GeometryError {
    const p = this.points;
    const at = (i: number) => `(${p[2 * i]}, ${p[2 * i + 1]})`;
    return new GeometryError(
      'crossing-constraints',
      `triangulate: the edge ${at(a)}–${at(b)} meets another edge or point`,
    );
  }

  /** p, s, q, t in turn: whether the diagonal s–t may be replaced by p–q. */
  private isConvex(p: number, s: number, q: number, t: number): boolean {
    return this.turn(p, s, q) > 0 && this.turn(q, t, p) > 0;
  }

  /** Flips back to Delaunay, starting from edges that were made while forcing. */
  private restore(fresh: [number, number][]): void {
    while (fresh.length > 0) {
      const [u, v] = fresh.pop()!;
      const e = this.edgeBetween(u, v);
      if (e < 0 || this.fixed[e] || !this.isFlippable(e)) continue;
      const twin = this.twins[e]!;
      const [p, s, q, t] = [before(e), e, before(twin), twin].map((h) => this.corners[h]!) as [
        number,
        number,
        number,
        number,
      ];
      if (!this.inCircle(p, s, t, q)) continue;
      this.flip(e);
      fresh.push([p, s], [s, q], [q, t], [t, p]);
    }
  }

  /** Whether d lies strictly inside the circle through a, b, c. */
  private inCircle(a: number, b: number, c: number, d: number): boolean {
    const p = this.points;
    const [ax, ay, bx, by] = [p[2 * a]!, p[2 * a + 1]!, p[2 * b]!, p[2 * b + 1]!];
    const [cx, cy, dx, dy] = [p[2 * c]!, p[2 * c + 1]!, p[2 * d]!, p[2 * d + 1]!];
    // incircle, unlike orient2d, counts y upwards: positive inside for left-turning triangles.
    return incircle(ax, ay, bx, by, cx, cy, dx, dy) * leftTurn(ax, ay, bx, by, cx, cy) > 0;
  }

  /** Whether e has triangles on both sides that form a strictly convex quadrilateral. */
  isFlippable(e: number): boolean {
    const twin = this.twins[e]!;
    if (twin < 0 || this.fixed[e]) return false;
    return this.isConvex(this.corners[before(e)]!, this.corners[e]!, this.corners[before(twin)]!, this.corners[twin]!);
  }

  /** Replaces the diagonal e of its quadrilateral by the other one. */
  flip(e: number): void {
    const { corners, twins, fixed, leaving } = this;
    const f = twins[e]!;
    const el = before(e);
    const fl = before(f);
    const p = corners[el]!;
    const q = corners[fl]!;
    corners[e] = q;
    corners[f] = p;
    this.link(e, twins[fl]!);
    this.link(f, twins[el]!);
    fixed[e] = fixed[fl]!;
    fixed[f] = fixed[el]!;
    this.link(el, fl);
    fixed[el] = 0;
    fixed[fl] = 0;
    for (const h of [e, after(e), before(e), f, after(f), before(f)]) leaving[corners[h]!] = h;
  }

  private link(e: number, twin: number): void {
    this.twins[e] = twin;
    if (twin >= 0) this.twins[twin] = e;
  }
}

/** Which triangles lie inside, where the given edges have the inside on their left and bound it everywhere. */
function insideOf({ corners, twins, fixed }: Triangulation): Uint8Array {
  const inside = new Uint8Array(corners.length / 3);
  const stack: number[] = [];
  const reach = (t: number) => {
    if (inside[t]) return;
    inside[t] = 1;
    stack.push(t);
  };
  for (let e = 0; e < corners.length; e++) if (fixed[e] === 1) reach(Math.floor(e / 3));
  while (stack.length > 0) {
    const t = stack.pop()!;
    for (let e = 3 * t; e < 3 * t + 3; e++) if (!fixed[e]) reach(Math.floor(twins[e]! / 3));
  }
  return inside;
}

/** Triangles whose edges are either between two of them or bound them all. */
export interface BoundedTriangles {
  /** Point at which half-edge h begins; three half-edges a triangle, in left turns. */
  readonly corners: Uint32Array;
  /** The half-edge on the other side, −1 on the boundary. */
  readonly twins: Int32Array;
}

/**
 * What lies inside given edges.
 * @param edges pairs of point numbers that bound the inside, with it on their left
 * @throws {GeometryError} 'crossing-constraints' when an edge passes through a point or crosses another edge
 */
export function triangulateInside(points: Float64Array, edges: Uint32Array): BoundedTriangles {
  const triangulation = new Triangulation(points, edges);
  const { corners, twins, fixed } = triangulation;
  const inside = insideOf(triangulation);
  const place = new Int32Array(inside.length);
  let count = 0;
  for (let t = 0; t < inside.length; t++) if (inside[t]) place[t] = 3 * count++;
  const result = { corners: new Uint32Array(3 * count), twins: new Int32Array(3 * count) };
  for (let e = 0; e < corners.length; e++) {
    const t = Math.floor(e / 3);
    if (!inside[t]) continue;
    const at = place[t]! + (e % 3);
    result.corners[at] = corners[e]!;
    result.twins[at] = fixed[e] ? -1 : place[Math.floor(twins[e]! / 3)]! + (twins[e]! % 3);
  }
  return result;
}

/** The same, or null where edges cross or pass through a point. */
export function tryInside(points: Float64Array, edges: Uint32Array): BoundedTriangles | null {
  try {
    return triangulateInside(points, edges);
  } catch (error) {
    if (error instanceof GeometryError) return null;
    throw error;
  }
}

/** Flips inner edges until no circle around a triangle holds a neighbour's corner; flipped in place. */
export function flipToDelaunay(points: Float64Array, { corners, twins }: BoundedTriangles): void {
  const p = points;
  const stack: number[] = [];
  for (let e = 0; e < corners.length; e++) if (twins[e]! > e) stack.push(e);
  while (stack.length > 0) {
    const e = stack.pop()!;
    const f = twins[e]!;
    if (f < 0) continue;
    const [el, fl] = [before(e), before(f)];
    const [a, b, c, d] = [2 * corners[e]!, 2 * corners[f]!, 2 * corners[el]!, 2 * corners[fl]!];
    if (incircle(p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, p[c]!, p[c + 1]!, p[d]!, p[d + 1]!) <= 0) continue;
    flipEdge(corners, twins, e);
    stack.push(e, after(e), f, after(f));
  }
}

/** Replaces the diagonal e of the quadrilateral around it by the other one; e and its twin then bound it. */
export function flipEdge(corners: Uint32Array, twins: Int32Array, e: number): void {
  const f = twins[e]!;
  const [el, fl] = [before(e), before(f)];
  const [p, q] = [corners[el]!, corners[fl]!];
  corners[e] = q;
  corners[f] = p;
  const [outer, inner] = [twins[fl]!, twins[el]!];
  link(twins, e, outer);
  link(twins, f, inner);
  link(twins, el, fl);
}

/** Makes two half-edges twins; the second may be −1. */
export function link(twins: Int32Array, e: number, twin: number): void {
  twins[e] = twin;
  if (twin >= 0) twins[twin] = e;
}

/** The half-edges before and behind h in its triangle. */
export const afterHalf = after;
export const beforeHalf = before;

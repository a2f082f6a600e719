// roof.ts — the straight skeleton of a region up to a reach, cut at the heights of a profile's rows (Aichholzer, Aurenhammer,
// Alberts & Gärtner 1995): every outline edge sweeps inward at unit speed and owns what it sweeps. The wavefront tells what
// happens; here it is written down as a plane drawing of links, and read off again as faces.
import { GeometryError } from '../../errors.ts';
import { boundsOf, ringsOf } from '../../outline/measure.ts';
import type { Region } from '../../outline/types.ts';
import { insideOf, Triangulation } from '../triangulate.ts';
import { divideFace } from './divide.ts';
import { linesOf } from './lines.ts';
import { type Face, joinNodes, partHairs, RIM } from './weld.ts';
import { type InnerTriangles, Wavefront, type WavefrontEvents } from './wavefront.ts';

export interface Roof {
  /** Flat x, y; the rim's points come first, in the order of the region's rings. */
  readonly points: Float64Array;
  /** Distance of each point from the outline. */
  readonly times: Float64Array;
  /** 0 for points of the rim, k for points of the k-th level, −1 for those between. */
  readonly levels: Int16Array;
  /** Convex faces, counter-clockwise in plan: face i is corners[starts[i]] … corners[starts[i + 1] − 1]. */
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  /** The outline edge that each face belongs to, by the rim point it leaves. */
  readonly edges: Uint32Array;
  /** 0 for faces along the rim, one more above each level. */
  readonly strips: Uint16Array;
  /** Edges around what is left inside the last level, as pairs of points, with it on their left. */
  readonly front: Uint32Array;
}

/** The size of what the roof is computed on: everything below is a share of it. */
const UNIT = 1;
/**
 * Parallel strokes and symmetric letters bring about many events in one moment. Rim points are moved by up to this much,
 * so that there is an order: far above the rounding of doubles, far below that of float32. What comes to lie this close
 * together is joined again afterwards, so the order leaves no trace.
 */
const UNREST = 2 ** -31;
/** A level waits for events that come so soon after it, but no longer than {@link WAIT} in all. */
const SOON = 1e-7 * UNIT;
const WAIT = 5e-7 * UNIT;
/** One attempt after another with an unrest of its own: how far nodes may move to become one with others. */
const SHIFTS = [7e-7, 1e-6, 1.3e-6, 1.3e-6, 1.6e-6];

/**
 * @param region as `regionsOf` gives it: rings that keep clear of each other
 * @param levels distances from the outline, rising, > 0; the last is the reach
 * @returns null when no attempt gave a drawing that passes its own check
 */
export function roofOver(region: Region, levels: readonly number[]): Roof | null {
  const rings = ringsOf([region]);
  const box = boundsOf(rings)!;
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const rim = new Float64Array(rings.reduce((sum, ring) => sum + ring.length, 0));
  const next = new Uint32Array(rim.length / 2);
  let first = 0;
  for (const ring of rings) {
    const n = ring.length / 2;
    for (let i = 0; i < n; i++) {
      rim[2 * (first + i)] = (ring[2 * i]! - cx) / size;
      rim[2 * (first + i) + 1] = (ring[2 * i + 1]! - cy) / size;
      next[first + i] = first + ((i + 1) % n);
    }
    first += n;
  }
  const heights = levels.map((level) => level / size);
  for (let attempt = 0; attempt < SHIFTS.length; attempt++) {
    const roof = attemptRoof(rim, next, heights, attempt);
    if (!roof) continue;
    const points = roof.points.map((v, i) => v * size + (i % 2 === 0 ? cx : cy));
    first = 0;
    for (const ring of rings) {
      points.set(ring, first);
      first += ring.length;
    }
    return { ...roof, points, times: roof.times.map((time) => time * size) };
  }
  return null;
}

function attemptRoof(rim: Float64Array, next: Uint32Array, levels: readonly number[], attempt: number): Roof | null {
  const restless = stirred(rim, attempt);
  let inner: InnerTriangles;
  try {
    inner = innerTriangles(restless, next);
  } catch (error) {
    if (error instanceof GeometryError) return null;
    throw error;
  }
  const book = new Book(rim, next, inner.corners.length / 3);
  const front = new Wavefront(restless, next, inner, linesOf(restless, next), levels.at(-1)! + WAIT, book);
  book.open(front);
  for (const [k, level] of levels.entries()) {
    if (!front.advance(level)) return null;
    for (let soon = front.nextTime(); soon < level + WAIT && soon < front.time + SOON; soon = front.nextTime()) {
      if (!front.advance(soon)) return null;
    }
    book.level(front, k + 1 === levels.length);
  }
  return book.roof(front, SHIFTS[attempt]!);
}

/** Points moved by a hair, each in a direction of its own: the same for the same points. */
function stirred(points: Float64Array, attempt: number): Float64Array {
  let state = 0x9e3779b9 + attempt;
  return points.map((v) => {
    // A 32-bit mixing step (Steele, Lea & Flood 2014, "Fast splittable pseudorandom number generators").
    state = (state + 0x9e3779b9) | 0;
    let z = Math.imul(state ^ (state >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return v + (((z ^ (z >>> 16)) >>> 0) / 2 ** 31 - 1) * UNREST;
  });
}

/** Triangles inside the rings. @throws {GeometryError} 'crossing-constraints' */
function innerTriangles(points: Float64Array, next: Uint32Array): InnerTriangles {
  const edges = new Uint32Array(2 * next.length);
  for (let i = 0; i < next.length; i++) {
    edges[2 * i] = i;
    edges[2 * i + 1] = next[i]!;
  }
  const triangulation = new Triangulation(points, edges);
  const { corners, twins, fixed } = triangulation;
  const inside = insideOf(triangulation);
  const place = new Int32Array(inside.length);
  let count = 0;
  for (let t = 0; t < inside.length; t++) if (inside[t]) place[t] = count++;
  const result = { corners: new Uint32Array(3 * count), twins: new Int32Array(3 * count) };
  for (let e = 0; e < corners.length; e++) {
    const t = Math.floor(e / 3);
    if (!inside[t]) continue;
    const at = 3 * place[t]! + (e % 3);
    result.corners[at] = corners[e]!;
    result.twins[at] = fixed[e] ? -1 : 3 * place[Math.floor(twins[e]! / 3)]! + (twins[e]! % 3);
  }
  return result;
}

interface Label {
  readonly edge: number;
  readonly strip: number;
}

/**
 * The drawing as it grows. Link l runs from one node to another; half-link 2l goes along it with one face on its left,
 * 2l + 1 back with the other. `follow` gives the half-link that comes next around a face.
 */
class Book implements WavefrontEvents {
  private readonly rimCount: number;
  private readonly x: number[] = [];
  private readonly y: number[] = [];
  private readonly times: number[] = [];
  private readonly levelOf: number[] = [];
  private readonly from: number[] = [];
  private readonly to: number[] = [];
  private readonly follow: number[] = [];
  /** Outline edge and strip of each half-link's face; −1 where there is no face. */
  private readonly edge: number[] = [];
  private readonly strip: number[] = [];
  /** The link that each corner of the wavefront is drawing. */
  private readonly trail: Int32Array;
  /** The node of each corner at the last level. */
  private readonly nodeOf: Int32Array;
  private levels = 0;
  private front!: Wavefront;

  constructor(rim: Float64Array, next: Uint32Array, triangles: number) {
    this.rimCount = next.length;
    this.trail = new Int32Array(next.length + triangles);
    this.nodeOf = new Int32Array(next.length + triangles);
    for (let i = 0; i < next.length; i++) this.node(rim[2 * i]!, rim[2 * i + 1]!, 0, RIM);
    for (let i = 0; i < next.length; i++) this.link(i, next[i]!, i, -1);
  }

  /** Begins the trails of all corners, on links 0 … n − 1 along the rim. */
  open(front: Wavefront): void {
    this.front = front;
    for (let i = 0; i < this.rimCount; i++) this.start(i, i);
    for (let i = 0; i < this.rimCount; i++) {
      this.after(2 * i, this.up(front.next[i]!));
      this.after(this.down(i), 2 * i);
    }
  }

  private node(x: number, y: number, time: number, level = 0): number {
    this.levelOf.push(level);
    this.x.push(x);
    this.y.push(y);
    return this.times.push(time) - 1;
  }

  private link(from: number, to: number, left: number, right: number): number {
    this.follow.push(-1, -1);
    this.edge.push(left, right);
    this.strip.push(this.levels, this.levels);
    this.to.push(to);
    return this.from.push(from) - 1;
  }

  private after(half: number, following: number): void {
    this.follow[half] = following;
  }

  /** A corner's trail upwards lies along the face of the edge that arrives there, and downwards of the one that leaves. */
  private start(corner: number, node: number): void {
    this.trail[corner] = this.link(node, -1, this.front.arriving[corner]!, this.front.leaving[corner]!);
  }

  private up(corner: number): number {
    return 2 * this.trail[corner]!;
  }

  private down(corner: number): number {
    return 2 * this.trail[corner]! + 1;
  }

  private finish(corner: number, node: number): void {
    this.to[this.trail[corner]!] = node;
  }

  collapse(from: number, to: number, x: number, y: number, time: number): void {
    const node = this.node(x, y, time);
    this.finish(from, node);
    this.finish(to, node);
    this.after(this.up(to), this.down(from));
    const [before, behind] = [this.up(from), this.down(to)];
    this.start(from, node);
    this.after(before, this.up(from));
    this.after(this.down(from), behind);
  }

  vanish(a: number, b: number, c: number, x: number, y: number, time: number): void {
    const node = this.node(x, y, time);
    for (const corner of [a, b, c]) this.finish(corner, node);
    this.after(this.up(b), this.down(a));
    this.after(this.up(c), this.down(b));
    this.after(this.up(a), this.down(c));
  }

  split(corner: number, fresh: number, x: number, y: number, time: number): void {
    const node = this.node(x, y, time);
    this.finish(corner, node);
    const [before, behind] = [this.up(corner), this.down(corner)];
    this.start(corner, node);
    this.start(fresh, node);
    this.after(this.down(fresh), this.up(corner));
    this.after(before, this.up(fresh));
    this.after(this.down(corner), behind);
  }

  /** Draws the wavefront as it is now; strips begin anew above it. */
  level(front: Wavefront, isLast: boolean): void {
    this.levels++;
    const old = this.trail.slice();
    const { room } = front;
    for (let v = 0; v < room; v++) {
      if (!front.isAlive(v)) continue;
      const node = this.node(front.xOf(v), front.yOf(v), front.time, RIM + this.levels);
      this.nodeOf[v] = node;
      this.finish(v, node);
      if (!isLast) this.start(v, node);
    }
    for (let v = 0; v < room; v++) {
      if (!front.isAlive(v)) continue;
      const w = front.next[v]!;
      const edge = front.leaving[v]!;
      const along = this.link(this.nodeOf[v]!, this.nodeOf[w]!, isLast ? -1 : edge, edge);
      this.strip[2 * along + 1] = this.levels - 1;
      this.after(2 * old[w]!, 2 * along + 1);
      this.after(2 * along + 1, 2 * old[v]! + 1);
      if (isLast) continue;
      this.after(2 * along, this.up(w));
      this.after(this.down(v), 2 * along);
    }
  }

  /** Everything drawn, without hairs. @param shift how far nodes may move to become one */
  roof(front: Wavefront, shift: number): Roof | null {
    const drawing = { x: this.x, y: this.y, times: this.times, level: this.levelOf };
    const links: number[] = [];
    for (let l = 0; l < this.from.length; l++) links.push(this.from[l]!, this.to[l]!);
    const { place, moved } = joinNodes(drawing, links, shift);
    for (const [node, [x, y, time]] of moved) {
      this.x[node] = x;
      this.y[node] = y;
      this.times[node] = time;
    }
    const faces: Face<Label>[] = [];
    const seen = new Uint8Array(this.follow.length);
    for (let half = 0; half < this.follow.length; half++) {
      if (seen[half] || this.edge[half]! < 0) continue;
      const corners: number[] = [];
      for (let h = half; !seen[h]; h = this.follow[h]!) {
        if (h < 0) return null;
        seen[h] = 1;
        const node = place[h % 2 === 0 ? this.from[h >> 1]! : this.to[h >> 1]!]!;
        if (corners.at(-1) !== node) corners.push(node);
      }
      if (corners.length > 1 && corners[0] === corners.at(-1)) corners.pop();
      if (corners.length > 2) faces.push({ corners, label: { edge: this.edge[half]!, strip: this.strip[half]! } });
    }
    for (const h of front.triangles()) {
      const corners = [0, 1, 2].map((k) => place[this.nodeOf[front.corners[h + k]!]!]!);
      if (new Set(corners).size === 3) faces.push({ corners, label: { edge: -1, strip: this.levels } });
    }
    const clean = partHairs(drawing, faces);
    return clean && this.compact(clean);
  }

  /** Only the nodes that faces use, and faces divided until they are convex; null where one cannot be. */
  private compact(faces: readonly Face<Label>[]): Roof | null {
    const number = new Int32Array(this.x.length).fill(-1);
    const points: number[] = [];
    const times: number[] = [];
    const levels: number[] = [];
    const use = (node: number) => {
      if (number[node]! < 0) {
        number[node] = times.length;
        points.push(this.x[node]!, this.y[node]!);
        times.push(this.times[node]!);
        levels.push(this.levelOf[node]! - RIM);
      }
      return number[node]!;
    };
    for (let i = 0; i < this.rimCount; i++) use(i);
    const inside: Face<Label>[] = [];
    const starts = [0];
    const corners: number[] = [];
    const edges: number[] = [];
    const strips: number[] = [];
    for (const face of faces) {
      if (face.label.edge < 0) {
        inside.push(face);
        continue;
      }
      const parts = divideFace(this.x, this.y, face.corners);
      if (!parts) return null;
      for (const part of parts) {
        for (const corner of part) corners.push(use(corner));
        starts.push(corners.length);
        edges.push(face.label.edge);
        strips.push(face.label.strip);
      }
    }
    const front = boundaryOf(inside, this.x.length).map(use);
    return {
      points: Float64Array.from(points),
      times: Float64Array.from(times),
      levels: Int16Array.from(levels),
      starts: Uint32Array.from(starts),
      corners: Uint32Array.from(corners),
      edges: Uint32Array.from(edges),
      strips: Uint16Array.from(strips),
      front: Uint32Array.from(front),
    };
  }
}

/** The edges of faces that no other of them has, as pairs of nodes. */
function boundaryOf(faces: readonly Face<Label>[], nodes: number): number[] {
  const edges = new Set<number>();
  for (const { corners } of faces) {
    for (const [i, a] of corners.entries()) {
      const b = corners[(i + 1) % corners.length]!;
      if (!edges.delete(b * nodes + a)) edges.add(a * nodes + b);
    }
  }
  return [...edges].flatMap((edge) => [Math.floor(edge / nodes), edge % nodes]);
}

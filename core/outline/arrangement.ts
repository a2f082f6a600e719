// arrangement.ts — closed paths on the integer grid to the regions they fill. The paths are cut where they meet, which
// makes them a planar graph; winding numbers of its faces follow from one ray per connected piece; the boundary of what
// is filled is read off the graph. Everything after the cuts is exact integer arithmetic, so coincident edges, repeated
// paths and many lines through one point need no care. Cuts are rounded by snap rounding (Hobby 1999, "Practical segment
// intersection with finite precision output"): an edge bends to every vertex and crossing through whose pixel it passes.
import { numbersAt } from '../base/arrays.ts';
import { SegmentGrid } from './segment-grid.ts';

export interface GridPoint {
  readonly x: number;
  readonly y: number;
}
export type GridPath = readonly GridPoint[];

/** A contour, counter-clockwise with y up, and its holes, clockwise: the inside is on the left of both. */
export interface GridRegion {
  readonly outer: GridPath;
  readonly holes: readonly GridPath[];
}

/** `positive` and `twice` are for paths that run with their inside on the left: where they lie once, and twice. */
export type GridFill = 'nonzero' | 'evenodd' | 'positive' | 'twice';

/** Whether a face of some winding number is filled. */
export const FILLED: Record<GridFill, (winding: number) => boolean> = {
  nonzero: (winding) => winding !== 0,
  evenodd: (winding) => winding % 2 !== 0,
  positive: (winding) => winding > 0,
  twice: (winding) => winding > 1,
};

/** Coordinates stay below this, so that products of their differences are exact: (2 · 2^25)² ≤ 2^53. */
export const GRID_REACH = 2 ** 25;

/**
 * The regions that closed paths fill.
 * @param paths integer coordinates within ±{@link GRID_REACH}; anything else about them is free
 * @returns regions whose rings do not cross; rings that touch in a point pass through it one sector at a time
 */
export function fillRegions(paths: readonly GridPath[], fill: GridFill): GridRegion[] {
  const edges = planarEdges(edgesOf(paths, true), fill);
  return edges.count === 0 ? [] : new Filling(edges, FILLED[fill]).regions();
}

/**
 * The faces that lines enclose, whichever way they run; ends that hang free and lines that only link others are no part
 * of a boundary.
 * @param lines open polylines; coordinates as for {@link fillRegions}
 * @returns disjoint regions; a face inside another, not linked to it, is also a hole of that
 */
export function enclosedFaces(lines: readonly GridPath[]): GridRegion[] {
  const edges = planarEdges(edgesOf(lines, false), 'any');
  if (edges.count === 0) return [];
  const graph = new Graph(edges);
  const isBridge = graph.bridges();
  const kept = withoutEdges(edges, (edge) => isBridge[edge] === 1);
  return kept.count === 0 ? [] : new Graph(kept).faces();
}

// --- cutting --------------------------------------------------------------------------------------------------------

/** One round settles it; others are for crossings whose pixel was mistaken because a division is not exact. */
const MAX_ROUNDS = 24;
/** A crossing this near to the border of two pixels may be in either. */
const UNSURE = 1e-6;

/** Edges that meet at their ends only, none of them twice. */
function planarEdges(loose: Float64Array, fill: GridFill | 'any'): NetEdges {
  let net = netEdges(loose, null, fill);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const cuts = new Cuts(net, round === 0);
    if (cuts.isEmpty) break;
    const { edges, weights } = cuts.applied();
    net = netEdges(edges, weights, fill);
  }
  return net;
}

/** Four numbers an edge, from where to where. */
function edgesOf(paths: readonly GridPath[], areClosed: boolean): Float64Array {
  const edges = new Float64Array(4 * paths.reduce((sum, path) => sum + path.length, 0));
  let at = 0;
  for (const path of paths) {
    for (let i = areClosed ? 0 : 1; i < path.length; i++) {
      const [p, q] = [path.at(i - 1)!, path[i]!];
      if (p.x === q.x && p.y === q.y) continue;
      edges[at++] = p.x;
      edges[at++] = p.y;
      edges[at++] = q.x;
      edges[at++] = q.y;
    }
  }
  return edges.subarray(0, at);
}

class Cuts {
  private readonly edges: Float64Array;
  private readonly weights: Int32Array;
  /** Points inside an edge, flat x, y. */
  private readonly inside = new Map<number, number[]>();

  /** @param bends whether edges bend to vertices beside them; later they are cut only where they are met */
  constructor(net: NetEdges, bends: boolean) {
    this.edges = segmentsOf(net);
    this.weights = net.weights;
    const grid = new SegmentGrid(this.edges);
    const e = this.edges;
    const crossings = new Map<number, Set<number>>();
    for (let i = 0; i < e.length; i += 4) {
      const [ax, ay, bx, by] = [e[i]!, e[i + 1]!, e[i + 2]!, e[i + 3]!];
      grid.box(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by), (other) => {
        if (4 * other > i) eachCrossing(e, i, 4 * other, crossings);
      });
    }
    const cut = (x: number, y: number, isBent: boolean) =>
      grid.near(x, y, 0.5, (edge) => {
        if (this.passes(edge, x, y, isBent)) this.add(edge, x, y);
      });
    for (const v of new Set(net.ends)) cut(net.points[2 * v]!, net.points[2 * v + 1]!, bends);
    for (const [x, column] of crossings) for (const y of column) cut(x, y, true);
  }

  get isEmpty(): boolean {
    return this.inside.size === 0;
  }

  /**
   * Whether an edge passes between its ends through the pixel at (x, y), which has its left and lower sides and the corner
   * between them; or, when it is not to be bent, through its middle.
   */
  private passes(edge: number, x: number, y: number, isBent: boolean): boolean {
    const e = this.edges;
    const i = 4 * edge;
    const [ax, ay, bx, by] = [e[i]!, e[i + 1]!, e[i + 2]!, e[i + 3]!];
    if ((x === ax && y === ay) || (x === bx && y === by)) return false;
    if (x < Math.min(ax, bx) || x > Math.max(ax, bx) || y < Math.min(ay, by) || y > Math.max(ay, by)) return false;
    const [dx, dy] = [bx - ax, by - ay];
    const side = cross(dx, dy, x - ax, y - ay);
    if (!isBent) return side === 0;
    const reach = 0.5 * (Math.abs(dx) + Math.abs(dy));
    return Math.abs(side) < reach || (dx * dy < 0 && side === (dx > 0 ? reach : -reach));
  }

  private add(edge: number, x: number, y: number): void {
    const points = this.inside.get(edge);
    if (points) points.push(x, y);
    else this.inside.set(edge, [x, y]);
  }

  /** The edges in parts, each with the weight of the whole. */
  applied(): { edges: Float64Array; weights: Int32Array } {
    const edges: number[] = [];
    const weights: number[] = [];
    for (const [edge, weight] of this.weights.entries()) {
      const [ax, ay, bx, by] = numbersAt(this.edges, 4 * edge, 4);
      const points = this.inside.get(edge) ?? [];
      const along = (k: number) => (points[2 * k]! - ax) * (bx - ax) + (points[2 * k + 1]! - ay) * (by - ay);
      const order = Array.from({ length: points.length / 2 }, (_, k) => k).sort((k, l) => along(k) - along(l));
      let [x, y] = [ax, ay];
      for (const k of [...order, -1]) {
        const [nextX, nextY] = k === -1 ? [bx, by] : [points[2 * k]!, points[2 * k + 1]!];
        if (nextX === x && nextY === y) continue;
        edges.push(x, y, nextX, nextY);
        weights.push(weight);
        [x, y] = [nextX, nextY];
      }
    }
    return { edges: Float64Array.from(edges), weights: Int32Array.from(weights) };
  }
}

/** Puts the pixel in which two edges pass through each other, or those it may be, into `found`: y by x. */
function eachCrossing(e: Float64Array, i: number, j: number, found: Map<number, Set<number>>): void {
  const [ax, ay, bx, by] = [e[i]!, e[i + 1]!, e[i + 2]!, e[i + 3]!];
  const [cx, cy, dx, dy] = [e[j]!, e[j + 1]!, e[j + 2]!, e[j + 3]!];
  if (Math.max(cx, dx) < Math.min(ax, bx) || Math.min(cx, dx) > Math.max(ax, bx)) return;
  if (Math.max(cy, dy) < Math.min(ay, by) || Math.min(cy, dy) > Math.max(ay, by)) return;
  const c = cross(bx - ax, by - ay, cx - ax, cy - ay);
  const d = cross(bx - ax, by - ay, dx - ax, dy - ay);
  if (c === 0 || d === 0 || c > 0 === d > 0) return;
  const a = cross(dx - cx, dy - cy, ax - cx, ay - cy);
  const b = cross(dx - cx, dy - cy, bx - cx, by - cy);
  if (a === 0 || b === 0 || a > 0 === b > 0) return;
  const t = a / (a - b);
  const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
  // Adding 0 turns -0 into 0.
  for (const column of new Set([Math.round(x - UNSURE) + 0, Math.round(x + UNSURE) + 0])) {
    const rows = found.get(column) ?? new Set();
    found.set(column, rows.add(Math.round(y - UNSURE) + 0).add(Math.round(y + UNSURE) + 0));
  }
}

const cross = (ux: number, uy: number, vx: number, vy: number) => ux * vy - uy * vx;

// --- coincident edges become one ------------------------------------------------------------------------------------

interface NetEdges {
  readonly count: number;
  /** Flat x, y of the vertices, ordered by x, then y. */
  readonly points: Float64Array;
  /** Two vertices an edge, the smaller first. */
  readonly ends: Uint32Array;
  /** By how much the winding number is higher on the left of an edge than on its right. */
  readonly weights: Int32Array;
}

/**
 * Edges between the same two vertices as one; those that change nothing about the filling cancel out.
 * @param counts how often each edge is there; null for once
 */
function netEdges(edges: Float64Array, counts: Int32Array | null, fill: GridFill | 'any'): NetEdges {
  const { points, ids } = weldPoints(edges);
  const n = points.length / 2;
  const net = new Map<number, number>();
  for (let i = 0; i < ids.length; i += 2) {
    const [p, q] = [ids[i]!, ids[i + 1]!];
    const key = Math.min(p, q) * n + Math.max(p, q);
    const count = counts?.[i / 2] ?? 1;
    net.set(key, (net.get(key) ?? 0) + (p < q ? count : -count));
  }
  const ends = new Uint32Array(2 * net.size);
  const weights = new Int32Array(net.size);
  let count = 0;
  for (const [key, weight] of net) {
    if (fill === 'evenodd' ? weight % 2 === 0 : weight === 0 && fill !== 'any') continue;
    ends[2 * count] = Math.floor(key / n);
    ends[2 * count + 1] = key % n;
    weights[count++] = weight;
  }
  return { count, points, ends: ends.subarray(0, 2 * count), weights: weights.subarray(0, count) };
}

function withoutEdges({ count, points, ends, weights }: NetEdges, isGone: (edge: number) => boolean): NetEdges {
  const kept = Array.from({ length: count }, (_, edge) => edge).filter((edge) => !isGone(edge));
  return {
    count: kept.length,
    points,
    ends: Uint32Array.from(kept.flatMap((edge) => [ends[2 * edge]!, ends[2 * edge + 1]!])),
    weights: Int32Array.from(kept, (edge) => weights[edge]!),
  };
}

/** Four numbers an edge. */
function segmentsOf({ count, points, ends }: NetEdges): Float64Array {
  const segments = new Float64Array(4 * count);
  for (let i = 0; i < segments.length; i++) segments[i] = points[2 * ends[i >> 1]! + (i % 2)]!;
  return segments;
}

/** Values of one coordinate, so that a point is one exact number: (2^26 + 1)² < 2^53. */
const SPAN = 2 * GRID_REACH + 1;

/** Vertex numbers of flat points, ordered by x, then y. */
function weldPoints(flat: Float64Array): { points: Float64Array; ids: Uint32Array } {
  const keys = new Float64Array(flat.length / 2);
  for (let i = 0; i < keys.length; i++) keys[i] = (flat[2 * i]! + GRID_REACH) * SPAN + flat[2 * i + 1]! + GRID_REACH;
  const sorted = keys.slice().sort();
  const points = new Float64Array(flat.length);
  const numbers = new Map<number, number>();
  for (const key of sorted) {
    if (numbers.has(key)) continue;
    points[2 * numbers.size] = Math.floor(key / SPAN) - GRID_REACH;
    points[2 * numbers.size + 1] = (key % SPAN) - GRID_REACH;
    numbers.set(key, numbers.size);
  }
  return { points: points.subarray(0, 2 * numbers.size), ids: Uint32Array.from(keys, (key) => numbers.get(key)!) };
}

// --- the planar graph -----------------------------------------------------------------------------------------------

/** Half-edge 2e runs edge e forward, 2e + 1 backward; the twin of h is h ^ 1. Faces lie on the left. */
class Graph {
  protected readonly edges: NetEdges;
  /** Half-edges that leave vertex v, counter-clockwise: around[starts[v]] … around[starts[v + 1] − 1]. */
  protected readonly starts: Uint32Array;
  protected readonly around: Uint32Array;
  private readonly place: Uint32Array;
  private readonly grid: SegmentGrid;

  constructor(edges: NetEdges) {
    this.edges = edges;
    const half = 2 * edges.count;
    this.starts = new Uint32Array(edges.points.length / 2 + 1);
    for (const v of edges.ends) this.starts[v + 1]!++;
    for (let v = 1; v < this.starts.length; v++) this.starts[v]! += this.starts[v - 1]!;
    this.around = new Uint32Array(half);
    const fill = this.starts.slice();
    for (let h = 0; h < half; h++) this.around[fill[this.origin(h)]!++] = h;
    for (let v = 0; v + 1 < this.starts.length; v++) this.sortAround(v);
    this.place = new Uint32Array(half);
    for (const [i, h] of this.around.entries()) this.place[h] = i;
    this.grid = new SegmentGrid(segmentsOf(edges));
  }

  protected origin(h: number): number {
    return this.edges.ends[h]!;
  }

  /** Counter-clockwise, from straight down (left out) round to straight down. */
  private sortAround(v: number): void {
    const [from, to] = [this.starts[v]!, this.starts[v + 1]!];
    // Insertion: nearly every vertex has two edges.
    for (let i = from + 1; i < to; i++) {
      const h = this.around[i]!;
      let j = i;
      for (; j > from && this.isBefore(h, this.around[j - 1]!); j--) this.around[j] = this.around[j - 1]!;
      this.around[j] = h;
    }
  }

  private isBefore(g: number, h: number): boolean {
    const { points, ends } = this.edges;
    const [from, toG, toH] = [2 * ends[g]!, 2 * ends[g ^ 1]!, 2 * ends[h ^ 1]!];
    const [gx, gy] = [points[toG]! - points[from]!, points[toG + 1]! - points[from + 1]!];
    const [hx, hy] = [points[toH]! - points[from]!, points[toH + 1]! - points[from + 1]!];
    const [gLeftward, hLeftward] = [isLeftward(gx, gy), isLeftward(hx, hy)];
    return gLeftward === hLeftward ? cross(gx, gy, hx, hy) > 0 : hLeftward;
  }

  /** The next half-edge that leaves the same vertex, clockwise. */
  protected clockwise(h: number): number {
    const v = this.origin(h);
    const i = this.place[h]!;
    return this.around[i === this.starts[v]! ? this.starts[v + 1]! - 1 : i - 1]!;
  }

  /**
   * The nearest edge that passes the height of vertex v on its left, as the half-edge that runs downward.
   * @param counts which half-edges are looked for
   * @returns −1 where there is none
   */
  protected leftOf(v: number, counts: (h: number) => boolean): number {
    const { points, ends } = this.edges;
    const [x, y] = [points[2 * v]!, points[2 * v + 1]!];
    let [found, foundX] = [-1, -Infinity];
    this.grid.leftward(
      x,
      y,
      () => foundX,
      (e) => {
        const [p, q] = [2 * ends[2 * e]!, 2 * ends[2 * e + 1]!];
        const [px, py, qx, qy] = [points[p]!, points[p + 1]!, points[q]!, points[q + 1]!];
        if (py <= y === qy <= y) return;
        const rises = qy > py;
        const side = cross(qx - px, qy - py, x - px, y - py);
        const h = 2 * e + (rises ? 1 : 0);
        if (side === 0 || side < 0 !== rises || !counts(h)) return;
        if (found >= 0 && !this.isRightOf(e, found >> 1)) return;
        found = h;
        // Where it is met, well to the left of any rounding.
        foundX = px + ((qx - px) * (y - py)) / (qy - py) - 1;
      },
    );
    return found;
  }

  /** Of two edges that do not cross and pass one height, whether e is right of f; where they begin in one point, above it. */
  private isRightOf(e: number, f: number): boolean {
    const [a, b] = [this.upward(e), this.upward(f)];
    // The higher of the lower ends lies beside the other edge, and so does the lower of the upper ones.
    const low = a.y0 >= b.y0 ? -b.sideOf(a.x0, a.y0) : a.sideOf(b.x0, b.y0);
    if (low !== 0) return low > 0;
    return a.y1 <= b.y1 ? -b.sideOf(a.x1, a.y1) > 0 : a.sideOf(b.x1, b.y1) > 0;
  }

  private upward(e: number) {
    const { points, ends } = this.edges;
    const [p, q] = [2 * ends[2 * e]!, 2 * ends[2 * e + 1]!];
    const [low, high] = points[p + 1]! < points[q + 1]! ? [p, q] : [q, p];
    const [x0, y0, x1, y1] = [points[low]!, points[low + 1]!, points[high]!, points[high + 1]!];
    return { x0, y0, x1, y1, sideOf: (x: number, y: number) => cross(x1 - x0, y1 - y0, x - x0, y - y0) };
  }

  /** Rings of half-edges that follow each other, from those that may begin one. */
  protected ringsOf(
    follow: (h: number) => number,
    mayBegin: (h: number) => boolean,
  ): { rings: number[][]; ringOf: Int32Array } {
    const ringOf = new Int32Array(2 * this.edges.count).fill(-1);
    const rings: number[][] = [];
    for (const start of this.around) {
      if (ringOf[start] !== -1 || !mayBegin(start)) continue;
      const ring: number[] = [];
      for (let h = start; ringOf[h] === -1; h = follow(h)) {
        ringOf[h] = rings.length;
        ring.push(h);
      }
      rings.push(ring);
    }
    return { rings, ringOf };
  }

  private allRings() {
    return this.ringsOf(
      (h) => this.clockwise(h ^ 1),
      () => true,
    );
  }

  /** By edge, 1 where the same face lies on both sides. */
  bridges(): Uint8Array {
    const { ringOf } = this.allRings();
    return Uint8Array.from({ length: this.edges.count }, (_, e) => +(ringOf[2 * e] === ringOf[2 * e + 1]));
  }

  /** All faces but the outermost. */
  faces(): GridRegion[] {
    const { rings, ringOf } = this.allRings();
    return this.nested(rings, ringOf);
  }

  /** Counter-clockwise rings as regions, with the clockwise ones that lie directly inside them as their holes. */
  protected nested(rings: readonly (readonly number[])[], ringOf: Int32Array): GridRegion[] {
    const isOuter = rings.map((ring) => this.area(ring) > 0);
    const regions = new Map<number, { outer: GridPath; holes: GridPath[] }>();
    for (const [r, ring] of rings.entries()) if (isOuter[r]) regions.set(r, { outer: this.path(ring), holes: [] });
    const parents = rings.map((ring, r) => (isOuter[r] ? r : this.ringLeftOf(ring, ringOf)));
    for (const [r, ring] of rings.entries()) {
      if (isOuter[r]) continue;
      // What lies left of a hole may be another hole of the same region, and left of the outermost there is nothing.
      let parent = parents[r]!;
      while (parent !== -1 && !isOuter[parent]) parent = parents[parent]!;
      if (parent !== -1) regions.get(parent)!.holes.push(this.path(ring));
    }
    return [...regions.values()];
  }

  /** The ring that bounds the face to the left of a clockwise one; −1 where there is none. */
  private ringLeftOf(ring: readonly number[], ringOf: Int32Array): number {
    const v = ring.reduce((least, h) => Math.min(least, this.origin(h)), Infinity);
    const h = this.leftOf(v, (other) => ringOf[other] !== -1);
    return h === -1 ? -1 : ringOf[h]!;
  }

  private path(ring: readonly number[]): GridPath {
    const { points } = this.edges;
    return ring.map((h) => ({ x: points[2 * this.origin(h)]!, y: points[2 * this.origin(h) + 1]! }));
  }

  private area(ring: readonly number[]): number {
    const { points } = this.edges;
    const [x0, y0] = [points[2 * this.origin(ring[0]!)]!, points[2 * this.origin(ring[0]!) + 1]!];
    let twice = 0;
    for (const h of ring) {
      const [p, q] = [2 * this.origin(h), 2 * this.origin(h ^ 1)];
      twice += cross(points[p]! - x0, points[p + 1]! - y0, points[q]! - x0, points[q + 1]! - y0);
    }
    return twice;
  }
}

/** A graph whose faces are filled or not, by their winding numbers. */
class Filling extends Graph {
  private readonly isFilled: (winding: number) => boolean;
  /** Winding number on the left of each half-edge. */
  private readonly winding: Int32Array;

  constructor(edges: NetEdges, isFilled: (winding: number) => boolean) {
    super(edges);
    this.isFilled = isFilled;
    this.winding = this.windingNumbers();
  }

  private weight(h: number): number {
    const weight = this.edges.weights[h >> 1]!;
    return h % 2 === 0 ? weight : -weight;
  }

  private windingNumbers(): Int32Array {
    const UNKNOWN = -(2 ** 31);
    const winding = new Int32Array(2 * this.edges.count).fill(UNKNOWN);
    // What lies left of a piece belongs to one whose leftmost vertex came before.
    const windingLeftOf = (v: number) => {
      const h = this.leftOf(v, () => true);
      return h === -1 ? 0 : winding[h]!;
    };
    for (let v = 0; v + 1 < this.starts.length; v++) {
      if (this.starts[v] === this.starts[v + 1]) continue;
      // Vertices are ordered by x, so the first one met of each connected piece is its leftmost: nothing of the piece lies
      // to its left, and the face there is on the left of its steepest edge.
      const first = this.around[this.starts[v + 1]! - 1]!;
      if (winding[first] !== UNKNOWN) continue;
      const stack: [number, number][] = [[first, windingLeftOf(v)]];
      while (stack.length > 0) {
        const [from, value] = stack.pop()!;
        if (winding[from] !== UNKNOWN) continue;
        for (let h = from; winding[h] === UNKNOWN; h = this.clockwise(h ^ 1)) {
          winding[h] = value;
          stack.push([h ^ 1, value - this.weight(h)]);
        }
      }
    }
    return winding;
  }

  private isBoundary(h: number): boolean {
    return this.isFilled(this.winding[h]!) && !this.isFilled(this.winding[h ^ 1]!);
  }

  regions(): GridRegion[] {
    const { rings, ringOf } = this.ringsOf(
      (h) => this.following(h),
      (h) => this.isBoundary(h),
    );
    return this.nested(rings, ringOf);
  }

  /** Of the boundary that leaves where h arrives, the first one clockwise: both bound one sector of the inside. */
  private following(h: number): number {
    let next = this.clockwise(h ^ 1);
    while (!this.isBoundary(next)) next = this.clockwise(next);
    return next;
  }
}

/** Whether a direction lies in the second half of the order: from straight up (left out) over left to straight down. */
const isLeftward = (dx: number, dy: number) => dx < 0 || (dx === 0 && dy < 0);

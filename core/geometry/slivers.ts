// slivers.ts — triangles as good as nothing, which a Delaunay triangulation makes of three points nearly on a line, and how
// triangulations do without them.
import { afterHalf, type BoundedTriangles, beforeHalf, flipEdge, link, twiceArea } from './triangulate.ts';

/** Height of a triangle that files may take from it when they round its corners, over the root of the least twice an area. */
const ROUNDED = 0.04;

/**
 * Whether a triangle is more than a sliver, in files too that round its corners.
 * @param twice its area, twice
 * @param squared its longest side, squared
 * @param least twice the area that is some
 */
export function hasSize(twice: number, squared: number, least: number): boolean {
  return twice > least && twice * twice > ROUNDED * ROUNDED * least * squared;
}

/** Whether the triangle a, b, c of some points is more than a sliver, as {@link hasSize} has it. */
export function isBroad(p: ArrayLike<number>, a: number, b: number, c: number, least: number): boolean {
  const [ux, uy] = [p[2 * b]! - p[2 * a]!, p[2 * b + 1]! - p[2 * a + 1]!];
  const [vx, vy] = [p[2 * c]! - p[2 * a]!, p[2 * c + 1]! - p[2 * a + 1]!];
  const [wx, wy] = [vx - ux, vy - uy];
  return hasSize(ux * vy - uy * vx, Math.max(ux * ux + uy * uy, vx * vx + vy * vy, wx * wx + wy * wy), least);
}

/** Sides of slivers are flipped as long as the smaller of the two triangles that share one grows. */
function flipSlivers(p: ArrayLike<number>, { corners, twins }: BoundedTriangles, least: number): void {
  const thin: number[] = [];
  for (let t = 0; t < corners.length; t += 3) thin.push(t);
  while (thin.length > 0) {
    const t = thin.pop()!;
    const [u, v, w] = [corners[t]!, corners[t + 1]!, corners[t + 2]!];
    if (isBroad(p, u, v, w, least)) continue;
    let most = twiceArea(p, u, v, w);
    let best = -1;
    for (let e = t; e < t + 3; e++) {
      const f = twins[e]!;
      if (f < 0) continue;
      const [a, b, apex, other] = [corners[e]!, corners[f]!, corners[beforeHalf(e)]!, corners[beforeHalf(f)]!];
      const smaller = Math.min(twiceArea(p, apex, a, other), twiceArea(p, other, b, apex));
      if (smaller > most) [best, most] = [e, smaller];
    }
    if (best < 0) continue;
    const f = twins[best]!;
    flipEdge(corners, twins, best);
    thin.push(t, f - (f % 3));
  }
}

/** Parts of more triangles are not divided anew: that takes the cube of their number. */
const MOST_DIVIDED = 254;

/**
 * Slivers changed into broader triangles, in place: by flips of two triangles, and where no flip helps on its own by dividing
 * what lies around them anew.
 * @param points flat x, y
 * @param least twice the area that is some
 */
export function mendSlivers(points: ArrayLike<number>, triangles: BoundedTriangles, least: number): void {
  flipSlivers(points, triangles, least);
  const { corners } = triangles;
  const isDone = new Uint8Array(corners.length / 3);
  for (let t = 0; t < isDone.length; t++) {
    const e = 3 * t;
    if (isDone[t] || isBroad(points, corners[e]!, corners[e + 1]!, corners[e + 2]!, least)) continue;
    const part = partAround(triangles, t, isDone);
    const ring = ringAround(triangles, part);
    // Points inside, or holes: not what can be divided anew.
    if (ring.length === part.length + 2) divideAnew(points, triangles, { part, ring, least });
  }
}

/** The nearest triangles around one, over shared edges; those that are done are left out, and these are done now. */
function partAround({ twins }: BoundedTriangles, first: number, isDone: Uint8Array): number[] {
  const part = [first];
  isDone[first] = 1;
  for (let i = 0; i < part.length && part.length < MOST_DIVIDED; i++) {
    for (let e = 3 * part[i]!; e < 3 * part[i]! + 3 && part.length < MOST_DIVIDED; e++) {
      const t = Math.floor(twins[e]! / 3);
      if (t < 0 || isDone[t]) continue;
      isDone[t] = 1;
      part.push(t);
    }
  }
  return part;
}

/** The half-edges around some triangles in order, from one of them; those around holes are not among them. */
function ringAround({ twins }: BoundedTriangles, part: readonly number[]): number[] {
  const isIn = new Set(part);
  const isOuter = (e: number) => twins[e]! < 0 || !isIn.has(Math.floor(twins[e]! / 3));
  const first = part.flatMap((t) => [3 * t, 3 * t + 1, 3 * t + 2]).find(isOuter);
  if (first === undefined) return [];
  const ring: number[] = [];
  let e = first;
  do {
    ring.push(e);
    for (e = afterHalf(e); !isOuter(e); e = afterHalf(twins[e]!));
  } while (e !== first);
  return ring;
}

interface Part {
  /** Triangles, and the half-edges around them. */
  readonly part: readonly number[];
  readonly ring: readonly number[];
  readonly least: number;
}

/**
 * A polygon divided into as few slivers as can be, and of those ways the one with the shortest edges (Klincsek 1980, "Minimal
 * triangulations of polygonal domains").
 */
function divideAnew(p: ArrayLike<number>, { corners, twins }: BoundedTriangles, { part, ring, least }: Part): void {
  const n = ring.length;
  const ids = ring.map((e) => corners[e]!);
  const [cost, between] = [new Float64Array(n * n), new Uint32Array(n * n)];
  const length = (i: number, j: number) =>
    Math.hypot(p[2 * ids[i]!]! - p[2 * ids[j]!]!, p[2 * ids[i]! + 1]! - p[2 * ids[j]! + 1]!);
  const sliver = n * n * length(0, n >> 1) + n * n;
  for (let span = 2; span < n; span++) {
    for (let i = 0; i + span < n; i++) {
      const j = i + span;
      cost[i * n + j] = Infinity;
      for (let k = i + 1; k < j; k++) {
        if (!(twiceArea(p, ids[i]!, ids[k]!, ids[j]!) > 0)) continue;
        const own = length(i, j) + (isBroad(p, ids[i]!, ids[k]!, ids[j]!, least) ? 0 : sliver);
        const sum = cost[i * n + k]! + cost[k * n + j]! + own;
        if (sum < cost[i * n + j]!) [cost[i * n + j], between[i * n + j]] = [sum, k];
      }
    }
  }
  if (cost[n - 1] === Infinity) return;
  // What lies beyond the ring, which is about to be written over.
  const beyond = ring.map((e) => twins[e]!);
  /** The half-edge on the other side of i → j: beyond the ring, or of the triangle that is written next. */
  const open: { i: number; j: number; other: number }[] = [{ i: 0, j: n - 1, other: beyond[n - 1]! }];
  let written = 0;
  while (open.length > 0) {
    const { i, j, other } = open.pop()!;
    const k = between[i * n + j]!;
    const e = 3 * part[written++]!;
    // Corners i, k, j: edges i → k, k → j and j → i.
    for (const [at, corner] of [i, k, j].entries()) corners[e + at] = ids[corner]!;
    link(twins, e + 2, other);
    for (const [at, from, to] of [
      [0, i, k],
      [1, k, j],
    ] as const) {
      if (to === from + 1) link(twins, e + at, beyond[from]!);
      else open.push({ i: from, j: to, other: e + at });
    }
  }
}

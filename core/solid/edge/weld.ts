// weld.ts — a plane drawing without near misses: nodes that are nearly one place become one, and where a corner of a face nearly
// lies on another of its edges, the edge is led through that corner, which parts the face there.
import { uints } from '../../base/arrays.ts';

/** How far from an edge's line the node may be that the edge is led through. */
const NEAR_MISS = 4e-7;

/** Partings a suspicious face may bring about on average; many more mean that two near misses part each other in turn. */
const PATIENCE = 20;

export interface Drawing {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly times: readonly number[];
  /** Nodes that lie on a level: 0 for none, otherwise its number; only nodes with the same number may become one. */
  readonly level: ArrayLike<number>;
}

/** Nodes that were joined. */
export interface Joined {
  /** place[node] → the node it is one with. */
  readonly place: Uint32Array;
  /** Of nodes that stand for several: the middle of those on their level, or else of all, and of their times. */
  readonly moved: ReadonlyMap<number, readonly [x: number, y: number, time: number]>;
}

/**
 * Joins nodes along the edges of faces, from the shortest to the longest, as long as none moves too far.
 * @param shifts how far each node may move
 */
export function joinNodes(
  { x, y, times, level }: Drawing,
  faces: readonly Face<unknown>[],
  shifts: Float64Array,
): Joined {
  const place = uints(x.length, (i) => i);
  const find = (i: number) => {
    while (place[i] !== i) i = place[i] = place[place[i]!]!;
    return i;
  };
  const short: { a: number; b: number; length: number; shift: number }[] = [];
  for (const { corners } of faces) {
    for (let i = 0, last = corners.length - 1; i <= last; i++) {
      const [a, b] = [corners[i]!, corners[i < last ? i + 1 : 0]!];
      // Every edge inside has two faces, in one of which it rises.
      if (a > b) continue;
      const length = Math.max(Math.abs(x[a]! - x[b]!), Math.abs(y[a]! - y[b]!));
      const shift = Math.min(shifts[a]!, shifts[b]!);
      if (length < 2 * shift) short.push({ a, b, length, shift });
    }
  }
  short.sort((p, q) => p.length - q.length);
  const alone = (i: number): Box => [x[i]!, y[i]!, times[i]!, x[i]!, y[i]!, times[i]!];
  /** Around all nodes that became one, and around those of them that say where it lies. */
  const boxes = new Map<number, readonly [all: Box, seat: Box]>();
  for (const { a, b, shift } of short) {
    const [i, j] = [find(a), find(b)];
    if (i === j || (level[i] && level[j] && (level[i] !== level[j] || level[i] === RIM))) continue;
    const [keeps, goes] = level[j] && !level[i] ? [j, i] : [i, j];
    const [own, ownSeat] = boxes.get(keeps) ?? [alone(keeps), alone(keeps)];
    const [other, otherSeat] = boxes.get(goes) ?? [alone(goes), alone(goes)];
    const all = around(own, other);
    const seat = level[keeps] && !level[goes] ? ownSeat : around(ownSeat, otherSeat);
    const [cx, cy] = middle(seat);
    if (Math.hypot(Math.max(cx - all[0], all[3] - cx), Math.max(cy - all[1], all[4] - cy)) > shift) continue;
    place[goes] = keeps;
    boxes.set(keeps, [all, seat]);
  }
  const moved = new Map<number, readonly [number, number, number]>();
  for (const [i, [, seat]] of boxes) if (place[i] === i) moved.set(i, middle(seat));
  return { place: place.map((_, i) => find(i)), moved };
}

type Box = readonly [minX: number, minY: number, first: number, maxX: number, maxY: number, last: number];

const around = (p: Box, q: Box): Box => {
  const [low, high] = [Math.min, Math.max];
  return [low(p[0], q[0]), low(p[1], q[1]), low(p[2], q[2]), high(p[3], q[3]), high(p[4], q[4]), high(p[5], q[5])];
};

const middle = ([x0, y0, t0, x1, y1, t1]: Box) => [(x0 + x1) / 2, (y0 + y1) / 2, (t0 + t1) / 2] as const;

/** The level of points on the rim, none of which ever become one. */
export const RIM = 1;

/** A face of the drawing; what it is stays with its parts. */
export interface Face<Label> {
  readonly corners: readonly number[];
  readonly label: Label;
}

/** All faces, and those of them that are not as they were before. */
export interface Changed<Label> {
  readonly faces: readonly Face<Label>[];
  readonly changed: readonly Face<Label>[];
}

/** Faces with their corners where nodes are now; corners that are one place count once. */
export function placed<Label>(faces: readonly Face<Label>[], { place, moved }: Joined): Changed<Label> {
  const isOther = new Uint8Array(place.length);
  for (let i = 0; i < place.length; i++) if (place[i] !== i) isOther[i] = GONE;
  for (const node of moved.keys()) isOther[node] = MOVED;
  const result: Face<Label>[] = [];
  const changed: Face<Label>[] = [];
  for (const face of faces) {
    let [isGone, isMoved] = [false, false];
    for (const corner of face.corners) {
      isGone ||= isOther[corner] === GONE;
      isMoved ||= isOther[corner] === MOVED;
    }
    const after = isGone ? merged(face, place) : [face];
    for (const each of after) result.push(each);
    if (isGone || isMoved) for (const each of after) changed.push(each);
  }
  return { faces: result, changed };
}

const [GONE, MOVED] = [1, 2];

/** None where too few corners are left. */
function merged<Label>({ corners, label }: Face<Label>, place: Uint32Array): Face<Label>[] {
  const kept: number[] = [];
  for (const corner of corners) if (kept.at(-1) !== place[corner]) kept.push(place[corner]!);
  if (kept.length > 1 && kept[0] === kept.at(-1)) kept.pop();
  return kept.length > 2 ? [{ corners: kept, label }] : [];
}

/**
 * Faces parted wherever a corner of one lies on another of its edges, or beyond it. Edges without a face on the other side stay
 * whole.
 * @param beyond how far a corner may have come to lie beyond an edge
 * @param unknown the faces that may have to be parted
 * @returns the very same where nothing is to be parted; null when it leads in circles
 */
export function partHairs<Label>(
  { x, y }: Drawing,
  before: Changed<Label>,
  beyond: number,
  unknown = before.changed,
): Changed<Label> | null {
  const { faces, changed } = before;
  const repeating = new Set(unknown.filter(({ corners }) => repeats(corners)));
  const doubtful = new Set(unknown.filter(({ corners }) => nearMissOf(x, y, corners, beyond)));
  if (repeating.size === 0 && doubtful.size === 0) return before;
  const all: (Face<Label> | null)[] = [];
  const suspects: number[] = [];
  const fresh: Face<Label>[] = [];
  for (const face of faces) {
    if (repeating.has(face)) {
      for (const loop of loops(face)) {
        fresh.push(loop);
        if (nearMissOf(x, y, loop.corners, beyond)) suspects.push(all.length);
        all.push(loop);
      }
    } else {
      if (doubtful.has(face)) suspects.push(all.length);
      all.push(face);
    }
  }
  const near = facesAround(all as Face<Label>[], x.length);
  const parts = new Map<number, number[]>();
  /** The face that runs from a to b, −1 for none. */
  const along = (a: number, b: number) => {
    const isAlong = (f: number) => {
      const corners = all[f]?.corners ?? [];
      const at = corners.indexOf(a);
      return at >= 0 && corners[at + 1 < corners.length ? at + 1 : 0] === b;
    };
    for (let i = near.starts[a]!; i < near.starts[a + 1]!; i++) if (isAlong(near.faces[i]!)) return near.faces[i]!;
    return parts.get(a)?.find(isAlong) ?? -1;
  };
  const replace = (f: number, corners: readonly number[]) => {
    const { label } = all[f]!;
    all[f] = null;
    for (const part of loops({ corners, label })) {
      const added = all.push(part) - 1;
      for (const corner of part.corners) parts.set(corner, [...(parts.get(corner) ?? []), added]);
      suspects.push(added);
      fresh.push(part);
    }
  };
  let patience = PATIENCE * suspects.length;
  while (suspects.length > 0) {
    if (patience-- < 0) return null;
    const f = suspects.pop()!;
    const face = all[f];
    if (!face) continue;
    const miss = nearMissOf(x, y, face.corners, beyond, (a, b) => along(b, a) >= 0);
    if (!miss) continue;
    const { after, corner } = miss;
    const [a, b] = [face.corners[after]!, face.corners[(after + 1) % face.corners.length]!];
    const other = along(b, a);
    const insert = (corners: readonly number[], from: number) => {
      const at = corners.findIndex((c, i) => c === from && corners[(i + 1) % corners.length] === (from === a ? b : a));
      return [...corners.slice(0, at + 1), corner, ...corners.slice(at + 1)];
    };
    replace(other, insert(all[other]!.corners, b));
    replace(f, insert(face.corners, a));
  }
  if (fresh.length === 0 && repeating.size === 0) return before;
  const alive = new Set(all);
  return {
    faces: all.filter((face) => face !== null),
    changed: [...changed, ...fresh].filter((face) => alive.has(face)),
  };
}

/** The faces at each node: those of node i are faces[starts[i]] … faces[starts[i + 1] − 1]. */
function facesAround(all: readonly Face<unknown>[], nodes: number): { starts: Uint32Array; faces: Uint32Array } {
  const starts = new Uint32Array(nodes + 1);
  for (const { corners } of all) for (const node of corners) starts[node + 1]!++;
  for (let i = 1; i <= nodes; i++) starts[i]! += starts[i - 1]!;
  const fill = starts.slice();
  const faces = new Uint32Array(starts[nodes]!);
  for (const [f, { corners }] of all.entries()) for (const node of corners) faces[fill[node]!++] = f;
  return { starts, faces };
}

/** A face that comes back to a corner is several, or has a tail without width; what is left has each corner once. */
function loops<Label>({ corners, label }: Face<Label>): Face<Label>[] {
  const found: Face<Label>[] = [];
  const open: number[] = [];
  const at = new Map<number, number>();
  for (const corner of corners) {
    const before = at.get(corner);
    if (before !== undefined) {
      const loop = open.splice(before);
      for (const c of loop) at.delete(c);
      if (loop.length > 2) found.push({ corners: loop, label });
    }
    at.set(corner, open.length);
    open.push(corner);
  }
  if (open.length > 2) found.push({ corners: open, label });
  return found;
}

function repeats(corners: readonly number[]): boolean {
  if (corners.length > 8) return new Set(corners).size < corners.length;
  for (let i = 1; i < corners.length; i++) for (let j = 0; j < i; j++) if (corners[i] === corners[j]) return true;
  return false;
}

interface NearMiss {
  /** The edge that leaves this corner, by place in the face … */
  readonly after: number;
  /** … and the node that lies on it. */
  readonly corner: number;
}

function nearMissOf(
  x: readonly number[],
  y: readonly number[],
  corners: readonly number[],
  beyond: number,
  may?: (a: number, b: number) => boolean,
): NearMiss | null {
  const n = corners.length;
  for (let i = 0; i < n; i++) {
    const a = corners[i]!;
    const b = corners[i + 1 < n ? i + 1 : 0]!;
    const [ax, ay] = [x[a]!, y[a]!];
    const [dx, dy] = [x[b]! - ax, y[b]! - ay];
    const squared = dx * dx + dy * dy;
    for (let k = 2; k < n; k++) {
      const c = corners[i + k < n ? i + k : i + k - n]!;
      const [cx, cy] = [x[c]! - ax, y[c]! - ay];
      const cross = dx * cy - dy * cx;
      const most = cross < 0 ? beyond : NEAR_MISS;
      if (cross * cross > most * most * squared) continue;
      const along = dx * cx + dy * cy;
      if (along > 0 && along < squared && (!may || may(a, b))) return { after: i, corner: c };
    }
  }
  return null;
}

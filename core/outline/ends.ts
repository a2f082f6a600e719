// ends.ts — free ends of open lines and the gaps between them.
import { type Contour, contoursOf, linePiece, type Piece, pathOf, reverseContour } from '../path/cubic.ts';
import type { Path } from '../path/types.ts';
import { SegmentGrid } from './segment-grid.ts';

export interface LooseEnd {
  /** Number of the path, of the contour in it, and which of its ends. */
  readonly path: number;
  readonly contour: number;
  readonly atStart: boolean;
  readonly x: number;
  readonly y: number;
}

export interface Gap {
  readonly a: LooseEnd;
  readonly b: LooseEnd;
  readonly size: number;
}

/** The ends of every open contour. A contour of a single point has none. */
export function looseEnds(paths: readonly Path[]): LooseEnd[] {
  return paths.flatMap((path, p) =>
    contoursOf(path).flatMap((contour, c) => {
      const last = contour.pieces.at(-1)?.cubic;
      if (contour.isClosed || !last) return [];
      const [x, y] = contour.start;
      return [
        { path: p, contour: c, atStart: true, x, y },
        { path: p, contour: c, atStart: false, x: last[6], y: last[7] },
      ];
    }),
  );
}

/**
 * Pairs of ends no further apart than `most`, no end twice: the nearest pair of all, the nearest of what is left, and so
 * on. In each round every pair is taken whose ends are each other's nearest, which comes to the same.
 */
export function gapsBetween(ends: readonly LooseEnd[], most: number): Gap[] {
  if (ends.length < 2) return [];
  const dots = new Float64Array(4 * ends.length);
  for (const [i, { x, y }] of ends.entries()) dots.set([x, y, x, y], 4 * i);
  const grid = new SegmentGrid(dots);
  const isFree = new Uint8Array(ends.length).fill(1);
  const gaps: Gap[] = [];
  for (let open = [...ends.keys()]; open.length > 0; ) {
    const nearest = new Map<number, { other: number; size: number }>();
    for (const i of open) {
      const found = nearestFree(ends, grid, isFree, i, most);
      if (found) nearest.set(i, found);
    }
    for (const [i, { other, size }] of nearest) {
      if (i > other || nearest.get(other)?.other !== i) continue;
      isFree[i] = 0;
      isFree[other] = 0;
      gaps.push({ a: ends[i]!, b: ends[other]!, size });
    }
    open = open.filter((i) => isFree[i] === 1 && nearest.has(i));
  }
  return gaps.sort((p, q) => p.size - q.size);
}

/** Of equally near ones the pair with the lowest numbers, so that two ends always agree. */
function nearestFree(
  ends: readonly LooseEnd[],
  grid: SegmentGrid,
  isFree: Uint8Array,
  i: number,
  most: number,
): { other: number; size: number } | null {
  const { x, y } = ends[i]!;
  let [other, size] = [-1, most];
  const isBefore = (j: number) =>
    other < 0 || Math.min(i, j) - Math.min(i, other) < 0 || (Math.min(i, j) === Math.min(i, other) && j < other);
  grid.outward(
    x,
    y,
    () => size,
    (j) => {
      if (j === i || isFree[j] === 0) return;
      const distance = Math.hypot(ends[j]!.x - x, ends[j]!.y - y);
      if (distance < size || (distance === size && isBefore(j))) [other, size] = [j, distance];
    },
  );
  return other < 0 ? null : { other, size };
}

/** Ends nearer than this share of the neighbouring piece are moved onto each other; others are bridged by a line. */
const WELD_SHARE = 0.1;

/** A contour, and the place it is to have among the paths. */
interface Strand {
  readonly path: number;
  readonly contour: Contour;
  /** What its start and its end are joined to: a strand, and whether that is joined at its start. */
  readonly links: [atStart: Link | null, atEnd: Link | null];
}

interface Link {
  readonly strand: Strand;
  readonly atStart: boolean;
}

/**
 * Joins ends across gaps. Contours that come to hang together are one, in the path of the first of them, and run as it does.
 * @param gaps no end may be in two of them
 * @returns the paths, some perhaps empty because another took them in
 */
export function joinEnds(paths: readonly Path[], gaps: readonly Gap[]): Path[] {
  const strands = paths.map((path, p) =>
    contoursOf(path).map((contour): Strand => ({ path: p, contour, links: [null, null] })),
  );
  for (const { a, b } of gaps) {
    const [p, q] = [strands[a.path]![a.contour]!, strands[b.path]![b.contour]!];
    p.links[a.atStart ? 0 : 1] = { strand: q, atStart: b.atStart };
    q.links[b.atStart ? 0 : 1] = { strand: p, atStart: a.atStart };
  }
  const done = new Set<Strand>();
  const made = strands.map((list) =>
    list.flatMap((strand): Contour[] => {
      if (done.has(strand)) return [];
      const { chain, isRing } = chainOf(strand);
      for (const { strand: member } of chain) done.add(member);
      return chain.length === 1 && !isRing ? [strand.contour] : [joinedChain(chain, isRing)];
    }),
  );
  return made.map(pathOf);
}

interface Chained {
  readonly strand: Strand;
  readonly isReversed: boolean;
}

/** All that hangs together with a strand, in the order in which it runs. */
function chainOf(strand: Strand): { chain: Chained[]; isRing: boolean } {
  const before: Chained[] = [];
  // Back from its start as far as there are links.
  for (let at: Link | null = strand.links[0]; at; ) {
    if (at.strand === strand) {
      // Round to its own end; what was passed lies behind it just as well.
      return { chain: [{ strand, isReversed: false }, ...before.reverse()], isRing: true };
    }
    // One that is met at its start runs the other way.
    before.push({ strand: at.strand, isReversed: at.atStart });
    at = at.strand.links[at.atStart ? 1 : 0];
  }
  const behind: Chained[] = [];
  for (let at: Link | null = strand.links[1]; at; ) {
    behind.push({ strand: at.strand, isReversed: !at.atStart });
    at = at.strand.links[at.atStart ? 1 : 0];
  }
  return { chain: [...before.reverse(), { strand, isReversed: false }, ...behind], isRing: false };
}

/** Contours one after another, with what is between them welded or bridged. */
function joinedChain(chain: readonly Chained[], isRing: boolean): Contour {
  const pieces: Piece[] = [];
  for (const { strand, isReversed } of chain) {
    const { pieces: own } = isReversed ? reverseContour(strand.contour) : strand.contour;
    const last = pieces.pop();
    const [p, q] = last ? welded(last, own[0]!) : [null, own[0]!];
    if (p) pieces.push(p, ...bridge(p, q));
    pieces.push(q);
    for (const piece of own.slice(1)) pieces.push(piece);
  }
  if (!isRing) return { start: startOf(pieces), pieces, isClosed: false };
  // A single piece cannot be pulled at both its ends.
  if (pieces.length > 1) {
    const [last, first] = welded(pieces.at(-1)!, pieces[0]!);
    pieces[0] = first;
    pieces[pieces.length - 1] = last;
  }
  return { start: startOf(pieces), pieces: [...pieces, ...bridge(pieces.at(-1)!, pieces[0]!)], isClosed: true };
}

const startOf = (pieces: readonly Piece[]) => [pieces[0]!.cubic[0], pieces[0]!.cubic[1]] as const;

function bridge({ cubic: a }: Piece, { cubic: b }: Piece): Piece[] {
  return a[6] === b[0] && a[7] === b[1] ? [] : [linePiece(a[6], a[7], b[0], b[1])];
}

/** Both pieces ending in the middle of the gap, where that is small beside them. */
function welded(before: Piece, behind: Piece): [Piece, Piece] {
  const [a, b] = [before.cubic, behind.cubic];
  const gap = Math.hypot(b[0] - a[6], b[1] - a[7]);
  const chord = Math.min(Math.hypot(a[6] - a[0], a[7] - a[1]), Math.hypot(b[6] - b[0], b[7] - b[1]));
  if (gap > WELD_SHARE * chord) return [before, behind];
  const [x, y] = [(a[6] + b[0]) / 2, (a[7] + b[1]) / 2];
  return [
    before.isLine
      ? linePiece(a[0], a[1], x, y)
      : { isLine: false, cubic: [a[0], a[1], a[2], a[3], a[4] + x - a[6], a[5] + y - a[7], x, y] },
    behind.isLine
      ? linePiece(x, y, b[6], b[7])
      : { isLine: false, cubic: [x, y, b[2] + x - b[0], b[3] + y - b[1], b[4], b[5], b[6], b[7]] },
  ];
}

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

/** Pairs of ends no further apart than `most`, the nearest first, no end twice. */
export function gapsBetween(ends: readonly LooseEnd[], most: number): Gap[] {
  const dots = new Float64Array(4 * ends.length);
  for (const [i, { x, y }] of ends.entries()) dots.set([x, y, x, y], 4 * i);
  const grid = new SegmentGrid(dots);
  const pairs: Gap[] = [];
  for (const [i, a] of ends.entries()) {
    grid.near(a.x, a.y, most, (j) => {
      if (j <= i) return;
      const b = ends[j]!;
      const size = Math.hypot(b.x - a.x, b.y - a.y);
      if (size <= most) pairs.push({ a, b, size });
    });
  }
  pairs.sort((p, q) => p.size - q.size);
  const used = new Set<LooseEnd>();
  return pairs.filter(({ a, b }) => {
    if (used.has(a) || used.has(b)) return false;
    used.add(a).add(b);
    return true;
  });
}

/** Ends nearer than this share of the neighbouring piece are moved onto each other; others are bridged by a line. */
const WELD_SHARE = 0.1;

interface Strand {
  contour: Contour;
  readonly paths: Set<number>;
}

/**
 * Joins ends across gaps. Contours that come to hang together are one, in the path of the first of them.
 * @returns the paths, some perhaps empty because another took them in
 */
export function joinEnds(paths: readonly Path[], gaps: readonly Gap[]): Path[] {
  const strands = paths.map((path, p) => contoursOf(path).map((contour): Strand => ({ contour, paths: new Set([p]) })));
  // Which strand an end belongs to now, and which of its ends it is.
  const place = new Map<string, { strand: Strand; atStart: boolean }>();
  const key = (end: LooseEnd) => `${end.path} ${end.contour} ${end.atStart}`;
  for (const end of looseEnds(paths)) {
    place.set(key(end), { strand: strands[end.path]![end.contour]!, atStart: end.atStart });
  }
  const owner = new Map<Strand, [path: number, contour: number]>();
  for (const [p, list] of strands.entries()) for (const [c, strand] of list.entries()) owner.set(strand, [p, c]);
  const gone = new Set<Strand>();
  for (const { a, b } of gaps) {
    const [from, to] = [place.get(key(a))!, place.get(key(b))!];
    if (from.strand === to.strand) {
      from.strand.contour = closedOver(from.strand.contour);
      continue;
    }
    // The one that comes first in the drawing takes the other in.
    const isFirst = isBefore(owner.get(from.strand)!, owner.get(to.strand)!);
    const [keeper, taken] = isFirst ? [from, to] : [to, from];
    const head = keeper.atStart ? reverseContour(keeper.strand.contour) : keeper.strand.contour;
    const tail = taken.atStart ? taken.strand.contour : reverseContour(taken.strand.contour);
    keeper.strand.contour = linked(head, tail);
    gone.add(taken.strand);
    for (const entry of place.values()) {
      if (entry === from || entry === to) continue;
      if (entry.strand === keeper.strand) entry.atStart = true;
      if (entry.strand === taken.strand) {
        entry.strand = keeper.strand;
        entry.atStart = false;
      }
    }
  }
  return strands.map((list) => pathOf(list.filter((strand) => !gone.has(strand)).map(({ contour }) => contour)));
}

const isBefore = ([p, c]: [number, number], [q, d]: [number, number]) => p < q || (p === q && c < d);

/** One contour after another, with what is between them welded or bridged. */
function linked(head: Contour, tail: Contour): Contour {
  const [last, first] = [head.pieces.at(-1)!, tail.pieces[0]!];
  const [p, q] = welded(last, first);
  const before = [...head.pieces.slice(0, -1), p];
  const behind = [q, ...tail.pieces.slice(1)];
  return { start: startOf(before), pieces: [...before, ...bridge(p, q), ...behind], isClosed: false };
}

function closedOver({ start, pieces }: Contour): Contour {
  const [last, first] = [pieces.at(-1)!, pieces[0]!];
  // A single piece cannot be pulled at both its ends.
  const [p, q] = pieces.length > 1 ? welded(last, first) : [last, first];
  const closed = pieces.length > 1 ? [q, ...pieces.slice(1, -1), p] : pieces;
  return { start: pieces.length > 1 ? startOf(closed) : start, pieces: [...closed, ...bridge(p, q)], isClosed: true };
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

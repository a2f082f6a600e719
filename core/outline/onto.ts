// onto.ts — free ends of lines led on to the line they stop short of, which itself stays as it is.
import { contoursOf, linePiece, pathOf } from '../path/cubic.ts';
import { polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import type { LooseEnd } from './ends.ts';
import { SegmentGrid } from './segment-grid.ts';

/** Chords stray this share of the widest gap. */
const CHORD_SHARE = 1 / 100;
/** An end goes straight on where it meets the line no further off than this, in nearest distances. */
const STRAIGHT = 1.5;

interface Foot {
  readonly end: LooseEnd;
  readonly x: number;
  readonly y: number;
}

/**
 * Where each end meets the nearest line that is no further off than `most`: straight on if that is about as near, else at its foot.
 * The end's own line counts from three times as far along it. An end that lies on a line already has no gap.
 */
function feetOf(paths: readonly Path[], ends: readonly LooseEnd[], most: number): Foot[] {
  const segments: number[] = [];
  const owners: { path: number; contour: number; before: number; behind: number }[] = [];
  for (const [path, own] of paths.entries()) {
    for (const [contour, { points, isClosed }] of polylines(own, CHORD_SHARE * most).entries()) {
      const count = points.length / 2;
      const lengths = Array.from({ length: isClosed ? count : count - 1 }, (_, i) => {
        const j = (i + 1) % count;
        return Math.hypot(points[2 * j]! - points[2 * i]!, points[2 * j + 1]! - points[2 * i + 1]!);
      });
      const whole = lengths.reduce((sum, v) => sum + v, 0);
      let before = 0;
      for (const [i, length] of lengths.entries()) {
        const j = (i + 1) % count;
        segments.push(points[2 * i]!, points[2 * i + 1]!, points[2 * j]!, points[2 * j + 1]!);
        owners.push({ path, contour, before, behind: whole - before - length });
        before += length;
      }
    }
  }
  if (segments.length === 0) return [];
  const grid = new SegmentGrid(Float64Array.from(segments));
  const alongOwn = (end: LooseEnd, i: number) => {
    const { path, contour, before, behind } = owners[i]!;
    if (path !== end.path || contour !== end.contour) return Infinity;
    return end.atStart ? before : behind;
  };
  return ends.flatMap((end): Foot[] => {
    let [best, size] = [-1, most];
    grid.outward(
      end.x,
      end.y,
      () => size,
      (i) => {
        if (alongOwn(end, i) < 3 * most) return;
        const { x, y } = footOn(segments, i, end);
        const distance = Math.hypot(x - end.x, y - end.y);
        if (distance < size || (best < 0 && distance === size)) [best, size] = [i, distance];
      },
    );
    // On the line within what its chords stray: nothing is open there.
    if (best < 0 || size <= CHORD_SHARE * most) return [];
    return [{ end, ...(straightOn(paths, segments, best, end, STRAIGHT * size) ?? footOn(segments, best, end)) }];
  });
}

function footOn(segments: readonly number[], i: number, { x, y }: LooseEnd): { x: number; y: number } {
  const [ax, ay, bx, by] = segments.slice(4 * i, 4 * i + 4) as [number, number, number, number];
  const [dx, dy] = [bx - ax, by - ay];
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / length2)) : 0;
  return { x: ax + t * dx, y: ay + t * dy };
}

/** Where the end, going on as it runs, meets a segment; null where it does not, or only further off than `most`. */
function straightOn(
  paths: readonly Path[],
  segments: readonly number[],
  i: number,
  { path, contour, atStart, x, y }: LooseEnd,
  most: number,
): { x: number; y: number } | null {
  const { pieces } = contoursOf(paths[path]!)[contour]!;
  const cubic = (atStart ? pieces[0] : pieces.at(-1))!.cubic;
  const back = atStart ? ([2, 4, 6] as const) : ([4, 2, 0] as const);
  const from = back.find((k) => cubic[k] !== x || cubic[k + 1] !== y);
  if (from === undefined) return null;
  const [ux, uy] = [x - cubic[from]!, y - cubic[from + 1]!];
  const [ax, ay, bx, by] = segments.slice(4 * i, 4 * i + 4) as [number, number, number, number];
  const [dx, dy] = [bx - ax, by - ay];
  const cross = ux * dy - uy * dx;
  if (cross === 0) return null;
  const along = ((ax - x) * dy - (ay - y) * dx) / cross;
  const across = ((ax - x) * uy - (ay - y) * ux) / cross;
  const reach = along * Math.hypot(ux, uy);
  return along > 0 && reach <= most && across >= 0 && across <= 1 ? { x: x + along * ux, y: y + along * uy } : null;
}

/** @returns the paths with such ends led on by a line each, and how many were */
export function leadOnto(
  paths: readonly Path[],
  ends: readonly LooseEnd[],
  most: number,
): { paths: readonly Path[]; led: number } {
  const feet = feetOf(paths, ends, most);
  if (feet.length === 0) return { paths, led: 0 };
  const byPath = new Map<number, Foot[]>();
  for (const foot of feet) byPath.set(foot.end.path, [...(byPath.get(foot.end.path) ?? []), foot]);
  const made = paths.map((path, p) => {
    const own = byPath.get(p);
    if (!own) return path;
    const contours = contoursOf(path).map((contour, c) => {
      const at = (atStart: boolean) => own.find(({ end }) => end.contour === c && end.atStart === atStart);
      const [first, last] = [at(true), at(false)];
      const pieces = [
        ...(first ? [linePiece(first.x, first.y, contour.start[0], contour.start[1])] : []),
        ...contour.pieces,
        ...(last ? [linePiece(last.end.x, last.end.y, last.x, last.y)] : []),
      ];
      return { ...contour, start: first ? ([first.x, first.y] as const) : contour.start, pieces };
    });
    return pathOf(contours);
  });
  return { paths: made, led: feet.length };
}

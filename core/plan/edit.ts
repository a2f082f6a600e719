// edit.ts — walls changed by hand: made along lines, their ends moved together, openings found and kept in their places.
import { distanceToSegment, polylines } from '../path/flatten.ts';
import type { Spot } from '../path/points.ts';
import type { Path } from '../path/types.ts';
import { meeting, pieceOf, type WallPiece } from './bands.ts';
import type { Opening, Wall } from './schema.ts';

/** Curves become walls of straight pieces that stray by at most this share of their thickness. */
const STRAY = 0.05;

/** Walls whose middle lines are drawn. @param firstNumber for their ids */
export function wallsAlong(paths: readonly Path[], thickness: number, firstNumber = 1): Wall[] {
  return paths
    .flatMap((path) => polylines(path, STRAY * thickness))
    .flatMap(({ points, isClosed }): Wall[] => {
      const spots = Array.from({ length: points.length / 2 }, (_, i): [number, number] => [
        points[2 * i]!,
        points[2 * i + 1]!,
      ]);
      const isAgain = ([x, y]: Spot, other: Spot | undefined) => other?.[0] === x && other[1] === y;
      const own = spots.filter((spot, i) => !isAgain(spot, spots[i - 1]));
      if (isClosed && own.length > 1 && isAgain(own[0]!, own.at(-1))) own.pop();
      const isRing = isClosed && own.length > 2;
      return own.length > 1 ? [{ id: '', points: own, isClosed: isRing, thickness, openings: [] }] : [];
    })
    .map((wall, i) => ({ ...wall, id: `wall-${firstNumber + i}` }));
}

export interface OnWall {
  readonly wall: string;
  readonly piece: number;
  /** Share of the piece, 0 at its start. */
  readonly at: number;
  readonly distance: number;
}

/** The place on a middle line that is nearest; null where there are no walls. */
export function nearestOnWalls(walls: readonly Wall[], place: Spot): OnWall | null {
  let best: OnWall | null = null;
  for (const wall of walls) {
    for (const piece of wall.points.keys()) {
      const found = pieceOf(wall, piece);
      if (!found) continue;
      const { start, way, length } = found;
      const along = (place[0] - start[0]) * way[0] + (place[1] - start[1]) * way[1];
      const at = Math.min(1, Math.max(0, along / length));
      const [x, y] = [start[0] + way[0] * at * length, start[1] + way[1] * at * length];
      const distance = Math.hypot(place[0] - x, place[1] - y);
      if (!best || distance < best.distance) best = { wall: wall.id, piece, at, distance };
    }
  }
  return best;
}

/**
 * All points of walls within `reach` of `from`, moved to `to`. Ends that stood on a piece which moves along stay on it,
 * each in its own direction; openings keep their distance from the ends that stay.
 */
export function moveNode(walls: readonly Wall[], from: Spot, to: Spot, reach: number): Wall[] {
  const moved = walls.map(
    ({ points }) => new Set(points.flatMap((point, i) => (distanceBetween(point, from) <= reach ? [i] : []))),
  );
  const turned = walls.map((wall, w) => withPoints(wall, moved[w]!, () => to));
  const pieces = walls.flatMap((wall, w) =>
    wall.points.flatMap((_, i) => {
      const isMoved = moved[w]!.has(i) || moved[w]!.has((i + 1) % wall.points.length);
      const [before, after] = [pieceOf(wall, i), pieceOf(turned[w]!, i)];
      return isMoved && before && after ? [{ before, after }] : [];
    }),
  );
  return walls.map((wall, w) => {
    // Only ends follow; what is moved itself is where it was taken.
    const ends = wall.isClosed ? [] : [0, wall.points.length - 1].filter((i) => !moved[w]!.has(i));
    const followed = new Map<number, Spot>();
    for (const i of ends) {
      const at = wall.points[i]!;
      const on = pieces.find(({ before }) => isOnPiece(before, at, reach));
      const own = pieceOf(wall, i === 0 ? 0 : i - 1);
      const place = on && own && meeting(at, own.way, on.after.start, on.after.way);
      if (place && isOnPiece(on.after, place, reach)) followed.set(i, place);
    }
    if (moved[w]!.size === 0 && followed.size === 0) return wall;
    const all = new Set([...moved[w]!, ...followed.keys()]);
    const next = withPoints(wall, all, (i) => followed.get(i) ?? to);
    return { ...next, openings: wall.openings.map((opening) => kept(opening, wall, next, all)) };
  });
}

const distanceBetween = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);

const withPoints = (wall: Wall, which: ReadonlySet<number>, place: (index: number) => Spot): Wall => ({
  ...wall,
  points: wall.points.map((point, i): [number, number] => (which.has(i) ? [...place(i)] : point)),
});

const isOnPiece = ({ start, end }: WallPiece, [x, y]: Spot, reach: number): boolean =>
  distanceToSegment(x, y, start[0], start[1], end[0], end[1]) <= reach;

/** An opening in its place although the piece it is on became longer or shorter, or turned. */
function kept(opening: Opening, before: Wall, after: Wall, moved: ReadonlySet<number>): Opening {
  const [old, piece] = [pieceOf(before, opening.piece), pieceOf(after, opening.piece)];
  if (!old || !piece) return opening;
  const end = (opening.piece + 1) % before.points.length;
  const isStartMoved = moved.has(opening.piece);
  if (isStartMoved && moved.has(end)) return opening;
  const fromStart = opening.at * old.length;
  const along = isStartMoved ? piece.length - (old.length - fromStart) : fromStart;
  return { ...opening, at: Math.min(1, Math.max(0, along / piece.length)) };
}

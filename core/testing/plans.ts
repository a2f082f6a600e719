// plans.ts — made-up floor plans: a rectangle parted again and again, with doors and windows clear of the corners.
import type { Path, Segment } from '../path/types.ts';
import { pieceOf } from '../plan/bands.ts';
import type { Opening, Wall } from '../plan/schema.ts';

export interface PlanOptions {
  readonly width: number;
  readonly height: number;
  readonly outer: number;
  readonly inner: number;
  /** No room gets narrower than this. */
  readonly least: number;
  readonly opening: number;
}

interface Room {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** @param random numbers from 0 to 1 */
export function randomPlan(random: () => number, options: PlanOptions): Wall[] {
  const { width, height, outer, inner, least, opening } = options;
  const walls: Wall[] = [];
  const add = (x0: number, y0: number, x1: number, y1: number, thickness: number) => {
    const n = walls.length + 1;
    const length = Math.hypot(x1 - x0, y1 - y0);
    const room = length - 2 * (outer + opening);
    const openings: Opening[] = [];
    if (room > 0 && random() < 0.7) {
      const at = 0.5 + ((random() - 0.5) * room) / length;
      const kind = thickness === outer && random() < 0.6 ? 'window' : 'door';
      const swing = { hinge: n % 2 === 0 ? 'start' : 'end', side: n % 3 === 0 ? 'left' : 'right' } as const;
      const size = { width: opening, sill: 0, head: 2.1 };
      openings.push({ id: `${n}`, kind, piece: 0, at, ...size, ...(kind === 'door' ? { swing } : {}) });
    }
    const points: [number, number][] = [
      [x0, y0],
      [x1, y1],
    ];
    walls.push({ id: `wall-${n}`, points, isClosed: false, thickness, openings });
  };
  add(0, 0, width, 0, outer);
  add(width, 0, width, height, outer);
  add(width, height, 0, height, outer);
  add(0, height, 0, 0, outer);
  const rooms: Room[] = [{ x0: 0, y0: 0, x1: width, y1: height }];
  for (let room = rooms.pop(); room; room = rooms.pop()) {
    const { x0, y0, x1, y1 } = room;
    const isWide = x1 - x0 > y1 - y0;
    const [from, to] = isWide ? [x0, x1] : [y0, y1];
    if (to - from < 2 * least) continue;
    const cut = from + least + random() * (to - from - 2 * least);
    // Walls that end face to face on both sides of another would leave no room for its doors.
    if (walls.some(({ openings, points }) => openings.some((hole) => isOnOpening(points, hole, isWide, cut, room)))) {
      continue;
    }
    if (isWide) add(cut, y0, cut, y1, inner);
    else add(x0, cut, x1, cut, inner);
    if (isWide) rooms.push({ x0, y0, x1: cut, y1 }, { x0: cut, y0, x1, y1 });
    else rooms.push({ x0, y0, x1, y1: cut }, { x0, y0: cut, x1, y1 });
  }
  return walls;
}

/** Whether a wall at `cut` would end in an opening, or too near one, of a wall it meets. */
function isOnOpening(points: Wall['points'], hole: Opening, isWide: boolean, cut: number, room: Room): boolean {
  const [a, b] = points as [[number, number], [number, number]];
  const place = [a[0] + (b[0] - a[0]) * hole.at, a[1] + (b[1] - a[1]) * hole.at] as const;
  const isAlong = isWide ? a[1] === b[1] : a[0] === b[0];
  const isBeside = isWide ? a[1] === room.y0 || a[1] === room.y1 : a[0] === room.x0 || a[0] === room.x1;
  return isAlong && isBeside && Math.abs(place[isWide ? 0 : 1] - cut) < 1.2 * hole.width;
}

/** What a plan shows in its openings: the leaf of a door and its swing, glass and its sills in a window. */
export function openingLines(walls: readonly Wall[]): Path {
  return walls.flatMap((wall) =>
    wall.openings.flatMap((opening): Segment[] => {
      const { start, way, length } = pieceOf(wall, opening.piece)!;
      const sign = opening.swing?.side === 'left' ? -1 : 1;
      const place = (along: number, across: number): [number, number] => [
        start[0] + way[0] * along - way[1] * sign * across,
        start[1] + way[1] * along + way[0] * sign * across,
      ];
      const turn = opening.swing?.hinge === 'end' ? -1 : 1;
      const [from, to] = [-1, 1].map((end) => opening.at * length + (end * turn * opening.width) / 2) as [
        number,
        number,
      ];
      const half = wall.thickness / 2;
      if (opening.kind === 'window') {
        return [-half, 0, half].flatMap((across): Segment[] => [
          ['M', ...place(from, across)],
          ['L', ...place(to, across)],
        ]);
      }
      // A quarter circle from the end of the open leaf to the other jamb.
      const [w, k] = [opening.width, 0.5523 * opening.width];
      return [
        ['M', ...place(from, half)],
        ['L', ...place(from, half + w)],
        ['C', ...place(from + turn * k, half + w), ...place(to, half + k), ...place(to, half)],
      ];
    }),
  );
}

/** Numbers from 0 to 1 that are the same for the same seed (a linear congruential generator, Numerical Recipes §7.1). */
export function numbersFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

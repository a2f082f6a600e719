// placement.ts — where a layer or a group stands and how it is turned, as data of the document: nothing in it changes a length, so a
// mesh that is placed is the very same mesh.
import { z } from 'zod';
import { height } from '../base/quantities.ts';
import {
  about,
  MIRROR,
  moved,
  type Point,
  product,
  type Rigid,
  STAY,
  shift,
  turn,
  turnAbout,
} from '../geometry/rigid.ts';
import { placeOn, type Way } from '../path/way.ts';

/** Points that a thing can be turned about, found in what it is now: the middle of its box, of its area, of its volume, of its underside. */
export const MIDDLES = ['box', 'area', 'volume', 'bottom'] as const;

const place = () => z.tuple([height(), height(), height()]);
const degrees = z.number().min(-36_000).max(36_000);

/** One of {@link MIDDLES}, or a point where the thing stood before it was placed. */
export const MiddleSchema = z.union([z.enum(MIDDLES), place()]);
export type Middle = z.infer<typeof MiddleSchema>;

export const MOST_COPIES = 500;
const count = z.int().min(2).max(MOST_COPIES);

/** Copies share one mesh. They are counted with the first, which stays where it is. */
export const CopiesSchema = z.discriminatedUnion('along', [
  z.object({ along: z.literal('line'), count, step: place() }),
  z.object({
    along: z.literal('ring'),
    count,
    axis: z.enum(['x', 'y', 'z']),
    /** A point of the axis. */
    centre: place(),
    /** Degrees from the first to the last; 360 for a whole ring, in which the last is followed by the first. */
    span: degrees,
    /** Whether they turn with the ring, or all look the same way. */
    isTurned: z.boolean(),
  }),
  z.object({
    along: z.literal('path'),
    count,
    /** The layer whose longest outline or line is the path, as it is drawn. */
    layer: z.string().min(1).max(200),
    /** Whether they turn with the path, or all look the same way. */
    isTurned: z.boolean(),
  }),
]);
export type Copies = z.infer<typeof CopiesSchema>;

export const PlacementSchema = z.object({
  /** Along x, y and z. */
  move: place(),
  /** Degrees, counter-clockwise: about x, then about y, then about z, as the world's axes. */
  turn: z.tuple([degrees, degrees, degrees]),
  /** Left and right exchanged, before it is turned. */
  isMirrored: z.boolean(),
  middle: MiddleSchema,
  copies: CopiesSchema.optional(),
});
export type Placement = z.infer<typeof PlacementSchema>;

export const UNPLACED: Placement = { move: [0, 0, 0], turn: [0, 0, 0], isMirrored: false, middle: 'box' };

/** @param middle the point it is turned about */
export function rigidOf({ move, turn: by, isMirrored }: Placement, middle: Point): Rigid {
  const turned = turn(by);
  return product(shift(move), about(middle, isMirrored ? product(turned, MIRROR) : turned));
}

/**
 * Where each of the copies stands, from where the first one does; the first alone where there are none.
 * @param pathOf the way along the path of a layer; null where there is none
 */
export function copiesOf(copies: Copies | undefined, first: Point, pathOf: (layer: string) => Way | null): Rigid[] {
  if (!copies) return [STAY];
  const { count: n } = copies;
  if (copies.along === 'line') {
    return Array.from({ length: n }, (_, i) => shift([i * copies.step[0], i * copies.step[1], i * copies.step[2]]));
  }
  if (copies.along === 'path') return alongPath(copies, pathOf(copies.layer));
  const { axis, centre, span, isTurned } = copies;
  const angle = Math.abs(span) === 360 ? span / n : span / (n - 1);
  return Array.from({ length: n }, (_, i) => {
    const round = about(centre, turnAbout(axis, i * angle));
    if (isTurned) return round;
    const to = moved(round, first);
    return shift([to[0] - first[0], to[1] - first[1], to[2] - first[2]]);
  });
}

/** Equal distances apart: from end to end of an open path, all round a closed one. */
function alongPath({ count: n, isTurned }: Extract<Copies, { along: 'path' }>, way: Way | null): Rigid[] {
  if (!way) return [STAY];
  const step = way.isClosed ? way.length / n : way.length / (n - 1);
  const start = placeOn(way, 0);
  return Array.from({ length: n }, (_, i) => {
    const { x, y, ux, uy } = placeOn(way, i * step);
    const there = shift([x - start.x, y - start.y, 0]);
    if (!isTurned) return there;
    const angle = Math.atan2(uy, ux) - Math.atan2(start.uy, start.ux);
    return product(there, about([start.x, start.y, 0], turnAbout('z', (180 / Math.PI) * angle)));
  });
}

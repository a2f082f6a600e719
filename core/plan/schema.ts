// schema.ts — walls and their openings as data. Places are in user units of their source, y down.
import { z } from 'zod';

const coordinate = z.number().min(-1e9).max(1e9);
const size = z.number().min(0).max(1e9);

export const OPENING_KINDS = ['door', 'window'] as const;

export const HINGES = ['start', 'end', 'both'] as const;
export const SWING_SIDES = ['left', 'right'] as const;

/** Where a door hangs, at both jambs where it has two leaves, and to which side it opens, for one who goes along its piece of wall. */
export const SwingSchema = z.object({ hinge: z.enum(HINGES), side: z.enum(SWING_SIDES) });

export const OpeningSchema = z.object({
  id: z.string().min(1).max(60),
  kind: z.enum(OPENING_KINDS),
  /** Number of the piece of its wall, and where on it the middle lies: 0 at its start, 1 at its end. */
  piece: z.int().min(0).max(10_000),
  at: z.number().min(0).max(1),
  width: z.number().min(1e-9).max(1e9),
  /** Heights above the floor. */
  sill: size,
  head: size,
  /** Of a door; left out where nothing is known of it. */
  swing: SwingSchema.optional(),
});

export const WallSchema = z.object({
  id: z.string().min(1).max(60),
  /** Middle line. */
  points: z
    .array(z.tuple([coordinate, coordinate]))
    .min(2)
    .max(10_000),
  isClosed: z.boolean(),
  thickness: z.number().min(1e-9).max(1e9),
  openings: z.array(OpeningSchema).max(1000),
});

export type Wall = z.infer<typeof WallSchema>;
export type Opening = z.infer<typeof OpeningSchema>;
export type Swing = z.infer<typeof SwingSchema>;
export type OpeningKind = Opening['kind'];

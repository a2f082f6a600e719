// schema.ts — edits of outlines as data: what is done to the shapes of a source before layers are built of them. They are
// kept in order, can be switched off, and are done again whenever the source changes.
import { z } from 'zod';
import { CAPS, JOINS } from '../drawing.ts';
import { ColourSchema } from '../materials/schema.ts';
import { COMBINATIONS } from '../outline/combine.ts';
import { WallSchema } from '../plan/schema.ts';

/** Places and lengths of edits are in user units of their source, y down. */
const coordinate = z.number().min(-1e9).max(1e9);
const size = z.number().min(0).max(1e9);
export const ShapeIdSchema = z.string().min(1).max(2000);
const shapes = z.array(ShapeIdSchema).min(1).max(100_000);
const pathData = z.string().max(8_000_000);
/** Affine: a, b, c, d, e, f as in SVG. */
const matrix = z.tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate]);

export const ORDERS = ['front', 'forward', 'backward', 'back'] as const;
export type Order = (typeof ORDERS)[number];

export const StrokeSchema = z.object({
  width: z.number().min(1e-9).max(1e9),
  join: z.enum(JOINS),
  cap: z.enum(CAPS),
  mitreLimit: z.number().min(1).max(1e3),
  dashes: z.array(size).max(64),
  dashOffset: coordinate,
});

/** A shape drawn by hand. */
export const DrawnSchema = z.object({
  id: ShapeIdSchema,
  name: z.string().max(120),
  d: pathData,
  fillRule: z.enum(['nonzero', 'evenodd']).optional(),
  colour: ColourSchema,
  /** Null for a filled shape. */
  stroke: StrokeSchema.nullable(),
});

export const ActionSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('remove'), shapes }),
  z.object({
    do: z.literal('restyle'),
    shapes,
    colour: ColourSchema.optional(),
    fillRule: z.enum(['nonzero', 'evenodd']).optional(),
    /** Null makes it a filled shape. */
    stroke: StrokeSchema.nullable().optional(),
  }),
  /** Another path for a shape: points and handles moved, inserted, deleted by hand. */
  z.object({ do: z.literal('path'), shape: ShapeIdSchema, d: pathData }),
  z.object({ do: z.literal('draw'), shapes: z.array(DrawnSchema).min(1).max(10_000) }),
  z.object({ do: z.literal('move'), shapes, matrix }),
  /** Copies in front of everything, moved. */
  z.object({ do: z.literal('copy'), shapes, matrix }),
  /** Another place from back to front, among all shapes. */
  z.object({ do: z.literal('order'), shapes, to: z.enum(ORDERS) }),
  /** The first shape takes the others in, or loses them, or keeps what they share. */
  z.object({ do: z.literal('combine'), how: z.enum(COMBINATIONS), shapes }),
  /** Shapes of one colour that cover the same place become one, those of each such lot by themselves. */
  z.object({ do: z.literal('merge'), shapes }),
  /** Each shape by itself: its boundary no longer crosses itself, and looks the same. */
  z.object({ do: z.literal('unite'), shapes }),
  /** Strokes become filled outlines. */
  z.object({ do: z.literal('outline'), shapes, stroke: StrokeSchema.partial().optional() }),
  /** Outward where positive. */
  z.object({ do: z.literal('grow'), shapes, by: coordinate, join: z.enum(JOINS) }),
  /** Ends of open lines that are no further apart than `gap` are joined. */
  z.object({ do: z.literal('close'), shapes, gap: size }),
  /** Faces between lines that hold one of the places. */
  z.object({
    do: z.literal('faces'),
    shapes,
    places: z
      .array(z.tuple([coordinate, coordinate]))
      .min(1)
      .max(10_000),
    colour: ColourSchema,
    keepsLines: z.boolean(),
  }),
  /** What lies left of the line stays, what lies right of it becomes a shape of its own. */
  z.object({ do: z.literal('split'), shapes, line: pathData }),
  /** Parts that do not touch become shapes of their own; `below`: only those with less area, all together. */
  z.object({ do: z.literal('separate'), shapes, below: size.optional() }),
  z.object({ do: z.literal('simplify'), shapes, tolerance: z.number().min(1e-9).max(1e9) }),
  /** Walls stand for the shapes they were drawn after, if any. */
  z.object({
    do: z.literal('walls'),
    after: z.array(ShapeIdSchema).max(100_000),
    walls: z.array(WallSchema).max(10_000),
    colour: ColourSchema,
  }),
]);

export const EditSchema = z.object({ id: z.string().min(1).max(60), on: z.boolean(), action: ActionSchema });

export type EditAction = z.infer<typeof ActionSchema>;
export type EditActionOf<K extends EditAction['do']> = Extract<EditAction, { do: K }>;
export type Edit = z.infer<typeof EditSchema>;

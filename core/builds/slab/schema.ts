// schema.ts — a slab's settings: outlines extruded, with an edge on front and back.
import { z } from 'zod';
import { height, LEAST, length } from '../../base/quantities.ts';
import { CORNERS } from '../../solid/edge/corners.ts';
import { DOMES } from '../../solid/form.ts';
import { FACE_MESHES } from '../../solid/front/front.ts';
import { MOST_CURVE_POINTS, PROFILES } from '../../solid/profile.ts';
import { BEYOND, CAPPED, WAYS } from '../../solid/slab.ts';

export const SLAB_LIMITS = { steps: 32, wallRows: 64, regions: 40 } as const;

const profileName = z.string().trim().min(1).max(120);

/** A profile drawn by hand, saved under a name. */
export const DrawnProfileSchema = z.object({
  name: profileName,
  /** From the wall at (0, 0), left out, to the front at (1, 1), left out: shares of reach and rise. */
  points: z
    .array(z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]))
    .max(MOST_CURVE_POINTS)
    .refine((points) => points.every(([x], i) => i === 0 || x >= points[i - 1]![0]), 'points must not run back'),
  isSmooth: z.boolean(),
});

/** What an edge looks like. */
export const EdgeShapeSchema = z.object({
  /** One of those that are known, or a drawn one by its name. */
  profile: z.union([z.enum(PROFILES), z.object({ drawn: profileName })]),
  way: z.enum(WAYS),
  /** How far in, or out. */
  reach: length(),
  /** How far down; null for as far as it reaches. */
  rise: z.nullable(length()),
  steps: z.int().min(1).max(SLAB_LIMITS.steps),
  /** What becomes of it where it reaches further than a stroke is wide. */
  beyond: z.enum(BEYOND),
  /** How it goes round corners that point inward. */
  corners: z.enum(CORNERS),
  /** A mitred corner that would run ahead by more reaches than this is cut square. */
  mitreLimit: z.number().min(1).max(100),
});

export const EdgeSchema = EdgeShapeSchema.extend({
  /** Which rims have it. */
  on: z.enum(['none', 'front', 'back', 'both']),
});

/** What its front is like where it is not flat. */
export const FrontSchema = z.discriminatedUnion('is', [
  z.object({ is: z.literal('flat') }),
  /** Rising by an angle towards a direction, both in degrees; as deep as it says at the middle of its area. */
  z.object({
    is: z.literal('slanted'),
    degrees: z.number().min(-80).max(80),
    towardsDeg: z.number().min(-360).max(360),
  }),
  /** Domed by the distance from its rim; below 0 it sinks. */
  z.object({ is: z.literal('crowned'), height: height(), dome: z.enum(DOMES) }),
]);
export type FrontShape = z.infer<typeof FrontSchema>;

export const SlabSchema = z.object({
  kind: z.literal('slab'),
  /** How thick it is, edges included. */
  depth: length(LEAST),
  edge: EdgeSchema,
  /** The back's edge where it is not like the front's. */
  backEdge: z.nullable(EdgeShapeSchema),
  /** How front and back are divided. */
  faces: z.enum(FACE_MESHES),
  /** Target edge length of even faces, side of the squares of a grid. */
  cell: length(LEAST),
  /** Strips the wall is divided into. */
  wallRows: z.int().min(1).max(SLAB_LIMITS.wallRows),
  /** Which of front and back are closed with faces. */
  caps: z.enum(CAPPED),
  front: FrontSchema.optional(),
  /** Layers whose outlines, where they lie on the front, stand out of it, or sink into it below 0. */
  regions: z
    .array(z.object({ layer: z.string().min(1).max(200), by: height() }))
    .max(SLAB_LIMITS.regions)
    .optional(),
});

export const SlabChangeSchema = SlabSchema.omit({ kind: true })
  .extend({ edge: EdgeSchema.partial(), backEdge: z.nullable(EdgeShapeSchema.partial()) })
  .partial();

export type SlabChange = z.infer<typeof SlabChangeSchema>;
export type DrawnProfile = z.infer<typeof DrawnProfileSchema>;
export type Edge = z.infer<typeof EdgeSchema>;
export type EdgeShape = z.infer<typeof EdgeShapeSchema>;
export type Slab = z.infer<typeof SlabSchema>;

/** How far down an edge comes. */
export const riseOf = ({ rise, reach }: Pick<EdgeShape, 'rise' | 'reach'>): number => rise ?? reach;

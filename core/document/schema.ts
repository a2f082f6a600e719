// schema.ts — the project document: a recipe. Everything shown is computed from it; nothing computed is kept in it.
import { z } from 'zod';
import { UNITS } from '../base/units.ts';
import { ColourSchema, EditSchema } from '../edits/schema.ts';
import { MESH_FORMATS } from '../formats/meshes.ts';
import { LetteringSchema } from '../lettering/settings.ts';
import { BLENDS, SHADING } from '../mesh/normals.ts';
import { UV_LAYOUTS } from '../mesh/uv.ts';
import { StepSchema } from '../picture/prepare.ts';
import { PICTURE_LIMITS } from '../picture/types.ts';
import { CORNERS } from '../solid/edge/corners.ts';
import { FACE_MESHES } from '../solid/front/front.ts';
import { MOST_CURVE_POINTS, PROFILES } from '../solid/profile.ts';
import { BEYOND, CAPPED, WAYS } from '../solid/slab.ts';
import { TraceSchema } from '../trace/settings.ts';

/** Raised when a field changes meaning; `migrate.ts` brings older documents forward. */
export const DOCUMENT_VERSION = 4;

/** Lengths are in project units and stay within what the grid and float32 files can hold. */
const length = z.number().min(0).max(1e6);
const id = z.string().min(1).max(200);
const name = z.string().trim().min(1).max(120);

export const LIMITS = {
  layers: 400,
  sources: 40,
  steps: 32,
  wallRows: 64,
  prepareSteps: 40,
  pieces: 20_000,
  edits: 2000,
  profiles: 60,
} as const;

/** A profile drawn by hand, saved under a name. */
export const DrawnProfileSchema = z.object({
  name,
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
  profile: z.union([z.enum(PROFILES), z.object({ drawn: name })]),
  way: z.enum(WAYS),
  /** How far in, or out. */
  reach: length,
  /** How far down. */
  rise: length,
  steps: z.int().min(1).max(LIMITS.steps),
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

export const MaterialSchema = z.object({
  colour: ColourSchema,
  opacity: z.number().min(0).max(1),
  roughness: z.number().min(0).max(1),
  metalness: z.number().min(0).max(1),
});

export const ShadingSchema = z.object({
  crease: z.number().min(0).max(180),
  blend: z.enum(BLENDS),
});

/** Lengths in project units, the angle in degrees; below 0 a step is left out. */
export const TidySchema = z.object({
  weld: length,
  straight: z.number().min(-1).max(1e6),
  flat: z.number().min(-1).max(180),
});

export const LayerSchema = z.object({
  id,
  name,
  source: id,
  /** Ids of the source's shapes, as the reader gives them. */
  members: z.array(z.string().max(2000)).max(100_000),
  /** Members that are kept but not built. */
  skipped: z.array(z.string().max(2000)).max(100_000),
  /** Whether the layer is built and exported. */
  shown: z.boolean(),
  /** Set on a shape that was recognised as the paper behind the drawing. */
  ground: z.boolean(),
  base: z.number().min(-1e6).max(1e6),
  depth: z.number().min(1e-6).max(1e6),
  edge: EdgeSchema,
  /** The back's edge where it is not like the front's. */
  backEdge: z.nullable(EdgeShapeSchema),
  /** How front and back are divided. */
  faces: z.enum(FACE_MESHES),
  /** Target edge length of even faces, side of the squares of a grid. */
  cell: z.number().min(1e-6).max(1e6),
  /** Strips the wall is divided into. */
  wallRows: z.int().min(1).max(LIMITS.wallRows),
  /** Which of front and back are closed with faces. */
  caps: z.enum(CAPPED),
  shading: ShadingSchema,
  /** Where its faces lie on pictures. */
  uv: z.enum(['none', ...UV_LAYOUTS]),
  /** How its mesh is tidied; null for not at all. */
  tidy: z.nullable(TidySchema),
  material: MaterialSchema,
});

const sourceBase = {
  id,
  name,
  /** Project units in one user unit of the source: a pixel of a picture as it came. */
  scale: z.number().min(1e-9).max(1e9),
  /** The place in the source that lies on the middle of the sheet, in user units, y down. */
  origin: z.tuple([z.number(), z.number()]),
  /** What is done to its shapes, in order. */
  edits: z.array(EditSchema).max(LIMITS.edits),
};

/** SHA-256 of the bytes, hex. */
const asset = z.string().regex(/^[0-9a-f]{64}$/);

/** What a traced piece is known by when the picture is traced again. */
export const PieceSchema = z.object({
  id: z.string().min(1).max(60),
  colour: MaterialSchema.shape.colour,
  /** In square user units, holes taken off. */
  area: z.number(),
  /** Left, top, right, bottom in user units. */
  box: z.tuple([z.number(), z.number(), z.number(), z.number()]),
});

export const VectorSourceSchema = z.object({ ...sourceBase, kind: z.literal('vector'), asset });
export const PictureSourceSchema = z.object({
  ...sourceBase,
  kind: z.literal('picture'),
  asset,
  /** Of the picture as it came, upright, in pixels. */
  width: z.int().min(1).max(PICTURE_LIMITS.side),
  height: z.int().min(1).max(PICTURE_LIMITS.side),
  prepare: z.array(StepSchema).max(LIMITS.prepareSteps),
  trace: TraceSchema,
  pieces: z.array(PieceSchema).max(LIMITS.pieces),
});
/** A text; one user unit is one project unit. */
export const LetteringSourceSchema = z.object({
  ...sourceBase,
  kind: z.literal('lettering'),
  lettering: LetteringSchema,
});
/** Drawn here: all its shapes come from its edits. One user unit is one project unit. */
export const DrawingSourceSchema = z.object({
  ...sourceBase,
  kind: z.literal('drawing'),
  width: z.number().positive().max(1e9),
  height: z.number().positive().max(1e9),
});
/** A mesh from a file; its parts are the members of layers. One user unit is one unit of the file, y up and front towards +z. */
export const MeshSourceSchema = z.object({
  ...sourceBase,
  kind: z.literal('mesh'),
  asset,
  format: z.enum(MESH_FORMATS),
});

export const SourceSchema = z.discriminatedUnion('kind', [
  VectorSourceSchema,
  PictureSourceSchema,
  LetteringSourceSchema,
  DrawingSourceSchema,
  MeshSourceSchema,
]);

export const ProjectSchema = z.object({
  version: z.literal(DOCUMENT_VERSION),
  name,
  unit: z.enum(UNITS),
  /** Largest distance between a curve and its chords, in project units. */
  tolerance: z.number().min(1e-6).max(1e3),
  /** Profiles drawn by hand, each name once. */
  profiles: z.array(DrawnProfileSchema).max(LIMITS.profiles),
  sources: z.array(SourceSchema).max(LIMITS.sources),
  /** In paint order: the lowest first. */
  layers: z.array(LayerSchema).max(LIMITS.layers),
});

/** Settings for a build without a project: whatever is left out keeps its default. */
export const RecipeSchema = z.strictObject({
  depth: LayerSchema.shape.depth.optional(),
  edge: EdgeSchema.partial().optional(),
  backEdge: EdgeShapeSchema.partial().optional(),
  faces: LayerSchema.shape.faces.optional(),
  cell: LayerSchema.shape.cell.optional(),
  wallRows: LayerSchema.shape.wallRows.optional(),
  caps: LayerSchema.shape.caps.optional(),
  shading: ShadingSchema.partial().optional(),
  uv: LayerSchema.shape.uv.optional(),
  tidy: TidySchema.partial().optional(),
  profiles: z.array(DrawnProfileSchema).max(LIMITS.profiles).optional(),
  tolerance: ProjectSchema.shape.tolerance.optional(),
  /** Longest side of the result. */
  size: z.number().positive().max(1e6).optional(),
});

export type Recipe = z.infer<typeof RecipeSchema>;
export type Edge = z.infer<typeof EdgeSchema>;
export type EdgeShape = z.infer<typeof EdgeShapeSchema>;
export type DrawnProfile = z.infer<typeof DrawnProfileSchema>;
export type Layer = z.infer<typeof LayerSchema>;
export type Source = z.infer<typeof SourceSchema>;
export type LetteringSource = z.infer<typeof LetteringSourceSchema>;
export type MeshSource = z.infer<typeof MeshSourceSchema>;
export type PictureSource = z.infer<typeof PictureSourceSchema>;
export type PieceMark = z.infer<typeof PieceSchema>;
export type Project = z.infer<typeof ProjectSchema>;

export function emptyProject(projectName: string): Project {
  return {
    version: DOCUMENT_VERSION,
    name: projectName,
    unit: 'mm',
    tolerance: 0.01,
    profiles: [],
    sources: [],
    layers: [],
  };
}

/** What a layer's mesh is like where nobody has said otherwise. */
export const MESH_DEFAULTS = {
  faces: 'fewest',
  wallRows: 1,
  caps: 'both',
  shading: SHADING,
  uv: 'none',
  tidy: null,
} as const satisfies Partial<Layer>;

/** Hashes of all bytes a project is made from. */
export function assetsOf({ sources }: Project): string[] {
  return sources.flatMap((source) => {
    if (source.kind === 'lettering') return source.lettering.font.from === 'file' ? [source.lettering.font.asset] : [];
    return source.kind === 'drawing' ? [] : [source.asset];
  });
}

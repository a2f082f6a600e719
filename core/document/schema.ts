// schema.ts — the project document: a recipe. Everything shown is computed from it; nothing computed is kept in it. What it
// holds of each kind of source and build is described by the kinds.
import { z } from 'zod';
import { height, LEAST, length, lengthOrNone } from '../base/quantities.ts';
import { UNITS } from '../base/units.ts';
import { BuildSchema } from '../builds/index.ts';
import { DrawnProfileSchema, EdgeSchema, EdgeShapeSchema, SLAB_LIMITS, SlabSchema } from '../builds/slab/schema.ts';
import { MaterialSchema, type PictureOn, SideMaterialsSchema } from '../materials/schema.ts';
import { MARK_KINDS } from '../mesh/marks.ts';
import { BLENDS, SHADING } from '../mesh/normals.ts';
import { UV_LAYOUTS } from '../mesh/uv.ts';
import { MotionSchema } from '../motion/schema.ts';
import { assetsOfSource, SourceSchema } from '../sources/index.ts';
import { SOURCE_LIMITS } from '../sources/kind.ts';
import { StageSchema } from '../stage/schema.ts';
import { GroupsSchema } from './groups.ts';
import { PlacementSchema } from './placement.ts';
import { RulesSchema } from './rules.ts';

/** Raised when a field changes meaning; `migrate.ts` brings older documents forward. */
export const DOCUMENT_VERSION = 6;

const id = z.string().min(1).max(200);
const name = z.string().trim().min(1).max(120);

export const LIMITS = {
  layers: 1000,
  sources: 40,
  profiles: 60,
  marks: 20_000,
  ...SOURCE_LIMITS,
  ...SLAB_LIMITS,
} as const;

export const ShadingSchema = z.object({
  /** Degrees. */
  crease: z.number().min(0).max(180),
  blend: z.enum(BLENDS),
});

/** Lengths in project units, the angle in degrees; below 0 a step is left out. */
export const TidySchema = z.object({
  weld: length(),
  straight: lengthOrNone(),
  flat: z.number().min(-1).max(180),
  /** Whether open rims get flat caps. */
  close: z.boolean(),
});

/** In units of the source, and shares of the height of the mesh. */
const markEnd = z.tuple([z.number(), z.number(), z.number().min(0).max(1)]);
export const MarkSchema = z.object({ is: z.enum(MARK_KINDS), at: z.tuple([markEnd, markEnd]) });

export const LayerSchema = z.object({
  id,
  name,
  source: id,
  /** Ids of the source's shapes or parts, as the reader gives them. */
  members: z.array(z.string().max(2000)).max(100_000),
  /** Members that are kept but not built. */
  skipped: z.array(z.string().max(2000)).max(100_000),
  /** Whether the layer is built and exported. */
  shown: z.boolean(),
  /** Set on a shape that was recognised as the paper behind the drawing. */
  ground: z.boolean(),
  /** Where it begins above the sheet. */
  base: height(),
  /** What it becomes. */
  build: BuildSchema,
  shading: ShadingSchema,
  /** Where its faces lie on pictures. */
  uv: z.enum(['none', ...UV_LAYOUTS]),
  /** How its mesh is tidied; null for not at all. */
  tidy: z.nullable(TidySchema),
  /** Edges that are hard, soft or gone by hand. */
  marks: z.array(MarkSchema).max(LIMITS.marks).optional(),
  material: MaterialSchema,
  sideMaterials: SideMaterialsSchema.optional(),
  placement: PlacementSchema.optional(),
  /** How many times as large as in its source its outlines are; depth and edge are what they say. */
  scale: z.number().min(1e-4).max(1e4).optional(),
  /** The group it is in. */
  group: id.optional(),
  /** Whether it can be changed and taken away. */
  locked: z.boolean().optional(),
});

export const ProjectSchema = z.object({
  version: z.literal(DOCUMENT_VERSION),
  name,
  unit: z.enum(UNITS),
  /** Largest distance between a curve and its chords, in project units. */
  tolerance: length(LEAST).max(1e3),
  /** Profiles drawn by hand, each name once. */
  profiles: z.array(DrawnProfileSchema).max(LIMITS.profiles),
  sources: z.array(SourceSchema).max(LIMITS.sources),
  /** In paint order: the lowest first. */
  layers: z.array(LayerSchema).max(LIMITS.layers),
  groups: GroupsSchema.optional(),
  rules: RulesSchema.optional(),
  stage: StageSchema.optional(),
  motion: MotionSchema.optional(),
});

/** Settings of a layer without a project, lengths in millimetres: whatever is left out keeps its default. */
export const RecipeSchema = z.strictObject({
  depth: SlabSchema.shape.depth.optional(),
  edge: EdgeSchema.partial().optional(),
  backEdge: EdgeShapeSchema.partial().optional(),
  faces: SlabSchema.shape.faces.optional(),
  cell: SlabSchema.shape.cell.optional(),
  wallRows: SlabSchema.shape.wallRows.optional(),
  caps: SlabSchema.shape.caps.optional(),
  front: SlabSchema.shape.front,
  shading: ShadingSchema.partial().optional(),
  uv: LayerSchema.shape.uv.optional(),
  /** Null for not at all. */
  tidy: z.nullable(TidySchema.partial()).optional(),
  material: MaterialSchema.partial().optional(),
  /** Of sides that are made of something else. */
  sideMaterials: SideMaterialsSchema.optional(),
  profiles: z.array(DrawnProfileSchema).max(LIMITS.profiles).optional(),
  tolerance: ProjectSchema.shape.tolerance.optional(),
  /** Longest side of the result. */
  size: z.number().positive().max(1e6).optional(),
});

export type Recipe = z.infer<typeof RecipeSchema>;
export type Layer = z.infer<typeof LayerSchema>;
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

/** What a layer's mesh is finished like where nobody has said otherwise. */
export const FINISH_DEFAULTS = { shading: SHADING, uv: 'none', tidy: null } as const satisfies Partial<Layer>;

/** Hashes of all bytes a project is made from, each once. */
export function assetsOf({ sources, layers }: Project): string[] {
  const pictures = picturesOn(layers).map(({ asset }) => asset);
  return [...new Set([...sources.flatMap(assetsOfSource), ...pictures])];
}

/** Pictures on the sides of layers, as often as they lie there. */
export const picturesOn = (layers: readonly Layer[]): PictureOn[] =>
  layers.flatMap(({ material, sideMaterials = {} }) =>
    [material, ...Object.values(sideMaterials)].flatMap(({ picture }) => picture ?? []),
  );

/** Where the faces of a layer lie on pictures: a picture lies somewhere even where nobody has said. */
export const uvLayoutOf = (layer: Layer): Layer['uv'] =>
  layer.uv === 'none' && picturesOn([layer]).length > 0 ? 'fitted' : layer.uv;

// http.ts — what crosses the wire between browser and server, described once.
import { z } from 'zod';
import { BakeSchema } from '../bake/wishes.ts';
import { LIMITS, ProjectSchema } from '../document/schema.ts';
import { FORMAT_IDS } from '../formats/facts.ts';
import { CURVES } from '../formats/format.ts';
import { PICTURE_FORMATS } from '../picture/decode.ts';

export const ProjectSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.int(),
  layers: z.int(),
  /** The layers that are built, in paint order, for a small side elevation. */
  stack: z.array(z.object({ colour: z.string(), base: z.number(), depth: z.number() })),
  isDemo: z.boolean(),
  /** The revision its picture shows; null where there is none. */
  picture: z.int().nullable(),
  /** ISO 8601. */
  updatedAt: z.string(),
});
export type ProjectSummary = z.infer<typeof ProjectSummarySchema>;

export const ProjectReplySchema = z.object({
  id: z.string(),
  revision: z.int(),
  isDemo: z.boolean(),
  document: ProjectSchema,
});
export type ProjectReply = z.infer<typeof ProjectReplySchema>;

export const CreateProjectSchema = z.object({ name: ProjectSchema.shape.name });

export const RenameProjectSchema = z.object({ name: ProjectSchema.shape.name });

/** A save names the revision it was based on; the server refuses it (409) when that is no longer the newest. */
export const SaveProjectSchema = z.object({ base: z.int().min(0), document: ProjectSchema });

export const AssetReplySchema = z.object({
  /** SHA-256, hex. */
  hash: z.string(),
  bytes: z.int(),
});
export type AssetReply = z.infer<typeof AssetReplySchema>;

/** Header of the reply with a picture's pixels: a {@link PictureReplySchema} as JSON; the body is its bytes, RGBA. */
export const PICTURE_HEADER = 'x-picture';
export const PictureReplySchema = z.object({
  width: z.int(),
  height: z.int(),
  format: z.enum(PICTURE_FORMATS),
  dpi: z.number().nullable(),
});
export type PictureReply = z.infer<typeof PictureReplySchema>;

export const CreateExportSchema = z.object({
  format: z.enum(FORMAT_IDS),
  /** Layer ids; all shown layers when absent. */
  layers: z.array(z.string()).max(LIMITS.layers).optional(),
  /** `metres` lets a GLB open at its real size; `units` leaves one project unit as one file unit. */
  lengths: z.enum(['metres', 'units']).default('metres'),
  /** How a DXF holds curves. */
  curves: z.enum(CURVES).default('splines'),
  /** Everything in one picture, of formats that keep pictures. */
  bake: BakeSchema.optional(),
  /** The revision to export, which must be saved. */
  revision: z.int(),
});
export type CreateExport = z.input<typeof CreateExportSchema>;

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

export const ExportReportSchema = z.object({
  fileName: z.string(),
  format: z.enum(FORMAT_IDS),
  bytes: z.int(),
  ok: z.boolean(),
  /** What was built beside what was read back. */
  rows: z.array(z.object({ what: z.string(), built: z.string(), read: z.string(), same: z.boolean() })).readonly(),
  ms: z.number(),
});
export type ExportReport = z.infer<typeof ExportReportSchema>;

export const JobReplySchema = z.object({
  id: z.string(),
  state: z.enum(JOB_STATES),
  progress: z.number().min(0).max(1),
  error: z.nullable(z.object({ code: z.string(), message: z.string() })),
  report: z.nullable(ExportReportSchema),
});
export type JobReply = z.infer<typeof JobReplySchema>;

/** Body of every reply that is not 2xx. */
export const ErrorReplySchema = z.object({
  error: z.object({
    code: z.string(),
    message: z.string(),
    /** Which fields of the request were wrong, for 400. */
    fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  }),
});
export type ErrorReply = z.infer<typeof ErrorReplySchema>;

// --- every request there is ---------------------------------------------------------------------------------------------

/** What goes one way: a schema of JSON, the name of bytes, or nothing. */
type Load = z.ZodType | string | null;

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Under `/api`. */
  readonly path: string;
  readonly does: string;
  readonly query?: z.ZodType;
  readonly body: Load;
  readonly reply: Load;
}

const revision = z.object({ revision: z.int() });
const any = (method: Route['method'], path: string, does: string, body: Load, reply: Load): Route => ({
  method,
  path,
  does,
  body,
  reply,
});

/** Written out in docs/api.md. */
export const ROUTES: readonly Route[] = [
  any('get', '/health', 'Says that the server is there.', null, z.object({ ok: z.literal(true) })),
  any('get', '/projects', 'Lists the projects.', null, z.array(ProjectSummarySchema)),
  any('post', '/projects', 'Makes an empty project.', CreateProjectSchema, ProjectReplySchema),
  any('get', '/projects/:id', 'Reads a project.', null, ProjectReplySchema),
  any(
    'put',
    '/projects/:id',
    'Saves a document on top of a revision; 409 where that is not the newest any more.',
    SaveProjectSchema,
    revision,
  ),
  any('patch', '/projects/:id', 'Renames a project.', RenameProjectSchema, revision),
  any('delete', '/projects/:id', 'Deletes a project; it can be brought back for seven days.', null, null),
  any('post', '/projects/:id/bring-back', 'Brings a deleted project back.', null, null),
  any('post', '/projects/:id/copy', 'Copies a project.', null, ProjectReplySchema),
  any('post', '/projects/:id/restore', 'Brings a demo project back to how it came.', null, ProjectReplySchema),
  any('get', '/projects/:id/file', 'Packs a project, with what was brought in, as one file.', null, 'a project file'),
  any('post', '/projects/file', 'Opens a project file.', 'a project file', ProjectReplySchema),
  any('get', '/projects/:id/picture', 'The picture of a project in the list.', null, 'a PNG'),
  {
    method: 'put',
    path: '/projects/:id/picture',
    does: 'Keeps a picture of a revision.',
    query: revision,
    body: 'a PNG',
    reply: null,
  },
  any('post', '/projects/:id/exports', 'Starts a file: a job.', CreateExportSchema, JobReplySchema),
  any('get', '/jobs/:id', 'How far a job is.', null, JobReplySchema),
  any('post', '/jobs/:id/cancel', 'Stops a job.', null, JobReplySchema),
  any('post', '/jobs/:id/retry', 'Starts a job again that failed or was stopped.', null, JobReplySchema),
  any('get', '/exports/:id/file', 'The file that a job made.', null, 'the file'),
  any(
    'post',
    '/assets',
    'Keeps a file under the hash of its bytes. Its kind is read from its content, never from its name.',
    'a drawing, picture, mesh or font',
    AssetReplySchema,
  ),
  any('get', '/assets/:hash', 'The bytes of a kept file.', null, 'the file'),
  any(
    'get',
    '/assets/:hash/pixels',
    'The pixels of a kept picture, RGBA; its size stands in the header `x-picture`.',
    null,
    'pixels',
  ),
  any('get', '/assets/:hash/font', 'A kept font, unpacked.', null, 'an OpenType font'),
  any('post', '/demo/restore', 'Brings all demo projects back to how they came.', null, ProjectReplySchema),
];

// http.ts — what crosses the wire between browser and server, described once.
import { z } from 'zod';
import { ProjectSchema } from '../document/schema.ts';
import { FORMAT_IDS, type FormatId } from '../formats/index.ts';
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

export interface AssetReply {
  /** SHA-256, hex. */
  readonly hash: string;
  readonly bytes: number;
}

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
  layers: z.array(z.string()).max(400).optional(),
  /** `metres` lets a GLB open at its real size; `units` leaves one project unit as one file unit. */
  lengths: z.enum(['metres', 'units']).default('metres'),
  /** The revision to export, which must be saved. */
  revision: z.int(),
});
export type CreateExport = z.input<typeof CreateExportSchema>;

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

export interface ExportReport {
  readonly fileName: string;
  readonly format: FormatId;
  readonly bytes: number;
  readonly ok: boolean;
  readonly rows: readonly { what: string; built: string; read: string; same: boolean }[];
  readonly ms: number;
}

export interface JobReply {
  readonly id: string;
  readonly state: JobState;
  /** 0–1 */
  readonly progress: number;
  readonly error: { code: string; message: string } | null;
  readonly report: ExportReport | null;
}

/** Body of every reply that is not 2xx. */
export interface ErrorReply {
  readonly error: {
    readonly code: string;
    readonly message: string;
    /** Which fields of the request were wrong, for 400. */
    readonly fields?: readonly { path: string; message: string }[];
  };
}

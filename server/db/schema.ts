// schema.ts — the tables. Documents and requests are JSON that Zod checks at the border; bytes are addressed by content.
import { blob, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';

const createdAt = text('created_at').notNull();

export const projects = sqliteTable('projects', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** Newest revision. */
  revision: integer('revision').notNull(),
  isDemo: integer('is_demo', { mode: 'boolean' }).notNull(),
  /** Which demo it is; null for all others, and for demos of before this was kept. */
  demo: text('demo'),
  /** What the list shows of the newest revision; null until it is first asked for. */
  summary: text('summary', { mode: 'json' }),
  createdAt,
  updatedAt: text('updated_at').notNull(),
  /** When it was deleted, while that can still be undone. */
  deletedAt: text('deleted_at'),
});

/** How a project looks, for the list: made where it is drawn, in the browser. */
export const pictures = sqliteTable('pictures', {
  projectId: text('project_id')
    .primaryKey()
    .references(() => projects.id, { onDelete: 'cascade' }),
  /** The revision it shows. */
  revision: integer('revision').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
});

export const revisions = sqliteTable(
  'revisions',
  {
    projectId: text('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    document: text('document', { mode: 'json' }).notNull(),
    createdAt,
  },
  (table) => [primaryKey({ columns: [table.projectId, table.number] })],
);

export const assets = sqliteTable('assets', {
  /** SHA-256 of the bytes, hex. */
  hash: text('hash').primaryKey(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  createdAt,
});

export const jobs = sqliteTable('jobs', {
  id: text('id').primaryKey(),
  projectId: text('project_id')
    .notNull()
    .references(() => projects.id, { onDelete: 'cascade' }),
  kind: text('kind').notNull().default('export'),
  state: text('state', { enum: ['waiting', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
  progress: real('progress').notNull(),
  request: text('request', { mode: 'json' }).notNull(),
  error: text('error', { mode: 'json' }),
  createdAt,
});

export const exports = sqliteTable('exports', {
  jobId: text('job_id')
    .primaryKey()
    .references(() => jobs.id, { onDelete: 'cascade' }),
  fileName: text('file_name').notNull(),
  mime: text('mime').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  report: text('report', { mode: 'json' }).notNull(),
});

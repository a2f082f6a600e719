// jobs.ts — long work and what came of it.
import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import type { ExportReport, FileFormat, JobReply, JobState } from '../../core/index.ts';
import type { Database } from '../db/open.ts';
import { exports, jobs } from '../db/schema.ts';
import { NotFound } from '../errors.ts';

/** Finished files of one project beyond this many are dropped, oldest first. */
const KEPT_EXPORTS = 20;

export interface ExportRequest {
  readonly format: FileFormat;
  readonly layers?: readonly string[] | undefined;
  readonly lengths: 'metres' | 'units';
  readonly revision: number;
}

export interface Job {
  readonly id: string;
  readonly projectId: string;
  readonly request: ExportRequest;
}

export interface FinishedExport {
  readonly fileName: string;
  readonly mime: string;
  readonly bytes: Buffer;
  readonly report: ExportReport;
}

export class JobStore {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  async create(projectId: string, request: ExportRequest): Promise<Job> {
    const id = randomUUID();
    const row = { id, projectId, state: 'waiting' as const, progress: 0, request, createdAt: new Date().toISOString() };
    await this.database.write((tx) => tx.insert(jobs).values(row));
    return { id, projectId, request };
  }

  async reply(id: string): Promise<JobReply> {
    const [row] = await this.database.db
      .select({ job: jobs, report: exports.report })
      .from(jobs)
      .leftJoin(exports, eq(exports.jobId, jobs.id))
      .where(eq(jobs.id, id));
    if (!row) throw new NotFound(`There is no job ${id}.`);
    const { state, progress, error } = row.job;
    return {
      id,
      state,
      progress,
      error: error as JobReply['error'],
      report: (row.report as ExportReport | null) ?? null,
    };
  }

  async get(id: string): Promise<Job> {
    const [row] = await this.database.db.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new NotFound(`There is no job ${id}.`);
    return { id, projectId: row.projectId, request: row.request as ExportRequest };
  }

  /** Jobs that a stopped server left behind, oldest first, all waiting again. */
  async unfinished(): Promise<Job[]> {
    await this.database.write((tx) =>
      tx.update(jobs).set({ state: 'waiting', progress: 0 }).where(eq(jobs.state, 'running')),
    );
    const rows = await this.database.db
      .select()
      .from(jobs)
      .where(eq(jobs.state, 'waiting'))
      .orderBy(asc(jobs.createdAt));
    return rows.map((row) => ({ id: row.id, projectId: row.projectId, request: row.request as ExportRequest }));
  }

  async mark(id: string, state: JobState, more: { progress?: number; error?: JobReply['error'] } = {}): Promise<void> {
    await this.database.write((tx) =>
      tx
        .update(jobs)
        .set({ state, ...more })
        .where(eq(jobs.id, id)),
    );
  }

  /** Does nothing for a job that went with its project meanwhile. */
  async finish(id: string, file: FinishedExport): Promise<void> {
    await this.database.write(async (tx) => {
      const known = await tx.update(jobs).set({ state: 'done', progress: 1 }).where(eq(jobs.id, id)).returning();
      if (known.length === 0) return;
      const row = { jobId: id, ...file };
      await tx.insert(exports).values(row).onConflictDoUpdate({ target: exports.jobId, set: row });
      const older = tx
        .select({ id: jobs.id })
        .from(jobs)
        .where(and(eq(jobs.projectId, known[0]!.projectId), eq(jobs.state, 'done')))
        .orderBy(desc(jobs.createdAt))
        // SQLite takes an offset only behind a limit.
        .limit(Number.MAX_SAFE_INTEGER)
        .offset(KEPT_EXPORTS);
      await tx.delete(jobs).where(inArray(jobs.id, older));
    });
  }

  async file(id: string): Promise<FinishedExport> {
    const [row] = await this.database.db.select().from(exports).where(eq(exports.jobId, id));
    if (!row) throw new NotFound(`There is no finished export ${id}.`);
    return { ...row, report: row.report as ExportReport };
  }
}

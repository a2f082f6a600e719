// jobs.ts — long work and what came of it.
import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import type { ExportReport, JobReply, JobState } from '../../core/index.ts';
import type { Database } from '../db/open.ts';
import { exports, jobs } from '../db/schema.ts';
import { NotFound } from '../errors.ts';

/** Finished files of one project beyond this many are dropped, oldest first. */
const KEPT_EXPORTS = 20;

export interface Job {
  readonly id: string;
  readonly projectId: string;
  readonly kind: string;
  /** As the kind's schema left it. */
  readonly request: unknown;
}

export interface FinishedExport {
  readonly fileName: string;
  readonly mime: string;
  readonly bytes: Buffer;
  readonly report: ExportReport;
}

const WAITING = { state: 'waiting', progress: 0 } as const;

export class JobStore {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  async create(projectId: string, kind: string, request: unknown): Promise<Job> {
    const id = randomUUID();
    const createdAt = new Date().toISOString();
    const row = { id, projectId, kind, state: 'waiting' as const, progress: 0, request, createdAt };
    await this.database.write((tx) => tx.insert(jobs).values(row));
    return { id, projectId, kind, request };
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
    return row;
  }

  /** Jobs that a stopped server left behind, oldest first, all waiting again. */
  async unfinished(): Promise<Job[]> {
    await this.database.write((tx) => tx.update(jobs).set(WAITING).where(eq(jobs.state, 'running')));
    return this.database.db.select().from(jobs).where(eq(jobs.state, 'waiting')).orderBy(asc(jobs.createdAt));
  }

  /** @returns whether it was still waiting; one that was cancelled or went with its project meanwhile was not */
  async begin(id: string): Promise<boolean> {
    return this.change(id, ['waiting'], { state: 'running' });
  }

  async progress(id: string, progress: number): Promise<void> {
    await this.change(id, ['running'], { progress });
  }

  async fail(id: string, error: JobReply['error']): Promise<void> {
    await this.change(id, ['running'], { state: 'failed', error });
  }

  async cancel(id: string): Promise<void> {
    await this.change(id, ['waiting', 'running'], { state: 'cancelled' });
  }

  /** @returns whether it had ended without a file, and waits again */
  async retry(id: string): Promise<boolean> {
    return this.change(id, ['failed', 'cancelled'], { ...WAITING, error: null });
  }

  /** Only from some states: what ended a job otherwise meanwhile stays. @returns whether it was in one of them */
  private async change(id: string, from: JobState[], to: Partial<typeof jobs.$inferInsert>): Promise<boolean> {
    const changed = await this.database.write((tx) =>
      tx
        .update(jobs)
        .set(to)
        .where(and(eq(jobs.id, id), inArray(jobs.state, from)))
        .returning({ id: jobs.id }),
    );
    return changed.length > 0;
  }

  /** Does nothing for a job that was cancelled or went with its project meanwhile. */
  async finish(id: string, file: FinishedExport): Promise<void> {
    await this.database.write(async (tx) => {
      const known = await tx
        .update(jobs)
        .set({ state: 'done', progress: 1 })
        .where(and(eq(jobs.id, id), eq(jobs.state, 'running')))
        .returning();
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

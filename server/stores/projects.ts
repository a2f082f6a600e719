// projects.ts — projects and their revisions. A save is refused when it is not based on the newest revision.
import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNotNull, isNull, lt, lte } from 'drizzle-orm';
import {
  heightOf,
  type Project,
  type ProjectReply,
  type ProjectSummary,
  readProject,
  uniqueName,
} from '../../core/index.ts';
import type { Database } from '../db/open.ts';
import { pictures, projects, revisions } from '../db/schema.ts';
import { Conflict, NotFound } from '../errors.ts';

/** Older revisions are dropped beyond this many. */
const KEPT_REVISIONS = 200;

type Row = typeof projects.$inferSelect;
type Summary = Pick<ProjectSummary, 'layers' | 'stack'>;

function summaryOf({ layers }: Project): Summary {
  const shown = layers.filter((layer) => layer.shown);
  return {
    layers: layers.length,
    stack: shown.map(({ material, base, build }) => ({ colour: material.colour, base, depth: heightOf(build) })),
  };
}

export class ProjectStore {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /** Newest change first. Documents are not looked into: what is shown of each was written down when it was saved. */
  async list(): Promise<ProjectSummary[]> {
    const rows = await this.database.db
      .select({ row: projects, picture: pictures.revision })
      .from(projects)
      .leftJoin(pictures, eq(pictures.projectId, projects.id))
      .where(isNull(projects.deletedAt))
      .orderBy(desc(projects.updatedAt));
    return Promise.all(
      rows.map(async ({ row, picture }) => {
        const { id, name, revision, isDemo, updatedAt } = row;
        const summary = (row.summary as Summary | null) ?? (await this.summarised(row));
        return { id, name, revision, isDemo, picture, updatedAt, ...summary };
      }),
    );
  }

  /** Of a project that was saved before summaries were kept. */
  private async summarised({ id, revision }: Row): Promise<Summary> {
    // A document that cannot be read any more is still listed, so that it can be saved as a file or deleted.
    const summary = await this.document(id, revision).then(summaryOf, () => ({ layers: 0, stack: [] }));
    await this.database.write((tx) =>
      tx
        .update(projects)
        .set({ summary })
        .where(and(eq(projects.id, id), eq(projects.revision, revision))),
    );
    return summary;
  }

  /** @param demo which demo it is */
  async create(document: Project, { demo = null }: { demo?: string | null } = {}): Promise<ProjectReply> {
    const isDemo = demo !== null;
    const id = randomUUID();
    const now = new Date().toISOString();
    const summary = summaryOf(document);
    await this.database.write(async (tx) => {
      await tx
        .insert(projects)
        .values({ id, name: document.name, revision: 1, isDemo, demo, summary, createdAt: now, updatedAt: now });
      await tx.insert(revisions).values({ projectId: id, number: 1, document, createdAt: now });
    });
    return { id, revision: 1, isDemo, document };
  }

  async get(id: string): Promise<ProjectReply> {
    const row = await this.row(id);
    return { id, revision: row.revision, isDemo: row.isDemo, document: await this.document(id, row.revision) };
  }

  async document(id: string, revision: number): Promise<Project> {
    const [row] = await this.database.db
      .select()
      .from(revisions)
      .where(and(eq(revisions.projectId, id), eq(revisions.number, revision)));
    if (!row) throw new NotFound(`Project ${id} has no revision ${revision}.`);
    return readProject(row.document);
  }

  /** @returns the new revision's number @throws {Conflict} when `base` is not the newest revision */
  async save(id: string, base: number, document: Project): Promise<number> {
    const saved = await this.database.write(async (tx) => {
      const [row] = await tx
        .select()
        .from(projects)
        .where(and(eq(projects.id, id), isNull(projects.deletedAt)));
      if (!row) throw new NotFound(`There is no project ${id}.`);
      if (row.revision !== base) return null;
      const now = new Date().toISOString();
      const number = base + 1;
      await tx.insert(revisions).values({ projectId: id, number, document, createdAt: now });
      await tx
        .update(projects)
        .set({ revision: number, name: document.name, summary: summaryOf(document), updatedAt: now })
        .where(eq(projects.id, id));
      await tx
        .delete(revisions)
        .where(and(eq(revisions.projectId, id), lte(revisions.number, number - KEPT_REVISIONS)));
      return number;
    });
    if (saved === null) throw new Conflict(await this.get(id));
    return saved;
  }

  /** Which demo it is; null for all others. */
  async demoOf(id: string): Promise<string | null> {
    return (await this.row(id)).demo;
  }

  /** @returns the new revision's number */
  async rename(id: string, name: string): Promise<number> {
    const { revision, document } = await this.get(id);
    return this.save(id, revision, { ...document, name });
  }

  /** The newest revision as a project of its own, with the picture of the one it is a copy of. */
  async copy(id: string): Promise<ProjectReply> {
    const { document } = await this.get(id);
    const names = new Set((await this.list()).map(({ name }) => name));
    const made = await this.create({ ...document, name: uniqueName(document.name, names) });
    const picture = await this.picture(id);
    if (picture) await this.setPicture(made.id, made.revision, picture);
    return made;
  }

  /** Puts it aside: it is gone for everyone, and can be brought back. */
  async remove(id: string): Promise<void> {
    await this.row(id);
    const deletedAt = new Date().toISOString();
    await this.database.write((tx) => tx.update(projects).set({ deletedAt }).where(eq(projects.id, id)));
  }

  async bringBack(id: string): Promise<void> {
    const back = await this.database.write((tx) =>
      tx
        .update(projects)
        .set({ deletedAt: null })
        .where(and(eq(projects.id, id), isNotNull(projects.deletedAt)))
        .returning({ id: projects.id }),
    );
    if (back.length === 0) throw new NotFound(`There is no deleted project ${id}.`);
  }

  /** Ends what was deleted before a time, for good. */
  async purge(before: Date): Promise<void> {
    await this.database.write((tx) => tx.delete(projects).where(lt(projects.deletedAt, before.toISOString())));
  }

  /** PNG; null where there is none. */
  async picture(id: string): Promise<Buffer | null> {
    const [row] = await this.database.db.select().from(pictures).where(eq(pictures.projectId, id));
    return row?.bytes ?? null;
  }

  async setPicture(id: string, revision: number, bytes: Buffer): Promise<void> {
    await this.row(id);
    const set = { revision, bytes };
    await this.database.write((tx) =>
      tx
        .insert(pictures)
        .values({ projectId: id, ...set })
        .onConflictDoUpdate({ target: pictures.projectId, set }),
    );
  }

  private async row(id: string): Promise<Row> {
    const [row] = await this.database.db
      .select()
      .from(projects)
      .where(and(eq(projects.id, id), isNull(projects.deletedAt)));
    if (!row) throw new NotFound(`There is no project ${id}.`);
    return row;
  }
}

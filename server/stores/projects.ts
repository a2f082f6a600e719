// projects.ts — projects and their revisions. A save is refused when it is not based on the newest revision.
import { randomUUID } from 'node:crypto';
import { and, desc, eq, lte } from 'drizzle-orm';
import { heightOf, type Project, type ProjectReply, type ProjectSummary, readProject } from '../../core/index.ts';
import type { Database } from '../db/open.ts';
import { projects, revisions } from '../db/schema.ts';
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
    const rows = await this.database.db.select().from(projects).orderBy(desc(projects.updatedAt));
    return Promise.all(
      rows.map(async (row) => {
        const { id, name, revision, isDemo, updatedAt } = row;
        return {
          id,
          name,
          revision,
          isDemo,
          updatedAt,
          ...((row.summary as Summary | null) ?? (await this.summarised(row))),
        };
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

  async create(document: Project, { isDemo = false } = {}): Promise<ProjectReply> {
    const id = randomUUID();
    const now = new Date().toISOString();
    const summary = summaryOf(document);
    await this.database.write(async (tx) => {
      await tx
        .insert(projects)
        .values({ id, name: document.name, revision: 1, isDemo, summary, createdAt: now, updatedAt: now });
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
      const [row] = await tx.select().from(projects).where(eq(projects.id, id));
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

  async remove(id: string): Promise<void> {
    await this.row(id);
    await this.database.write((tx) => tx.delete(projects).where(eq(projects.id, id)));
  }

  private async row(id: string): Promise<Row> {
    const [row] = await this.database.db.select().from(projects).where(eq(projects.id, id));
    if (!row) throw new NotFound(`There is no project ${id}.`);
    return row;
  }
}

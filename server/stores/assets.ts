// assets.ts — bytes of sources, addressed by their content.
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { assets } from '../db/schema.ts';
import { NotFound } from '../errors.ts';

export class AssetStore {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /** Keeps the bytes and returns their hash; the same bytes are kept once. */
  async put(bytes: Buffer): Promise<string> {
    const hash = createHash('sha256').update(bytes).digest('hex');
    const row = { hash, bytes, createdAt: new Date().toISOString() };
    await this.database.write((tx) => tx.insert(assets).values(row).onConflictDoNothing());
    return hash;
  }

  async get(hash: string): Promise<Buffer> {
    const [row] = await this.database.db.select().from(assets).where(eq(assets.hash, hash));
    if (!row) throw new NotFound(`There is no asset ${hash}.`);
    return row.bytes;
  }
}

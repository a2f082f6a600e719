// assets.ts — bytes of sources, addressed by their content.
import { eq } from 'drizzle-orm';
import { hashOf } from '../../node/reader.ts';
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
    const hash = hashOf(bytes);
    const row = { hash, bytes, createdAt: new Date().toISOString() };
    await this.database.write((tx) => tx.insert(assets).values(row).onConflictDoNothing());
    return hash;
  }

  /** Bytes by their hashes. */
  async all(hashes: readonly string[]): Promise<Record<string, Buffer>> {
    const bytes = await Promise.all(hashes.map(async (hash) => [hash, await this.get(hash)] as const));
    return Object.fromEntries(bytes);
  }

  async get(hash: string): Promise<Buffer> {
    const [row] = await this.database.db.select().from(assets).where(eq(assets.hash, hash));
    if (!row) throw new NotFound(`There is no asset ${hash}.`);
    return row.bytes;
  }
}

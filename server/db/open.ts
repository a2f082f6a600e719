// open.ts — the database: opened, migrated, and with all writes in one queue.
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import * as schema from './schema.ts';

/** Wait this long for another process to release its lock. */
const BUSY_TIMEOUT_MS = 5000;

/** @param url a path, `:memory:`, or a `libsql://` address */
export async function openDatabase(url: string, migrationsFolder: string) {
  const isFile = !url.includes('://') && url !== ':memory:';
  if (isFile) mkdirSync(dirname(url), { recursive: true });
  const client = createClient({ url: isFile ? `file:${url}` : url, timeout: BUSY_TIMEOUT_MS });
  if (isFile) await client.execute('PRAGMA journal_mode = WAL');
  const foreignKeys = await client.execute('PRAGMA foreign_keys');
  if (Number(foreignKeys.rows[0]?.[0]) !== 1) throw new Error('The database does not enforce foreign keys.');
  const db = drizzle({ client, schema });
  await migrate(db, { migrationsFolder });

  type Transaction = Parameters<Parameters<typeof db.transaction>[0]>[0];
  let tail: Promise<unknown> = Promise.resolve();
  /**
   * Runs `act` in a transaction, one at a time. The client's local calls are synchronous: a second writer in this process
   * would block the event loop while the first can never reach its COMMIT. Inside `act` use only the transaction.
   */
  const write = <T>(act: (tx: Transaction) => Promise<T>): Promise<T> => {
    const run = tail.then(async () => {
      try {
        return await db.transaction(act);
      } catch (error) {
        // After SQLITE_BUSY the pooled connection keeps an open statement and later commits fail; reopening clears it.
        if (isBusy(error)) await client.reconnect();
        throw error;
      }
    });
    tail = run.catch(() => undefined);
    return run;
  };
  return { db, write, close: () => client.close() };
}

export type Database = Awaited<ReturnType<typeof openDatabase>>;

/** Whether a statement failed because another process held the database for longer than it waited. */
export function isBusy(error: unknown): boolean {
  return (
    error instanceof Error && (('code' in error && String(error.code).startsWith('SQLITE_BUSY')) || isBusy(error.cause))
  );
}

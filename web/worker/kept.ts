// kept.ts — what took long to make, kept in this browser from one visit to the next. Everything here can be made again, so whatever
// goes wrong is passed over.
import { createStore, delMany, get, keys, set, type UseStore } from 'idb-keyval';

/** When it was kept, how many bytes it takes, what it is of. */
type Key = [at: number, bytes: number, name: string];

const PREFIX = 'made by ';

export class Kept {
  private readonly limit: number;
  private readonly store: UseStore | null;
  private readonly index: Promise<Map<string, Key>>;
  private last: Promise<unknown>;

  /**
   * @param maker of the values: what another one made is forgotten; null to keep nothing
   * @param limit in bytes; what was kept first goes first
   */
  constructor(maker: string | null, limit: number) {
    const isPossible = maker !== null && typeof indexedDB !== 'undefined';
    this.limit = limit;
    this.store = isPossible ? createStore(PREFIX + maker, 'made') : null;
    this.index = this.list();
    this.last = this.index;
    if (isPossible) void forgetOthers(PREFIX + maker).catch(() => undefined);
  }

  private async list(): Promise<Map<string, Key>> {
    const all = this.store ? await keys<Key>(this.store).catch(() => []) : [];
    return new Map(all.map((key) => [key[2], key]));
  }

  /** Null where nothing of that name is kept. */
  async get<T>(name: string): Promise<T | null> {
    const key = (await this.index).get(name);
    if (!key || !this.store) return null;
    return (await get<T>(key, this.store).catch(() => undefined)) ?? null;
  }

  /** Settles when it is kept, or cannot be. */
  put(name: string, bytes: number, value: unknown): Promise<void> {
    const put = this.last.then(() => this.putNow(name, bytes, value)).catch(() => undefined);
    this.last = put;
    return put;
  }

  private async putNow(name: string, bytes: number, value: unknown): Promise<void> {
    const index = await this.index;
    if (!this.store || index.has(name) || bytes > this.limit) return;
    const oldest = [...index.values()].sort(([a], [b]) => a - b);
    let held = bytes + oldest.reduce((sum, [, own]) => sum + own, 0);
    const gone: Key[] = [];
    while (held > this.limit) {
      const key = oldest.shift()!;
      held -= key[1];
      gone.push(key);
    }
    for (const [, , old] of gone) index.delete(old);
    if (gone.length > 0) await delMany(gone, this.store);
    const key: Key = [Date.now(), bytes, name];
    await set(key, value, this.store);
    index.set(name, key);
  }
}

async function forgetOthers(own: string): Promise<void> {
  // Not every browser lists them.
  const all = (await indexedDB.databases?.()) ?? [];
  for (const { name } of all) if (name?.startsWith(PREFIX) && name !== own) indexedDB.deleteDatabase(name);
}

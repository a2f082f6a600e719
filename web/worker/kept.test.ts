// What is kept between visits, on a stand-in for the browser's database.
import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { Kept } from './kept.ts';

describe('what is kept between visits', () => {
  it('is there on the next one, typed arrays and all', async () => {
    const value = { points: Float64Array.of(1, 2.5), name: 'Heron' };
    await new Kept('one', 1000).put('heron', 16, value);
    expect(await new Kept('one', 1000).get('heron')).toEqual(value);
    expect(await new Kept('one', 1000).get('wave')).toBeNull();
  });

  it('is forgotten when something else made it', async () => {
    await new Promise((done) => {
      const older = indexedDB.open('made by older');
      older.onsuccess = () => done(older.result.close());
    });
    await new Kept('before', 1000).put('heron', 16, 'made before');
    expect(await new Kept('newer', 1000).get('heron')).toBeNull();
    await expect.poll(async () => (await indexedDB.databases()).map(({ name }) => name)).not.toContain('made by older');
  });

  it('makes room for what comes later, the oldest first, also on the next visit', async () => {
    const kept = new Kept('room', 100);
    for (const name of ['first', 'second', 'third']) {
      await kept.put(name, 40, name);
      await new Promise((later) => setTimeout(later, 2));
    }
    expect(await kept.get('first')).toBeNull();
    const next = new Kept('room', 100);
    await next.put('fourth', 60, 'fourth');
    expect(await next.get('second')).toBeNull();
    expect(await next.get('third')).toBe('third');
    expect(await new Kept('room', 100).get('fourth')).toBe('fourth');
  });

  it('passes over what is too large, or cannot be kept', async () => {
    const kept = new Kept('odd', 100);
    await kept.put('large', 101, 'x');
    await kept.put('function', 10, () => 1);
    expect(await kept.get('large')).toBeNull();
    expect(await kept.get('function')).toBeNull();
    await kept.put('good', 10, 'good');
    expect(await kept.get('good')).toBe('good');
  });
});

// The pool with members made for the tests: work is shared, a member that dies leaves no caller waiting, stopping keeps the rest.
import { describe, expect, it } from 'vitest';
import type { Outcome } from './outcome.ts';
import { type Member, Pool } from './pool.ts';

interface Api {
  readonly name: number;
  work(): Promise<Outcome<string>>;
}

/** Members that work until they are told to be done, and can be made to crash. */
function workshop(most: number) {
  const members: { crash: () => void; finish: () => void; isEnded: boolean }[] = [];
  const start = (): Member<Api> => {
    const name = members.length + 1;
    let crash = (_: Error) => {};
    const crashed = new Promise<Error>((resolve) => {
      crash = resolve;
    });
    let finish: () => void = () => {};
    const member = { crash: () => crash(new Error('It ran out of memory.')), finish: () => finish(), isEnded: false };
    members.push(member);
    const work = () =>
      new Promise<Outcome<string>>((resolve) => {
        finish = () => resolve({ ok: true, value: `done by ${name}` });
      });
    return {
      api: { name, work },
      crashed,
      end: () => {
        member.isEnded = true;
      },
    };
  };
  return { members, pool: new Pool<Api>(start, most) };
}

const begun = () => new Promise((tick) => setTimeout(tick));

describe('a pool', () => {
  it('starts members as they are needed, and no more than it may', async () => {
    const { members, pool } = workshop(2);
    const results = [1, 2, 3].map(() => pool.run((api) => api.work()));
    await begun();
    expect(members).toHaveLength(2);
    members[0]!.finish();
    await results[0];
    await begun();
    for (const member of members) member.finish();
    expect(await Promise.all(results)).toEqual([1, 2, 1].map((name) => ({ ok: true, value: `done by ${name}` })));
    expect(members).toHaveLength(2);
    // Those that are free are used again.
    const again = pool.run((api) => api.work());
    await begun();
    for (const member of members) member.finish();
    expect((await again).ok).toBe(true);
    expect(members).toHaveLength(2);
  });

  it('fails the call of a member that dies, and gives what waits to a new one', async () => {
    const { members, pool } = workshop(1);
    const [first, second] = [pool.run((api) => api.work()), pool.run((api) => api.work())];
    await begun();
    members[0]!.crash();
    expect(await first).toEqual({ ok: false, error: { code: 'unexpected', message: 'It ran out of memory.' } });
    await begun();
    members[1]!.finish();
    expect(await second).toEqual({ ok: true, value: 'done by 2' });
  });

  it('stops what is under way and what waits, and works on afterwards', async () => {
    const { members, pool } = workshop(1);
    const [first, second] = [pool.run((api) => api.work()), pool.run((api) => api.work())];
    await begun();
    pool.stop();
    const stopped = { ok: false, error: { code: 'cancelled', message: 'Stopped.' } };
    expect(await Promise.all([first, second])).toEqual([stopped, stopped]);
    expect(members[0]!.isEnded).toBe(true);
    const third = pool.run((api) => api.work());
    await begun();
    members[1]!.finish();
    expect(await third).toEqual({ ok: true, value: 'done by 2' });
  });

  it('leaves members that are free alone when it is stopped', async () => {
    const { members, pool } = workshop(2);
    const first = pool.run((api) => api.work());
    await begun();
    members[0]!.finish();
    await first;
    pool.stop();
    expect(members[0]!.isEnded).toBe(false);
    const second = pool.run((api) => api.work());
    await begun();
    members[0]!.finish();
    expect(await second).toEqual({ ok: true, value: 'done by 1' });
  });
});

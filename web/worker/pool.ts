// pool.ts — workers that share work, started when first needed. One that crashes fails what it was doing and is replaced; stopping
// ends what is under way and what waits, and nothing else.
import type { Outcome } from './outcome.ts';

/** A worker, as the pool knows it. */
export interface Member<Api> {
  readonly api: Api;
  /** Resolves when it has crashed. */
  readonly crashed: Promise<Error>;
  readonly end: () => void;
}

const STOPPED: Outcome<never> = { ok: false, error: { code: 'cancelled', message: 'Stopped.' } };

export class Pool<Api> {
  private readonly start: () => Member<Api>;
  private readonly most: number;
  private readonly free: Member<Api>[] = [];
  /** Members at work, and what tells their callers that they were stopped. */
  private readonly busy = new Map<Member<Api>, () => void>();
  private waiting: ((member: Member<Api> | null) => void)[] = [];

  /** @param most members at a time, at least 1 */
  constructor(start: () => Member<Api>, most: number) {
    this.start = start;
    this.most = most;
  }

  /** Calls some member as soon as one is free; a crash and a stop are failures like any other. */
  async run<T>(call: (api: Api) => Promise<Outcome<T>>): Promise<Outcome<T>> {
    const own = this.taken();
    const member = own ?? (await new Promise<Member<Api> | null>((give) => this.waiting.push(give)));
    if (!member) return STOPPED;
    const stopped = new Promise<Outcome<T>>((resolve) => this.busy.set(member, () => resolve(STOPPED)));
    const crashed = member.crashed.then(
      ({ message }): Outcome<T> => ({ ok: false, error: { code: 'unexpected', message } }),
    );
    const dead = Promise.race([crashed, stopped]).then((outcome) => ({ outcome, isAlive: false }));
    const done = call(member.api).then((outcome) => ({ outcome, isAlive: true }));
    const { outcome, isAlive } = await Promise.race([done, dead]);
    // A stop has let it go already.
    if (this.busy.delete(member)) this.giveOn(isAlive ? member : null);
    return outcome;
  }

  /** Ends what is under way and what waits. */
  stop(): void {
    const [busy, waiting] = [[...this.busy], this.waiting];
    this.busy.clear();
    this.waiting = [];
    for (const [member, tell] of busy) {
      member.end();
      tell();
    }
    for (const give of waiting) give(null);
  }

  /** A free member, or a new one where there may be one more; it counts as busy from now on. */
  private taken(): Member<Api> | null {
    const member = this.free.pop() ?? (this.busy.size < this.most ? this.start() : null);
    if (member) this.busy.set(member, () => {});
    return member;
  }

  /** @param member null where it died: a new one takes its place when it is needed */
  private giveOn(member: Member<Api> | null): void {
    if (member) this.free.push(member);
    if (this.waiting.length > 0) this.waiting.shift()!(this.taken());
  }
}

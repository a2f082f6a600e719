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
  private readonly busy = new Set<Member<Api>>();
  private waiting: ((member: Member<Api> | null) => void)[] = [];
  private stopped: (() => void)[] = [];

  /** @param most members at a time, at least 1 */
  constructor(start: () => Member<Api>, most: number) {
    this.start = start;
    this.most = most;
  }

  /** Calls some member as soon as one is free; a crash and a stop are failures like any other. */
  async run<T>(call: (api: Api) => Promise<Outcome<T>>): Promise<Outcome<T>> {
    const member = await this.take();
    if (!member) return STOPPED;
    this.busy.add(member);
    const crashed = member.crashed.then(
      ({ message }): Outcome<T> => ({ ok: false, error: { code: 'unexpected', message } }),
    );
    const stopped = new Promise<Outcome<T>>((resolve) => this.stopped.push(() => resolve(STOPPED)));
    const done = call(member.api).then((outcome) => ({ outcome, isAlive: true }));
    const { outcome, isAlive } = await Promise.race([
      done,
      Promise.race([crashed, stopped]).then((ended) => ({ outcome: ended, isAlive: false })),
    ]);
    // A stop has ended it already.
    if (this.busy.delete(member)) this.give(isAlive ? member : null);
    return outcome;
  }

  /** Ends what is under way and what waits. */
  stop(): void {
    for (const member of this.busy) member.end();
    this.busy.clear();
    const [waiting, stopped] = [this.waiting, this.stopped];
    this.waiting = [];
    this.stopped = [];
    for (const give of waiting) give(null);
    for (const end of stopped) end();
  }

  private async take(): Promise<Member<Api> | null> {
    const free = this.free.pop();
    if (free) return free;
    if (this.busy.size < this.most) return this.start();
    return new Promise((give) => this.waiting.push(give));
  }

  /** @param member null where it died: a new one takes its place when it is needed */
  private give(member: Member<Api> | null): void {
    const next = this.waiting.shift();
    if (next) next(member ?? this.start());
    else if (member) this.free.push(member);
  }
}

// clock.ts — how long each part of a file's work took.

const round = (v: number) => Math.round(v * 100) / 100;

export class Clock<Lap extends string> {
  private readonly start = performance.now();
  private last = this.start;
  private readonly laps: Record<Lap, number>;

  constructor(names: readonly Lap[]) {
    this.laps = Object.fromEntries(names.map((name) => [name, 0])) as Record<Lap, number>;
  }

  /** What passed since the last lap was `name`. */
  lap(name: Lap): void {
    const now = performance.now();
    this.laps[name] = now - this.last;
    this.last = now;
  }

  /** Milliseconds. */
  times(): Record<Lap | 'total', number> {
    const laps = Object.entries<number>(this.laps).map(([name, ms]) => [name, round(ms)]);
    return Object.fromEntries([...laps, ['total', round(this.last - this.start)]]) as Record<Lap | 'total', number>;
  }
}

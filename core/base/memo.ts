// memo.ts — results kept by the content of what they depend on.

/** A cache of bounded size; what was used longest ago goes first. */
export class Memo<T> {
  private readonly entries = new Map<string, T>();
  private readonly limit: number;

  constructor(limit: number) {
    this.limit = limit;
  }

  has(key: string): boolean {
    return this.entries.has(key);
  }

  /** The value for `key`, made by `make` when it is not there. A throw is not remembered. */
  get(key: string, make: () => T): T {
    const known = this.entries.get(key);
    if (known !== undefined) {
      this.entries.delete(key);
      this.entries.set(key, known);
      return known;
    }
    const value = make();
    this.entries.set(key, value);
    if (this.entries.size > this.limit) this.entries.delete(this.entries.keys().next().value!);
    return value;
  }
}

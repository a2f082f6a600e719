// disjoint-sets.ts — which things hang together (Galler & Fischer 1964), paths halved while they are followed.
import { uints } from './arrays.ts';

export class DisjointSets {
  private readonly parent: Uint32Array;

  constructor(count: number) {
    this.parent = uints(count, (i) => i);
  }

  /** The same number for all that hang together. */
  find(i: number): number {
    const { parent } = this;
    let root = i;
    while (parent[root] !== root) {
      parent[root] = parent[parent[root]!]!;
      root = parent[root]!;
    }
    return root;
  }

  join(a: number, b: number): void {
    this.parent[this.find(b)] = this.find(a);
  }
}

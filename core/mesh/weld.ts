// weld.ts — points that have the very same float32 coordinates become one: what a file's reader sees.

export interface Welded {
  /** remap[point] → welded point, 0 … count − 1, in order of first appearance. */
  readonly remap: Uint32Array;
  readonly count: number;
}

const EMPTY = 0xffffffff;

/** Welds bit-equal positions (after rounding to float32) through one open-addressed table; −0 equals 0. */
export function weldExact(positions: ArrayLike<number>): Welded {
  const n = positions.length / 3;
  const rounded = new Float32Array(positions.length);
  for (let i = 0; i < rounded.length; i++) rounded[i] = positions[i]! + 0;
  const bits = new Uint32Array(rounded.buffer);
  const size = 2 ** Math.ceil(Math.log2(Math.max(2, n * 2)));
  const table = new Uint32Array(size).fill(EMPTY);
  const remap = new Uint32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    let hash =
      Math.imul(bits[3 * i]!, 0x9e3779b1) ^
      Math.imul(bits[3 * i + 1]!, 0x85ebca77) ^
      Math.imul(bits[3 * i + 2]!, 0xc2b2ae3d);
    hash ^= hash >>> 15;
    for (let slot = hash & (size - 1); ; slot = (slot + 1) & (size - 1)) {
      const found = table[slot]!;
      if (found === EMPTY) {
        table[slot] = i;
        remap[i] = count++;
        break;
      }
      if (
        bits[3 * found] === bits[3 * i] &&
        bits[3 * found + 1] === bits[3 * i + 1] &&
        bits[3 * found + 2] === bits[3 * i + 2]
      ) {
        remap[i] = remap[found]!;
        break;
      }
    }
  }
  return { remap, count };
}

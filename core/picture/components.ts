// components.ts — connected parts of a map of labels, by union-find over the runs of each row (after Rosenfeld & Pfaltz
// 1966, with runs instead of pixels).

export interface Components {
  /** Number of the part each pixel belongs to. */
  readonly of: Int32Array;
  /** Pixels in each part. */
  readonly areas: Uint32Array;
  /** Label of each part. */
  readonly labels: Uint8Array;
}

/**
 * Parts of equal labels, numbered in reading order of their first pixel.
 * @param isDiagonal labels whose pixels also hold together by corners
 */
export function componentsOf(
  map: Uint8Array,
  width: number,
  height: number,
  isDiagonal: (label: number) => boolean = () => false,
): Components {
  // (1) Runs, joined with what they touch in the row above.
  const [starts, ends, owners]: [number[], number[], number[]] = [[], [], []];
  const find = (run: number): number => {
    let root = run;
    while (owners[root]! !== root) root = owners[root]!;
    for (let r = run; r !== root; ) [r, owners[r]] = [owners[r]!, root];
    return root;
  };
  let above = 0;
  for (let y = 0; y < height; y++) {
    const first = starts.length;
    for (let x = 0; x < width; ) {
      const start = y * width + x;
      const label = map[start]!;
      while (x < width && map[y * width + x] === label) x++;
      const run = starts.length;
      starts.push(start);
      ends.push(y * width + x);
      owners.push(run);
      const reach = isDiagonal(label) ? 1 : 0;
      // Runs above that end before this one begins cannot touch later ones either.
      while (above < first && ends[above]! + width + 1 <= start) above++;
      for (let a = above; a < first && starts[a]! + width < y * width + x + reach; a++) {
        if (map[starts[a]!] !== label || ends[a]! + width + reach <= start) continue;
        const [p, q] = [find(a), find(run)];
        if (p !== q) owners[Math.max(p, q)] = Math.min(p, q);
      }
    }
    above = first;
  }
  // (2) Numbers for the roots, in order.
  const numbers = new Int32Array(starts.length).fill(-1);
  const of = new Int32Array(width * height);
  const [areas, labels]: [number[], number[]] = [[], []];
  for (let run = 0; run < starts.length; run++) {
    const root = find(run);
    if (numbers[root] === -1) {
      numbers[root] = areas.length;
      areas.push(0);
      labels.push(map[starts[root]!]!);
    }
    const number = numbers[root]!;
    of.fill(number, starts[run], ends[run]);
    areas[number]! += ends[run]! - starts[run]!;
  }
  return { of, areas: Uint32Array.from(areas), labels: Uint8Array.from(labels) };
}

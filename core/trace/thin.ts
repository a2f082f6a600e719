// thin.ts — ink thinned to lines one pixel wide (Zhang & Suen, "A fast parallel algorithm for thinning digital patterns",
// 1984), and those followed from node to node.

/** Neighbours of a pixel, clockwise from above. */
const ROUND = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
] as const;

/** A map with a frame of zeros, so that every pixel has eight neighbours. */
interface Framed {
  readonly columns: number;
  readonly ink: Uint8Array;
  readonly around: readonly number[];
}

function framed(ink: Uint8Array, width: number, height: number): Framed {
  const columns = width + 2;
  const map = new Uint8Array(columns * (height + 2));
  for (let y = 0; y < height; y++) map.set(ink.subarray(y * width, (y + 1) * width), (y + 1) * columns + 1);
  return { columns, ink: map, around: ROUND.map(([x, y]) => y * columns + x) };
}

/** From paper to ink, going once round a pixel. */
function crossings(ink: Uint8Array, i: number, around: readonly number[]): number {
  let count = 0;
  for (let k = 0; k < 8; k++) if (!ink[i + around[k]!] && ink[i + around[(k + 1) % 8]!]) count++;
  return count;
}

/** Takes away, round by round, what lies at the edge and holds nothing together. */
function thinned(framedInk: Framed): void {
  const { ink, around } = framedInk;
  let left: number[] = [];
  for (let i = 0; i < ink.length; i++) if (ink[i]) left.push(i);
  for (let isChanged = true; isChanged; ) {
    isChanged = false;
    for (const pass of [0, 1]) {
      const goes: number[] = [];
      for (const i of left) {
        const [n, , e, , s, , w] = around.map((offset) => ink[i + offset]!) as [
          number,
          number,
          number,
          number,
          number,
          number,
          number,
        ];
        const count = around.reduce((sum, offset) => sum + ink[i + offset]!, 0);
        if (count < 2 || count > 6) continue;
        if (pass === 0 ? n * e * s || e * s * w : n * e * w || n * s * w) continue;
        if (crossings(ink, i, around) === 1) goes.push(i);
      }
      if (goes.length === 0) continue;
      for (const i of goes) ink[i] = 0;
      left = left.filter((i) => ink[i]);
      isChanged = true;
    }
  }
}

/** Takes the elbows out of stairs, so that every pixel of a line has just two neighbours. */
function withoutElbows({ ink, around }: Framed): void {
  for (let i = 0; i < ink.length; i++) {
    if (!ink[i]) continue;
    const at = (k: number) => ink[i + around[k % 8]!]!;
    for (let k = 0; k < 8; k += 2) {
      if (at(k) && at(k + 2) && !at(k + 4) && !at(k + 5) && !at(k + 6)) {
        ink[i] = 0;
        break;
      }
    }
  }
}

export interface ThinLine {
  /** Pixel centres along it, flat x, y. */
  readonly points: Float64Array;
  /** Nodes at its ends; −1 for a line that closes on itself. */
  readonly from: number;
  readonly to: number;
}

export interface ThinDrawing {
  readonly lines: readonly ThinLine[];
  /** Middles of the nodes: ends, and places where more than two lines meet. Flat x, y. */
  readonly nodes: Float64Array;
}

/** @param ink 1 for ink, row by row */
export function thinDrawing(ink: Uint8Array, width: number, height: number): ThinDrawing {
  const map = framed(ink, width, height);
  thinned(map);
  withoutElbows(map);
  return followed(map);
}

function followed({ ink, columns, around }: Framed): ThinDrawing {
  const at = (i: number): [number, number] => [(i % columns) - 0.5, Math.floor(i / columns) - 0.5];
  // (1) Nodes: pixels that are not just passed, those that touch as one.
  const node = new Int32Array(ink.length).fill(-1);
  const nodes: number[] = [];
  for (let i = 0; i < ink.length; i++) {
    if (!ink[i] || node[i] !== -1 || crossings(ink, i, around) === 2) continue;
    const number = nodes.length / 2;
    const members = [i];
    node[i] = number;
    for (const member of members) {
      for (const offset of around) {
        const j = member + offset;
        if (!ink[j] || node[j] !== -1 || crossings(ink, j, around) < 3 || crossings(ink, i, around) < 3) continue;
        node[j] = number;
        members.push(j);
      }
    }
    let [x, y] = [0, 0];
    for (const member of members) {
      const [u, v] = at(member);
      x += u / members.length;
      y += v / members.length;
    }
    nodes.push(x, y);
  }
  // (2) Lines from node to node, then those without any.
  const seen = new Uint8Array(ink.length);
  const lines: ThinLine[] = [];
  const walk = (start: number, from: number) => {
    const pixels: number[] = [];
    let [here, before] = [start, -1];
    for (;;) {
      pixels.push(here);
      seen[here] = 1;
      const onward = around.map((offset) => here + offset).filter((j) => ink[j] && j !== before);
      const reached = onward.find((j) => node[j]! >= 0 && !(pixels.length === 1 && node[j] === from));
      const next = onward.find((j) => node[j]! < 0 && !seen[j]);
      if (reached !== undefined && (pixels.length > 1 || next === undefined)) return { pixels, to: node[reached]! };
      if (next === undefined) return { pixels, to: reached === undefined ? -1 : node[reached]! };
      [before, here] = [here, next];
    }
  };
  const add = (pixels: number[], from: number, to: number) =>
    lines.push({ points: Float64Array.from(pixels.flatMap(at)), from, to });
  for (let i = 0; i < ink.length; i++) {
    if (node[i]! < 0) continue;
    for (const offset of around) {
      const j = i + offset;
      if (!ink[j] || seen[j] || node[j]! >= 0) continue;
      const { pixels, to } = walk(j, node[i]!);
      add(pixels, node[i]!, to < 0 ? node[i]! : to);
    }
  }
  for (let i = 0; i < ink.length; i++) {
    if (ink[i] && !seen[i] && node[i]! < 0) add(walk(i, -1).pixels, -1, -1);
  }
  return { lines, nodes: Float64Array.from(nodes) };
}

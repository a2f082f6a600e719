// boundary.ts — the boundaries in a map of labels: marching squares over pixel centres, for any number of labels. Where
// three or more meet is a junction; between junctions, and round and round without any, run chains that part two labels.
import type { Grey } from '../picture/types.ts';
import { type PushPlace, pushPlace, type Tones } from './place.ts';

/** A map of labels with a frame one pixel wide around it. */
export interface LabelMap {
  /** Nodes in a row, the frame's two included. */
  readonly columns: number;
  readonly rows: number;
  /** Label of each node; node (x + 1, y + 1) is pixel (x, y). */
  readonly labels: Uint8Array;
  /** How many labels there may be, the frame's included. */
  readonly count: number;
  /** Nodes whose right neighbour has another label, in reading order. */
  readonly changes: readonly number[];
}

export interface Chain {
  /** Places of the edge, about one a pixel, flat x, y in pixels, y down; without the junctions at its ends. */
  readonly points: Float64Array;
  /** For each of them the middle of the side between two pixels that it was placed by: curves through those cannot cross. */
  readonly middles: Float64Array;
  /** Nodes on either side of its first step, walking along it; their labels are those of all the others. */
  readonly left: number;
  readonly right: number;
  /** Numbers of the junctions at its ends; −1 for a chain that closes on itself. */
  readonly from: number;
  readonly to: number;
  /** Sides of the junctions' cells by which it leaves the one and enters the other: 0 top, 1 right, 2 bottom, 3 left. */
  readonly leaves: number;
  readonly enters: number;
  /** Twice the area between its way along the corners of pixels and the origin, by which rings of chains tell their sign. */
  readonly sweep: number;
}

export interface Boundaries {
  readonly chains: readonly Chain[];
  /** Corners of pixels where more than two labels meet, flat x, y. */
  readonly junctions: Float64Array;
}

/** Makes the tones that place an edge: `light` is the smaller of the two labels. */
export type TonesFor = (light: number, dark: number) => Tones;

/**
 * All boundaries of a map. Closed chains have the larger label on their right. Where two labels meet in a chequer of four
 * pixels, the tones say which of them is joined.
 */
export function boundariesOf(map: LabelMap, tonesFor: TonesFor, push: PushPlace = pushPlace): Boundaries {
  return new Walker(map, tonesFor, push).boundaries();
}

/** The label of what lies beyond the sheet. */
export const BEYOND = 255;

/** Any labels below {@link BEYOND} with a frame of that around them. */
export function framedLabels(labels: Uint8Array, width: number, height: number): LabelMap {
  const columns = width + 2;
  const framed = new Uint8Array(columns * (height + 2)).fill(BEYOND);
  for (let y = 0; y < height; y++) framed.set(labels.subarray(y * width, (y + 1) * width), (y + 1) * columns + 1);
  const changes: number[] = [];
  for (let node = 0; node + 1 < framed.length; node++) if (framed[node] !== framed[node + 1]) changes.push(node);
  return { columns, rows: height + 2, labels: framed, count: BEYOND + 1, changes };
}

/** Frame of paper around what is darker than `level`; labels are 1 for ink, 0 for paper. */
export function inkLabels({ width, height, values }: Grey, level: number): LabelMap {
  const columns = width + 2;
  const labels = new Uint8Array(columns * (height + 2));
  const changes: number[] = [];
  for (let y = 0; y < height; y++) {
    const row = (y + 1) * columns + 1;
    const line = values.subarray(y * width, (y + 1) * width);
    // Runs of paper and ink by turns; the frame ends the last one.
    let isInk = false;
    for (let x = 0; x < width; isInk = !isInk) {
      const start = x;
      if (isInk) {
        while (x < width && line[x]! < level) x++;
        labels.fill(1, row + start, row + x);
      } else while (x < width && !(line[x]! < level)) x++;
      if (x < width || isInk) changes.push(row + x - 1);
    }
  }
  return { columns, rows: height + 2, labels, count: 2, changes };
}

/**
 * Crossings are numbered by the grid edge they lie on: 2·node for the edge to the right of a node, 2·node + 1 for the one
 * below it. Cells are numbered by their upper left node.
 */
class Walker {
  private readonly columns: number;
  private readonly labels: Uint8Array;
  private readonly changes: readonly number[];
  private readonly tonesFor: TonesFor;
  private readonly push: PushPlace;
  /** Bit 0 for the crossing to the right of a node, bit 1 for the one below it. */
  private readonly seen: Uint8Array;
  /** Numbers of the junctions by their cell. */
  private readonly numbers = new Map<number, number>();
  private readonly hasJunctions: boolean;

  constructor({ columns, labels, count, changes }: LabelMap, tonesFor: TonesFor, push: PushPlace) {
    this.push = push;
    this.hasJunctions = count > 2;
    this.columns = columns;
    this.labels = labels;
    this.changes = changes;
    this.tonesFor = tonesFor;
    this.seen = new Uint8Array(labels.length);
  }

  boundaries(): Boundaries {
    const { labels, columns, changes } = this;
    if (this.hasJunctions) this.findJunctions(changes);
    const chains: Chain[] = [];
    for (const cell of this.numbers.keys()) {
      for (const crossing of this.crossingsOf(cell))
        if (!this.isSeen(crossing)) chains.push(this.follow(crossing, cell));
    }
    for (const node of changes) {
      if (this.isSeen(2 * node)) continue;
      // Upward has the node on the left, downward on the right.
      const isUp = labels[node]! < labels[node + 1]!;
      chains.push(this.follow(2 * node, isUp ? node : node - columns));
    }
    const junctions = new Float64Array(2 * this.numbers.size);
    for (const [cell, n] of this.numbers) {
      junctions[2 * n] = cell % columns;
      junctions[2 * n + 1] = Math.floor(cell / columns);
    }
    return { chains, junctions };
  }

  /** More than two labels meet only beside a change in a row. */
  private findJunctions(changes: readonly number[]): void {
    const { columns, labels, numbers } = this;
    for (const node of changes) {
      for (const cell of [node - columns, node]) {
        if (cell < 0 || cell + columns + 1 >= labels.length || numbers.has(cell)) continue;
        if (this.isJunction(cell)) numbers.set(cell, numbers.size);
      }
    }
  }

  private isJunction(cell: number): boolean {
    const { labels, columns } = this;
    const [a, b, c, d] = [labels[cell]!, labels[cell + 1]!, labels[cell + columns + 1]!, labels[cell + columns]!];
    const crossed = Number(a !== b) + Number(b !== c) + Number(c !== d) + Number(d !== a);
    return crossed === 3 || (crossed === 4 && !(a === c && b === d));
  }

  /** Crossings on the four sides of a cell: top, right, bottom, left. */
  private crossingsOf(cell: number): number[] {
    const { labels, columns } = this;
    const [a, b, c, d] = [cell, cell + 1, cell + columns + 1, cell + columns];
    const crossings: number[] = [];
    if (labels[a] !== labels[b]) crossings.push(2 * a);
    if (labels[b] !== labels[c]) crossings.push(2 * b + 1);
    if (labels[d] !== labels[c]) crossings.push(2 * d);
    if (labels[a] !== labels[d]) crossings.push(2 * a + 1);
    return crossings;
  }

  /** Walks from a cell through one of its crossings to a junction, or round to that crossing again. */
  private follow(start: number, cell: number): Chain {
    const { columns, labels, seen } = this;
    const from = this.numbers.get(cell) ?? -1;
    const first = start >> 1;
    const second = start & 1 ? first + columns : first + 1;
    // Out of its left node's cell upward or to the right, the left node is on the left.
    const isForward = start & 1 ? cell === first - 1 : cell === first;
    const [left, right] = isForward ? [first, second] : [second, first];
    const [l, r] = [labels[left]!, labels[right]!];
    const tones = this.tonesFor(Math.min(l, r), Math.max(l, r));
    const [points, middles]: [number[], number[]] = [[], []];
    let [crossing, at] = [start, cell];
    let to = -1;
    let sweep = 0;
    do {
      const before = at;
      seen[crossing >> 1]! |= 1 << (crossing & 1);
      const node = crossing >> 1;
      const [x, y] = [(node % columns) - 1, Math.floor(node / columns) - 1];
      // The cell beyond: an edge to the right of a node has cells below and above, one below it right and left.
      if (crossing & 1) {
        this.push(tones, x, y, x, y + 1, points);
        middles.push(x + 0.5, y + 1);
        at = at === node ? node - 1 : node;
      } else {
        this.push(tones, x, y, x + 1, y, points);
        middles.push(x + 1, y + 0.5);
        at = at === node ? node - columns : node;
      }
      sweep += this.sweepBetween(before, at);
      to = this.hasJunctions ? (this.numbers.get(at) ?? -1) : -1;
      if (to >= 0) break;
      crossing = this.exit(at, crossing, tones);
    } while (crossing !== start);
    const ports = { leaves: this.sideOf(cell, start), enters: this.sideOf(at, crossing) };
    return { ...thinned(points, middles, to < 0), left, right, from, to, ...ports, sweep };
  }

  private sweepBetween(p: number, q: number): number {
    const { columns } = this;
    return (p % columns) * Math.floor(q / columns) - (q % columns) * Math.floor(p / columns);
  }

  private isSeen(crossing: number): boolean {
    return (this.seen[crossing >> 1]! & (1 << (crossing & 1))) !== 0;
  }

  private sideOf(cell: number, crossing: number): number {
    const isUpright = (crossing & 1) === 1;
    if (crossing >> 1 === cell) return isUpright ? 3 : 0;
    return isUpright ? 1 : 2;
  }

  /** The crossing by which a boundary leaves a cell that it entered by another. */
  private exit(cell: number, entry: number, tones: Tones): number {
    const { labels, columns } = this;
    const [a, b, c, d] = [cell, cell + 1, cell + columns + 1, cell + columns];
    const [top, right, bottom, left] = [2 * a, 2 * b + 1, 2 * d, 2 * a + 1];
    const [isTop, isRight] = [labels[a] !== labels[b], labels[b] !== labels[c]];
    const [isBottom, isLeft] = [labels[d] !== labels[c], labels[a] !== labels[d]];
    if (isTop && isRight && isBottom && isLeft) {
      const [x, y] = [(cell % columns) - 1, Math.floor(cell / columns) - 1];
      const sum = tones.at(x, y) + tones.at(x + 1, y) + tones.at(x + 1, y + 1) + tones.at(x, y + 1);
      const isDarkJoined = sum < 4 * tones.level;
      const isAJoined = labels[a]! > labels[b]! === isDarkJoined;
      // Around b and d where a and c are joined, else around a and c.
      if (isAJoined) return entry === top ? right : entry === right ? top : entry === bottom ? left : bottom;
      return entry === top ? left : entry === left ? top : entry === bottom ? right : bottom;
    }
    if (isTop && entry !== top) return top;
    if (isRight && entry !== right) return right;
    if (isBottom && entry !== bottom) return bottom;
    return left;
  }
}

/** Crossings that share a pixel give one point twice, neighbours nearly so; even steps make directions steady. */
const SAME = 0.5;

function thinned(points: readonly number[], middles: readonly number[], isClosed: boolean) {
  const [kept, sides] = [new Float64Array(points.length), new Float64Array(points.length)];
  let n = 0;
  const isApart = (i: number, x: number, y: number) => {
    const [dx, dy] = [x - kept[i]!, y - kept[i + 1]!];
    return dx * dx + dy * dy > SAME * SAME;
  };
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i]!, points[i + 1]!];
    if (n > 0 && !isApart(n - 2, x, y)) continue;
    [kept[n], kept[n + 1]] = [x, y];
    [sides[n], sides[n + 1]] = [middles[i]!, middles[i + 1]!];
    n += 2;
  }
  while (isClosed && n > 2 && !isApart(0, kept[n - 2]!, kept[n - 1]!)) n -= 2;
  return { points: kept.slice(0, n), middles: sides.slice(0, n) };
}

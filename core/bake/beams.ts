// beams.ts — where very many parallel rays meet triangles: everything is seen along their direction, and each cell of a grid across it
// knows the triangles in it. Asked for thousands of places at once that is many times faster than a tree of boxes, and as exact.

/** Cells of the grid along each side. */
const CELLS = 224;
/** Numbers of a triangle: a corner across the direction, two sides from it, what they divide by, and depths. */
const WIDE = 10;

export class Beams {
  private readonly positions: Float64Array;
  private readonly count: number;
  private readonly triangles: Float64Array;
  /** Triangles in cell i that face along the direction are in list 2 i, those that face against it in list 2 i + 1. */
  private readonly starts = new Uint32Array(2 * CELLS * CELLS + 1);
  private lists = new Uint32Array(0);
  /** Cells and the triangles in them, as they were found. */
  private cells = new Uint32Array(0);
  private owners = new Uint32Array(0);
  /** From where to where a triangle reaches in a row. */
  private from = 0;
  private to = 0;
  private readonly axes = new Float64Array(9);
  /** Of the grid: its lower left corner, and cells in a unit of length. */
  private left = 0;
  private low = 0;
  private fine = 1;

  /** @param positions nine numbers a triangle, counter-clockwise seen from outside */
  constructor(positions: Float64Array) {
    this.positions = positions;
    this.count = positions.length / 9;
    this.triangles = new Float64Array(WIDE * this.count);
  }

  /** Turns to rays of another direction. @param d of length 1 */
  aim(dx: number, dy: number, dz: number): void {
    // An orthonormal frame around the direction (Duff and others 2017).
    const sign = dz < 0 ? -1 : 1;
    const a = -1 / (sign + dz);
    const b = dx * dy * a;
    this.axes.set([1 + sign * dx * dx * a, sign * b, -sign * dx, b, sign + dy * dy * a, -dy, dx, dy, dz]);
    this.project();
    this.sort();
  }

  private project(): void {
    const { positions: p, triangles: t, axes } = this;
    const [ux, uy, uz, vx, vy, vz, dx, dy, dz] = axes as unknown as Nine;
    let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
    const at = new Float64Array(9);
    for (let i = 0; i < this.count; i++) {
      for (let k = 0; k < 9; k += 3) {
        const x = p[9 * i + k]!;
        const y = p[9 * i + k + 1]!;
        const z = p[9 * i + k + 2]!;
        const [across, up] = [x * ux + y * uy + z * uz, x * vx + y * vy + z * vz];
        at[k] = across;
        at[k + 1] = up;
        at[k + 2] = x * dx + y * dy + z * dz;
        if (across < left) left = across;
        if (across > right) right = across;
        if (up < low) low = up;
        if (up > high) high = up;
      }
      const to = WIDE * i;
      t[to] = at[0]!;
      t[to + 1] = at[1]!;
      t[to + 2] = at[3]! - at[0]!;
      t[to + 3] = at[4]! - at[1]!;
      t[to + 4] = at[6]! - at[0]!;
      t[to + 5] = at[7]! - at[1]!;
      t[to + 6] = 1 / (t[to + 2]! * t[to + 5]! - t[to + 3]! * t[to + 4]!);
      t[to + 7] = at[2]!;
      t[to + 8] = at[5]! - at[2]!;
      t[to + 9] = at[8]! - at[2]!;
    }
    this.left = left;
    this.low = low;
    this.fine = (CELLS * (1 - 1e-9)) / (Math.max(right - left, high - low) || 1);
  }

  /** Puts the triangles into their cells. */
  private sort(): void {
    const { starts } = this;
    starts.fill(0);
    const total = this.fill();
    const { cells, owners } = this;
    for (let i = 0; i < total; i++) starts[cells[i]! + 1]!++;
    for (let list = 0; list + 1 < starts.length; list++) starts[list + 1]! += starts[list]!;
    if (this.lists.length < total) this.lists = new Uint32Array(cells.length);
    const next = starts.slice(0, -1);
    for (let i = 0; i < total; i++) this.lists[next[cells[i]!]!++] = owners[i]!;
  }

  /** Lists every cell that a triangle may reach into; those that are seen edge on hide nothing. @returns how many */
  private fill(): number {
    const { triangles: t, left, low, fine } = this;
    let total = 0;
    for (let i = 0, at = 0; i < this.count; i++, at += WIDE) {
      if (!Number.isFinite(t[at + 6]!)) continue;
      const ax = (t[at]! - left) * fine;
      const ay = (t[at + 1]! - low) * fine;
      const bx = ax + t[at + 2]! * fine;
      const by = ay + t[at + 3]! * fine;
      const cx = ax + t[at + 4]! * fine;
      const cy = ay + t[at + 5]! * fine;
      const last = cellAt(Math.max(ay, by, cy));
      for (let row = cellAt(Math.min(ay, by, cy)); row <= last; row++) {
        this.from = Infinity;
        this.to = -Infinity;
        this.reach(ax, ay, bx, by, row);
        this.reach(bx, by, cx, cy, row);
        this.reach(cx, cy, ax, ay, row);
        const end = row * CELLS + cellAt(this.to);
        const isAgainst = t[at + 6]! < 0 ? 1 : 0;
        if (total + CELLS > this.cells.length) this.grow();
        for (let cell = row * CELLS + cellAt(this.from); cell <= end; cell++) {
          this.cells[total] = 2 * cell + isAgainst;
          this.owners[total++] = i;
        }
      }
    }
    return total;
  }

  private grow(): void {
    const [cells, owners] = [this.cells, this.owners];
    this.cells = new Uint32Array(2 * (cells.length + CELLS));
    this.owners = new Uint32Array(this.cells.length);
    this.cells.set(cells);
    this.owners.set(owners);
  }

  /** Makes what is reached of a row of cells as wide as a line is in it. */
  private reach(ax: number, ay: number, bx: number, by: number, row: number): void {
    if (ay > by) {
      this.reach(bx, by, ax, ay, row);
      return;
    }
    if (by < row || ay > row + 1) return;
    const slope = by > ay ? (bx - ax) / (by - ay) : 0;
    const start = ay < row ? ax + (row - ay) * slope : ax;
    const end = by > row + 1 ? ax + (row + 1 - ay) * slope : bx;
    this.from = Math.min(this.from, start, end);
    this.to = Math.max(this.to, start, end);
  }

  /** Which places are inside something: there, what is nearest is seen from behind. @param places as for {@link darken} */
  covered(places: Float64Array): Uint8Array {
    const [shown, turned] = [0, 1].map(() => new Float64Array(places.length / 6).fill(Infinity)) as [Lengths, Lengths];
    this.nearest(places, false, shown);
    this.nearest(places, true, turned);
    return Uint8Array.from(shown, (distance, k) => (turned[k]! < distance ? 1 : 0));
  }

  /**
   * Adds how dark it is where places look along the direction, or against it where that is the side they face: less the further
   * away the nearest thing is, nothing from `reach` on.
   * @param places six numbers each: x, y, z, and the normal there
   * @param dark is added to, and so is `weights` by how much light from there counts (Lambert's cosine)
   */
  darken(places: Float64Array, reach: number, dark: Float32Array, weights: Float32Array): void {
    const [, , , , , , dx, dy, dz] = this.axes as unknown as Nine;
    const distances = new Float64Array(weights.length).fill(reach);
    this.nearest(places, false, distances);
    for (let k = 0; k < weights.length; k++) {
      const cosine = Math.abs(dx * places[6 * k + 3]! + dy * places[6 * k + 4]! + dz * places[6 * k + 5]!);
      weights[k]! += cosine;
      dark[k]! += cosine * (1 - distances[k]! / reach);
    }
  }

  /** Makes distances as short as they are to triangles that show their front, or their back where `isTurned`. */
  private nearest(places: Float64Array, isTurned: boolean, distances: Lengths): void {
    const { triangles: t, axes, starts, lists, left, low, fine } = this;
    const [ux, uy, uz, vx, vy, vz, dx, dy, dz] = axes as unknown as Nine;
    for (let k = 0, p = 0; k < distances.length; k++, p += 6) {
      const way = dx * places[p + 3]! + dy * places[p + 4]! + dz * places[p + 5]! > 0 ? 1 : -1;
      const x = places[p]!;
      const y = places[p + 1]!;
      const z = places[p + 2]!;
      const u = x * ux + y * uy + z * uz;
      const v = x * vx + y * vy + z * vz;
      const depth = way * (x * dx + y * dy + z * dz);
      const cell = cellAt((v - low) * fine) * CELLS + cellAt((u - left) * fine);
      const list = 2 * cell + (way > 0 === isTurned ? 0 : 1);
      const end = starts[list + 1]!;
      let nearest = distances[k]!;
      for (let i = starts[list]!; i < end; i++) {
        const at = WIDE * lists[i]!;
        const px = u - t[at]!;
        const py = v - t[at + 1]!;
        const by = t[at + 6]!;
        const b = (px * t[at + 5]! - py * t[at + 4]!) * by;
        if (b < 0) continue;
        const c = (t[at + 2]! * py - t[at + 3]! * px) * by;
        if (c < 0 || b + c > 1) continue;
        const distance = way * (t[at + 7]! + b * t[at + 8]! + c * t[at + 9]!) - depth;
        if (distance > 0 && distance < nearest) nearest = distance;
      }
      distances[k] = nearest;
    }
  }
}

type Lengths = Float64Array;
type Nine = readonly [number, number, number, number, number, number, number, number, number];

const cellAt = (v: number) => (v <= 0 ? 0 : v >= CELLS - 1 ? CELLS - 1 : Math.floor(v));

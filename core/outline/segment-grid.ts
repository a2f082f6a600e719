// segment-grid.ts — segments in a uniform grid of cells, for "what is near this point". Built once, never changed.

export interface SegmentGridOptions {
  /** Cells per segment, on average. */
  readonly density?: number;
  /** What {@link SegmentGrid.index} gave for the very same segments, which spares building it again. */
  readonly index?: GridIndex;
}

/** A grid as plain data, so that one thread can build it for another. */
export interface GridIndex {
  readonly minX: number;
  readonly minY: number;
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  readonly starts: Uint32Array;
  readonly ids: Uint32Array;
}

/** Longest list of cells one segment may be entered in, as a share of all; keeps one long line from filling the grid. */
const MAX_CELLS = 1 << 22;

/** Index over segments i = (x0, y0)–(x1, y1), given flat as four numbers each. */
export class SegmentGrid {
  private readonly segments: Float64Array;
  private readonly minX: number;
  private readonly minY: number;
  private readonly cell: number;
  private readonly columns: number;
  private readonly rows: number;
  /** Segment ids of cell c stand at ids[starts[c]] … ids[starts[c + 1] - 1]. */
  private readonly starts: Uint32Array;
  private readonly ids: Uint32Array;
  /** The last query that saw each segment, so that one query reports it once. */
  private readonly seen: Uint32Array;
  private query = 0;

  constructor(segments: Float64Array, { density = 2, index }: SegmentGridOptions = {}) {
    this.segments = segments;
    const count = segments.length / 4;
    this.seen = new Uint32Array(count);
    if (index) {
      ({ minX: this.minX, minY: this.minY, cell: this.cell, columns: this.columns, rows: this.rows } = index);
      ({ starts: this.starts, ids: this.ids } = index);
      return;
    }
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < segments.length; i += 2) {
      minX = Math.min(minX, segments[i]!);
      maxX = Math.max(maxX, segments[i]!);
      minY = Math.min(minY, segments[i + 1]!);
      maxY = Math.max(maxY, segments[i + 1]!);
    }
    const width = Math.max(maxX - minX, 1e-300);
    const height = Math.max(maxY - minY, 1e-300);
    const wanted = Math.min(MAX_CELLS, Math.max(1, count * density));
    this.cell = Math.max(Math.sqrt((width * height) / wanted), Math.max(width, height) / wanted);
    this.minX = minX;
    this.minY = minY;
    this.columns = Math.floor(width / this.cell) + 1;
    this.rows = Math.floor(height / this.cell) + 1;
    this.starts = new Uint32Array(this.columns * this.rows + 1);
    for (let s = 0; s < count; s++) this.eachCellOf(s, (c) => this.starts[c + 1]!++);
    for (let c = 0; c < this.columns * this.rows; c++) this.starts[c + 1]! += this.starts[c]!;
    this.ids = new Uint32Array(this.starts[this.columns * this.rows]!);
    const fill = this.starts.slice();
    for (let s = 0; s < count; s++) {
      this.eachCellOf(s, (c) => {
        this.ids[fill[c]!++] = s;
      });
    }
  }

  index(): GridIndex {
    const { minX, minY, cell, columns, rows, starts, ids } = this;
    return { minX, minY, cell, columns, rows, starts, ids };
  }

  /** Calls `visit` once for each segment that may come within `radius` of (x, y) — a superset of those that do. */
  near(x: number, y: number, radius: number, visit: (segment: number) => void): void {
    this.box(x - radius, y - radius, x + radius, y + radius, visit);
  }

  /** Calls `visit` once for each segment in a cell that the box touches. */
  box(minX: number, minY: number, maxX: number, maxY: number, visit: (segment: number) => void): void {
    this.query++;
    const [c0, c1] = [this.column(minX), this.column(maxX)];
    const [r0, r1] = [this.row(minY), this.row(maxY)];
    for (let r = r0; r <= r1; r++) {
      for (let c = c0; c <= c1; c++) this.visitCell(r * this.columns + c, visit);
    }
  }

  /** What {@link collect} found. */
  collected: Uint32Array = new Uint32Array(0);

  /** Like {@link box}, without calling anything. @returns how many segments now stand at the beginning of `collected` */
  collect(minX: number, minY: number, maxX: number, maxY: number): number {
    const { seen, starts, ids, columns } = this;
    if (this.collected.length < seen.length) this.collected = new Uint32Array(seen.length);
    const { collected } = this;
    const query = ++this.query;
    const first = this.column(minX);
    const last = this.column(maxX);
    const lastRow = this.row(maxY);
    let count = 0;
    for (let r = this.row(minY); r <= lastRow; r++) {
      const end = starts[r * columns + last + 1]!;
      // The cells of a row stand one after another.
      for (let i = starts[r * columns + first]!; i < end; i++) {
        const segment = ids[i]!;
        if (seen[segment] === query) continue;
        seen[segment] = query;
        collected[count++] = segment;
      }
    }
    return count;
  }

  /** Searches rings of cells outward from (x, y) while `bound()` says that something nearer could still be found. */
  outward(x: number, y: number, bound: () => number, visit: (segment: number) => void): void {
    this.query++;
    const column = this.column(x);
    const row = this.row(y);
    const last = Math.max(this.columns, this.rows);
    for (let k = 0; k <= last; k++) {
      // Whatever lies in ring k is at least k − 1 whole cells away.
      if ((k - 1) * this.cell > bound()) return;
      for (let r = row - k; r <= row + k; r++) {
        if (r < 0 || r >= this.rows) continue;
        const step = Math.abs(r - row) === k ? 1 : 2 * k;
        for (let c = column - k; c <= column + k; c += Math.max(1, step)) {
          if (c >= 0 && c < this.columns) this.visitCell(r * this.columns + c, visit);
        }
      }
    }
  }

  /** Of the last {@link nearest}: how far away it was, and the place on the segment. */
  distance = 0;
  nearestX = 0;
  nearestY = 0;

  /**
   * The segment nearest to (x, y); −1 when none is nearer than `limit`, and `distance` is that then. The same search as
   * {@link outward}, without calling anything: it is what measuring widths does most.
   */
  nearest(x: number, y: number, limit: number): number {
    const { segments: s, starts, ids, columns, rows, cell } = this;
    const column = this.column(x);
    const row = this.row(y);
    const last = Math.max(columns, rows);
    let best = limit * limit;
    let found = -1;
    let bound = limit;
    for (let k = 0; k <= last && (k - 1) * cell <= bound; k++) {
      const [firstRow, lastRow] = [Math.max(0, row - k), Math.min(rows - 1, row + k)];
      for (let r = firstRow; r <= lastRow; r++) {
        const step = Math.abs(r - row) === k ? 1 : Math.max(1, 2 * k);
        for (let c = column - k; c <= column + k; c += step) {
          if (c < 0 || c >= columns) continue;
          const end = starts[r * columns + c + 1]!;
          for (let i = starts[r * columns + c]!; i < end; i++) {
            const at = 4 * ids[i]!;
            const ax = s[at]!;
            const ay = s[at + 1]!;
            const dx = s[at + 2]! - ax;
            const dy = s[at + 3]! - ay;
            const t = ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy);
            const share = t > 0 ? (t < 1 ? t : 1) : 0;
            const ex = x - ax - share * dx;
            const ey = y - ay - share * dy;
            const square = ex * ex + ey * ey;
            if (square >= best) continue;
            best = square;
            found = ids[i]!;
            this.nearestX = ax + share * dx;
            this.nearestY = ay + share * dy;
          }
        }
      }
      if (found >= 0) bound = Math.sqrt(best);
    }
    this.distance = found < 0 ? limit : Math.sqrt(best);
    return found;
  }

  /** Searches the cells from (x, y) to the left while `bound()` is to the left of what could still be found. */
  leftward(x: number, y: number, bound: () => number, visit: (segment: number) => void): void {
    this.query++;
    const row = this.row(y);
    for (let c = this.column(x); c >= 0; c--) {
      // A little wider than the cell, as segments are entered.
      if (this.minX + (c + 1 + 1e-6) * this.cell < bound()) return;
      this.visitCell(row * this.columns + c, visit);
    }
  }

  private visitCell(cell: number, visit: (segment: number) => void): void {
    for (let i = this.starts[cell]!; i < this.starts[cell + 1]!; i++) {
      const s = this.ids[i]!;
      if (this.seen[s] === this.query) continue;
      this.seen[s] = this.query;
      visit(s);
    }
  }

  private column(x: number): number {
    return Math.min(this.columns - 1, Math.max(0, Math.floor((x - this.minX) / this.cell)));
  }

  private row(y: number): number {
    return Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.minY) / this.cell)));
  }

  /** Cells that segment `s` may pass through: per row, the columns its part of that row spans. */
  private eachCellOf(s: number, visit: (cell: number) => void): void {
    const i = 4 * s;
    const x0 = this.segments[i]!;
    const y0 = this.segments[i + 1]!;
    const x1 = this.segments[i + 2]!;
    const y1 = this.segments[i + 3]!;
    const r0 = this.row(Math.min(y0, y1));
    const r1 = this.row(Math.max(y0, y1));
    for (let r = r0; r <= r1; r++) {
      let low = Math.min(x0, x1);
      let high = Math.max(x0, x1);
      if (r1 > r0) {
        const xAt = (y: number) => x0 + ((x1 - x0) * (y - y0)) / (y1 - y0);
        const a = xAt(this.minY + r * this.cell);
        const b = xAt(this.minY + (r + 1) * this.cell);
        low = Math.max(low, Math.min(a, b));
        high = Math.min(high, Math.max(a, b));
      }
      // A little wider than the arithmetic says, so that rounding cannot lose a cell.
      const slack = this.cell * 1e-6;
      for (let c = this.column(low - slack); c <= this.column(high + slack); c++) visit(r * this.columns + c);
    }
  }
}

// paper.ts — how the light falls on the paper of a scan or a photograph: a smooth surface fitted to the lightest places, which what
// is drawn lies below.
import { luma } from './colour.ts';
import type { Picture } from './types.ts';

/** Luma of the paper in the middle of each cell of a grid over the picture, row by row, 0 … 1. */
export interface Paper {
  /** Of a cell, px. */
  readonly side: number;
  readonly columns: number;
  readonly rows: number;
  readonly values: Float32Array;
}

export interface SmoothPaper extends Paper {
  /** Luma where the paper is lit best, and where worst. */
  readonly light: number;
  readonly dark: number;
  /** Share of the cells that are paper: within a few hundredths of the surface. */
  readonly share: number;
  /** Whether that paper lies in all four quarters of the picture, so that the surface is known everywhere. */
  readonly isSpread: boolean;
}

/** Cells along the longer side; a cell's paper is the luma that this share of its pixels does not exceed. */
const CELLS = 48;
const LIGHTEST = 0.8;
/** Least side of a cell, px: in fewer pixels noise decides. */
const LEAST_CELL = 6;
/** Degree of the surface that tells paper from what is drawn, and of the one through the paper alone. */
const [ROUGH, FINAL] = [2, 4];
const ROUNDS = 12;
/** What lies below the surface pulls this much less than what lies above (asymmetric least squares: Newey & Powell 1987). */
const BELOW = 0.005;
/** In the logarithm of luma: paper lies within this of the surface, and is looked for a little further off first. */
const ON_PAPER = 0.08;
const NEARER = [2 * ON_PAPER, ON_PAPER, ON_PAPER, ON_PAPER] as const;
const FROM_FAR = [4 * ON_PAPER, ...NEARER] as const;
/** Levels of what may be paper, in the logarithm of luma below the lightest: as far down, in such steps. */
const [LOWEST_LEVEL, LEVEL_STEP] = [-0.35, 0.02];
/** Keeps terms that nothing asks for small. */
const RIDGE = 1e-4;
/** Nothing is known of places darker than this, 0 … 1: light that is not there cannot be divided out. */
const LEAST_LUMA = 4 / 255;

interface Cell {
  /** In the middle of the cell, −1 … 1. */
  readonly u: number;
  readonly v: number;
  /** Logarithm of luma. */
  readonly value: number;
}

/** Light that falls off evenly: a smooth surface through the lightest places. What is transparent counts as nothing. */
export function smoothPaper(picture: Picture): SmoothPaper {
  const { width, height } = picture;
  const grid = lightest(picture, Math.max(LEAST_CELL, Math.ceil(Math.max(width, height) / CELLS)));
  const { side, columns, rows } = grid;
  const place = (i: number, side: number, size: number) => (2 * (i + 0.5) * side) / size - 1;
  const all = Array.from(
    grid.values,
    (value, i): Cell => ({
      u: place(i % columns, side, width),
      v: place(Math.floor(i / columns), side, height),
      value: Math.log(value),
    }),
  );
  const cells = all.filter(({ value }) => !Number.isNaN(value));
  const rough = envelope(cells);
  // Above an envelope there is only noise, and of two light grounds the larger one tells more.
  const below = commonest(cells.map(({ u, v, value }) => value - surfaceAt(rough, ROUGH, u, v)));
  const [near, far] = [settledOn(cells, rough, below, NEARER), settledOn(cells, rough, 0, FROM_FAR)];
  const tell = (terms: Float64Array) => cells.filter((cell) => isOn(cell, terms, FINAL, ON_PAPER / 2)).length;
  const terms = tell(near) > tell(far) ? near : far;
  const values = Float32Array.from(all, ({ u, v }) => Math.min(1, Math.exp(surfaceAt(terms, FINAL, u, v))));
  const paper = all.flatMap((cell, i) => (isOn(cell, terms, FINAL, ON_PAPER) ? [{ ...cell, luma: values[i]! }] : []));
  return {
    side,
    columns,
    rows,
    values,
    light: paper.reduce((most, cell) => Math.max(most, cell.luma), 0),
    dark: paper.reduce((least, cell) => Math.min(least, cell.luma), 1),
    share: cells.length > 0 ? paper.length / cells.length : 0,
    isSpread: new Set(paper.map(({ u, v }) => 2 * Number(u > 0) + Number(v > 0))).size === 4,
  };
}

/**
 * Light with the borders of shadows in it: the lightest luma within about a window around each place.
 * @param window px; what is drawn wider than this is taken for shadow
 */
export function nearPaper(picture: Picture, window: number): Paper {
  const grid = lightest(picture, Math.max(LEAST_CELL, Math.round(window / 2)));
  const highest = around(grid, (near) => Math.max(...near, LEAST_LUMA));
  return around(highest, (near) => near.reduce((sum, v) => sum + v, 0) / near.length);
}

/** Each cell from those that are known of the nine around it. */
function around(grid: Paper, of: (near: readonly number[]) => number): Paper {
  const { columns, rows, values } = grid;
  const next = Float32Array.from(values, (_, i) => {
    const [x, y] = [i % columns, Math.floor(i / columns)];
    const near: number[] = [];
    for (let v = Math.max(0, y - 1); v <= Math.min(rows - 1, y + 1); v++) {
      for (let u = Math.max(0, x - 1); u <= Math.min(columns - 1, x + 1); u++) {
        const value = values[v * columns + u]!;
        if (!Number.isNaN(value)) near.push(value);
      }
    }
    return of(near);
  });
  return { ...grid, values: next };
}

/** The lightest luma of each cell but for a few pixels of noise; not a number where all can be seen through. */
function lightest({ width, height, data }: Picture, side: number): Paper {
  const [columns, rows] = [Math.ceil(width / side), Math.ceil(height / side)];
  const values = new Float32Array(columns * rows).fill(NaN);
  const bins = new Uint32Array(256);
  for (let cell = 0; cell < values.length; cell++) {
    const [left, top] = [side * (cell % columns), side * Math.floor(cell / columns)];
    bins.fill(0);
    let total = 0;
    for (let y = top; y < Math.min(height, top + side); y++) {
      for (let x = left; x < Math.min(width, left + side); x++) {
        const p = 4 * (y * width + x);
        if (data[p + 3]! < 255) continue;
        bins[Math.round(255 * luma(data[p]!, data[p + 1]!, data[p + 2]!))]!++;
        total++;
      }
    }
    if (total === 0) continue;
    let [bin, sum] = [0, bins[0]!];
    while (sum <= LIGHTEST * total && bin < 255) sum += bins[++bin]!;
    values[cell] = Math.max(LEAST_LUMA, bin / 255);
  }
  return { side, columns, rows, values };
}

/** The level that most values are near to. */
function commonest(values: readonly number[]): number {
  let [best, most] = [0, 0];
  for (let level = 0; level >= LOWEST_LEVEL; level -= LEVEL_STEP) {
    const count = values.filter((value) => Math.abs(value - level) < ON_PAPER / 2).length;
    if (count > most) [best, most] = [level, count];
  }
  return best;
}

const isOn = ({ u, v, value }: Cell, terms: Float64Array, degree: number, reach: number): boolean =>
  Math.abs(value - surfaceAt(terms, degree, u, v)) < reach;

/** The surface through what lies near a rough one, or as far below it, nearer each time. */
function settledOn(
  cells: readonly Cell[],
  rough: Float64Array,
  below: number,
  reaches: readonly number[],
): Float64Array {
  let [terms, degree, level] = [rough, ROUGH, below];
  for (const reach of reaches) {
    const near = cells.filter((cell) => isOn({ ...cell, value: cell.value - level }, terms, degree, reach));
    [terms, degree, level] = [fitted(near, null, FINAL), FINAL, 0];
  }
  return terms;
}

/** The terms of a surface that little lies above. */
function envelope(cells: readonly Cell[]): Float64Array {
  let terms: Float64Array = new Float64Array(1);
  let weights: readonly number[] | null = null;
  for (let degree = 0; degree <= ROUGH; degree++) {
    for (let round = 0; round < ROUNDS; round++) {
      terms = fitted(cells, weights, degree);
      const next: number[] = cells.map(({ u, v, value }) => (value < surfaceAt(terms, degree, u, v) ? BELOW : 1));
      if (weights && next.every((weight, i) => weight === weights![i])) break;
      weights = next;
    }
  }
  return terms;
}

/** Products of Legendre polynomials of u and v whose degrees add up to no more than `degree`. */
function termsAt(degree: number, u: number, v: number): number[] {
  const [p, q] = [legendre(degree, u), legendre(degree, v)];
  const terms: number[] = [];
  for (let i = 0; i <= degree; i++) for (let j = 0; i + j <= degree; j++) terms.push(p[i]! * q[j]!);
  return terms;
}

/** P0 … Pn at t, by Bonnet's recursion. */
function legendre(n: number, t: number): number[] {
  const p = [1, t];
  for (let k = 1; k < n; k++) p.push(((2 * k + 1) * t * p[k]! - k * p[k - 1]!) / (k + 1));
  return p;
}

function surfaceAt(terms: Float64Array, degree: number, u: number, v: number): number {
  return termsAt(degree, u, v).reduce((sum, value, k) => sum + value * terms[k]!, 0);
}

/** Least squares, weighted or not, by the normal equations, which Legendre's polynomials keep well behaved. */
function fitted(cells: readonly Cell[], weights: readonly number[] | null, degree: number): Float64Array {
  const count = ((degree + 1) * (degree + 2)) / 2;
  const matrix = Array.from({ length: count }, () => new Float64Array(count + 1));
  let total = 0;
  for (const [i, { u, v, value }] of cells.entries()) {
    const weight = weights ? weights[i]! : 1;
    total += weight;
    const terms = termsAt(degree, u, v);
    for (let r = 0; r < count; r++) {
      for (let c = r; c < count; c++) matrix[r]![c]! += weight * terms[r]! * terms[c]!;
      matrix[r]![count]! += weight * terms[r]! * value;
    }
  }
  for (let r = 0; r < count; r++) {
    for (let c = 0; c < r; c++) matrix[r]![c] = matrix[c]![r]!;
    if (r > 0) matrix[r]![r]! += RIDGE * total;
  }
  return solved(matrix);
}

/** Gauss–Jordan elimination of a symmetric positive matrix with its right side as last column. */
function solved(matrix: readonly Float64Array[]): Float64Array {
  const count = matrix.length;
  for (let r = 0; r < count; r++) {
    const pivot = matrix[r]![r]! || 1;
    for (let c = r; c <= count; c++) matrix[r]![c]! /= pivot;
    for (let other = 0; other < count; other++) {
      const factor = matrix[other]![r]!;
      if (other === r || factor === 0) continue;
      for (let c = r; c <= count; c++) matrix[other]![c]! -= factor * matrix[r]![c]!;
    }
  }
  return Float64Array.from(matrix, (row) => row[count]!);
}

// divide.ts — lines divided into what lies inside of an area and what lies outside.
import { at, type Contour, contoursOf, cutCubic, type Piece, pathOf } from './cubic.ts';
import { flatten } from './flatten.ts';
import type { Path } from './types.ts';

/** Where each piece is looked at; it is not seen to go in and out again between two of them. */
const SAMPLES = 32;
/** Halvings of the stretch in which a piece crosses. */
const HALVINGS = 48;
/** Chords of the area stray by this share of its size. */
const STRAY = 1e-5;

/** @param area closed, even-odd. @returns the parts of the path inside, and those outside; their curves are kept */
export function cutByArea(path: Path, area: Path): [inside: Path, outside: Path] {
  const isInside = insideOf(area);
  const parts: [Contour[], Contour[]] = [[], []];
  for (const contour of contoursOf(path)) {
    const runs = runsOf(contour.pieces, isInside);
    const [first, last] = [runs[0], runs.at(-1)];
    if (!first || !last) continue;
    if (runs.length === 1) {
      parts[first.isInside ? 0 : 1].push(contour);
      continue;
    }
    // The start of a closed line need not be where it is cut.
    if (contour.isClosed && first.isInside === last.isInside) {
      first.pieces.unshift(...last.pieces);
      runs.pop();
    }
    for (const { pieces, isInside: inside } of runs) {
      const { cubic } = pieces[0]!;
      parts[inside ? 0 : 1].push({ start: [cubic[0], cubic[1]], pieces, isClosed: false });
    }
  }
  return [pathOf(parts[0]), pathOf(parts[1])];
}

function insideOf(area: Path): (x: number, y: number) => boolean {
  const corners = area.flatMap((segment) => segment.slice(1) as number[]);
  const size = corners.reduce((most, v) => Math.max(most, Math.abs(v)), 0) || 1;
  const rings = flatten(area, STRAY * size);
  return (x, y) => {
    let isIn = false;
    for (const ring of rings) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [x0, y0, x1, y1] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
        if (y0 > y !== y1 > y && x < x0 + ((y - y0) / (y1 - y0)) * (x1 - x0)) isIn = !isIn;
      }
    }
    return isIn;
  };
}

interface Run {
  readonly isInside: boolean;
  readonly pieces: Piece[];
}

function runsOf(pieces: readonly Piece[], isInside: (x: number, y: number) => boolean): Run[] {
  const runs: Run[] = [];
  for (const { isLine, cubic } of pieces) {
    const side = (t: number) => isInside(at(cubic, 0, t), at(cubic, 1, t));
    const cuts = [0];
    let before = side(0);
    for (let k = 1; k <= SAMPLES; k++) {
      const now = side(k / SAMPLES);
      if (now !== before) cuts.push(crossing(side, before, (k - 1) / SAMPLES, k / SAMPLES));
      before = now;
    }
    cuts.push(1);
    for (let k = 1; k < cuts.length; k++) {
      const [from, to] = [cuts[k - 1]!, cuts[k]!];
      if (to <= from) continue;
      const inside = side((from + to) / 2);
      const piece = { isLine, cubic: cutCubic(cubic, from, to) };
      const last = runs.at(-1);
      if (last?.isInside === inside) last.pieces.push(piece);
      else runs.push({ isInside: inside, pieces: [piece] });
    }
  }
  return runs;
}

/** Where a side changes between two parameters. */
function crossing(side: (t: number) => boolean, before: boolean, from: number, to: number): number {
  let [low, high] = [from, to];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    if (side(middle) === before) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

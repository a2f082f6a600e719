// divide.ts — lines divided into what lies inside of an area and what lies outside.
import { at, type Contour, contoursOf, cutCubic, type Piece, pathOf } from '../path/cubic.ts';
import { flatten } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { pointInRings } from './apart.ts';
import { roughSize } from './corners.ts';

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
  const rings = flatten(area, STRAY * roughSize([area]));
  return (x, y) => pointInRings(x, y, rings);
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

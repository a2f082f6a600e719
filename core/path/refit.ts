// refit.ts — the same path in fewer pieces: lines where it is straight, else cubics fitted between corners and divided
// where they stray (Schneider 1990).
import {
  at,
  type Contour,
  type Cubic,
  contoursOf,
  directionAt,
  isPoint,
  linePiece,
  type Piece,
  pathOf,
  slopeAt,
} from './cubic.ts';
import { fitCubic, type Run, type Vec } from './fit.ts';
import { chordPoints, distanceToSegment } from './flatten.ts';
import type { Path } from './types.ts';

/** A joint that turns by more than this is a corner, which stays. */
const CORNER = (12 * Math.PI) / 180;
/** Samples lie on chords that stray this share of the tolerance. */
const SAMPLE_SHARE = 0.05;
const LEAST_SAMPLES = 8;

/**
 * @param tolerance how far the result may stray, in the path's units, > 0
 * @returns a path with the same corners in as many pieces or fewer
 */
export function refit(path: Path, tolerance: number): Path {
  return pathOf(contoursOf(path).map((contour) => refitContour(contour, tolerance)));
}

function refitContour(contour: Contour, tolerance: number): Contour {
  const pieces = contour.pieces.filter((piece) => !isPoint(piece));
  if (pieces.length === 0) return contour;
  const isCorner = (i: number) => {
    const [out, into] = [directionAt(pieces.at(i - 1)!.cubic, 1), directionAt(pieces[i]!.cubic, 0)];
    return (
      !out ||
      !into ||
      Math.abs(Math.atan2(out[0] * into[1] - out[1] * into[0], out[0] * into[0] + out[1] * into[1])) > CORNER
    );
  };
  const corners = pieces.flatMap((_, i) => ((i > 0 || contour.isClosed) && isCorner(i) ? [i] : []));
  // A closed contour is turned so that it begins at a corner, or where it began.
  const first = contour.isClosed ? (corners[0] ?? 0) : 0;
  const turned = [...pieces.slice(first), ...pieces.slice(0, first)];
  const stops = [
    0,
    ...corners.map((i) => (i - first + pieces.length) % pieces.length).filter((i) => i > 0),
    pieces.length,
  ];
  const fitted = stops.slice(1).flatMap((stop, i) => {
    const run = turned.slice(stops[i]!, stop);
    const found = refitRun(run, tolerance);
    return found.length < run.length ? found : run;
  });
  const { cubic } = fitted[0]!;
  return { start: [cubic[0], cubic[1]], pieces: fitted, isClosed: contour.isClosed };
}

interface Sample {
  readonly x: number;
  readonly y: number;
  /** Unit direction. */
  readonly along: Vec;
}

/** Pieces that run on smoothly, anew. */
function refitRun(run: readonly Piece[], tolerance: number): Piece[] {
  const samples: Sample[] = run.flatMap(({ cubic, isLine }, i) => {
    const inner = isLine ? [] : chordPoints(cubic, SAMPLE_SHARE * tolerance).map(({ t }) => t);
    const even = Array.from({ length: LEAST_SAMPLES - 1 }, (_, k) => (k + 1) / LEAST_SAMPLES);
    const places = [0, ...(inner.length >= LEAST_SAMPLES ? inner : even), ...(i + 1 === run.length ? [1] : [])];
    return places.map((t) => sampleAt(cubic, t));
  });
  const data = {
    xs: Float64Array.from(samples, ({ x }) => x),
    ys: Float64Array.from(samples, ({ y }) => y),
  };
  return fitted(data, samples, 0, samples.length - 1, tolerance);
}

function sampleAt(cubic: Cubic, t: number): Sample {
  const [dx, dy] = directionAt(cubic, t) ?? [slopeAt(cubic, 0, t), slopeAt(cubic, 1, t)];
  return { x: at(cubic, 0, t), y: at(cubic, 1, t), along: { x: dx, y: dy } };
}

function fitted(run: Run, samples: readonly Sample[], from: number, to: number, tolerance: number): Piece[] {
  const [start, end] = [samples[from]!, samples[to]!];
  const isStraight = samples
    .slice(from + 1, to)
    .every(({ x, y }) => distanceToSegment(x, y, start.x, start.y, end.x, end.y) <= tolerance / 4);
  if (isStraight || to - from < 2) return [linePiece(start.x, start.y, end.x, end.y)];
  const back = { x: -end.along.x, y: -end.along.y };
  const { points, stray } = fitCubic(run, {
    from: from + 1,
    to: to - 1,
    start: { at: start, into: start.along },
    end: { at: end, into: back },
    enough: tolerance / 2,
  });
  if (stray <= tolerance) {
    const [, a, b] = points;
    return [{ isLine: false, cubic: [start.x, start.y, a.x, a.y, b.x, b.y, end.x, end.y] }];
  }
  const middle = Math.floor((from + to) / 2);
  return [...fitted(run, samples, from, middle, tolerance), ...fitted(run, samples, middle, to, tolerance)];
}

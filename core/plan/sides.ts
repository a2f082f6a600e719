// sides.ts — the straight sides in drawn paths: of filled walls, whose material lies on a known side, or of loose lines.
import { contoursOf, type Piece } from '../path/cubic.ts';
import { distanceToSegment } from '../path/flatten.ts';
import type { Spot } from '../path/points.ts';
import type { Path } from '../path/types.ts';

export interface Side {
  readonly from: Spot;
  readonly to: Spot;
  /** Unit direction. */
  readonly way: Spot;
  readonly length: number;
  /** Whether material lies on its left (y up), as round a filled shape; if not, it may lie on either side. */
  readonly isBoundary: boolean;
}

/**
 * @param isBoundary the path bounds what is filled, which lies to its left (y up)
 * @param slack how far from straight a side may be
 */
export function sidesOf(path: Path, isBoundary: boolean, slack: number): Side[] {
  return contoursOf(path).flatMap(({ pieces, isClosed }) => {
    const runs = straightRuns(pieces, slack);
    // A closed contour may begin in the middle of a side.
    const [first, last] = [runs[0], runs.at(-1)];
    const isWrapped = isClosed && runs.length > 1 && last!.at(-1) === pieces.at(-1) && first![0] === pieces[0];
    if (isWrapped && isStraight([...last!, ...first!], slack)) {
      runs[0] = [...last!, ...first!];
      runs.pop();
    }
    return runs.flatMap((run) => sideAlong(run, isBoundary) ?? []);
  });
}

/** Pieces in a row that are straight together; curves that bend break the row. */
function straightRuns(pieces: readonly Piece[], slack: number): Piece[][] {
  const runs: Piece[][] = [];
  let run: Piece[] = [];
  for (const piece of pieces) {
    if (!isStraight([piece], slack)) {
      if (run.length > 0) runs.push(run);
      run = [];
    } else if (run.length === 0 || isStraight([...run, piece], slack)) run.push(piece);
    else {
      runs.push(run);
      run = [piece];
    }
  }
  if (run.length > 0) runs.push(run);
  return runs;
}

function isStraight(run: readonly Piece[], slack: number): boolean {
  const [a, b] = [run[0]!.cubic, run.at(-1)!.cubic];
  const length = Math.hypot(b[6] - a[0], b[7] - a[1]);
  // A row that doubles back on itself ends near its start.
  const drawn = run.reduce((sum, { cubic: c }) => sum + Math.hypot(c[6] - c[0], c[7] - c[1]), 0);
  if (drawn > length + slack) return false;
  return run.every(({ isLine, cubic: c }) =>
    (isLine ? [6] : [2, 4, 6]).every(
      (i) => distanceToSegment(c[i as 6]!, c[(i + 1) as 7]!, a[0], a[1], b[6], b[7]) <= slack,
    ),
  );
}

function sideAlong(run: readonly Piece[], isBoundary: boolean): Side | null {
  const [a, b] = [run[0]!.cubic, run.at(-1)!.cubic];
  const [dx, dy] = [b[6] - a[0], b[7] - a[1]];
  const length = Math.hypot(dx, dy);
  if (!(length > 0)) return null;
  return { from: [a[0], a[1]], to: [b[6], b[7]], way: [dx / length, dy / length], length, isBoundary };
}

// figures.ts — rectangles, ellipses and lines as they are drawn by hand, between two corners or through points.
import { ellipsePath } from './arc.ts';
import { continued, linesOf, type PathLine, type Spot } from './points.ts';
import type { Path } from './types.ts';

/** Two opposite corners. */
export interface Span {
  readonly from: Spot;
  readonly to: Spot;
}

/**
 * The box that a drag spans.
 * @param isEven as wide as high, by the longer side
 * @param isCentred `from` is its middle
 */
export function draggedBox(from: Spot, to: Spot, isEven: boolean, isCentred: boolean): Span {
  let [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  if (isEven) {
    const side = Math.max(Math.abs(dx), Math.abs(dy));
    [dx, dy] = [dx < 0 ? -side : side, dy < 0 ? -side : side];
  }
  const start: Spot = isCentred ? [from[0] - dx, from[1] - dy] : from;
  return { from: start, to: [from[0] + dx, from[1] + dy] };
}

/** Clockwise on a sheet with y down, from its top left corner. */
export function rectanglePath({ from, to }: Span): Path {
  const [x0, x1] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])];
  const [y0, y1] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
  return [['M', x0, y0], ['L', x1, y0], ['L', x1, y1], ['L', x0, y1], ['Z']];
}

export function ellipseIn({ from, to }: Span): Path {
  const [rx, ry] = [Math.abs(to[0] - from[0]) / 2, Math.abs(to[1] - from[1]) / 2];
  return ellipsePath((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, rx, ry);
}

/** A line with one more corner at its end. */
export const withCorner = (line: PathLine, at: Spot): PathLine => continued(line, false, { at, into: null, out: null });

/** A line whose last point was pulled into a curve: its handles mirror each other. */
export function withPull(line: PathLine, out: Spot, isBroken = false): PathLine {
  const last = line.points.at(-1);
  if (!last) return line;
  const into: Spot = [2 * last.at[0] - out[0], 2 * last.at[1] - out[1]];
  const pulled = isBroken ? { ...last, out } : { ...last, into, out };
  return { ...line, points: [...line.points.slice(0, -1), pulled] };
}

/** The other way round: what was its last point is its first. */
export const reversedLine = ({ points, isClosed }: PathLine): PathLine => ({
  points: points.map(({ at, into, out }) => ({ at, into: out, out: into })).reverse(),
  isClosed,
});

/** An end of an open line of the path that lies within `reach`, with the line turned so that it ends there. */
export function lineToContinue(path: Path, [x, y]: Spot, reach: number): { index: number; line: PathLine } | null {
  for (const [index, line] of linesOf(path).entries()) {
    if (line.isClosed || line.points.length === 0) continue;
    for (const turned of [line, reversedLine(line)]) {
      const { at } = turned.points.at(-1)!;
      if (Math.hypot(at[0] - x, at[1] - y) <= reach) return { index, line: turned };
    }
  }
  return null;
}

// clipper.ts — the only door to the polygon-clipping library, which moves outlines in and out. Everything in here is on
// the integer grid.
import { ClipperOffset, EndType, JoinType, type Path64 } from 'clipper2-ts';
import type { GridPath } from './arrangement.ts';

export interface GridLine {
  readonly path: GridPath;
  readonly isClosed: boolean;
}

/** Mitres longer than this many offsets are cut square: 1/sin(θ/2) = 5 is a notch of 23°. */
const MITRE_LIMIT = 5;

/** Moves every edge by `delta` grid steps, outward when positive; corners are mitred. */
export function inflate(paths: readonly GridPath[], delta: number): GridPath[] {
  const offset = new ClipperOffset(MITRE_LIMIT, 0, false, false);
  offset.addPaths(paths as Path64[], JoinType.Miter, EndType.Polygon);
  const solution: Path64[] = [];
  offset.execute(delta, solution);
  return solution;
}

/** What a round pen of `width` grid steps covers along the lines. @param arcTolerance of its round joins and ends, in steps */
export function pen(lines: readonly GridLine[], width: number, arcTolerance: number): GridPath[] {
  const offset = new ClipperOffset(MITRE_LIMIT, arcTolerance, false, false);
  for (const { path, isClosed } of lines) {
    offset.addPaths([path] as Path64[], JoinType.Round, isClosed ? EndType.Joined : EndType.Round);
  }
  const solution: Path64[] = [];
  offset.execute(width / 2, solution);
  return solution;
}

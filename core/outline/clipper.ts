// clipper.ts — the only door to the polygon-clipping library, which moves outlines in and out. Everything in here is on
// the integer grid.
import { ClipperOffset, EndType, JoinType, type Path64 } from 'clipper2-ts';
import type { GridPath } from './arrangement.ts';

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

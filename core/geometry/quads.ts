// quads.ts — triangles joined two by two into quads.
import { hasSize } from './slivers.ts';
import { afterHalf as after, type BoundedTriangles, beforeHalf as before } from './triangulate.ts';

/** A quad is kept where no corner is flatter than this (sine of the angle): renderers may divide it either way. */
const FLAT = 1e-3;

/**
 * The half-edges to leave out so that pairs of triangles become convex quads, the squarest first; no triangle is in two.
 * @param points flat x, y
 * @param least twice the area that every triangle of a quad must exceed, whichever way it is divided
 */
export function pairsOf(points: ArrayLike<number>, { corners, twins }: BoundedTriangles, least: number): number[] {
  const choices: { e: number; skew: number }[] = [];
  for (let e = 0; e < corners.length; e++) {
    if (twins[e]! < e) continue;
    const quad = quadAround({ corners, twins }, e);
    if (isConvexQuad(points, quad, least)) choices.push({ e, skew: skewOf(points, quad) });
  }
  choices.sort((a, b) => a.skew - b.skew);
  const taken = new Uint8Array(corners.length / 3);
  return choices.flatMap(({ e }) => {
    const [s, t] = [Math.floor(e / 3), Math.floor(twins[e]! / 3)];
    if (taken[s] || taken[t]) return [];
    taken[s] = taken[t] = 1;
    return e;
  });
}

/** The two triangles of an inner half-edge as one face, counter-clockwise. */
export function quadAround({ corners, twins }: BoundedTriangles, e: number): [number, number, number, number] {
  const f = twins[e]!;
  return [corners[before(e)]!, corners[e]!, corners[before(f)]!, corners[after(e)]!];
}

/** Largest cosine at a corner: 0 for a rectangle. */
function skewOf(p: ArrayLike<number>, face: readonly number[]): number {
  let most = 0;
  for (let k = 0; k < 4; k++) {
    const [a, b, c] = [face[(k + 3) % 4]!, face[k]!, face[(k + 1) % 4]!];
    const [ux, uy] = [p[2 * a]! - p[2 * b]!, p[2 * a + 1]! - p[2 * b + 1]!];
    const [vx, vy] = [p[2 * c]! - p[2 * b]!, p[2 * c + 1]! - p[2 * b + 1]!];
    most = Math.max(most, Math.abs(ux * vx + uy * vy) / Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy)));
  }
  return most;
}

/** Whether all four corners turn left, and clearly so. @param least as {@link pairsOf} has it */
export function isConvexQuad(p: ArrayLike<number>, face: readonly number[], least: number): boolean {
  for (let k = 0; k < 4; k++) {
    const [a, b, c] = [face[k]!, face[(k + 1) % 4]!, face[(k + 2) % 4]!];
    const [ux, uy] = [p[2 * b]! - p[2 * a]!, p[2 * b + 1]! - p[2 * a + 1]!];
    const [vx, vy] = [p[2 * c]! - p[2 * b]!, p[2 * c + 1]! - p[2 * b + 1]!];
    const cross = ux * vy - uy * vx;
    const [first, second] = [ux * ux + uy * uy, vx * vx + vy * vy];
    if (!(cross * cross > FLAT * FLAT * first * second)) return false;
    if (!hasSize(cross, Math.max(first, second, (ux + vx) ** 2 + (uy + vy) ** 2), least)) return false;
  }
  return true;
}

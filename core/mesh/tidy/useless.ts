// useless.ts — faces that enclose nothing: without area, there twice, or back to back.
import { across, type Face, facesByEdge, type Step } from './faces.ts';

/** A triangle is without area where it is flatter than this, as a share of its longest side. */
const FLAT = 1e-9;

/** Faces with the same corners in the same order are one; those with the opposite order cancel each other. */
export function removeDoubles(faces: readonly Face[]): Step {
  const keyOf = (corners: readonly number[]) => {
    const least = corners.reduce((best, point, k) => (point < corners[best]! ? k : best), 0);
    return [...corners.slice(least), ...corners.slice(0, least)].join(' ');
  };
  const kept = new Map<string, Face>();
  for (const face of faces) {
    const back = keyOf(face.corners.toReversed());
    if (kept.has(back)) kept.delete(back);
    else kept.set(keyOf(face.corners), face);
  }
  return { faces: [...kept.values()], changed: faces.length - kept.size };
}

/**
 * Removes triangles without area. The middle one of their corners lies on the longest side, so the face across that side
 * takes it as a corner of its own, and nothing opens. Where no one face lies there, a triangle stays.
 */
export function removeFlat(faces: readonly Face[], positions: Float64Array): Step {
  const result: (Face | null)[] = [...faces];
  const points = positions.length / 3;
  const edges = facesByEdge(faces, points);
  let changed = 0;
  for (const f of faces.keys()) {
    const corners = result[f]!.corners;
    if (corners.length !== 3 || !isFlat(positions, corners)) continue;
    const middle = middleOf(positions, corners);
    const [from, to] = [corners[(middle + 1) % 3]!, corners[(middle + 2) % 3]!];
    const other = across(edges, points, from, to);
    const face = other < 0 ? null : result[other];
    if (!face || face.corners.includes(corners[middle]!)) continue;
    const at = face.corners.indexOf(from);
    const grown = [...face.corners.slice(0, at), corners[middle]!, ...face.corners.slice(at)];
    result[other] = { ...face, corners: grown };
    result[f] = null;
    changed++;
    // Both edges of the triangle are now the other face's.
    edges.delete(from * points + to);
    edges.delete(to * points + from);
    for (const [a, b] of [
      [to, corners[middle]!],
      [corners[middle]!, from],
    ] as const)
      edges.set(a * points + b, [other]);
  }
  return { faces: result.filter((face) => face !== null), changed };
}

function isFlat(p: Float64Array, corners: readonly number[]): boolean {
  const [a, b, c] = corners.map((point) => 3 * point) as [number, number, number];
  const u = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!) as [number, number, number];
  const v = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!) as [number, number, number];
  const double = Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]);
  const longest = Math.max(...sides(p, corners));
  return double <= FLAT * longest * longest;
}

/** The corner across from the longest side. */
function middleOf(p: Float64Array, corners: readonly number[]): number {
  const lengths = sides(p, corners);
  return lengths.indexOf(Math.max(...lengths));
}

/** Length of the side across from each corner of a triangle. */
function sides(p: Float64Array, corners: readonly number[]): number[] {
  return [0, 1, 2].map((k) => {
    const [i, j] = [3 * corners[(k + 1) % 3]!, 3 * corners[(k + 2) % 3]!];
    return Math.hypot(p[j]! - p[i]!, p[j + 1]! - p[i + 1]!, p[j + 2]! - p[i + 2]!);
  });
}

// divide.ts — faces of a plane drawing as a mesh can have them. Quads are convex, and a face with more corners is a fan of
// triangles around its first one, so that nobody can read it wrong. What is neither is divided by its Delaunay triangulation,
// which has no slivers that could be avoided, and its triangles are joined again into quads and fans.
import { floats, uints } from '../../base/arrays.ts';
import { isConvexQuad, pairsOf, quadAround } from '../../geometry/quads.ts';
import { hasSize, mendSlivers } from '../../geometry/slivers.ts';
import { type BoundedTriangles, tryInside, twiceArea } from '../../geometry/triangulate.ts';

/** Faces with more corners than this are divided even where they are fans. */
const MOST_CORNERS = 8;

/** A fan is kept where no triangle is narrower than this: height over longest side. */
const NARROW = 2e-3;

/**
 * @param nodes flat x, y
 * @param face numbers of nodes, counter-clockwise
 * @param least twice the area that every triangle of a quad must exceed, whichever way renderers divide it
 * @returns triangles, convex quads and fans; null when the face runs across itself or has no inside
 */
export function divideFace(
  nodes: ArrayLike<number>,
  face: readonly number[],
  least = 0,
): readonly (readonly number[])[] | null {
  if (face.length === 3) return twiceArea(nodes, face[0]!, face[1]!, face[2]!) > 0 ? [face] : null;
  // Nearly all faces are quads that can stay.
  const whole = wholeFace(nodes, face, least);
  if (whole) return [whole];
  const points = floats(2 * face.length, (i) => nodes[2 * face[i >> 1]! + (i % 2)]!);
  return divide(points, least)?.map((part) => part.map((i) => face[i]!)) ?? null;
}

function divide(points: Float64Array, least: number): readonly (readonly number[])[] | null {
  const n = points.length / 2;
  if (n === 4) return divideQuad(points);
  const edges = uints(2 * n, (i) => ((i + 1) >> 1) % n);
  const triangles = tryInside(points, edges);
  if (triangles?.corners.length !== 3 * (n - 2)) return null;
  mendSlivers(points, triangles, least);
  return joined(points, triangles, least);
}

/** The face as it can stay, if it can. */
function wholeFace(points: ArrayLike<number>, face: readonly number[], least: number): readonly number[] | null {
  if (face.length === 4) return isConvexQuad(points, face, least) ? face : null;
  return face.length <= MOST_CORNERS ? fan(points, face, least) : null;
}

/** The face with a first corner from which it is the best fan of triangles; null when they are too narrow. */
function fan(points: ArrayLike<number>, face: readonly number[], least: number): number[] | null {
  const n = face.length;
  let [best, first] = [NARROW, -1];
  for (let k = 0; k < n; k++) {
    let narrowest = Infinity;
    for (let i = 1; i + 1 < n && narrowest > best; i++) {
      narrowest = Math.min(narrowest, width(points, face[k]!, face[(k + i) % n]!, face[(k + i + 1) % n]!, least));
    }
    if (narrowest > best) [best, first] = [narrowest, k];
  }
  return first < 0 ? null : [...face.slice(first), ...face.slice(0, first)];
}

/** Height over longest side of a triangle; none where it turns right, or is as good as nothing. */
function width(p: ArrayLike<number>, a: number, b: number, c: number, least: number): number {
  const squared = (i: number, j: number) => (p[2 * i]! - p[2 * j]!) ** 2 + (p[2 * i + 1]! - p[2 * j + 1]!) ** 2;
  const twice = twiceArea(p, a, b, c);
  const longest = Math.max(squared(a, b), squared(b, c), squared(c, a));
  return hasSize(twice, longest, least) ? twice / longest : 0;
}

/** Along the diagonal that leaves the better triangles. */
function divideQuad(points: Float64Array): number[][] | null {
  const least = ([a, b]: readonly (readonly [number, number, number])[]) =>
    Math.min(twiceArea(points, ...a!), twiceArea(points, ...b!));
  const across = [
    [0, 1, 2],
    [2, 3, 0],
  ] as const;
  const other = [
    [1, 2, 3],
    [3, 0, 1],
  ] as const;
  const best = least(across) >= least(other) ? across : other;
  return least(best) > 0 ? best.map((part) => [...part]) : null;
}

/** Triangles joined two by two into quads; one that is left over joins a neighbour where it can. */
function joined(points: Float64Array, triangles: BoundedTriangles, least: number): readonly (readonly number[])[] {
  const { corners, twins } = triangles;
  const faces: (readonly number[])[] = Array.from({ length: corners.length / 3 }, (_, t) => [
    ...corners.subarray(3 * t, 3 * t + 3),
  ]);
  /** The face that a triangle is part of. */
  const faceOf = faces.map((_, t) => t);
  const join = (e: number, face: readonly number[]) => {
    const [own, other] = [faceOf[Math.floor(e / 3)]!, faceOf[Math.floor(twins[e]! / 3)]!];
    faces[own] = face;
    faces[other] = [];
    for (let t = 0; t < faceOf.length; t++) if (faceOf[t] === other) faceOf[t] = own;
  };
  for (const e of pairsOf(points, triangles, least)) join(e, quadAround(triangles, e));
  for (let e = 0; e < corners.length; e++) {
    if (twins[e]! < e) continue;
    const [own, other] = [faceOf[Math.floor(e / 3)]!, faceOf[Math.floor(twins[e]! / 3)]!];
    if (own === other || (faces[own]!.length > 3 && faces[other]!.length > 3)) continue;
    const [from, to] = [corners[e]!, corners[twins[e]!]!];
    const around = [...begunAt(faces[own]!, to), ...begunAt(faces[other]!, from).slice(1, -1)];
    const whole = wholeFace(points, around, least);
    if (whole) join(e, whole);
  }
  return faces.filter((face) => face.length > 0);
}

function begunAt(face: readonly number[], first: number): readonly number[] {
  const at = face.indexOf(first);
  return [...face.slice(at), ...face.slice(0, at)];
}

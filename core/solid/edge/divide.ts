// divide.ts — faces of a plane drawing as a mesh can have them. Quads are convex, and a face with more corners is a fan of
// triangles around its first one, so that nobody can read it wrong. What is neither is divided by its Delaunay triangulation,
// which has no splinters that could be avoided, and its triangles are joined again into quads and fans.
import { GeometryError } from '../../errors.ts';
import { insideOf, leftTurn, Triangulation } from '../triangulate.ts';

/** Faces with more corners than this are divided even where they are fans. */
const MOST_CORNERS = 8;

/** A quad is kept where no corner is flatter than this (sine of the angle): renderers may divide it either way. */
const FLAT = 1e-3;

/** A fan is kept where no triangle is narrower than this: height over longest side. */
const NARROW = 2e-3;

/**
 * @param nodes flat x, y
 * @param face numbers of nodes, counter-clockwise
 * @returns triangles, convex quads and fans; null when the face runs across itself or has no inside
 */
export function divideFace(nodes: ArrayLike<number>, face: readonly number[]): readonly (readonly number[])[] | null {
  // Nearly all faces are quads that can stay.
  if (face.length === 4 && isConvex(nodes, face)) return [face];
  const points = Float64Array.from({ length: 2 * face.length }, (_, i) => nodes[2 * face[i >> 1]! + (i % 2)]!);
  return divide(points)?.map((part) => part.map((i) => face[i]!)) ?? null;
}

function divide(points: Float64Array): number[][] | null {
  const n = points.length / 2;
  const whole = Array.from({ length: n }, (_, i) => i);
  if (n === 3) return turn(points, 0, 1, 2) > 0 ? [whole] : null;
  const known = wholeFace(points, whole);
  if (known) return [known];
  if (n === 4) return divideQuad(points);
  const edges = Uint32Array.from({ length: 2 * n }, (_, i) => ((i + 1) >> 1) % n);
  let triangulation: Triangulation;
  try {
    triangulation = new Triangulation(points, edges);
  } catch (error) {
    if (error instanceof GeometryError) return null;
    throw error;
  }
  const inside = insideOf(triangulation);
  const count = inside.reduce((sum, is) => sum + is, 0);
  return count === n - 2 ? pairs(points, triangulation, inside) : null;
}

/** The face as it can stay, if it can. */
function wholeFace(points: Float64Array, face: readonly number[]): number[] | null {
  if (face.length === 4) return isConvex(points, face) ? [...face] : null;
  return face.length <= MOST_CORNERS ? fan(points, face) : null;
}

/** The face with a first corner from which it is the best fan of triangles; null when they are too narrow. */
function fan(points: Float64Array, face: readonly number[]): number[] | null {
  const n = face.length;
  let [best, first] = [NARROW, -1];
  for (let k = 0; k < n; k++) {
    let least = Infinity;
    for (let i = 1; i + 1 < n && least > best; i++) {
      least = Math.min(least, width(points, face[k]!, face[(k + i) % n]!, face[(k + i + 1) % n]!));
    }
    if (least > best) [best, first] = [least, k];
  }
  return first < 0 ? null : [...face.slice(first), ...face.slice(0, first)];
}

/** Height over longest side of a triangle; negative where it turns right. */
function width(p: Float64Array, a: number, b: number, c: number): number {
  const squared = (i: number, j: number) => (p[2 * i]! - p[2 * j]!) ** 2 + (p[2 * i + 1]! - p[2 * j + 1]!) ** 2;
  return turn(p, a, b, c) / Math.max(squared(a, b), squared(b, c), squared(c, a));
}

/** Along the diagonal that leaves the better triangles. */
function divideQuad(points: Float64Array): number[][] | null {
  const least = ([a, b]: readonly (readonly [number, number, number])[]) =>
    Math.min(turn(points, ...a!), turn(points, ...b!));
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

/** Triangles joined two by two into quads, squarest first; one that is left over joins a neighbour where it can. */
function pairs(points: Float64Array, { corners, twins, fixed }: Triangulation, inside: Uint8Array): number[][] {
  const triangle = (e: number) => Math.floor(e / 3);
  const faces: number[][] = Array.from(inside, (is, t) => (is ? [...corners.subarray(3 * t, 3 * t + 3)] : []));
  const faceOf = Uint32Array.from(inside, (_, t) => t);
  const inner = [...corners.keys()].filter((e) => !fixed[e] && twins[e]! > e && inside[triangle(e)]);
  /** What the faces on both sides of half-edge e are together. */
  const joined = (e: number): number[] => {
    const [own, other] = [faces[faceOf[triangle(e)]!]!, faces[faceOf[triangle(twins[e]!)]!]!];
    const [from, to] = [corners[e]!, corners[twins[e]!]!];
    const turned = (face: readonly number[], first: number) => {
      const at = face.indexOf(first);
      return [...face.slice(at), ...face.slice(0, at)];
    };
    return [...turned(own, to), ...turned(other, from).slice(1, -1)];
  };
  const join = (e: number, face: number[]) => {
    const [own, other] = [faceOf[triangle(e)]!, faceOf[triangle(twins[e]!)]!];
    faces[own] = face;
    faces[other] = [];
    for (let t = 0; t < faceOf.length; t++) if (faceOf[t] === other) faceOf[t] = own;
  };
  const squarest = inner
    .map((e) => ({ e, quad: joined(e) }))
    .filter(({ quad }) => isConvex(points, quad))
    .map(({ e, quad }) => ({ e, quad, skew: skew(points, quad) }))
    .sort((a, b) => a.skew - b.skew);
  const sizeAt = (e: number) => faces[faceOf[triangle(e)]!]!.length;
  for (const { e, quad } of squarest) if (sizeAt(e) === 3 && sizeAt(twins[e]!) === 3) join(e, quad);
  for (const e of inner) {
    if (faceOf[triangle(e)] === faceOf[triangle(twins[e]!)]) continue;
    if (sizeAt(e) !== 3 && sizeAt(twins[e]!) !== 3) continue;
    const face = wholeFace(points, joined(e));
    if (face) join(e, face);
  }
  return faces.filter((face) => face.length > 0);
}

function turn(p: Float64Array, a: number, b: number, c: number): number {
  return leftTurn(p[2 * a]!, p[2 * a + 1]!, p[2 * b]!, p[2 * b + 1]!, p[2 * c]!, p[2 * c + 1]!);
}

/** Largest cosine at a corner: 0 for a rectangle. */
function skew(p: Float64Array, face: readonly number[]): number {
  let most = 0;
  for (let k = 0; k < 4; k++) {
    const [a, b, c] = [face[(k + 3) % 4]!, face[k]!, face[(k + 1) % 4]!];
    const [ux, uy] = [p[2 * a]! - p[2 * b]!, p[2 * a + 1]! - p[2 * b + 1]!];
    const [vx, vy] = [p[2 * c]! - p[2 * b]!, p[2 * c + 1]! - p[2 * b + 1]!];
    most = Math.max(most, Math.abs(ux * vx + uy * vy) / Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy)));
  }
  return most;
}

/** Whether all four corners turn left, and clearly so. */
function isConvex(p: ArrayLike<number>, face: readonly number[]): boolean {
  for (let k = 0; k < 4; k++) {
    const [a, b, c] = [face[k]!, face[(k + 1) % 4]!, face[(k + 2) % 4]!];
    const [ux, uy] = [p[2 * b]! - p[2 * a]!, p[2 * b + 1]! - p[2 * a + 1]!];
    const [vx, vy] = [p[2 * c]! - p[2 * b]!, p[2 * c + 1]! - p[2 * b + 1]!];
    const cross = ux * vy - uy * vx;
    if (!(cross > 0 && cross * cross > FLAT * FLAT * (ux * ux + uy * uy) * (vx * vx + vy * vy))) return false;
  }
  return true;
}

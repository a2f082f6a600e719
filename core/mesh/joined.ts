// joined.ts — a mesh as hands have marked it: flat faces that were picked become one, edges are hard or soft. What is not flat is
// refused in words.
import { GeometryError } from '../base/errors.ts';
import { edgeKey, type Mark, markedEdges } from './marks.ts';
import { faceNormalsOf } from './normals.ts';
import { across, type Face, facesByEdge, facesOf, meshOf } from './tidy/faces.ts';
import { mergeFlat } from './tidy/flat.ts';
import { type Mesh, SIDES } from './types.ts';

/** Degrees up to which faces lie in one plane: what float32 files leave of it. */
export const FLAT_DEG = 0.5;

/**
 * The mesh with faces joined across edges.
 * @param edges by their `edgeKey`; those whose faces are not flat to each other stay
 * @returns which of them went, too
 */
export function joinedAcross(mesh: Mesh, edges: ReadonlySet<number>): { mesh: Mesh; gone: Set<number> } {
  const points = mesh.positions.length / 3;
  const { faces } = mergeFlat(facesOf(mesh), mesh, FLAT_DEG, (a, b) => edges.has(edgeKey(a, b, points)));
  const left = edgeKeysOf(faces, points);
  return { mesh: meshOf(faces, mesh), gone: new Set([...edges].filter((edge) => !left.has(edge))) };
}

function edgeKeysOf(faces: readonly Face[], points: number): Set<number> {
  return new Set(faces.flatMap(({ corners }) => corners.map((to, k) => edgeKey(corners.at(k - 1)!, to, points))));
}

/**
 * The mesh with what is marked on it.
 * @param scale units of the mesh in one of the source, in which marks lie
 * @param opened leaves off faces that are not wanted, after others are joined
 * @returns which marks have no such edge, too
 */
export function withMarks(
  mesh: Mesh,
  marks: readonly Mark[],
  scale: number,
  opened: (mesh: Mesh) => Mesh,
): { mesh: Mesh; lost: Mark[] } {
  if (marks.length === 0) return { mesh: opened(mesh), lost: [] };
  const [joins, shades] = [true, false].map((isJoin) => marks.filter(({ is }) => (is === 'joined') === isJoin));
  const wanted = markedEdges(mesh, joins!, scale);
  // Most marks join nothing, and a whole mesh need not be taken apart for them.
  const { mesh: joined, gone } =
    wanted.size > 0 ? joinedAcross(mesh, new Set(wanted.keys())) : { mesh, gone: new Set() };
  const whole = opened(joined);
  const shaded = markedEdges(whole, shades!, scale);
  const found = new Set(
    [...wanted].flatMap(([edge, mark]) => (gone.has(edge) ? [mark] : [])).concat(...shaded.values()),
  );
  const marked = new Map([...shaded].map(([edge, { is }]) => [edge, is as 'hard' | 'soft']));
  return {
    mesh: marked.size > 0 ? { ...whole, marked } : whole,
    lost: marks.filter((mark) => !found.has(mark)),
  };
}

/**
 * The edges between picked faces, across which they can be joined.
 * @throws {GeometryError} 'cannot-join' with what is in the way
 */
export function edgesBetween(mesh: Mesh, picked: readonly number[]): [a: number, b: number][] {
  const refuse = (message: string): never => {
    throw new GeometryError('cannot-join', message);
  };
  if (picked.length < 2) refuse('Pick two faces or more that lie beside each other.');
  const points = mesh.positions.length / 3;
  const faces = facesOf(mesh);
  const byEdge = facesByEdge(faces, points);
  const normals = faceNormalsOf(mesh);
  const wanted = new Set(picked);
  const edges: [number, number][] = [];
  const reached = new Set([picked[0]!]);
  for (const f of reached) {
    for (const [k, to] of faces[f]!.corners.entries()) {
      const from = faces[f]!.corners.at(k - 1)!;
      const g = across(byEdge, points, from, to);
      if (!wanted.has(g)) continue;
      reached.add(g);
      const [own, other] = [faces[f]!.side, faces[g]!.side];
      if (own !== other)
        refuse(`One is on the ${SIDES[own]} and one on the ${SIDES[other]}: only faces of one side can be joined.`);
      // Each is met from both of its faces.
      if (from < to) edges.push([from, to]);
    }
  }
  if (reached.size < wanted.size) refuse('They do not hang together: pick faces that share an edge.');
  const first = picked[0]!;
  const steepest = picked.reduce((most, f) => Math.max(most, angleBetween(normals, first, f)), 0);
  if (steepest > FLAT_DEG) {
    const degrees = Number(steepest.toPrecision(3));
    refuse(`They meet at ${degrees}°: only faces that lie in one plane, within ${FLAT_DEG}°, can be joined.`);
  }
  const keys = new Set(edges.map(([a, b]) => edgeKey(a, b, points)));
  if (joinedAcross(mesh, keys).gone.size < keys.size)
    refuse('Together they would surround a hole, which no single face can.');
  return edges;
}

function angleBetween(normals: Float64Array, f: number, g: number): number {
  let cosine = 0;
  for (let k = 0; k < 3; k++) cosine += normals[3 * f + k]! * normals[3 * g + k]!;
  return (Math.acos(Math.min(1, Math.max(-1, cosine))) * 180) / Math.PI;
}

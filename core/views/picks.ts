// picks.ts — edges and faces of a layer's mesh that are pointed at, and those that are marked by hand. Everything in the layer's own
// place, standing on height 0.
import { GeometryError } from '../base/errors.ts';
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import { type Evaluator, sourceOf } from '../evaluate/evaluator.ts';
import type { Point } from '../geometry/rigid.ts';
import { edgesBetween } from '../mesh/joined.ts';
import { type EdgePlace, edgeKey, MarkFrame, type MarkKind, markedEdges } from '../mesh/marks.ts';
import { edgeNear, faceNear, lineThrough } from '../mesh/pick.ts';
import type { Mesh } from '../mesh/types.ts';
import { sizedFor } from '../sources/placing.ts';

export interface PickedEdges {
  readonly at: readonly EdgePlace[];
  /** The ends of each, flat x, y, z. */
  readonly lines: Float32Array;
}

export interface PickedFace {
  /** Its number in the mesh as it is now. */
  readonly id: number;
  /** Where it was pointed at. */
  readonly point: Point;
  /** Its corners, flat x, y, z. */
  readonly ring: Float32Array;
  /** Of edges across which it was joined. */
  readonly joins: readonly EdgePlace[];
}

/** What is marked on a layer. */
export interface Marked {
  readonly hard: Float32Array;
  readonly soft: Float32Array;
  readonly joined: number;
  /** Marks whose edges are not there any more. */
  readonly lost: readonly EdgePlace[];
}

/** The edge nearest to a point, or the whole line that it is part of. @throws {GeometryError} */
export function edgesAt(
  evaluator: Evaluator,
  project: Resolved,
  id: string,
  point: Point,
  isLine: boolean,
): PickedEdges {
  const { mesh, layer, scale } = seen(evaluator, project, id);
  const edge = edgeNear(mesh, faceNear(mesh, point), point);
  const edges = isLine ? lineThrough(mesh, edge) : [edge];
  return { at: placesOf(mesh, edges, layer, scale), lines: linesOf(mesh, edges) };
}

/** The face nearest to a point. @throws {GeometryError} */
export function faceAt(evaluator: Evaluator, project: Resolved, id: string, point: Point): PickedFace {
  const { mesh, layer, scale } = seen(evaluator, project, id);
  const face = faceNear(mesh, point);
  const corners = [...mesh.corners.subarray(mesh.starts[face]!, mesh.starts[face + 1]!)];
  const ring = Float32Array.from(corners.flatMap((c) => [...mesh.positions.subarray(3 * c, 3 * c + 3)]));
  const joins = (layer.marks ?? []).filter((mark) => mark.is === 'joined').map(({ at }) => at);
  const frame = new MarkFrame(mesh, scale);
  return { id: face, point, ring, joins: joins.filter((at) => faceNear(mesh, frame.middleOf(at)) === face) };
}

/**
 * The edges between faces that are pointed at, which go when these are joined.
 * @throws {GeometryError} 'cannot-join' with what is in the way
 */
export function joinsOf(
  evaluator: Evaluator,
  project: Resolved,
  id: string,
  points: readonly Point[],
): readonly EdgePlace[] {
  const { mesh, layer, scale } = seen(evaluator, project, id);
  const faces = new Set(points.map((point) => faceNear(mesh, point)));
  return placesOf(mesh, edgesBetween(mesh, [...faces]), layer, scale);
}

/** @throws {GeometryError} */
export function markedOn(evaluator: Evaluator, project: Resolved, id: string): Marked {
  const { mesh, layer, lostMarks } = seen(evaluator, project, id);
  const points = mesh.positions.length / 3;
  const of = (kind: MarkKind) =>
    linesOf(
      mesh,
      [...(mesh.marked ?? [])].flatMap(([key, is]) => (is === kind ? [[Math.floor(key / points), key % points]] : [])),
    );
  const joined = (layer.marks ?? []).filter(({ is }) => is === 'joined').length;
  const lost = lostMarks.map(({ at }) => at);
  return {
    hard: of('hard'),
    soft: of('soft'),
    joined: joined - lostMarks.filter(({ is }) => is === 'joined').length,
    lost,
  };
}

function seen(evaluator: Evaluator, project: Resolved, id: string) {
  const layer = project.layers.find((each) => each.id === id);
  if (!layer) throw new GeometryError('unknown-id', `There is no layer ${id} in this project.`);
  const { mesh, lostMarks } = evaluator.mesh(project, layer);
  return { layer, mesh, lostMarks, scale: sizedFor(layer, sourceOf(project, layer)).scale };
}

/** Where edges lie; of those that are marked, where their marks say that they do. */
function placesOf(mesh: Mesh, edges: readonly (readonly [number, number])[], layer: Layer, scale: number): EdgePlace[] {
  const points = mesh.positions.length / 3;
  const known = markedEdges(mesh, layer.marks ?? [], scale);
  const frame = new MarkFrame(mesh, scale);
  return edges.map(([a, b]) => known.get(edgeKey(a, b, points))?.at ?? [frame.endAt(a), frame.endAt(b)]);
}

const linesOf = ({ positions }: Mesh, edges: readonly (readonly number[])[]): Float32Array =>
  Float32Array.from(edges.flat().flatMap((point) => [...positions.subarray(3 * point, 3 * point + 3)]));

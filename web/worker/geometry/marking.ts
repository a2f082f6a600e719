// marking.ts — edges and faces that are picked in the view, and those of a layer that are marked.
import {
  type EdgePlace,
  edgesAt,
  faceAt,
  joinsOf,
  type Marked,
  markedOn,
  type PickedEdges,
  type PickedFace,
  type Point,
  type Project,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { evaluator, withSources } from './state.ts';

export const marking = {
  /** The edge nearest to a point of a layer, or the line that it is part of. */
  edgesAt: (project: Project, layer: string, point: Point, isLine: boolean): Promise<Outcome<PickedEdges>> =>
    attempt(() => withSources(project, (resolved) => edgesAt(evaluator, resolved, layer, point, isLine))),

  faceAt: (project: Project, layer: string, point: Point): Promise<Outcome<PickedFace>> =>
    attempt(() => withSources(project, (resolved) => faceAt(evaluator, resolved, layer, point))),

  /** The edges that go when faces are joined; refused where they cannot be. */
  joinsOf: (project: Project, layer: string, points: readonly Point[]): Promise<Outcome<readonly EdgePlace[]>> =>
    attempt(() => withSources(project, (resolved) => joinsOf(evaluator, resolved, layer, points))),

  markedOn: (project: Project, layer: string): Promise<Outcome<Marked>> =>
    attempt(() => withSources(project, (resolved) => markedOn(evaluator, resolved, layer))),
};

// outlines.ts — what the Outline station asks for: shapes as edits leave them, what would trouble a build, and what actions would do.
import * as Comlink from 'comlink';
import {
  changeEdits,
  checkOutlines,
  connectedShapes,
  drawingKey,
  type Edit,
  type EditAction,
  type EditedSource,
  type EditOutcome,
  type Face,
  type Finding,
  facesOfLines,
  middleLine,
  type OutlineView,
  outlineShape,
  type Plan,
  type Preview,
  type Project,
  partAreas,
  planOf,
  previewOf,
  type Shape,
  type SnapParts,
  type Sorting,
  type Source,
  smallPartLimit,
  snapParts,
  sortIntoLayers,
  type WallLimits,
  wallsAlong,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { evaluator, heeding, type Report, switchedOff, wishesFor, withSource } from './state.ts';

/** The shapes of some ids. */
function shapesOf(source: Source, ids: readonly string[]): Shape[] {
  const wanted = new Set(ids);
  return evaluator.drawing(source).shapes.filter((shape) => wanted.has(shape.id));
}

export const outlines = {
  /** The shapes of a source as its edits leave them; null when the caller has those of this key. */
  outlineView(project: Project, id: string, known: string | null): Promise<Outcome<OutlineView | null>> {
    return attempt(() =>
      withSource(project, id, (source) => {
        const key = drawingKey(source);
        if (key === known) return null;
        const { drawing, outcomes } = evaluator.edited(source);
        return { key, shapes: drawing.shapes.map(outlineShape), sheet: drawing.sheet, outcomes };
      }),
    );
  },

  /** What points under the hand may snap to: all shapes by their numbers, and behind them the middle lines of walls. */
  async snapParts(project: Project, id: string): Promise<Outcome<SnapParts>> {
    const outcome = await attempt(() =>
      withSource(project, id, (source) => {
        const paths = evaluator.drawing(source).shapes.map(({ path }) => path);
        const walls = source.edits.flatMap(({ on, action }) => (on && action.do === 'walls' ? action.walls : []));
        return snapParts([...paths, ...walls.map(middleLine)]);
      }),
    );
    if (!outcome.ok) return outcome;
    const { pieces, starts, chords, owners, middles, index } = outcome.value;
    const arrays = [pieces, starts, chords, owners, middles, ...(index ? [index.starts, index.ids] : [])];
    return Comlink.transfer(
      outcome,
      arrays.map(({ buffer }) => buffer as ArrayBuffer),
    );
  },

  /** Walls among some shapes, or among all that are built where none are named. @param limits in user units */
  findWalls(project: Project, id: string, among: readonly string[], limits: WallLimits): Promise<Outcome<Plan>> {
    return attempt(() =>
      withSource(project, id, (source) => {
        const { shapes } = evaluator.drawing(source);
        const off = switchedOff(project, source);
        const wanted = new Set(among);
        const isAmong = (shape: Shape) => (wanted.size > 0 ? wanted.has(shape.id) : !off.has(shape.id));
        const others = shapes.filter((shape) => !isAmong(shape));
        return planOf(shapes.filter(isAmong), others, limits);
      }),
    );
  },

  /** Walls with the paths of some shapes as their middle lines. */
  wallsAlong(project: Project, id: string, among: readonly string[], thickness: number): Promise<Outcome<Plan>> {
    return attempt(() =>
      withSource(project, id, (source) => {
        const lines = shapesOf(source, among);
        const paths = lines.map(({ path }) => path);
        return { walls: wallsAlong(paths, thickness), replaced: lines.map((line) => line.id) };
      }),
    );
  },

  /** Ids of the shapes that hang together with some. */
  connected(project: Project, id: string, from: readonly string[]): Promise<Outcome<readonly string[]>> {
    return attempt(() => withSource(project, id, (source) => connectedShapes(evaluator.drawing(source).shapes, from)));
  },

  /** Shapes sorted into layers of their own, by colour or by nesting. */
  sortIntoLayers(
    project: Project,
    id: string,
    shapes: readonly string[],
    by: Sorting,
  ): Promise<Outcome<ReturnType<typeof sortIntoLayers>>> {
    return attempt(() =>
      withSource(project, id, (source) =>
        sortIntoLayers(project, source, evaluator.drawing(source), shapes, by, () => crypto.randomUUID()),
      ),
    );
  },

  /** What would trouble a build of a source; shapes that are switched off trouble nobody. */
  check(project: Project, id: string, report: Report): Promise<Outcome<readonly Finding[]>> {
    return attempt(() =>
      withSource(project, id, (source) =>
        checkOutlines(evaluator.drawing(source), switchedOff(project, source), heeding(report)),
      ),
    );
  },

  /**
   * A source with other edits, and its layers as they follow.
   * @param target layer for shapes that come from no other; null to give them one of their own
   */
  edit(
    project: Project,
    id: string,
    edits: readonly Edit[],
    target: string | null,
    report: Report,
  ): Promise<Outcome<EditedSource & { readonly outcomes: readonly EditOutcome[] }>> {
    return attempt(() =>
      withSource(project, id, (source) => {
        const before = evaluator.drawing(source);
        const { drawing: after, outcomes } = evaluator.edited({ ...source, edits: [...edits] }, heeding(report));
        return { ...changeEdits(project, source, edits, before, after, wishesFor(project), target), outcomes };
      }),
    );
  },

  /** What an action would change: shapes that go, and those that come in their place. */
  preview(project: Project, id: string, action: EditAction): Promise<Outcome<Preview>> {
    return attempt(() =>
      withSource(project, id, (source) => {
        const edit: Edit = { id: 'preview', on: true, action };
        const { drawing, outcomes } = evaluator.edited({ ...source, edits: [...source.edits, edit] });
        return previewOf(evaluator.drawing(source), drawing, outcomes.at(-1)!.said);
      }),
    );
  },

  /** Faces that shapes enclose together, each with a place inside it. */
  faces(project: Project, id: string, shapes: readonly string[]): Promise<Outcome<readonly Face[]>> {
    return attempt(() =>
      withSource(project, id, (source) => facesOfLines(shapesOf(source, shapes).map(({ path }) => path))),
    );
  },

  /** Where the parts of shapes fall into bodies and small marks; null where they do not. */
  smallParts(project: Project, id: string, shapes: readonly string[]): Promise<Outcome<number | null>> {
    return attempt(() =>
      withSource(project, id, (source) => smallPartLimit(shapesOf(source, shapes).flatMap(partAreas))),
    );
  },
};

// sheet.ts — the shapes of every layer as they lie on the sheet, y up: what can be shown before anything is built.
import { heightOf } from '../builds/index.ts';
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import type { Shape } from '../drawing.ts';
import { type Evaluator, sourceOf } from '../evaluate/evaluator.ts';
import { boxOfPoints } from '../mesh/place.ts';
import type { Point3 } from '../mesh/proof.ts';
import { roughBounds } from '../outline/corners.ts';
import { printPath } from '../path/print.ts';
import { type Source, sourceKind } from '../sources/index.ts';
import { membersOf, placedShapes, sizedFor } from '../sources/placing.ts';
import type { ShapeView } from './shape.ts';

/** A shape on the sheet, y up. */
export type FlatShape = ShapeView;

/** Extent on the sheet and in height, project units. */
export interface ViewBox {
  readonly min: Point3;
  readonly max: Point3;
}

export interface SheetView {
  readonly layers: readonly { readonly id: string; readonly shapes: readonly FlatShape[] }[];
  /** Of the ends and handles of curves, so that it contains them and is hardly larger; null when nothing is shown. */
  readonly box: ViewBox | null;
}

/** @param project one whose sources are opened */
export function sheetView(evaluator: Evaluator, project: Resolved): SheetView {
  const placed = project.layers.map((layer) => ({
    layer,
    shapes: placedMembers(evaluator, layer, sourceOf(project, layer)),
  }));
  const layers = placed.map(({ layer, shapes }) => ({ id: layer.id, shapes: shapes.map(flatShape) }));
  return { layers, box: boxOf(placed.filter(({ layer }) => layer.shown)) };
}

function boxOf(placed: readonly { readonly layer: Layer; readonly shapes: readonly PlacedShape[] }[]): ViewBox | null {
  const built = placed.flatMap(({ layer, shapes }) => shapes.filter(({ id }) => !layer.skipped.includes(id)));
  const bounds = roughBounds(built.map(({ path }) => path));
  if (!bounds) return null;
  const bottom = Math.min(...placed.map(({ layer }) => layer.base));
  const top = Math.max(...placed.map(({ layer }) => layer.base + heightOf(layer.build)));
  return { min: [bounds.minX, bounds.minY, bottom], max: [bounds.maxX, bounds.maxY, top] };
}

type PlacedShape = Pick<Shape, 'id' | 'name' | 'path' | 'fillRule' | 'stroke' | 'colour'>;

/** All members of a layer, skipped ones too. */
export const flatShapes = (evaluator: Evaluator, layer: Layer, source: Source): FlatShape[] =>
  placedMembers(evaluator, layer, source).map(flatShape);

function flatShape({ id, name, path, fillRule, stroke, colour }: PlacedShape): FlatShape {
  return { id, name, d: printPath(path), fillRule, stroke: stroke ?? null, colour };
}

function placedMembers(evaluator: Evaluator, layer: Layer, source: Source): PlacedShape[] {
  if (sourceKind(source.kind).build === 'part') return [footprint(evaluator, layer, source)];
  return placedShapes(membersOf({ ...layer, skipped: [] }, evaluator.drawing(source)).shapes, sizedFor(layer, source));
}

/** A part of a mesh file lies on the sheet as the box around it. */
function footprint(evaluator: Evaluator, layer: Layer, source: Source): PlacedShape {
  const { id, name, members, material } = layer;
  const all = evaluator.meshParts(source);
  const { min, max } = boxOfPoints(members.flatMap((member) => all[Number(member)]?.mesh.positions ?? []));
  const { scale, origin } = sizedFor(layer, source);
  const [left, right] = [min[0]!, max[0]!].map((x) => scale * (x - origin[0])) as [number, number];
  const [below, above] = [min[1]!, max[1]!].map((y) => scale * (y + origin[1])) as [number, number];
  return {
    id,
    name,
    path: [['M', left, below], ['L', right, below], ['L', right, above], ['L', left, above], ['Z']],
    fillRule: 'nonzero',
    colour: material.colour,
  };
}

// outlines.ts — a layer's members on the sheet: shapes of a source, placed, flattened and united.

import type { Box, Drawing, Shape } from '../drawing.ts';
import { coverOf, movedShape } from '../outline/cover.ts';
import { boundsOf, ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import type { Bounds, Region } from '../outline/types.ts';
import { flatten } from '../path/flatten.ts';
import type { Matrix } from '../path/types.ts';
import type { Layer, Source } from './schema.ts';

/** User units, y down, to the sheet: y up, the origin in the middle. */
export function placement({ scale, origin: [x, y] }: Pick<Source, 'scale' | 'origin'>): Matrix {
  return [scale, 0, 0, -scale, -scale * x, scale * y];
}

export interface Members {
  readonly shapes: readonly Shape[];
  /** Members that the source no longer has. */
  readonly stranded: readonly string[];
}

/** The shapes of a layer that are to be built, in paint order. */
export function membersOf(layer: Layer, drawing: Drawing): Members {
  const byId = new Map(drawing.shapes.map((shape) => [shape.id, shape]));
  const skipped = new Set(layer.skipped);
  const wanted = layer.members.filter((member) => !skipped.has(member));
  return {
    shapes: wanted.flatMap((member) => byId.get(member) ?? []),
    stranded: wanted.filter((member) => !byId.has(member)),
  };
}

export function placedShapes(shapes: readonly Shape[], source: Pick<Source, 'scale' | 'origin'>): Shape[] {
  const matrix = placement(source);
  return shapes.map((shape) => movedShape(shape, matrix));
}

/** The union of the shapes, each filled by its own rule. @param tolerance in project units */
export function shapeRegions(
  shapes: readonly Shape[],
  source: Pick<Source, 'scale' | 'origin'>,
  tolerance: number,
): Region[] {
  // One shape at a time: under a common rule a hole of one would be filled by the winding of another.
  const each = placedShapes(shapes, source).map((shape) => coverOf(shape, tolerance));
  return each.length === 1 ? each[0]! : regionsOf(each.flatMap(ringsOf), 'nonzero');
}

/** Bounds in user units. Extremes of curves are kept by every flattening, so a coarse one gives them exactly. */
export function shapeBounds(shapes: readonly Shape[], { width, height }: Box): Bounds | null {
  const coarse = Math.max(width, height) / 1000;
  return boundsOf(
    shapes.flatMap((shape) =>
      shape.stroke ? coverOf(shape, coarse).map(({ outer }) => outer) : flatten(shape.path, coarse),
    ),
  );
}

// outlines.ts — a layer's members on the sheet: shapes of a source, placed, flattened and united.
import { flatten } from '../path/flatten.ts';
import { transformPath } from '../path/matrix.ts';
import type { Matrix, Path } from '../path/types.ts';
import type { Drawing, Shape } from '../io/svg/read.ts';
import { regionsOf } from '../outline/regions.ts';
import { ringsOf } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
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

export function placedPaths(shapes: readonly Shape[], source: Pick<Source, 'scale' | 'origin'>): Path[] {
  const matrix = placement(source);
  return shapes.map((shape) => transformPath(shape.path, matrix));
}

/** The union of the shapes, each filled by its own rule. @param tolerance in project units */
export function shapeRegions(
  shapes: readonly Shape[],
  source: Pick<Source, 'scale' | 'origin'>,
  tolerance: number,
): Region[] {
  const paths = placedPaths(shapes, source);
  // One shape at a time: under a common rule a hole of one would be filled by the winding of another.
  const each = paths.map((path, i) => regionsOf(flatten(path, tolerance), shapes[i]!.fillRule));
  return each.length === 1 ? each[0]! : regionsOf(each.flatMap(ringsOf), 'nonzero');
}

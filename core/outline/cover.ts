// cover.ts — what a shape covers of the sheet, filled or stroked.
import type { Shape } from '../drawing.ts';
import { flatten } from '../path/flatten.ts';
import { transformPath } from '../path/matrix.ts';
import type { Matrix } from '../path/types.ts';
import { regionsOf } from './regions.ts';
import { scaledStroke, strokeRegions } from './stroke.ts';
import type { Region } from './types.ts';

/** @param tolerance largest distance between chord and curve */
export function coverOf({ path, fillRule, stroke }: Shape, tolerance: number): Region[] {
  return stroke ? strokeRegions(path, stroke, tolerance) : regionsOf(flatten(path, tolerance), fillRule);
}

/** The shape under an affine map; a stroke becomes as wide as the map enlarges areas. */
export function movedShape<T extends Pick<Shape, 'path' | 'stroke'>>(shape: T, matrix: Matrix): T {
  const [a, b, c, d] = matrix;
  const path = transformPath(shape.path, matrix);
  return shape.stroke
    ? { ...shape, path, stroke: scaledStroke(shape.stroke, Math.sqrt(Math.abs(a * d - b * c))) }
    : { ...shape, path };
}

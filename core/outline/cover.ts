// cover.ts — what a shape covers of the sheet, filled or stroked.
import { type Shape, type Stroke, scaledStroke } from '../drawing.ts';
import { flatten } from '../path/flatten.ts';
import { transformPath } from '../path/matrix.ts';
import type { Matrix, Path } from '../path/types.ts';
import { type Filled, outlineOf } from './combine.ts';
import { regionsOf } from './regions.ts';
import { strokePaths, strokeRegions } from './stroke.ts';
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

/** How far a side of a stroke may stray, as a share of its width. */
const STROKE_SHARE = 1e-3;

/** A stroke as the outline of what it covers. */
export function outlinedStroke(path: Path, stroke: Stroke): Path {
  return outlineOf(strokePaths(path, stroke, STROKE_SHARE * stroke.width), 'nonzero');
}

/** What a shape covers, as a filled path. */
export function filledOf({ path, fillRule, stroke }: Shape): Filled {
  return stroke ? { path: outlinedStroke(path, stroke), fillRule: 'nonzero' } : { path, fillRule };
}

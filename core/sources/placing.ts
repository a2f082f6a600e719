// placing.ts — shapes of a source on the sheet: placed, flattened and united.
import type { Placed } from '../builds/kind.ts';
import type { Box, Drawing, Shape, Stroke } from '../drawing.ts';
import { coverOf, movedShape } from '../outline/cover.ts';
import { withoutDust } from '../outline/dust.ts';
import { boundsOf, ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { strokePaths } from '../outline/stroke.ts';
import type { Bounds, Region, Ring } from '../outline/types.ts';
import { flatten, polylines } from '../path/flatten.ts';
import type { Matrix, Path } from '../path/types.ts';

/** How a source lies on the sheet for a layer that makes its outlines larger or smaller. */
export function sizedFor({ scale: own = 1 }: { readonly scale?: number | undefined }, source: Placed): Placed {
  const { scale, origin } = source;
  return own === 1 ? source : { scale: scale * own, origin };
}

/** User units, y down, to the sheet: y up, the origin in the middle. */
export function placement({ scale, origin: [x, y] }: Placed): Matrix {
  return [scale, 0, 0, -scale, -scale * x, scale * y];
}

export interface Members {
  readonly shapes: readonly Shape[];
  /** Members that the source no longer has. */
  readonly stranded: readonly string[];
}

/** Shapes of drawings by their ids; every layer asks. */
const indexes = new WeakMap<Drawing, ReadonlyMap<string, Shape>>();

function shapesById(drawing: Drawing): ReadonlyMap<string, Shape> {
  const known = indexes.get(drawing);
  if (known) return known;
  const index = new Map(drawing.shapes.map((shape) => [shape.id, shape]));
  indexes.set(drawing, index);
  return index;
}

/** The members that are to be built, in paint order. */
export function membersOf(
  { members, skipped }: { readonly members: readonly string[]; readonly skipped: readonly string[] },
  drawing: Drawing,
): Members {
  const byId = shapesById(drawing);
  const left = new Set(skipped);
  const wanted = members.filter((member) => !left.has(member));
  return {
    shapes: wanted.flatMap((member) => byId.get(member) ?? []),
    stranded: wanted.filter((member) => !byId.has(member)),
  };
}

export function placedShapes(shapes: readonly Shape[], source: Placed): Shape[] {
  const matrix = placement(source);
  return shapes.map((shape) => movedShape(shape, matrix));
}

/** The union of the shapes, each filled by its own rule, without what is smaller than the tolerance. @param tolerance in project units */
export function shapeRegions(shapes: readonly Shape[], source: Placed, tolerance: number): Region[] {
  const placed = placedShapes(shapes, source);
  const [only] = placed;
  if (placed.length === 1) return withoutDust(coverOf(only!, tolerance), tolerance);
  // Filled shapes one at a time: under a common rule a hole of one would be filled by the winding of another. The parts of
  // strokes all wind the same way.
  const rings = placed.flatMap((shape) =>
    shape.stroke ? strokeRings(shape.path, shape.stroke, tolerance) : ringsOf(coverOf(shape, tolerance)),
  );
  return withoutDust(regionsOf(rings, 'nonzero'), tolerance);
}

/** The curves that {@link shapeRegions} flattens. */
export function shapeCurves(shapes: readonly Shape[], source: Placed, tolerance: number): Path[] {
  return placedShapes(shapes, source).flatMap(({ path, stroke }) =>
    stroke ? strokePaths(path, stroke, tolerance) : [path],
  );
}

/** Rings that together cover a stroke. */
const strokeRings = (path: Path, stroke: Stroke, tolerance: number): Ring[] =>
  strokePaths(path, stroke, tolerance).flatMap((part) => flatten(part, tolerance));

/** Strokes of more pieces than this are not outlined unasked. */
const HEAVY = 40_000;

/** Whether a shape is a stroke with so many lines that what it covers takes minutes to find. */
export const isHeavy = ({ path, stroke }: Shape): boolean => stroke !== undefined && path.length > HEAVY;

/** Bounds in user units. Extremes of curves are kept by every flattening, so a coarse one gives them exactly. */
export function shapeBounds(shapes: readonly Shape[], { width, height }: Box): Bounds | null {
  const coarse = Math.max(width, height) / 1000;
  return boundsOf(
    shapes.flatMap((shape) => {
      if (isHeavy(shape)) return polylines(shape.path, coarse).map(({ points }) => points);
      return shape.stroke ? strokeRings(shape.path, shape.stroke, coarse) : flatten(shape.path, coarse);
    }),
  );
}

// subject.ts — the shapes of a drawing with what every check asks of them, computed once.
import { TOLERANCE_SHARE } from '../base/tolerance.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { roughSize } from '../outline/corners.ts';
import { boundsOf, ringArea } from '../outline/measure.ts';
import type { Bounds, Ring } from '../outline/types.ts';
import { type Contour, contoursOf, pathOf } from '../path/cubic.ts';
import { polylines } from '../path/flatten.ts';

export interface CheckedContour {
  readonly contour: Contour;
  /** Chords, without a repeated end. */
  readonly ring: Ring;
  readonly bounds: Bounds;
  /** Signed. */
  readonly area: number;
}

export interface CheckedShape {
  readonly shape: Shape;
  readonly contours: readonly CheckedContour[];
  readonly bounds: Bounds;
}

export interface Subject {
  readonly shapes: readonly CheckedShape[];
  /** Longest side of everything, in user units. */
  readonly size: number;
  /** How far chords may stray from curves, as when it is first built, in user units. */
  readonly tolerance: number;
  readonly sheet: Drawing['sheet'];
}

export function subjectOf({ shapes, sheet }: Drawing): Subject {
  const size = roughSize(shapes.map(({ path }) => path));
  const tolerance = TOLERANCE_SHARE * size;
  const checked = shapes.flatMap((shape): CheckedShape[] => {
    const contours = contoursOf(shape.path).map((contour) => checkedContour(contour, tolerance));
    const bounds = boundsOf(contours.map(({ ring }) => ring));
    return bounds ? [{ shape, contours, bounds }] : [];
  });
  return { shapes: checked, size, tolerance, sheet };
}

function checkedContour(contour: Contour, tolerance: number): CheckedContour {
  const points = polylines(pathOf([contour]), tolerance)[0]?.points ?? Float64Array.of(...contour.start);
  const n = points.length;
  const isRepeated = n > 2 && points[0] === points[n - 2] && points[1] === points[n - 1];
  const ring = isRepeated ? points.slice(0, -2) : points;
  return { contour, ring, bounds: boundsOf([ring])!, area: ringArea(ring) };
}

export const middleOf = ({ minX, minY, maxX, maxY }: Bounds): [number, number] => [
  (minX + maxX) / 2,
  (minY + maxY) / 2,
];

// shapes.ts — walls among the shapes of a drawing, and the shapes that they stand for.
import type { Shape } from '../drawing.ts';
import { coverOf, filledOf } from '../outline/cover.ts';
import { regionsArea } from '../outline/measure.ts';
import { sharedArea } from '../outline/overlap.ts';
import { regionsOf } from '../outline/regions.ts';
import { contoursOf } from '../path/cubic.ts';
import { flatten } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { wallOutline } from './bands.ts';
import { nearestOnWalls } from './edit.ts';
import { findWalls, type WallLimits } from './find.ts';
import type { Wall } from './schema.ts';

export interface Plan {
  readonly walls: readonly Wall[];
  /** Ids of the shapes that the walls stand for; furniture and letters beside them stay. */
  readonly replaced: readonly string[];
}

/** A shape is one of the walls when this share of it lies within them. */
const WITHIN = 0.5;

/**
 * @param shapes among which walls are looked for: filled ones, strokes as thick as walls, and lines
 * @param others shapes that only tell windows from doors
 */
export function planOf(shapes: readonly Shape[], others: readonly Shape[], limits: WallLimits): Plan {
  const isLine = ({ stroke }: Shape) => stroke !== undefined && stroke.width < limits.thinnest;
  const walls = findWalls(
    {
      filled: shapes.filter((shape) => !isLine(shape)).map(filledOf),
      lines: shapes.filter(isLine).map(({ path }) => path),
      others: others.map(({ path }) => path),
    },
    limits,
  );
  if (walls.length === 0) return { walls, replaced: [] };
  const fine = limits.thinnest / 50;
  const whole = regionsOf(flatten(wallOutline(walls.map((wall) => ({ ...wall, openings: [] }))), fine), 'nonzero');
  const isWall = (shape: Shape) => {
    if (isLine(shape)) return shareOnWalls(shape.path, walls) >= WITHIN;
    const own = coverOf(shape, fine);
    return sharedArea(own, whole) >= WITHIN * regionsArea(own);
  };
  return { walls, replaced: shapes.filter(isWall).map(({ id }) => id) };
}

/** Places on each piece of a path where it is looked whether a wall is there. */
const PLACES = [0.25, 0.5, 0.75];

/** Share of a path's length that lies on walls or in their openings. */
function shareOnWalls(path: Path, walls: readonly Wall[]): number {
  const thickness = new Map(walls.map((wall) => [wall.id, wall.thickness]));
  let [all, within] = [0, 0];
  for (const { pieces } of contoursOf(path)) {
    for (const { cubic: c } of pieces) {
      const length = Math.hypot(c[6] - c[0], c[7] - c[1]);
      all += length;
      for (const t of PLACES) {
        const on = nearestOnWalls(walls, [c[0] + t * (c[6] - c[0]), c[1] + t * (c[7] - c[1])]);
        if (on && on.distance <= 0.6 * thickness.get(on.wall)!) within += length / PLACES.length;
      }
    }
  }
  return all > 0 ? within / all : 0;
}

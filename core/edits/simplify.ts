// simplify.ts — the same shapes with fewer points.
import type { Shape } from '../drawing.ts';
import { refit } from '../path/refit.ts';
import { type Change, chosen, each, pointsOf, type Report } from './change.ts';
import type { EditActionOf } from './schema.ts';

export function simplify(shapes: readonly Shape[], action: EditActionOf<'simplify'>, report: Report): Change {
  const make = (shape: Shape) => [{ ...shape, path: refit(shape.path, action.tolerance) }];
  const result = each(shapes, action.shapes, make, report);
  const [before, after] = [shapes, result.shapes].map((all) => pointsOf(chosen(all, action.shapes)));
  return { shapes: result.shapes, said: `${before} points became ${after}` };
}

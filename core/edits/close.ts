// close.ts — ends of open lines joined across gaps.
import type { Shape } from '../drawing.ts';
import { gapsBetween, joinEnds, looseEnds } from '../outline/ends.ts';
import { type Change, chosen, count, replaced } from './change.ts';
import type { EditActionOf } from './schema.ts';

export function close(shapes: readonly Shape[], { shapes: ids, gap }: EditActionOf<'close'>): Change {
  const targets = chosen(shapes, ids);
  const paths = targets.map(({ path }) => path);
  const gaps = gapsBetween(looseEnds(paths), gap);
  const joined = joinEnds(paths, gaps);
  const by = new Map(
    targets.flatMap((shape, i): [string, Shape[]][] => {
      const path = joined[i]!;
      if (path.length === 0) return [[shape.id, []]];
      return [[shape.id, [{ ...shape, path }]]];
    }),
  );
  return { shapes: replaced(shapes, by), said: `${count(gaps.length, 'gap')} closed` };
}

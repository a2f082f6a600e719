// close.ts — ends of open lines joined across gaps.
import type { Shape } from '../drawing.ts';
import { gapsBetween, joinEnds, looseEnds } from '../outline/ends.ts';
import { leadOnto } from '../outline/onto.ts';
import { type Change, chosen, count, replaced } from './change.ts';
import type { EditActionOf } from './schema.ts';

/** Ends are joined to ends, and what is left of them to the lines they stop short of. */
export function close(shapes: readonly Shape[], { shapes: ids, gap }: EditActionOf<'close'>): Change {
  const targets = chosen(shapes, ids);
  const paths = targets.map(({ path }) => path);
  const gaps = gapsBetween(looseEnds(paths), gap);
  const joined = gaps.length > 0 ? joinEnds(paths, gaps) : paths;
  const { paths: made, led } = leadOnto(joined, looseEnds(joined), gap);
  const by = new Map(
    targets.flatMap((shape, i): [string, Shape[]][] => {
      const path = made[i]!;
      if (path === shape.path) return [];
      return [[shape.id, path.length === 0 ? [] : [{ ...shape, path }]]];
    }),
  );
  const open = looseEnds(made).length - led;
  const onto = led > 0 ? `, ${led} of them onto lines` : '';
  const left = open > 0 ? `; ${count(open, 'end')} still open` : '';
  return {
    shapes: replaced(shapes, by),
    said: `${count(gaps.length + led, 'gap')} closed${onto}${left}`,
  };
}

// combine.ts — shapes united, cut from each other, made into outlines, grown and shrunk; their curves are kept.
import { roundStroke, type Shape, type Stroke } from '../drawing.ts';
import { combine as combinePaths, type Filled } from '../outline/combine.ts';
import { filledOf, outlinedStroke } from '../outline/cover.ts';
import { boundsOf, longestSide } from '../outline/measure.ts';
import { polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { type Change, chosen, count, each, type Report, replaced } from './change.ts';
import type { EditActionOf } from './schema.ts';

/** Share of a combination's work until its strokes are outlines. */
const OUTLINED = 0.3;

const WORDS = { union: 'united', subtract: 'cut', intersect: 'intersected', exclude: 'excluded' } as const;

export function combine(
  shapes: readonly Shape[],
  { how, shapes: ids }: EditActionOf<'combine'>,
  report: Report,
): Change {
  const operands = chosen(shapes, ids);
  const [first, ...others] = operands;
  if (!first) return { shapes, said: '' };
  const filled = operands.map((shape, i) => {
    report((OUTLINED * i) / operands.length);
    return filledOf(shape);
  });
  const path = combinePaths(filled, how, (share) => report(OUTLINED + (1 - OUTLINED) * share));
  const result = path.length > 0 ? [asFilled(first, path)] : [];
  const by = new Map<string, readonly Shape[]>(others.map(({ id }) => [id, []]));
  const what = how === 'subtract' ? `${count(others.length, 'shape')} cut from “${first.name}”` : '';
  return {
    shapes: replaced(shapes, by.set(first.id, result)),
    said: what || `${count(operands.length, 'shape')} ${WORDS[how]}${path.length > 0 ? '' : ': nothing is left'}`,
  };
}

export function unite(shapes: readonly Shape[], action: EditActionOf<'unite'>, report: Report): Change {
  const make = (shape: Shape): Shape[] => [asFilled(shape, combinePaths([filledOf(shape)], 'union'))];
  const result = each(shapes, action.shapes, make, report);
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} untangled` };
}

export function outline(shapes: readonly Shape[], action: EditActionOf<'outline'>, report: Report): Change {
  const make = (shape: Shape) =>
    shape.stroke
      ? [asFilled(shape, outlinedStroke(shape.path, { ...shape.stroke, ...withoutUndefined(action.stroke ?? {}) }))]
      : null;
  const result = each(shapes, action.shapes, make, report);
  return { shapes: result.shapes, said: `${count(result.changed, 'stroke')} made outlines` };
}

export function grow(
  shapes: readonly Shape[],
  { shapes: ids, by, join }: EditActionOf<'grow'>,
  report: Report,
): Change {
  let lost = 0;
  const make = (shape: Shape): Shape[] => {
    const path = grown(filledOf(shape), by, join);
    if (path.length === 0) lost++;
    return path.length > 0 ? [asFilled(shape, path)] : [];
  };
  const result = each(shapes, ids, make, report);
  const gone = lost > 0 ? `; ${count(lost, 'shape')} shrank away` : '';
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} ${by < 0 ? 'shrunk' : 'grown'}${gone}` };
}

/** A filled path with its boundary moved outward by `by`, inward where it is negative. */
export function grown(filled: Filled, by: number, join: Stroke['join']): Path {
  const plain = combinePaths([filled], 'union');
  if (by === 0 || plain.length === 0) return plain;
  const bounds = boundsOf(polylines(plain, Math.abs(by)).map(({ points }) => points));
  // Nothing is left of what is nowhere thicker than that.
  if (by < 0 && bounds && -2 * by >= longestSide(bounds)) return [];
  const band = outlinedStroke(plain, { ...roundStroke(2 * Math.abs(by)), join });
  const operands: Filled[] = [
    { path: plain, fillRule: 'nonzero' },
    { path: band, fillRule: 'nonzero' },
  ];
  return combinePaths(operands, by > 0 ? 'union' : 'subtract');
}

/** A shape with another path, which is filled. */
export function asFilled({ stroke: _, ...shape }: Shape, path: Path): Shape {
  return { ...shape, path, fillRule: 'nonzero' };
}

function withoutUndefined<T extends object>(value: T): { [K in keyof T]?: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as {
    [K in keyof T]?: Exclude<T[K], undefined>;
  };
}

// combine.ts — shapes united, cut from each other, made into outlines, grown and shrunk; their curves are kept.
import { roundStroke, type Shape, type Stroke } from '../drawing.ts';
import { combine as combinePaths, type Filled } from '../outline/combine.ts';
import { roughSize } from '../outline/corners.ts';
import { coverOf, filledOf, outlinedStroke } from '../outline/cover.ts';
import { boundsOf, longestSide } from '../outline/measure.ts';
import { sharedArea } from '../outline/overlap.ts';
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

/** Each lot becomes one shape in the place of the one at the back. */
export function merge(shapes: readonly Shape[], { shapes: ids }: EditActionOf<'merge'>, report: Report): Change {
  const wanted = new Set(ids);
  const lots = lotsOf(shapes.filter(({ id }) => wanted.has(id)));
  const by = new Map<string, readonly Shape[]>();
  for (const [i, lot] of lots.entries()) {
    const [first, ...others] = lot;
    by.set(first!.id, [asFilled(first!, combinePaths(lot.map(filledOf), 'union'))]);
    for (const { id } of others) by.set(id, []);
    report((i + 1) / lots.length);
  }
  const merged = lots.reduce((sum, lot) => sum + lot.length, 0);
  return { shapes: replaced(shapes, by), said: `${count(merged, 'shape')} united into ${lots.length}` };
}

/** Chords stray this share of all of them when it is asked which of them meet. */
const MEETING_SHARE = 2e-4;

/** Those of one colour that hang together by what they share; none of a single shape. */
function lotsOf(shapes: readonly Shape[]): Shape[][] {
  const tolerance = MEETING_SHARE * roughSize(shapes.map(({ path }) => path));
  const covers = shapes.map((shape) => coverOf(shape, tolerance));
  const lot = shapes.map((_, i) => i);
  const rootOf = (i: number): number => (lot[i] === i ? i : rootOf(lot[i]!));
  for (const [i, a] of shapes.entries()) {
    for (let j = 0; j < i; j++) {
      if (a.colour !== shapes[j]!.colour || rootOf(i) === rootOf(j)) continue;
      if (sharedArea(covers[i]!, covers[j]!) > 0) lot[Math.max(rootOf(i), rootOf(j))] = Math.min(rootOf(i), rootOf(j));
    }
  }
  const lots = new Map<number, Shape[]>();
  for (const [i, shape] of shapes.entries()) lots.set(rootOf(i), [...(lots.get(rootOf(i)) ?? []), shape]);
  return [...lots.values()].filter(({ length }) => length > 1);
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

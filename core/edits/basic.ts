// basic.ts — edits that need no geometry: remove, restyle, move, copy, order, draw, another path.
import type { Shape } from '../drawing.ts';
import { movedShape } from '../outline/cover.ts';
import { parsePath } from '../path/parse.ts';
import { type Change, chosen, count, each, replaced } from './change.ts';
import type { EditActionOf, Order } from './schema.ts';

export function remove(shapes: readonly Shape[], action: EditActionOf<'remove'>): Change {
  const gone = new Set(action.shapes);
  const kept = shapes.filter(({ id }) => !gone.has(id));
  return { shapes: kept, said: `${count(shapes.length - kept.length, 'shape')} removed` };
}

export function restyle(
  shapes: readonly Shape[],
  { shapes: ids, colour, fillRule, stroke }: EditActionOf<'restyle'>,
): Change {
  const result = each(shapes, ids, ({ stroke: old, ...shape }) => {
    const kept = stroke === undefined ? old : (stroke ?? undefined);
    return [
      {
        ...shape,
        colour: colour ?? shape.colour,
        fillRule: fillRule ?? shape.fillRule,
        ...(kept ? { stroke: kept } : {}),
      },
    ];
  });
  const rule = fillRule === 'evenodd' ? 'with holes open' : '';
  const style = stroke ? `${stroke.width} wide` : stroke === null ? 'filled' : rule;
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} made ${colour ?? ''} ${style}`.trim() };
}

export function move(shapes: readonly Shape[], { shapes: ids, matrix }: EditActionOf<'move'>): Change {
  const result = each(shapes, ids, (shape) => [movedShape(shape, matrix)]);
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} moved` };
}

/** @param edit its id, from which copies have theirs */
export function copy(shapes: readonly Shape[], { shapes: ids, matrix }: EditActionOf<'copy'>, edit: string): Change {
  const made = chosen(shapes, ids).map((shape) => ({
    ...movedShape(shape, matrix),
    id: `${shape.id}/${edit}`,
    from: shape.id,
  }));
  return { shapes: [...shapes, ...made], said: `${count(made.length, 'shape')} copied` };
}

/** What is moved keeps its own order. */
export function order(shapes: readonly Shape[], { shapes: ids, to }: EditActionOf<'order'>): Change {
  const wanted = new Set(ids);
  const [moved, rest] = [true, false].map((is) => shapes.filter(({ id }) => wanted.has(id) === is));
  const said = `${count(moved!.length, 'shape')} ${ORDER_WORDS[to]}`;
  if (to === 'front') return { shapes: [...rest!, ...moved!], said };
  if (to === 'back') return { shapes: [...moved!, ...rest!], said };
  // One after another past the next that is not moved, beginning at the end they go to.
  const line = to === 'forward' ? shapes.toReversed() : [...shapes];
  for (let i = 1; i < line.length; i++) {
    const [before, own] = [line[i - 1]!, line[i]!];
    if (wanted.has(own.id) && !wanted.has(before.id)) [line[i - 1], line[i]] = [own, before];
  }
  return { shapes: to === 'forward' ? line.toReversed() : line, said };
}

const ORDER_WORDS: Record<Order, string> = {
  front: 'brought to the front',
  forward: 'brought forward',
  backward: 'sent backward',
  back: 'sent to the back',
};

export function draw(shapes: readonly Shape[], action: EditActionOf<'draw'>): Change {
  const drawn = action.shapes.map(
    ({ id, name, d, fillRule = 'nonzero', colour, stroke }): Shape => ({
      id,
      name,
      group: '',
      path: parsePath(d).path,
      fillRule,
      colour,
      opacity: 1,
      ...(stroke ? { stroke } : {}),
    }),
  );
  return { shapes: [...shapes, ...drawn], said: `${count(drawn.length, 'shape')} drawn` };
}

export function path(shapes: readonly Shape[], { shape: id, d }: EditActionOf<'path'>): Change {
  const [shape] = chosen(shapes, [id]);
  if (!shape) return { shapes, said: '' };
  const { path: made } = parsePath(d);
  return {
    shapes: replaced(shapes, new Map([[id, made.length > 0 ? [{ ...shape, path: made }] : []]])),
    said: `points of “${shape.name}” edited`,
  };
}

// basic.ts — edits that need no geometry: remove, restyle, move, draw, another path.
import type { Shape } from '../drawing.ts';
import { movedShape } from '../outline/cover.ts';
import { parsePath } from '../path/parse.ts';
import { type Change, chosen, count, each, replaced } from './change.ts';
import type { EditActionOf } from './schema.ts';

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

export function draw(shapes: readonly Shape[], action: EditActionOf<'draw'>): Change {
  const drawn = action.shapes.map(
    ({ id, name, d, colour, stroke }): Shape => ({
      id,
      name,
      group: '',
      path: parsePath(d).path,
      fillRule: 'nonzero',
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

// walls.ts — walls in place of the shapes they were found in.
import type { Shape } from '../drawing.ts';
import { wallOutline } from '../plan/bands.ts';
import { type Change, count } from './change.ts';
import type { EditActionOf } from './schema.ts';

export function walls(shapes: readonly Shape[], action: EditActionOf<'walls'>, edit: string): Change {
  const gone = new Set(action.after);
  const kept = shapes.filter(({ id }) => !gone.has(id));
  const path = wallOutline(action.walls);
  const openings = action.walls.reduce((sum, wall) => sum + wall.openings.length, 0);
  const shape: Shape = {
    id: `${edit}.walls`,
    name: 'Walls',
    group: '',
    path,
    fillRule: 'nonzero',
    colour: action.colour,
    opacity: 1,
    ...(action.after[0] === undefined ? {} : { from: action.after[0] }),
  };
  const said = `${count(action.walls.length, 'wall')} with ${count(openings, 'opening')}`;
  return { shapes: path.length > 0 ? [...kept, shape] : kept, said };
}

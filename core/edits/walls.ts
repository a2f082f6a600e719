// walls.ts — walls with thickness along their middle lines, joined where they meet, cut at their openings.
import type { Shape } from '../drawing.ts';
import { combine, type Filled } from '../outline/combine.ts';
import { roundStroke } from '../outline/stroke.ts';
import type { Path, Segment } from '../path/types.ts';
import { type Change, count } from './change.ts';
import { outlinedStroke } from './combine.ts';
import type { ActionOf, Opening, Wall } from './schema.ts';

export function walls(shapes: readonly Shape[], action: ActionOf<'walls'>, edit: string): Change {
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

/** Openings are cut a little deeper than their wall is thick. */
const THROUGH = 1.01;

/** The plan of walls: what they cover, less their openings. */
export function wallOutline(all: readonly Wall[]): Path {
  const solid = all.map(
    (wall): Filled => ({ path: outlinedStroke(middleLine(wall), penOf(wall)), fillRule: 'nonzero' }),
  );
  const united: Filled = { path: combine(solid, 'union'), fillRule: 'nonzero' };
  const gaps = all.flatMap((wall) =>
    wall.openings.flatMap((opening): Filled[] => {
      const path = openingOutline(wall, opening);
      return path ? [{ path, fillRule: 'nonzero' }] : [];
    }),
  );
  return combine([united, ...gaps], 'subtract');
}

/** Square where it ends, so that walls that end on each other's middle lines fill their corner; mitred where it turns. */
function penOf({ thickness }: Wall) {
  return { ...roundStroke(thickness), join: 'mitre' as const, cap: 'square' as const, mitreLimit: 10 };
}

function middleLine({ points, isClosed }: Wall): Path {
  const line: Segment[] = points.map(([x, y], i) => [i === 0 ? 'M' : 'L', x, y]);
  if (isClosed) line.push(['Z']);
  return line;
}

/** The rectangle an opening takes out of its wall; null where the wall has no such piece. */
export function openingOutline({ points, isClosed, thickness }: Wall, opening: Opening): Path | null {
  const start = points[opening.piece];
  const end = points[opening.piece + 1] ?? (isClosed ? points[0] : undefined);
  if (!start || !end) return null;
  const length = Math.hypot(end[0] - start[0], end[1] - start[1]);
  if (!(length > 0)) return null;
  const [ux, uy] = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
  const middle = opening.at * length;
  const half = (THROUGH * thickness) / 2;
  const corner = (along: number, across: number) =>
    [start[0] + ux * along - uy * across, start[1] + uy * along + ux * across] as const;
  const [from, to] = [middle - opening.width / 2, middle + opening.width / 2];
  return [
    ['M', ...corner(from, -half)],
    ['L', ...corner(to, -half)],
    ['L', ...corner(to, half)],
    ['L', ...corner(from, half)],
    ['Z'],
  ];
}

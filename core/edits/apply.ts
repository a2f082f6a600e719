// apply.ts — the edits of a source, one after another, and what each of them came to.
import type { Drawing, Shape } from '../drawing.ts';
import { copy, draw, move, order, path, remove, restyle } from './basic.ts';
import { type Change, pointsOf, type Report } from './change.ts';
import { close } from './close.ts';
import { combine, grow, merge, outline, unite } from './combine.ts';
import type { Edit, EditAction } from './schema.ts';
import { simplify } from './simplify.ts';
import { faces, separate, split } from './split.ts';
import { walls } from './walls.ts';

export interface EditOutcome {
  readonly id: string;
  /** What was done, with numbers. */
  readonly said: string;
  /** Shapes the edit was made for that are not there: stranded. */
  readonly missing: readonly string[];
  /** Whether anything is otherwise than before. */
  readonly isDone: boolean;
  /** Shapes and points before and after. */
  readonly before: Counts;
  readonly after: Counts;
}

export interface Counts {
  readonly shapes: number;
  readonly points: number;
}

export interface Edited {
  readonly drawing: Drawing;
  /** Of the edits that are on. */
  readonly outcomes: readonly EditOutcome[];
}

/** The drawing after one more edit. */
export function applyEdit({ drawing, outcomes }: Edited, edit: Edit, report: Report = () => {}): Edited {
  const { shapes } = drawing;
  const known = new Set(shapes.map(({ id }) => id));
  const missing = shapesOf(edit.action).filter((id) => !known.has(id));
  const change = changed(shapes, edit, report);
  const isDone = change.shapes.length !== shapes.length || change.shapes.some((shape, i) => shape !== shapes[i]);
  const outcome = {
    id: edit.id,
    said: change.said,
    missing,
    isDone,
    before: countsOf(shapes),
    after: countsOf(change.shapes),
  };
  return { drawing: { ...drawing, shapes: change.shapes }, outcomes: [...outcomes, outcome] };
}

const countsOf = (shapes: readonly Shape[]): Counts => ({ shapes: shapes.length, points: pointsOf(shapes) });

/** The shapes an action is for. */
export function shapesOf(action: EditAction): readonly string[] {
  switch (action.do) {
    case 'path':
      return [action.shape];
    case 'draw':
      return [];
    case 'walls':
      return action.after;
    default:
      return action.shapes;
  }
}

function changed(shapes: readonly Shape[], { id, action }: Edit, report: Report): Change {
  switch (action.do) {
    case 'remove':
      return remove(shapes, action);
    case 'restyle':
      return restyle(shapes, action);
    case 'path':
      return path(shapes, action);
    case 'draw':
      return draw(shapes, action);
    case 'move':
      return move(shapes, action);
    case 'copy':
      return copy(shapes, action, id);
    case 'order':
      return order(shapes, action);
    case 'combine':
      return combine(shapes, action, report);
    case 'merge':
      return merge(shapes, action, report);
    case 'unite':
      return unite(shapes, action, report);
    case 'outline':
      return outline(shapes, action, report);
    case 'grow':
      return grow(shapes, action, report);
    case 'close':
      return close(shapes, action);
    case 'faces':
      return faces(shapes, action, id);
    case 'split':
      return split(shapes, action, id, report);
    case 'separate':
      return separate(shapes, action, id, report);
    case 'simplify':
      return simplify(shapes, action, report);
    case 'walls':
      return walls(shapes, action, id);
  }
}

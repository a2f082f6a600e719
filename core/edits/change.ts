// change.ts — what an edit makes of the shapes, and how it is said.
import type { Shape } from '../drawing.ts';

export interface Change {
  readonly shapes: readonly Shape[];
  /** What was done, with numbers; '' when nothing was. */
  readonly said: string;
}

/** Called while it goes on with the share done. May throw to stop. */
export type Report = (share: number) => void;

/** The shapes with these ids, in the order of the ids. */
export function chosen(shapes: readonly Shape[], ids: readonly string[]): Shape[] {
  const byId = new Map(shapes.map((shape) => [shape.id, shape]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Shapes with some replaced by none, one or several in the same place of the paint order. */
export function replaced(shapes: readonly Shape[], by: ReadonlyMap<string, readonly Shape[]>): Shape[] {
  return shapes.flatMap((shape) => by.get(shape.id) ?? shape);
}

/** Each chosen shape made anew; null leaves one as it is. */
export function each(
  shapes: readonly Shape[],
  ids: readonly string[],
  make: (shape: Shape) => readonly Shape[] | null,
  report: Report = () => {},
): { shapes: Shape[]; changed: number } {
  const by = new Map<string, readonly Shape[]>();
  const targets = chosen(shapes, ids);
  for (const [i, shape] of targets.entries()) {
    const made = make(shape);
    if (made) by.set(shape.id, made);
    report((i + 1) / targets.length);
  }
  return { shapes: replaced(shapes, by), changed: by.size };
}

/** “1 shape”, “3 shapes”. */
export const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

/** Points of a path: ends of its lines and curves. */
export const pointsOf = (shapes: readonly Shape[]): number =>
  shapes.reduce((sum, { path }) => sum + path.filter(([letter]) => letter !== 'Z').length, 0);

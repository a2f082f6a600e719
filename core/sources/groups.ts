// groups.ts — the named groups of a drawing, as far as they tell its shapes apart.
import type { Drawing, Shape } from '../drawing.ts';

/** Names that programs give to groups when nobody does. */
export const GENERIC = /^(path|piece|rect|circle|ellipse|polygon|polyline|g|group|layer|shape|use|svg)?[-_ ]*\d*$/i;

/** Of more groups than this nobody keeps track. */
const MOST = 200;

/**
 * The named groups around each shape, the outermost first, without those that are around all of them.
 * @returns none for any shape where the drawing has no such groups, or very many of them
 */
export function namedGroups({ shapes }: Drawing, ground: ReadonlySet<Shape>): (shape: Shape) => readonly string[] {
  const chains = new Map(
    shapes.map((shape) => [shape, ground.has(shape) ? [] : (shape.within ?? []).filter((name) => !GENERIC.test(name))]),
  );
  const kept = shapes.filter((shape) => !ground.has(shape)).map((shape) => chains.get(shape)!);
  const [first = []] = kept;
  let common = 0;
  while (common < first.length && kept.every((chain) => chain[common] === first[common])) common++;
  const distinct = new Set(kept.map((chain) => JSON.stringify(chain)));
  if (distinct.size < 2 || distinct.size > MOST) return () => [];
  return (shape) => chains.get(shape)!.slice(common);
}

/** As a name in a list: “left-wing” is “Left wing”. */
export function groupName(name: string): string {
  const words = name.replace(/[-_]+/g, ' ').trim();
  return (words.charAt(0).toUpperCase() + words.slice(1)).slice(0, 80);
}

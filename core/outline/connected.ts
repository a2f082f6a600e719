// connected.ts — shapes that touch or cross each other, and those that touch these, and so on.
import type { Shape } from '../drawing.ts';
import { polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { areNear } from './apart.ts';
import { boundsOf, longestSide } from './measure.ts';
import { SegmentGrid } from './segment-grid.ts';

/** Chords stray this share of the drawing's size, and lines as near as that touch. */
const TOUCH = 1e-4;

type Segment = readonly [ax: number, ay: number, bx: number, by: number];

/** Ids of all shapes whose outlines hang together with those of `from`. Strokes reach as far as they are wide. */
export function connectedShapes(shapes: readonly Shape[], from: readonly string[]): string[] {
  const bounds = boundsOf(shapes.flatMap(({ path }) => polylines(path, Infinity).map(({ points }) => points)));
  if (!bounds) return [...from];
  const touch = TOUCH * (longestSide(bounds) || 1);
  const reach = shapes.map(({ stroke }) => touch + (stroke?.width ?? 0) / 2);
  const widest = reach.reduce((most, own) => Math.max(most, own), 0);
  const chords = shapes.map(({ path }) => chordsOf(path, touch));
  const owners = chords.flatMap((own, i) => own.map(() => i));
  const all = chords.flat();
  const grid = new SegmentGrid(Float64Array.from(all.flat()));
  const numbers = new Map(shapes.map(({ id }, i) => [id, i]));
  const found = new Set(from.flatMap((id) => numbers.get(id) ?? []));
  // A set goes on to what is added while it is gone through.
  for (const i of found) {
    for (const chord of chords[i]!) {
      const far = reach[i]! + widest;
      const [minX, maxX] = [Math.min(chord[0], chord[2]) - far, Math.max(chord[0], chord[2]) + far];
      const [minY, maxY] = [Math.min(chord[1], chord[3]) - far, Math.max(chord[1], chord[3]) + far];
      grid.box(minX, minY, maxX, maxY, (other) => {
        const owner = owners[other]!;
        if (!found.has(owner) && areNear(chord, all[other]!, reach[i]! + reach[owner]!)) found.add(owner);
      });
    }
  }
  return shapes.filter((_, i) => found.has(i)).map(({ id }) => id);
}

function chordsOf(path: Path, tolerance: number): Segment[] {
  return polylines(path, tolerance).flatMap(({ points, isClosed }) => {
    const count = points.length / 2;
    // A single point is a chord without length.
    return Array.from({ length: isClosed || count === 1 ? count : count - 1 }, (_, k): Segment => {
      const [a, b] = [2 * k, 2 * ((k + 1) % count)];
      return [points[a]!, points[a + 1]!, points[b]!, points[b + 1]!];
    });
  });
}

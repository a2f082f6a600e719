// pieces.ts — traced pieces keep their ids when a picture is traced again: each new piece takes the id of the old one that
// lies most nearly where it does.
import { z } from 'zod';
import type { Drawing, Shape } from '../../drawing.ts';
import { ColourSchema } from '../../materials/schema.ts';
import { boundsOf, ringArea } from '../../outline/measure.ts';
import { polylines } from '../../path/flatten.ts';
import { labDistance, labOf, rgbOfHex } from '../../picture/colour.ts';

/** What a traced piece is known by when the picture is traced again. */
export const PieceSchema = z.object({
  id: z.string().min(1).max(60),
  colour: ColourSchema,
  /** In square user units, holes taken off. */
  area: z.number(),
  /** Left, top, right, bottom in user units. */
  box: z.tuple([z.number(), z.number(), z.number(), z.number()]),
  /** The last trace did not have it; it is known for one that has it again. */
  gone: z.literal(true).optional(),
});
export type PieceMark = z.infer<typeof PieceSchema>;

/** What a piece will be known by. */
export function markOf({ path, colour, stroke }: Shape, id: string): PieceMark {
  const bounds = boundsOf(polylines(path, 0.25).map(({ points }) => points));
  const { minX, minY, maxX, maxY } = bounds ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  const lines = polylines(path, 0.25).map(({ points }) => points);
  const area =
    stroke === undefined
      ? Math.abs(lines.reduce((sum, ring) => sum + ringArea(ring), 0))
      : stroke.width * lines.reduce((sum, line) => sum + lengthOf(line), stroke.width);
  const pad = (stroke?.width ?? 0) / 2;
  return {
    id,
    colour,
    area: round(area),
    box: [minX - pad, minY - pad, maxX + pad, maxY + pad].map(round) as PieceMark['box'],
  };
}

const round = (v: number) => Math.round(v * 1000) / 1000;

function lengthOf(line: Float64Array): number {
  let sum = 0;
  for (let i = 2; i < line.length; i += 2) sum += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  return sum;
}

/** Pieces less alike than this are strangers: 1 for the same place, size and colour, 0 for nothing in common. */
const ALIKE = 0.2;

export interface Named {
  readonly drawing: Drawing;
  /** Of the drawing's shapes, in their order. */
  readonly pieces: readonly PieceMark[];
  /** Ids that no piece has any more. */
  readonly lost: readonly string[];
}

/**
 * A drawing whose shapes have the ids of the pieces they match, and new ones where they match none.
 * @param ratio known units in one unit of the drawing, where the picture was replaced by one of another size
 */
export function named(drawing: Drawing, known: readonly PieceMark[], ratio = 1): Named {
  const marks = drawing.shapes.map((shape) => markOf(shape, ''));
  const ids = matched(
    marks.map(({ box, area, ...mark }) => ({
      ...mark,
      area: area * ratio * ratio,
      box: box.map((v) => v * ratio) as PieceMark['box'],
    })),
    known,
  );
  const taken = new Set(known.map(({ id }) => id));
  let number = 0;
  const fresh = () => {
    do number++;
    while (taken.has(`piece-${number}`));
    return `piece-${number}`;
  };
  const all = ids.map((id) => id ?? fresh());
  const before = new Map(drawing.shapes.map((shape, i) => [shape.id, all[i]!]));
  const isKept = new Set(ids);
  return {
    drawing: {
      ...drawing,
      shapes: drawing.shapes.map((shape, i) => ({ ...shape, id: all[i]!, name: all[i]!.replace('piece-', 'Piece ') })),
      ...(drawing.ground ? { ground: drawing.ground.map((id) => before.get(id)!) } : {}),
    },
    pieces: marks.map((mark, i) => ({ ...mark, id: all[i]! })),
    lost: known.flatMap(({ id }) => (isKept.has(id) ? [] : [id])),
  };
}

/** The id of the known piece that each new one matches; the most alike first, none twice. */
function matched(marks: readonly PieceMark[], known: readonly PieceMark[]): (string | null)[] {
  const pairs: { i: number; k: number; alike: number }[] = [];
  const colours = new Map<string, ReturnType<typeof labOf>>();
  const lab = (hex: string) => {
    const found = colours.get(hex) ?? labOf(...rgbOfHex(hex));
    colours.set(hex, found);
    return found;
  };
  for (const [i, mark] of marks.entries()) {
    for (const [k, other] of known.entries()) {
      const place = boxOverlap(mark.box, other.box);
      if (place < ALIKE) continue;
      const larger = Math.max(mark.area, other.area);
      const size = larger > 0 ? Math.min(mark.area, other.area) / larger : 1;
      const colour = Math.max(0, 1 - labDistance(lab(mark.colour), lab(other.colour)));
      const alike = place * Math.sqrt(size) * colour;
      if (alike >= ALIKE) pairs.push({ i, k, alike });
    }
  }
  pairs.sort((p, q) => q.alike - p.alike || p.i - q.i);
  const ids: (string | null)[] = marks.map(() => null);
  const used = new Set<number>();
  for (const { i, k } of pairs) {
    if (ids[i] !== null || used.has(k)) continue;
    ids[i] = known[k]!.id;
    used.add(k);
  }
  return ids;
}

/** Intersection over union. */
function boxOverlap([a, b, c, d]: PieceMark['box'], [e, f, g, h]: PieceMark['box']): number {
  const [width, height] = [Math.min(c, g) - Math.max(a, e), Math.min(d, h) - Math.max(b, f)];
  if (width < 0 || height < 0) return 0;
  const shared = width * height;
  const union = (c - a) * (d - b) + (g - e) * (h - f) - shared;
  return union > 0 ? shared / union : 1;
}

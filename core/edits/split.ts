// split.ts — one shape becomes several: along a line, or where its parts do not touch; and faces between lines.
import type { Shape } from '../drawing.ts';
import { pointInRing } from '../outline/apart.ts';
import { combine, combinedRegions, type Filled } from '../outline/combine.ts';
import { roughSize } from '../outline/corners.ts';
import { filledOf } from '../outline/cover.ts';
import { cutByArea } from '../outline/divide.ts';
import { facesBetween } from '../outline/faces.ts';
import { boundsOf, longestSide, ringArea } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { contoursOf } from '../path/cubic.ts';
import { flatten, polylines } from '../path/flatten.ts';
import { parsePath } from '../path/parse.ts';
import type { Path, Segment } from '../path/types.ts';
import { type Change, chosen, count, each, type Report } from './change.ts';
import { asFilled } from './combine.ts';
import type { EditActionOf } from './schema.ts';

export function split(shapes: readonly Shape[], action: EditActionOf<'split'>, edit: string, report: Report): Change {
  const line = parsePath(action.line).path;
  const make = (shape: Shape): Shape[] | null => {
    const part = { id: `${shape.id}/${edit}`, from: shape.id };
    const side = leftOf(line, shape.path);
    if (!side) return null;
    if (shape.stroke) {
      // A stroke stays one: it is its line that is cut.
      const [left, right] = cutByArea(shape.path, side.path);
      return left.length > 0 && right.length > 0
        ? [
            { ...shape, path: left },
            { ...shape, ...part, path: right },
          ]
        : null;
    }
    const whole = filledOf(shape);
    const [left, right] = (['intersect', 'subtract'] as const).map((how) => combine([whole, side], how));
    if (left!.length === 0 || right!.length === 0) return null;
    return [asFilled(shape, left!), { ...asFilled(shape, right!), ...part }];
  };
  const result = each(shapes, action.shapes, make, report);
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} split in two` };
}

/** Everything to the left of a line that is drawn on straight at both ends; null for a line of no length. */
function leftOf(line: Path, around: Path): Filled | null {
  const [contour] = contoursOf(line);
  const [first, last] = [contour?.pieces[0]?.cubic, contour?.pieces.at(-1)?.cubic];
  const bounds = boundsOf([...polylines(around, 1), ...polylines(line, 1)].map(({ points }) => points));
  if (!contour || !first || !last || !bounds) return null;
  const far = 4 * (longestSide(bounds) || 1);
  const [cx, cy] = [(bounds.minX + bounds.maxX) / 2, (bounds.minY + bounds.maxY) / 2];
  const ahead = (x: number, y: number, towardX: number, towardY: number) => {
    const length = Math.hypot(towardX - x, towardY - y) || 1;
    return [towardX + ((towardX - x) / length) * far, towardY + ((towardY - y) / length) * far] as const;
  };
  const start = ahead(first[6], first[7], first[0], first[1]);
  const end = ahead(last[0], last[1], last[6], last[7]);
  // From the far end round to the far start, far outside, with the left of the line (y up) inside.
  const angle = (x: number, y: number) => Math.atan2(y - cy, x - cx);
  const from = angle(...end);
  const turn = (angle(...start) - from + 4 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
  const corners = Array.from({ length: 8 }, (_, i) => from + (turn * (i + 0.5)) / 8);
  const outside = corners.map((a): Segment => ['L', cx + 3 * far * Math.cos(a), cy + 3 * far * Math.sin(a)]);
  const drawn = line.filter(([letter]) => letter !== 'Z').slice(1);
  return {
    path: [['M', ...start], ['L', first[0], first[1]], ...drawn, ['L', ...end], ...outside, ['Z']],
    fillRule: 'nonzero',
  };
}

export function separate(
  shapes: readonly Shape[],
  action: EditActionOf<'separate'>,
  edit: string,
  report: Report,
): Change {
  let parts = 0;
  const make = (shape: Shape): Shape[] | null => {
    const regions = combinedRegions([filledOf(shape)], 'union')
      .map((path) => ({ path, area: areaOf(path) }))
      .sort((a, b) => b.area - a.area);
    const derived = (path: Path, n: number): Shape => ({
      ...asFilled(shape, path),
      id: `${shape.id}/${edit}.${n}`,
      from: shape.id,
    });
    const { below } = action;
    const [body, ...others] =
      below === undefined
        ? regions.map(({ path }) => path)
        : [regions.filter(({ area }) => area >= below), regions.filter(({ area }) => area < below)]
            .filter((group) => group.length > 0)
            .map((group) => group.flatMap(({ path }) => path));
    if (!body || others.length === 0) return null;
    parts += 1 + others.length;
    return [asFilled(shape, body), ...others.map((path, i) => derived(path, i + 1))];
  };
  const result = each(shapes, action.shapes, make, report);
  return { shapes: result.shapes, said: `${count(result.changed, 'shape')} separated into ${parts}` };
}

const areaOf = (path: Path): number =>
  flatten(path, roughSize([path]) / 2000).reduce((sum, ring) => sum + ringArea(ring), 0);

/** Areas of the parts of a shape, largest first. */
export function partAreas(shape: Shape): number[] {
  return combinedRegions([filledOf(shape)], 'union')
    .map(areaOf)
    .sort((a, b) => b - a);
}

/** Parts are only called small from this ratio to the next larger one on. */
const CLEARLY_SMALLER = 1.8;
/** And are no larger than this share of the largest part. */
const SMALL_SHARE = 0.25;

/** The area that best tells small parts (dots, marks) from bodies; null where they do not fall into two kinds. */
export function smallPartLimit(areas: readonly number[]): number | null {
  const sorted = [...areas].sort((a, b) => b - a);
  let best: { ratio: number; limit: number } | null = null;
  for (let i = 1; i < sorted.length; i++) {
    const [larger, smaller] = [sorted[i - 1]!, sorted[i]!];
    const ratio = larger / smaller;
    if (smaller > SMALL_SHARE * sorted[0]! || ratio < CLEARLY_SMALLER) continue;
    if (!best || ratio > best.ratio) best = { ratio, limit: Math.sqrt(larger * smaller) };
  }
  return best?.limit ?? null;
}

export function faces(shapes: readonly Shape[], action: EditActionOf<'faces'>, edit: string): Change {
  const lines = chosen(shapes, action.shapes);
  const [first] = lines;
  if (!first) return { shapes, said: '' };
  const found = facesBetween(lines.map(({ path }) => path)).map((path) => ({
    path,
    regions: regionsOf(flatten(path, roughSize([path]) / 2000), 'nonzero'),
  }));
  const filled = action.places.flatMap(([x, y], i): Shape[] => {
    const face = found.find(({ regions }) =>
      regions.some(({ outer, holes }) => pointInRing(x, y, outer) && !holes.some((hole) => pointInRing(x, y, hole))),
    );
    return face
      ? [
          {
            ...asFilled(first, face.path),
            id: `${edit}.${i + 1}`,
            name: `face ${i + 1}`,
            colour: action.colour,
            // One of another colour is no part of the lines' layer.
            ...(action.colour === first.colour ? { from: first.id } : {}),
          },
        ]
      : [];
  });
  const gone = new Set(action.keepsLines ? [] : action.shapes);
  const kept = shapes.filter(({ id }) => !gone.has(id));
  const missed = action.places.length - filled.length;
  return {
    shapes: [...kept, ...filled],
    said: `${count(filled.length, 'face')} of ${found.length} filled${missed > 0 ? `; ${count(missed, 'place')} no longer enclosed` : ''}`,
  };
}

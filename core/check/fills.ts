// fills.ts — filled outlines: those that cross themselves, holes that are filled, copies, overlaps of one colour.
import { eachCrossing, isInside, segmentsOf } from '../outline/apart.ts';
import { coverOf } from '../outline/cover.ts';
import { sharedArea } from '../outline/overlap.ts';
import type { Bounds, Region, Ring } from '../outline/types.ts';
import { type Finding, finding } from './finding.ts';
import { type CheckedContour, type CheckedShape, middleOf, type Subject } from './subject.ts';

/** Filled shapes whose boundary crosses itself, at the first place where it does. */
export function crossings({ shapes }: Subject): Finding[] {
  const found = shapes.flatMap(({ shape, contours }) => {
    if (shape.stroke) return [];
    const place = firstCrossing(contours.map(({ ring }) => ring));
    return place ? [{ shapes: [shape.id], place }] : [];
  });
  // Uniting a shape with itself by its own fill rule changes nothing that is seen.
  return finding('crossing', found, (ids) => ({ do: 'unite', shapes: ids }), true);
}

function firstCrossing(rings: readonly Ring[]): [number, number] | null {
  let place: [number, number] | null = null;
  eachCrossing(segmentsOf(rings), (_, __, x, y) => {
    place = [x, y];
    return false;
  });
  return place;
}

/** Outlines inside another of their shape that the fill rule closes, though they look like holes. */
export function nesting({ shapes }: Subject): Finding[] {
  const found = shapes.flatMap(({ shape, contours }) => {
    if (shape.stroke || shape.fillRule !== 'nonzero' || contours.length < 2) return [];
    const turn = ({ area }: CheckedContour) => Math.sign(area);
    const inner = contours.filter((one) => {
      // Winding number round it; inside it differs by its own turn. A hole, and an island in one, have 0 on one side.
      const round = contours
        .filter((other) => other !== one && isInside(one.ring, other.ring))
        .reduce((sum, other) => sum + turn(other), 0);
      return turn(one) !== 0 && round !== 0 && round + turn(one) !== 0;
    });
    return inner.map(({ bounds }) => ({ shapes: [shape.id], place: middleOf(bounds) }));
  });
  return finding('nesting', found, (ids) => ({ do: 'restyle', shapes: ids, fillRule: 'evenodd' }), false);
}

/** Shapes that lie exactly on an earlier one, whichever way round and wherever they begin. */
export function duplicates({ shapes, size }: Subject): Finding[] {
  const first = new Map<string, CheckedShape>();
  const found = shapes.flatMap((checked) => {
    const key = keyOf(checked, 1e-7 * size);
    const same = first.get(key);
    if (!same) {
      first.set(key, checked);
      return [];
    }
    return [
      {
        shapes: [checked.shape.id],
        place: middleOf(checked.bounds),
        isSame: same.shape.colour === checked.shape.colour,
      },
    ];
  });
  return finding(
    'duplicate',
    found,
    (ids) => ({ do: 'remove', shapes: ids }),
    found.every(({ isSame }) => isSame),
  );
}

function keyOf({ shape, contours }: CheckedShape, step: number): string {
  const texts = contours.map(({ ring, contour }) => {
    const places = Array.from(
      { length: ring.length / 2 },
      (_, i) => `${Math.round(ring[2 * i]! / step)},${Math.round(ring[2 * i + 1]! / step)}`,
    );
    if (!contour.isClosed && shape.stroke) {
      const [forward, back] = [places.join(' '), [...places].reverse().join(' ')];
      return `open ${forward < back ? forward : back}`;
    }
    const least = places.reduce((best, place, i) => (place < places[best]! ? i : best), 0);
    const turned = [...places.slice(least), ...places.slice(0, least)];
    const back = [turned[0]!, ...turned.slice(1).reverse()];
    const [forward, backward] = [turned.join(' '), back.join(' ')];
    return forward < backward ? forward : backward;
  });
  const { stroke } = shape;
  return `${texts.sort().join('|')} ${stroke ? JSON.stringify(stroke) : 'filled'}`;
}

/** Sharing less than this of the smaller one is where they touch. */
const OVERLAP_SHARE = 1e-3;

/** So many are enough to show what is the matter; each is measured by itself. */
export const MOST_OVERLAPS = 5000;

/**
 * Shapes of one colour that cover the same place: built apart, they would fill the same space twice. Not those between which
 * another colour lies over the one at the back and under the one in front: as one shape they would look otherwise.
 */
export function overlaps({ shapes, size }: Subject): Finding[] {
  const known = new Map<CheckedShape, Region[]>();
  const cover = (checked: CheckedShape) => {
    const regions = known.get(checked) ?? coverOf(checked.shape, 2e-4 * size);
    known.set(checked, regions);
    return regions;
  };
  const share = (a: CheckedShape, b: CheckedShape) => {
    const shared = sharedArea(cover(a), cover(b));
    return shared > OVERLAP_SHARE * Math.min(boxArea(a.bounds), boxArea(b.bounds)) ? shared : 0;
  };
  const places = new Map(shapes.map((shape, i) => [shape, i]));
  const isBetween = (a: CheckedShape, b: CheckedShape) => {
    const [low, high] = [a, b].sort((p, q) => places.get(p)! - places.get(q)!) as [CheckedShape, CheckedShape];
    return shapes
      .slice(places.get(low)! + 1, places.get(high)!)
      .some(
        (other) => other.shape.colour !== a.shape.colour && doMeet(other.bounds, high.bounds) && share(other, high) > 0,
      );
  };
  const found: { shapes: string[]; place: [number, number]; size: number }[] = [];
  for (const [a, b] of pairsThatMeet(shapes)) {
    if (a.shape.colour !== b.shape.colour) continue;
    if (found.length === MOST_OVERLAPS) break;
    const shared = share(a, b);
    if (shared === 0 || isBetween(a, b)) continue;
    found.push({ shapes: [a.shape.id, b.shape.id], place: middleOf(commonBox(a.bounds, b.bounds)), size: shared });
  }
  return finding('overlap', found, (ids) => ({ do: 'merge', shapes: ids }), false);
}

const doMeet = (a: Bounds, b: Bounds) => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;

const boxArea = ({ minX, minY, maxX, maxY }: Bounds) => (maxX - minX) * (maxY - minY);

const commonBox = (a: Bounds, b: Bounds): Bounds => ({
  minX: Math.max(a.minX, b.minX),
  minY: Math.max(a.minY, b.minY),
  maxX: Math.min(a.maxX, b.maxX),
  maxY: Math.min(a.maxY, b.maxY),
});

/** Pairs whose boxes overlap, by a sweep from left to right. */
function* pairsThatMeet(shapes: readonly CheckedShape[]): Generator<[CheckedShape, CheckedShape]> {
  const order = [...shapes].sort((a, b) => a.bounds.minX - b.bounds.minX);
  let open: CheckedShape[] = [];
  for (const shape of order) {
    open = open.filter(({ bounds }) => bounds.maxX > shape.bounds.minX);
    for (const other of open) {
      if (other.bounds.maxY > shape.bounds.minY && other.bounds.minY < shape.bounds.maxY) yield [other, shape];
    }
    open.push(shape);
  }
}

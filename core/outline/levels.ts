// levels.ts — how what lies on a sheet stands to each other: what rests on what, and what lies within what.
import Flatbush from 'flatbush';
import { doOverlap, type Footprint, footprintOf, overlapArea, ROUNDING_SHARE } from './overlap.ts';
import type { Bounds } from './types.ts';

/** One lies within another when this share of it does: along a common boundary a little is lost to rounding. */
const WITHIN_SHARE = 0.999;

/**
 * On how many others each rests, one upon the other, of those before it that are built.
 * @param footprints from the lowest to the highest
 */
export function levelsOf(footprints: readonly Footprint[], isShown: readonly boolean[]): number[] {
  // A patch at a time: what is scattered over the sheet has a box that says nothing.
  const owners = footprints.flatMap(({ patches }, i) => patches.map(() => i));
  const boxes = footprints.flatMap(({ patches }) => patches.map(({ bounds }) => bounds));
  const index = indexOf(boxes);
  const levels: number[] = [];
  let first = 0;
  for (const [i, footprint] of footprints.entries()) {
    const below = new Set<number>();
    for (const [k] of footprint.patches.entries()) {
      for (const j of meetingIn(index, boxes, first + k))
        if (owners[j]! < i && isShown[owners[j]!]) below.add(owners[j]!);
    }
    first += footprint.patches.length;
    // The highest first: the rest need not be looked at.
    const highest = [...below]
      .sort((a, b) => levels[b]! - levels[a]!)
      .find((j) => doOverlap(footprint, footprints[j]!, ROUNDING_SHARE));
    levels.push(highest === undefined || footprint.patches.length === 0 ? 0 : levels[highest]! + 1);
  }
  return levels;
}

/** In how many others each lies: within their outer boundaries, so that what stands in a ring's hole lies in the ring. */
export function nestingOf(footprints: readonly Footprint[]): number[] {
  const whole = footprints.map(({ regions }) => footprintOf(regions.map(({ outer }) => ({ outer, holes: [] }))));
  const boxes = boxesOf(whole);
  const index = indexOf(boxes);
  return footprints.map((footprint, i) => {
    if (footprint.area <= 0) return 0;
    const isWithin = (j: number) =>
      j !== i &&
      whole[j]!.area > whole[i]!.area &&
      overlapArea(footprint, whole[j]!, 0) >= WITHIN_SHARE * footprint.area;
    return meetingIn(index, boxes, i).filter(isWithin).length;
  });
}

/** A box for each; what covers nothing has one without an area. */
export const boxesOf = (footprints: readonly Footprint[]): Bounds[] =>
  footprints.map(({ bounds }) => bounds ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 });

/** A tree of boxes; null for none. */
export function indexOf(boxes: readonly Bounds[]): Flatbush | null {
  if (boxes.length === 0) return null;
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return index;
}

/** Numbers of the boxes that meet box i, in order. */
export function meetingIn(index: Flatbush | null, boxes: readonly Bounds[], i: number): number[] {
  const { minX, minY, maxX, maxY } = boxes[i]!;
  return index ? index.search(minX, minY, maxX, maxY).sort((a, b) => a - b) : [];
}

// overlaps.ts — layers that fill the same space or lie on each other, found anew only for those that changed.
import { OfObject } from '../base/of-object.ts';
import type { Rigid } from '../geometry/rigid.ts';
import { indexOf, meetingIn } from '../outline/levels.ts';
import { type Footprint, footprintOf, overlapArea, ROUNDING_SHARE } from '../outline/overlap.ts';
import type { Region } from '../outline/types.ts';

export interface Overlap {
  readonly layers: readonly [id: string, id: string];
  /** Heights they share: one and the same where one lies on the other. */
  readonly from: number;
  readonly to: number;
  /** One lies on the other: the front of one is in the plane of the other's back, and they share no space. */
  readonly isTouching: boolean;
  /** Which of their sides lie in one plane there, and would flicker. */
  readonly flush: readonly ('front' | 'back')[];
  /** Area they share in plan. */
  readonly area: number;
}

/** A layer as it fills space. */
export interface Filling {
  /** Of the layer, and which of its copies it is. */
  readonly id: string;
  readonly copy: number;
  /** What it was raised along; only along one and the same axis are two compared. */
  readonly axis: string;
  /** From where they are compared to the world. */
  readonly frame: Rigid;
  /** The very same list as long as the outlines are. */
  readonly regions: readonly Region[];
  readonly base: number;
  readonly height: number;
  /** What of a side lies flat in its plane; another function whenever that may be something else. */
  readonly flat: (side: 'front' | 'back') => readonly Region[];
  /** The same as long as `flat` gives the same. */
  readonly build: object;
}

/** Of outlines, which are the very same list as long as they do not change. */
export const footprints = new OfObject<readonly Region[], Footprint>(footprintOf);

export class Overlaps {
  private known = new Map<string, Filling>();
  private found: Overlap[] = [];
  private readonly areas = new OfObject<readonly Region[], WeakMap<readonly Region[], number>>(() => new WeakMap());

  /** Pairs that share plan, and height or a plane, in the order of `fillings`. */
  of(fillings: readonly Filling[]): readonly Overlap[] {
    const changed = new Set(
      fillings.filter((filling) => !isSame(filling, this.known.get(nameOf(filling)))).map(({ id }) => id),
    );
    if (changed.size === 0 && fillings.length === this.known.size) return this.found;
    const places = new Map(fillings.map(({ id }, i) => [id, i]));
    const isKept = ({ layers: [a, b] }: Overlap) => [a, b].every((id) => places.has(id) && !changed.has(id));
    const pairs = pairsOf(fillings, changed).flatMap(([a, b]) => this.overlapOf(a, b) ?? []);
    this.found = [...this.found.filter(isKept), ...joined(pairs)].sort((p, q) => {
      const [a, b] = [p, q].map(({ layers }) => layers.map((id) => places.get(id)!)) as [number[], number[]];
      return a[0]! - b[0]! || a[1]! - b[1]!;
    });
    this.known = new Map(fillings.map((filling) => [nameOf(filling), filling]));
    return this.found;
  }

  private overlapOf(a: Filling, b: Filling): Overlap | null {
    const area = this.areaOf(a.regions, b.regions);
    if (area === 0) return null;
    const { from, to } = sharedHeight(a, b);
    if (isOn(a, b)) return { layers: [a.id, b.id], from, to: from, isTouching: true, flush: [], area };
    return { layers: [a.id, b.id], from, to, isTouching: false, flush: flushSides(a, b), area };
  }

  private areaOf(a: readonly Region[], b: readonly Region[]): number {
    const own = this.areas.get(a);
    const area = own.get(b) ?? overlapArea(footprints.get(a), footprints.get(b), ROUNDING_SHARE);
    own.set(b, area);
    return area;
  }
}

const nameOf = ({ id, copy }: Filling) => `${id} ${copy}`;

/** Each pair of layers once, however many of their copies meet: with all of their area, at the height of the largest. */
function joined(overlaps: readonly Overlap[]): Overlap[] {
  const pairs = new Map<string, Overlap>();
  for (const overlap of overlaps) {
    const key = `${overlap.layers.join()} ${overlap.isTouching}`;
    const known = pairs.get(key);
    const larger = known && known.area > overlap.area ? known : overlap;
    pairs.set(key, known ? { ...larger, area: known.area + overlap.area } : overlap);
  }
  return [...pairs.values()];
}

const isSame = (a: Filling, b: Filling | undefined) =>
  b !== undefined &&
  a.axis === b.axis &&
  a.regions === b.regions &&
  a.base === b.base &&
  a.height === b.height &&
  a.build === b.build;

function sharedHeight(a: Filling, b: Filling): { from: number; to: number } {
  return { from: Math.max(a.base, b.base), to: Math.min(a.base + a.height, b.base + b.height) };
}

/** Heights nearer than this share of the larger layer's are one. */
const SAME_HEIGHT = 1e-9;

function doShareHeight(a: Filling, b: Filling): boolean {
  const { from, to } = sharedHeight(a, b);
  return to - from >= -SAME_HEIGHT * Math.max(a.height, b.height);
}

/** Whether they share no more than one height. */
function isOn(a: Filling, b: Filling): boolean {
  const { from, to } = sharedHeight(a, b);
  return to - from <= SAME_HEIGHT * Math.max(a.height, b.height);
}

/** Pairs that share a height and of which some boxes meet, one of each changed; the lower in the list first. */
function pairsOf(fillings: readonly Filling[], changed: ReadonlySet<string>): [Filling, Filling][] {
  const patches = fillings.flatMap(({ regions }, i) =>
    footprints.get(regions).patches.map(({ bounds }) => ({ i, bounds })),
  );
  const boxes = patches.map(({ bounds }) => bounds);
  const index = indexOf(boxes);
  const met = new Set<number>();
  for (const [k, { i }] of patches.entries()) {
    if (!changed.has(fillings[i]!.id)) continue;
    for (const { i: j } of meetingIn(index, boxes, k).map((other) => patches[other]!)) {
      if (i !== j) met.add(Math.min(i, j) * fillings.length + Math.max(i, j));
    }
  }
  return [...met].flatMap((pair): [Filling, Filling][] => {
    const [a, b] = [fillings[Math.floor(pair / fillings.length)]!, fillings[pair % fillings.length]!];
    return a.axis === b.axis && doShareHeight(a, b) ? [[a, b]] : [];
  });
}

/** The sides of two layers that overlap in plan whose flat parts lie in one plane and over each other. */
function flushSides(a: Filling, b: Filling): ('front' | 'back')[] {
  const same = (p: number, q: number) => Math.abs(p - q) <= 1e-6 * Math.max(a.height, b.height);
  const sides: ('front' | 'back')[] = [];
  if (same(a.base + a.height, b.base + b.height)) sides.push('front');
  if (same(a.base, b.base)) sides.push('back');
  return sides.filter((side) => overlapArea(footprintOf(a.flat(side)), footprintOf(b.flat(side)), ROUNDING_SHARE) > 0);
}

// fillings.ts — layers as they fill space, set side by side: each copy of each, seen along the axis that it was raised along. Only
// what was raised along the same axis is compared.
import { heightOf } from '../builds/index.ts';
import type { Layer } from '../document/schema.ts';
import { isStill, type Point, product, type Rigid, STAY, undone } from '../geometry/rigid.ts';
import { reversed } from '../outline/reverse.ts';
import type { Region, Ring } from '../outline/types.ts';
import type { Filling } from './overlaps.ts';

/** A layer where it was drawn. */
export interface Raised {
  readonly layer: Layer;
  readonly regions: readonly Region[];
  /** What of a side lies flat in its plane. */
  readonly flat: (side: 'front' | 'back') => readonly Region[];
  readonly places: readonly Rigid[];
}

/** One for each copy of each layer. */
export class Fillings {
  /** Regions that were turned, by where they were turned to. */
  private readonly turned = new WeakMap<
    readonly Region[],
    { readonly key: string; readonly all: readonly Region[][] }
  >();

  of(raised: readonly Raised[]): Filling[] {
    const frames = new Map<string, Rigid>();
    return raised.flatMap((each) => {
      const axes = each.places.map(axisOf);
      for (const [k, axis] of axes.entries())
        if (!frames.has(axis)) frames.set(axis, axis === UP ? STAY : each.places[k]!);
      const inFrames = each.places.map((place, k) => product(undone(frames.get(axes[k]!)!), place));
      const regions = this.inFrames(each.regions, inFrames);
      return inFrames.map((place, k) =>
        filling(each, place, {
          copy: k,
          axis: axes[k]!,
          frame: frames.get(axes[k]!)!,
          regions: regions[k]!,
        }),
      );
    });
  }

  private inFrames(regions: readonly Region[], places: readonly Rigid[]): readonly (readonly Region[])[] {
    if (places.every(isStill)) return places.map(() => regions);
    const key = places.join();
    const known = this.turned.get(regions);
    if (known?.key === key) return known.all;
    const all = places.map((place) => movedRegions(regions, place));
    this.turned.set(regions, { key, all });
    return all;
  }
}

/** The axis of what is raised, whichever way it looks along it. */
export function axisOf(place: Rigid): string {
  const along: Point = [place[2], place[6], place[10]];
  const rounded = along.map((v) => Math.round(v * 1e9) / 1e9 + 0) as [number, number, number];
  const first = rounded.findLast((v) => v !== 0)!;
  return (first < 0 ? rounded.map((v) => -v + 0) : rounded).join();
}

/** That of the sheet. */
export const UP = axisOf(STAY);

function filling(
  { layer, flat }: Raised,
  place: Rigid,
  own: Pick<Filling, 'copy' | 'axis' | 'frame' | 'regions'>,
): Filling {
  const { id, base, build } = layer;
  const height = heightOf(build);
  if (isStill(place)) return { id, ...own, base, height, flat, build };
  const isOver = place[10] < 0;
  return {
    id,
    ...own,
    base: isOver ? place[11] - base - height : place[11] + base,
    height,
    flat: (side) => movedRegions(flat(isOver === (side === 'front') ? 'back' : 'front'), place),
    build,
  };
}

/** @param place one that keeps the axis upright */
function movedRegions(regions: readonly Region[], place: Rigid): Region[] {
  const [a, b, , x, c, d, , y] = place;
  const isMirror = a * d - b * c < 0;
  const ring = (points: Ring): Ring => {
    const result = new Float64Array(points.length);
    for (let i = 0; i < points.length; i += 2) {
      result[i] = a * points[i]! + b * points[i + 1]! + x;
      result[i + 1] = c * points[i]! + d * points[i + 1]! + y;
    }
    return isMirror ? reversed(result) : result;
  };
  return regions.map(({ outer, holes }) => ({ outer: ring(outer), holes: holes.map(ring) }));
}

// parting.ts — layers that fill the same space or share a plane: where that is, and how they come apart.
import { asTyped } from '../base/figures.ts';
import type { Resolved } from '../document/resolve.ts';
import { moved } from '../geometry/rigid.ts';
import type { Point3 } from '../mesh/proof.ts';
import { placeInside } from '../outline/faces.ts';
import { boxesOf, indexOf, meetingIn } from '../outline/levels.ts';
import { regionsArea, ringsOf } from '../outline/measure.ts';
import { doOverlap, ROUNDING_SHARE, sharedRegions } from '../outline/overlap.ts';
import type { Region } from '../outline/types.ts';
import type { Path, Segment } from '../path/types.ts';
import type { Evaluator } from './evaluator.ts';
import { UP } from './fillings.ts';
import { type Filling, footprints, type Overlap } from './overlaps.ts';

/** A place well inside the largest piece of what two layers share, in the middle of their common height. */
export function overlapPlace(
  evaluator: Evaluator,
  project: Resolved,
  { layers, from, to }: Pick<Overlap, 'layers' | 'from' | 'to'>,
): Point3 | null {
  const fillings = evaluator.fillings(project);
  const [a, b] = layers.map((id) => fillings.filter((filling) => filling.id === id));
  const shared = a!.flatMap((one) =>
    b!.flatMap((other) => {
      const isPair = one.axis === other.axis && (one.id !== other.id || one.copy < other.copy);
      if (!isPair || Math.min(topOf(one), topOf(other)) < from || Math.max(one.base, other.base) > to) return [];
      return sharedRegions(one.regions, other.regions).map((region) => ({ region, frame: one.frame }));
    }),
  );
  const [largest] = shared.toSorted((p, q) => regionsArea([q.region]) - regionsArea([p.region]));
  const place = largest && placeInside(pathOf(largest.region));
  return place ? moved(largest.frame, [...place, (from + to) / 2]) : null;
}

const topOf = ({ base, height }: Filling) => base + height;

function pathOf(region: Region): Path {
  return ringsOf([region]).flatMap((ring): Segment[] => [
    ...Array.from(
      { length: ring.length / 2 },
      (_, i): Segment => [i === 0 ? 'M' : 'L', ring[2 * i]!, ring[2 * i + 1]!],
    ),
    ['Z'],
  ]);
}

/**
 * Bases with which no two shown layers that overlap in plan come nearer than `gap`: those that stand lowest stay, the others rise
 * as far as they must, the lower ones first.
 * @returns those that change
 */
export function partedBases(evaluator: Evaluator, project: Resolved, gap: number): { layer: string; base: number }[] {
  const fillings = evaluator.fillings(project).filter(({ axis }) => axis === UP);
  const order = fillings.map((_, i) => i).sort((i, j) => fillings[i]!.base - fillings[j]!.base || i - j);
  const prints = fillings.map(({ regions }) => footprints.get(regions));
  const boxes = boxesOf(prints);
  const index = indexOf(boxes);
  /** How far layers rise. */
  const rises = new Map<string, number>();
  const done = new Set<number>();
  for (const i of order) {
    const { id, base, height } = fillings[i]!;
    const below = meetingIn(index, boxes, i)
      .filter((j) => done.has(j) && fillings[j]!.id !== id && doOverlap(prints[i]!, prints[j]!, ROUNDING_SHARE))
      .map((j) => {
        const from = fillings[j]!.base + (rises.get(fillings[j]!.id) ?? 0);
        return { from, to: from + fillings[j]!.height };
      })
      .sort((p, q) => p.from - q.from);
    let at = base + (rises.get(id) ?? 0);
    for (const { from, to } of below) if (at < to + gap && at + height > from - gap) at = to + gap;
    rises.set(id, at - base);
    done.add(i);
  }
  return project.layers.flatMap(({ id, base }) => {
    const rise = rises.get(id) ?? 0;
    return rise === 0 ? [] : [{ layer: id, base: asTyped(base + rise) }];
  });
}

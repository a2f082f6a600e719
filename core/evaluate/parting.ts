// parting.ts — layers that fill the same space or share a plane: where that is, and how they come apart.
import { asTyped } from '../base/figures.ts';
import { heightOf } from '../builds/index.ts';
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import type { Point3 } from '../mesh/proof.ts';
import { placeInside } from '../outline/faces.ts';
import { boxesOf, indexOf, meetingIn } from '../outline/levels.ts';
import { regionsArea, ringsOf } from '../outline/measure.ts';
import { doOverlap, ROUNDING_SHARE, sharedRegions } from '../outline/overlap.ts';
import type { Region } from '../outline/types.ts';
import type { Path, Segment } from '../path/types.ts';
import type { Evaluator } from './evaluator.ts';
import { footprints, type Overlap } from './overlaps.ts';

/** A place well inside the largest piece of what two layers share, in the middle of their common height. */
export function overlapPlace(
  evaluator: Evaluator,
  project: Resolved,
  { layers, from, to }: Pick<Overlap, 'layers' | 'from' | 'to'>,
): Point3 | null {
  const [a, b] = layers.map((id) => project.layers.find((layer) => layer.id === id));
  if (!a || !b) return null;
  const shared = sharedRegions(evaluator.outlines(project, a).regions, evaluator.outlines(project, b).regions);
  const [largest] = shared.toSorted((p, q) => regionsArea([q]) - regionsArea([p]));
  const place = largest && placeInside(pathOf(largest));
  return place ? [...place, (from + to) / 2] : null;
}

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
  const shown = project.layers.filter((layer) => layer.shown);
  const order = shown.map((_, i) => i).sort((i, j) => shown[i]!.base - shown[j]!.base || i - j);
  const prints = shown.map((layer) => footprints.get(evaluator.outlines(project, layer).regions));
  const boxes = boxesOf(prints);
  const index = indexOf(boxes);
  const bases = new Map<number, number>();
  for (const i of order) {
    const { base, build } = shown[i]!;
    const height = heightOf(build);
    const below = meetingIn(index, boxes, i)
      .filter((j) => j !== i && bases.has(j) && doOverlap(prints[i]!, prints[j]!, ROUNDING_SHARE))
      .map((j) => ({ from: bases.get(j)!, to: bases.get(j)! + heightOf(shown[j]!.build) }))
      .sort((p, q) => p.from - q.from);
    let at = base;
    for (const { from, to } of below) if (at < to + gap && at + height > from - gap) at = to + gap;
    bases.set(i, asTyped(at));
  }
  return order.flatMap((i) => {
    const { id, base }: Layer = shown[i]!;
    return bases.get(i) === base ? [] : [{ layer: id, base: bases.get(i)! }];
  });
}

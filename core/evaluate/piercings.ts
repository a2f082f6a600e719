// piercings.ts — layers whose meshes share space though their outlines and depths do not say so: such as stand at an angle to each
// other, or have fronts that stand higher than they are deep. All others are compared in plan, with areas and heights.
import { heightOf } from '../builds/index.ts';
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import { product, type Rigid, shift } from '../geometry/rigid.ts';
import { type Piercing as Place, piercingOf } from '../mesh/piercing.ts';
import { boxOfPoints, highestOf, placedAt } from '../mesh/place.ts';
import type { Mesh } from '../mesh/types.ts';
import type { Evaluator } from './evaluator.ts';
import { axisOf } from './fillings.ts';

export interface Piercing extends Place {
  readonly layers: readonly [id: string, id: string];
}

/** A copy of a layer where it stands. */
interface Standing {
  readonly layer: Layer;
  readonly axis: string;
  readonly mesh: Mesh;
  /** Whether its front stands higher than it is deep. */
  readonly isHigher: boolean;
  readonly box: { readonly min: readonly number[]; readonly max: readonly number[] };
}

/** Each pair of layers once, where the first of their copies meet. @param layers those that are built */
export function piercingsOf(evaluator: Evaluator, project: Resolved, layers: readonly Layer[]): Piercing[] {
  const places = evaluator.places(project);
  const standing = layers.flatMap((layer) => {
    const isHigher = highestOf(evaluator.mesh(project, layer).mesh) > heightOf(layer.build) * (1 + SAME_HEIGHT);
    return places.of(layer).map((place) => ({ layer, place, axis: axisOf(place), isHigher }));
  });
  const isPlain = new Set(standing.map(({ axis }) => axis)).size < 2 && !standing.some(({ isHigher }) => isHigher);
  if (isPlain) return [];
  const all = standing.map(({ place, ...each }): Standing => {
    const mesh = placedAt(evaluator.mesh(project, each.layer).mesh, raisedTo(place, each.layer.base));
    return { ...each, mesh, box: boxOfPoints([mesh.positions]) };
  });
  const shown = { ...project, layers: [...layers] };
  const known = new Set(
    evaluator.overlaps(shown).flatMap(({ layers: pair, isTouching }) => (isTouching ? [] : [pair.join(' ')])),
  );
  const found = new Map<string, Piercing>();
  for (const [i, a] of all.entries()) {
    for (const b of all.slice(i + 1)) {
      const key = `${a.layer.id} ${b.layer.id}`;
      const isInPlan = a.axis === b.axis && !a.isHigher && !b.isHigher;
      if (isInPlan || a.layer === b.layer || known.has(key) || found.has(key) || !doMeet(a.box, b.box)) continue;
      const piercing = piercingOf(a.mesh, b.mesh);
      if (piercing) found.set(key, { ...piercing, layers: [a.layer.id, b.layer.id] });
    }
  }
  return [...found.values()];
}

/** Heights that differ by less than this share are one. */
const SAME_HEIGHT = 1e-6;

const raisedTo = (place: Rigid, base: number): Rigid => product(place, shift([0, 0, base]));

const doMeet = (a: Standing['box'], b: Standing['box']): boolean =>
  a.min.every((v, k) => v < b.max[k]! && b.min[k]! < a.max[k]!);

// piercings.ts — layers that stand at an angle to each other and share space. Those that were raised along one axis are compared in
// plan, with areas and heights; of all others the meshes are looked at.
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import { product, type Rigid, shift } from '../geometry/rigid.ts';
import { type Piercing as Place, piercingOf } from '../mesh/piercing.ts';
import { boxOfPoints, placedAt } from '../mesh/place.ts';
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
  readonly box: { readonly min: readonly number[]; readonly max: readonly number[] };
}

/** Each pair of layers once, where the first of their copies meet. @param layers those that are built */
export function piercingsOf(evaluator: Evaluator, project: Resolved, layers: readonly Layer[]): Piercing[] {
  const places = evaluator.places(project);
  const standing = layers.flatMap((layer) => places.of(layer).map((place) => ({ layer, place, axis: axisOf(place) })));
  if (new Set(standing.map(({ axis }) => axis)).size < 2) return [];
  const all = standing.map(({ layer, place, axis }): Standing => {
    const mesh = placedAt(evaluator.mesh(project, layer).mesh, raisedTo(place, layer.base));
    return { layer, axis, mesh, box: boxOfPoints([mesh.positions]) };
  });
  const found = new Map<string, Piercing>();
  for (const [i, a] of all.entries()) {
    for (const b of all.slice(i + 1)) {
      const key = `${a.layer.id} ${b.layer.id}`;
      if (a.axis === b.axis || a.layer === b.layer || found.has(key) || !doMeet(a.box, b.box)) continue;
      const piercing = piercingOf(a.mesh, b.mesh);
      if (piercing) found.set(key, { ...piercing, layers: [a.layer.id, b.layer.id] });
    }
  }
  return [...found.values()];
}

const raisedTo = (place: Rigid, base: number): Rigid => product(place, shift([0, 0, base]));

const doMeet = (a: Standing['box'], b: Standing['box']): boolean =>
  a.min.every((v, k) => v < b.max[k]! && b.min[k]! < a.max[k]!);

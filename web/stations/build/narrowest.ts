// narrowest.ts — where layers are thinnest, which decides how far their edges may reach.
import { type BuildView, heightOf, type Layer, type Point3, type Width } from '../../../core/index.ts';

/** The narrowest place of several layers, and the layer it is in. */
export interface Narrowest extends Width {
  readonly of: Layer;
}

/** @returns null while none of the layers has been measured */
export function narrowestOf(layers: readonly Layer[], view: BuildView | null): Narrowest | null {
  let narrowest: Narrowest | null = null;
  for (const layer of layers) {
    const width = view?.layers.find(({ id }) => id === layer.id)?.width;
    if (width && !(narrowest && narrowest.safeReach <= width.safeReach)) narrowest = { ...width, of: layer };
  }
  return narrowest;
}

/** The narrowest place, on the layer's front. */
export const placeOf = ({ at, of }: Narrowest): Point3 => [at[0], at[1], of.base + heightOf(of.build)];

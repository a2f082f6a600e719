// narrowest.ts — where layers are thin, which decides how far their edges may reach.
import { type BuildView, heightOf, type Layer, type Place, type Point3, type Width } from '../../../core/index.ts';

/** The narrowest of several layers, and which it is. */
export interface Narrowest extends Pick<Width, 'safeReach' | 'at'> {
  readonly of: Layer;
}

/** A thin place of a layer. */
export interface ThinPlace extends Place {
  readonly of: Layer;
}

const widthsOf = (layers: readonly Layer[], view: BuildView | null) =>
  layers.flatMap((of) => {
    const width = view?.layers.find(({ id }) => id === of.id)?.width;
    return width ? [{ of, width }] : [];
  });

/** What allows the least reach. @returns null while none of the layers has been measured */
export function narrowestOf(layers: readonly Layer[], view: BuildView | null): Narrowest | null {
  const all = widthsOf(layers, view).map(({ of, width: { safeReach, at } }) => ({ of, safeReach, at }));
  return all.sort((a, b) => a.safeReach - b.safeReach)[0] ?? null;
}

/** So many are listed. */
const MOST_LISTED = 8;
/** No wider than the thinnest by this factor. */
const MUCH_WIDER = 2;

/** The thin places of several layers, the thinnest first. */
export function thinPlacesOf(layers: readonly Layer[], view: BuildView | null): readonly ThinPlace[] {
  const all = widthsOf(layers, view)
    .flatMap(({ of, width }) => width.thin.map((place) => ({ ...place, of })))
    .sort((a, b) => a.halfWidth - b.halfWidth);
  const most = (all[0]?.halfWidth ?? 0) * MUCH_WIDER;
  return all.filter(({ halfWidth }) => halfWidth <= most).slice(0, MOST_LISTED);
}

/** A place of a layer's outlines, on its front. */
export const placeOf = ({ at, of }: Pick<ThinPlace, 'at' | 'of'>): Point3 => [
  at[0],
  at[1],
  of.base + heightOf(of.build),
];

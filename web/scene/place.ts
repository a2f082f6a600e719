// place.ts — the place that is pointed at, where it is seen.
import { useMemo } from 'react';
import { moved, type Point3 } from '../../core/index.ts';
import { useBuild } from '../store/build.ts';
import { useScreen } from '../store/screen.ts';

/** The place that is pointed at, in the world: what is known of a layer is known of where it was drawn. */
export function usePlace(): Point3 | null {
  const place = useScreen((state) => state.place);
  const rigid = useBuild((state) => place?.layer && state.view?.placed[place.layer]?.places[0]);
  return useMemo(() => place && (rigid ? moved(rigid, place.at) : place.at), [place, rigid]);
}

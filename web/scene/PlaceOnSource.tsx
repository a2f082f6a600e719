// PlaceOnSource.tsx — the place that is pointed at, where a source is seen by itself.
import type { Source } from '../../core/index.ts';
import { PlaceRing } from '../controls/PlaceRing.tsx';
import { useScreen } from '../store/screen.ts';

/** For drawings in user units of the source, y down. */
export function PlaceOnSource({ source: { origin, scale }, pixel }: { source: Source; pixel: number }) {
  const place = useScreen((state) => state.place?.at);
  return place ? <PlaceRing x={origin[0] + place[0] / scale} y={origin[1] - place[1] / scale} pixel={pixel} /> : null;
}

// specks.ts — specks of ink and pinholes of paper painted over, by their area.
import { z } from 'zod';
import { componentsOf } from '../components.ts';
import type { Prepared } from '../types.ts';
import { inkMap, painted, toneColours } from './ink-map.ts';

const area = z.number().min(0).max(1e6);
export const SpecksSchema = z.object({
  do: z.literal('specks'),
  /** Ink up to this area goes, square pixels. */
  ink: area,
  /** Holes up to this area are filled. */
  holes: area,
});

export function specks(prepared: Prepared, params: z.infer<typeof SpecksSchema>): Prepared {
  const { picture } = prepared;
  const { width, height } = picture;
  const map = inkMap(prepared);
  const colours = toneColours(picture, map);
  const { of, areas, labels } = componentsOf(map, width, height, (label) => label === 1);
  const goes = (label: number, most: number) => areas.map((size, i) => Number(labels[i] === label && size <= most));
  const clean = painted(picture, of, goes(1, params.ink), colours.paper);
  return { ...prepared, picture: painted(clean, of, goes(0, params.holes), colours.ink) };
}

// part.ts — one part of the drawing picked by a region: whatever ink lies for the most part in it stays, the rest becomes
// paper.
import { z } from 'zod';
import { componentsOf } from '../components.ts';
import type { Prepared } from '../types.ts';
import { inkMap, painted, toneColours } from './ink-map.ts';
import { PartSchema, partPixels } from './part-pixels.ts';

export const PartStepSchema = z.object({ do: z.literal('part'), area: PartSchema });

export function part(prepared: Prepared, { area }: z.infer<typeof PartStepSchema>): Prepared {
  const { picture } = prepared;
  const { width, height } = picture;
  const { left, top, ...size } = partPixels(picture, area);
  const ink = inkMap(prepared);
  const { of, areas, labels } = componentsOf(ink, width, height, (label) => label === 1);
  const inside = new Uint32Array(areas.length);
  for (let y = top; y < top + size.height; y++) {
    for (let x = left; x < left + size.width; x++) inside[of[y * width + x]!]!++;
  }
  const goes = areas.map((whole, i) => Number(labels[i] === 1 && 2 * inside[i]! < whole));
  return { ...prepared, picture: painted(picture, of, goes, toneColours(picture, ink).paper) };
}

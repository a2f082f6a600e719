// invert.ts — dark for light.
import { z } from 'zod';
import type { Prepared } from '../types.ts';
import { mapped } from './levels.ts';

export const InvertSchema = z.object({ do: z.literal('invert') });

const NEGATIVE = Uint8ClampedArray.from({ length: 256 }, (_, i) => 255 - i);

export function invert({ picture, frame, level }: Prepared): Prepared {
  return { picture: mapped(picture, NEGATIVE), frame, level: level === null ? null : 1 - level };
}

// part-pixels.ts — a rectangle given in shares of a picture, as whole pixels of it.
import { z } from 'zod';
import type { Part, Picture } from '../types.ts';

const share = z.number().min(0).max(1);
export const PartSchema = z.object({ x: share, y: share, width: share, height: share });

export interface PixelArea {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** At least one pixel, never beyond the picture. */
export function partPixels({ width, height }: Pick<Picture, 'width' | 'height'>, part: Part): PixelArea {
  const left = Math.min(width - 1, Math.round(part.x * width));
  const top = Math.min(height - 1, Math.round(part.y * height));
  const right = Math.min(width, Math.max(left + 1, Math.round((part.x + part.width) * width)));
  const bottom = Math.min(height, Math.max(top + 1, Math.round((part.y + part.height) * height)));
  return { left, top, width: right - left, height: bottom - top };
}

// drawn.ts — where in a picture something is drawn.
import { luma } from './colour.ts';
import type { Picture } from './types.ts';

/** What differs from the ground by more, in greys from 0 to 1, is drawn. */
const APART = 0.15;

/** Whether a pixel stands off from the ground, which is the grey that most pixels of the border have. */
export function drawnPixels({ width, height, data }: Picture): (x: number, y: number) => boolean {
  const greyAt = (x: number, y: number) => {
    const p = 4 * (y * width + x);
    const alpha = data[p + 3]! / 255;
    return 1 - alpha * (1 - luma(data[p]!, data[p + 1]!, data[p + 2]!));
  };
  const border: number[] = [];
  for (let x = 0; x < width; x++) border.push(greyAt(x, 0), greyAt(x, height - 1));
  for (let y = 0; y < height; y++) border.push(greyAt(0, y), greyAt(width - 1, y));
  border.sort((a, b) => a - b);
  const ground = border[border.length >> 1]!;
  return (x, y) => Math.abs(greyAt(x, y) - ground) > APART;
}

/**
 * The box round all that is drawn.
 * @returns shares of width and height; null where nothing is
 */
export function drawnArea(picture: Picture) {
  const { width, height } = picture;
  const isDrawn = drawnPixels(picture);
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!isDrawn(x, y)) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = y;
    }
  }
  if (right < 0) return null;
  return { x: left / width, y: top / height, width: (right + 1 - left) / width, height: (bottom + 1 - top) / height };
}

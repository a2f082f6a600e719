// pictures.ts — made-up pictures for tests, painted with exact coverage.
import type { Ring } from '../outline/types.ts';
import { rgbOfHex } from '../picture/colour.ts';
import { renderCoverage } from '../picture/coverage.ts';
import type { Picture } from '../picture/types.ts';

/** Rings painted one after another, each blended in encoded values as renderers do. */
export function painting(
  width: number,
  height: number,
  ground: string,
  shapes: readonly (readonly [rings: readonly Ring[], colour: string])[],
): Picture {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) data.set([...rgbOfHex(ground), 255], 4 * i);
  for (const [rings, colour] of shapes) {
    const { values } = renderCoverage(rings, width, height);
    const rgb = rgbOfHex(colour);
    for (const [i, paper] of values.entries()) {
      for (let c = 0; c < 3; c++) data[4 * i + c] = paper * data[4 * i + c]! + (1 - paper) * rgb[c as 0 | 1 | 2];
    }
  }
  return { width, height, data };
}

/** A picture of greys, 0 … 255, given row by row. */
export function greyRows(...rows: readonly (readonly number[])[]): Picture {
  const [width, height] = [rows[0]!.length, rows.length];
  const data = new Uint8ClampedArray(rows.flat().flatMap((v) => [v, v, v, 255]));
  return { width, height, data };
}

/** The reds of a picture, row by row. */
export function reds({ width, height, data }: Picture): number[][] {
  return Array.from({ length: height }, (_, y) => Array.from({ length: width }, (__, x) => data[4 * (y * width + x)]!));
}

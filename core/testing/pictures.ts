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

/** Normal noise on each channel by Box and Muller's method, from the same seed every time. */
export function noisy(picture: Picture, deviation: number): Picture {
  let state = 7;
  const random = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  const data = picture.data.map((v, i) =>
    i % 4 === 3 ? v : v + deviation * Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random()),
  );
  return { ...picture, data };
}

/** Every pixel the mean of those up to `reach` away along rows and columns. */
export function softened(picture: Picture, reach: number): Picture {
  const { width, height, data } = picture;
  const clamp = (v: number, most: number) => Math.min(most, Math.max(0, v));
  const result = data.slice();
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let v = y - reach; v <= y + reach; v++) {
          for (let u = x - reach; u <= x + reach; u++) {
            sum += data[4 * (clamp(v, height - 1) * width + clamp(u, width - 1)) + c]!;
          }
        }
        result[4 * (y * width + x) + c] = sum / (2 * reach + 1) ** 2;
      }
    }
  }
  return { width, height, data: result };
}

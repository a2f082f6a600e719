// png.ts — pixels as PNG (ISO/IEC 15948), and what a PNG says of itself.
import { encode } from 'fast-png';

/** @param pixels red, green, blue and opacity, row after row from above, sRGB-encoded */
export function encodePng(pixels: Uint8Array | Uint8ClampedArray, width: number, height: number): Uint8Array {
  let isOpaque = true;
  for (let i = 3; isOpaque && i < pixels.length; i += 4) isOpaque = pixels[i] === 255;
  const channels = isOpaque ? 3 : 4;
  const data = isOpaque ? withoutOpacity(pixels) : pixels;
  return encode({ width, height, data, channels, depth: 8 });
}

function withoutOpacity(pixels: Uint8Array | Uint8ClampedArray): Uint8Array {
  const data = new Uint8Array((pixels.length / 4) * 3);
  for (let from = 0, to = 0; from < pixels.length; from += 4, to += 3) {
    data[to] = pixels[from]!;
    data[to + 1] = pixels[from + 1]!;
    data[to + 2] = pixels[from + 2]!;
  }
  return data;
}

/** Its size in words. */
export function pngSize(png: Uint8Array): string {
  const { width, height } = pngFacts(png);
  return `${width} × ${height}`;
}

/** Where the first chunk, IHDR, has the size and the kind of the pixels. */
const [WIDTH, HEIGHT, KIND] = [16, 20, 25];
const WITH_OPACITY = 4;

/** Size of a PNG in pixels, and whether it can be seen through somewhere. */
export function pngFacts(png: Uint8Array): {
  readonly width: number;
  readonly height: number;
  readonly isOpaque: boolean;
} {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  return {
    width: view.getUint32(WIDTH),
    height: view.getUint32(HEIGHT),
    isOpaque: (view.getUint8(KIND) & WITH_OPACITY) === 0,
  };
}

// decode.ts — the picture decoders that server and command line hand to the core; the only file both share besides it.
import { decode as decodeBmp } from 'bmp-ts';
import sharp from 'sharp';
import { type DecodedPicture, decodePicture } from '../core/index.ts';

// Each picture is decoded once: a cache would only hold memory.
sharp.cache(false);

/** @throws {GeometryError} see {@link decodePicture} */
export function decodeAsset(bytes: Uint8Array): Promise<DecodedPicture> {
  return decodePicture(bytes, {
    open: (data, options) => sharp(data, options),
    bmp: (data) => decodeBmp(Buffer.from(data), { toRGBA: true }),
  });
}

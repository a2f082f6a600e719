// read.ts — files in, and what a trace of a picture is worth.
import { readFileSync } from 'node:fs';
import { type DecodedPicture, type Drawing, GeometryError, lowResolution } from '../core/index.ts';

export function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    throw new GeometryError('bad-file', `The file cannot be read: ${(error as Error).message}.`);
  }
}

/** @throws {GeometryError} 'nothing-to-build' with the reason that the trace gives */
export function mustHaveShapes(drawing: Drawing): Drawing {
  const nothing = drawing.warnings.find(({ code }) => code === 'nothing');
  if (nothing) throw new GeometryError('nothing-to-build', nothing.message);
  return drawing;
}

const MM_PER_INCH = 25.4;

/** The drawing with the size that the picture's density gives it, and a word on too few pixels. */
export function withPhysicalSize(drawing: Drawing, { picture, dpi }: DecodedPicture): Drawing {
  const low = lowResolution(picture);
  return {
    ...drawing,
    mmPerUnit: dpi === null ? null : MM_PER_INCH / dpi,
    warnings: low ? [...drawing.warnings, { code: 'low-resolution', message: low }] : drawing.warnings,
  };
}

// read.ts — an input file to a drawing: vector files are read, pictures are traced with settings that suit them.
import { readFileSync } from 'node:fs';
import {
  type DecodedPicture,
  type Drawing,
  decodeVector,
  GeometryError,
  lowResolution,
  readVector,
  sniffPicture,
  startSettings,
  trace,
  unprepared,
} from '../core/index.ts';
import { decodeAsset } from '../node/decode.ts';

export async function readDrawing(file: string): Promise<Drawing> {
  const bytes = readBytes(file);
  if (!sniffPicture(bytes)) return readVector(decodeVector(bytes));
  const decoded = await decodeAsset(bytes);
  const { drawing } = trace(unprepared(decoded.picture), startSettings(decoded.picture));
  return withPhysicalSize(mustHaveShapes(drawing), decoded);
}

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

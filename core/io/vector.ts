// vector.ts — a vector file to a drawing, whichever of the formats it is in.
import type { Drawing } from '../drawing.ts';
import { readDxf } from './dxf/read.ts';
import { isDxf } from './dxf/tags.ts';
import { readSvg } from './svg/read.ts';

/** @throws {GeometryError} as the reader of the format */
export function readVector(text: string): Drawing {
  return isDxf(text) ? readDxf(text) : readSvg(text);
}

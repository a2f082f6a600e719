// vector.ts — a vector file to a drawing, whichever of the formats it is in.
import type { Drawing } from '../drawing.ts';
import { readDxf } from './dxf/read.ts';
import { DXF_LIMITS, isDxf } from './dxf/tags.ts';
import { recentred } from './recentre.ts';
import { readSvg, SVG_LIMITS } from './svg/read.ts';
import { decodeXml } from './svg/text.ts';

/** How much of a file is looked at to tell what it is. */
const HEAD = 4096;

const headOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes.subarray(0, HEAD));

/** Bytes of a vector file at the most, by how it begins: a line takes ten times as much in DXF as in SVG. */
export const vectorLimit = (head: Uint8Array): number => (isDxf(headOf(head)) ? DXF_LIMITS.bytes : SVG_LIMITS.bytes);

/** The text of a vector file. DXF is ASCII, with UTF-8 in newer releases; XML says what it is in. */
export function decodeVector(bytes: Uint8Array): string {
  return isDxf(headOf(bytes)) ? new TextDecoder().decode(bytes) : decodeXml(bytes);
}

/**
 * @param report is called with the share done, where it takes long; may throw to stop
 * @throws {GeometryError} as the reader of the format
 */
export function readVector(text: string, report?: (share: number) => void): Drawing {
  return isDxf(text) ? readDxf(text, report) : recentred(readSvg(text));
}

// vector.ts — a vector file to a drawing, whichever of the formats it is in.
import type { Drawing } from '../drawing.ts';
import { outlineFormatOf } from './facts.ts';
import type { OutlineFormat } from './format.ts';
import { outlineFormat } from './index.ts';

const formatOf = (head: Uint8Array): OutlineFormat => outlineFormat(outlineFormatOf(head));

/** The text of a vector file. @throws {GeometryError} 'bad-file' for bytes that are no text */
export const decodeVector = (bytes: Uint8Array): string => formatOf(bytes).decode(bytes);

/** So much of a text says what it is in. */
const HEAD = 64 * 1024;

/**
 * @param report is called with the share done, where it takes long; may throw to stop
 * @throws {GeometryError} as the reader of the format
 */
export const readVector = (text: string, report?: (share: number) => void): Drawing =>
  formatOf(new TextEncoder().encode(text.slice(0, HEAD))).read(text, report);

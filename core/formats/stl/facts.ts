// facts.ts — what an STL is known by, and what it keeps.
import type { MeshFacts } from '../format.ts';

export const stlFacts = {
  id: 'stl',
  name: 'STL',
  about: 'one body of triangles, to print',
  of: 'meshes',
  extension: 'stl',
  mime: 'model/stl',
  keeps: [],
  isMetric: false,
  sniff: isStl,
} as const satisfies MeshFacts;

/** Bytes of a binary file before its first triangle but for the count, and of a triangle. */
export const HEADER = 80;
export const RECORD = 50;
/** More than this in a header are none: other binary files would begin like that. */
const MOST_TRIANGLES = 2_000_000;

/** Text begins with “solid”; of a binary file the first triangle's numbers are finite, and no picture begins so. */
function isStl(head: Uint8Array): boolean {
  const text = new TextDecoder('latin1').decode(head);
  if (/^\s*solid\b[^\n]*\n\s*(facet|endsolid)\b/.test(text)) return true;
  if (!text.includes('\0') || head.length < HEADER + 4 + RECORD) return false;
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const count = view.getUint32(HEADER, true);
  const numbers = Array.from({ length: 12 }, (_, k) => view.getFloat32(HEADER + 4 + 4 * k, true));
  return count > 0 && count <= MOST_TRIANGLES && numbers.every((v) => Math.abs(v) < 1e12);
}

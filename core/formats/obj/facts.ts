// facts.ts — what an OBJ is known by, and what it keeps.
import type { MeshFacts } from '../format.ts';

export const objFacts = {
  id: 'obj',
  name: 'OBJ and MTL',
  about: 'quads stay quads',
  of: 'meshes',
  extension: 'obj',
  mime: 'model/obj',
  keeps: ['parts', 'colours', 'pictures'],
  isMetric: false,
  sniff: isObj,
} as const satisfies MeshFacts;

const WORDS = new Set(['v', 'vt', 'vn', 'vp', 'f', 'l', 'p', 'o', 'g', 's', 'mtllib', 'usemtl']);

/** It has no mark, so that its first words decide. */
function isObj(head: Uint8Array): boolean {
  const text = new TextDecoder('latin1').decode(head);
  if (text.includes('\0')) return false;
  const words = text.split(/\r?\n/).map((line) => line.trim().split(/\s+/)[0]!);
  const known = words.slice(0, -1).filter((word) => word !== '' && !word.startsWith('#'));
  return known.length > 0 && known.every((word) => WORDS.has(word)) && known.includes('v');
}

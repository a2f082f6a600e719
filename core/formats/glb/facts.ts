// facts.ts — what a GLB is known by, and what it keeps.
import type { MeshFacts } from '../format.ts';

const MAGIC = 'glTF';

export const glbFacts = {
  id: 'glb',
  name: 'GLB',
  about: 'parts, names, colours, normals',
  of: 'meshes',
  extension: 'glb',
  mime: 'model/gltf-binary',
  keeps: ['parts', 'colours', 'pictures'],
  isMetric: true,
  sniff: (head) => String.fromCharCode(...head.subarray(0, MAGIC.length)) === MAGIC,
} as const satisfies MeshFacts;

// front.ts — a flat front divided into faces, in one of the ways there are.
import { evenFaces } from './even.ts';
import { fewestFaces } from './fewest.ts';
import type { FlatMesh, FlatOutline } from './types.ts';

export const FACE_MESHES = ['fewest', 'even'] as const;
export type FaceMesh = (typeof FACE_MESHES)[number];

export interface FrontFaces {
  readonly kind: FaceMesh;
  /** Target length of edges inside. */
  readonly cell: number;
}

export function meshFront(outline: FlatOutline, { kind, cell }: FrontFaces): FlatMesh {
  if (outline.edges.length === 0) return { added: [], starts: [0], corners: [], splits: new Map() };
  return kind === 'even' ? evenFaces(outline, cell) : fewestFaces(outline);
}

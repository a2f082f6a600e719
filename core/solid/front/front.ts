// front.ts — a flat front divided into faces, in one of the ways there are.
import { evenFaces } from './even.ts';
import { fewestFaces } from './fewest.ts';
import { gridFaces } from './grid.ts';
import type { FlatMesh, FlatOutline } from './types.ts';

export const FACE_MESHES = ['fewest', 'even', 'grid'] as const;
export type FaceMesh = (typeof FACE_MESHES)[number];

export interface FrontFaces {
  readonly kind: FaceMesh;
  /** Target length of edges inside; the side of a square. */
  readonly cell: number;
}

/** @param triangles the front in as few triangles as can be, where they are known */
export function meshFront(outline: FlatOutline, { kind, cell }: FrontFaces, triangles?: Uint32Array): FlatMesh {
  if (outline.edges.length === 0)
    return { added: [], starts: new Uint32Array(1), corners: new Uint32Array(0), splits: new Map() };
  switch (kind) {
    case 'fewest':
      return fewestFaces(outline, triangles);
    case 'even':
      return evenFaces(outline, cell);
    case 'grid':
      return gridFaces(outline, cell);
  }
}

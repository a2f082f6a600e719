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
  /** Twice the area below which a triangle is as good as nothing; none is made where that can be. */
  readonly least?: number;
}

/** @param triangles the front in as few triangles as can be, where they are known */
export function meshFront(
  outline: FlatOutline,
  { kind, cell, least = 0 }: FrontFaces,
  triangles?: Uint32Array,
): FlatMesh {
  if (outline.edges.length === 0)
    return { added: [], starts: new Uint32Array(1), corners: new Uint32Array(0), splits: new Map() };
  switch (kind) {
    case 'fewest':
      return fewestFaces(outline, least, triangles);
    case 'even':
      return evenFaces(outline, cell, least);
    case 'grid':
      return gridFaces(outline, cell, least);
  }
}

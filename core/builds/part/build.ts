// build.ts — parts of a mesh, joined and placed on the sheet.
import { joinMeshes, placedMesh } from '../../mesh/place.ts';
import type { Mesh } from '../../mesh/types.ts';
import type { Builder } from '../kind.ts';
import type { PartSettings } from './part.ts';

export const partBuilder = {
  kind: 'part',
  planKey: () => '',
  plan: ({ meshes }) => joinMeshes(meshes),
  buffersOf: ({ positions, starts, corners, sides }) => [positions, starts, corners, sides].map(({ buffer }) => buffer),
  raiseKey: ({ depth }) => String(depth),
  raise: (mesh, { placement }, { depth }) => ({
    mesh: placedMesh(mesh, placement, depth),
    edgePath: 'none',
    ringOutlines: 0,
    warnings: [],
  }),
  bends: () => null,
  opened: (mesh) => mesh,
  openedKey: () => '',
  flat: (_side, { regions }) => regions,
} as const satisfies Builder<PartSettings, Mesh>;

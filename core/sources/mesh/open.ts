// open.ts — mesh files read into their parts.
import { emptyDrawing } from '../../drawing.ts';
import { readMeshes } from '../../formats/meshes.ts';
import type { Part } from '../../formats/part.ts';
import type { Opener } from '../kind.ts';
import { arrangeMeshes } from './arrange.ts';
import type { MeshSource, Origin } from './mesh.ts';

export const meshOpener = {
  kind: 'mesh',
  open: async ({ asset, name, format }, reader) => readMeshes(await reader.bytes(asset, name), format),
  drawing: () => emptyDrawing(1, 1),
  // Its parts are needed all the same.
  isDrawn: () => false,
  parts: (parts) => parts,
  arrive({ id, name, asset, format }, parts, _stages, options) {
    const { placement, ...arranged } = arrangeMeshes(parts, format, options);
    return { ...arranged, source: { kind: 'mesh', id, name, asset, format, edits: [], ...placement }, leftOut: [] };
  },
} as const satisfies Opener<MeshSource, Origin, readonly Part[]>;

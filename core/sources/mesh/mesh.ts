// mesh.ts — mesh files; their parts are the members of layers.
import { z } from 'zod';
import { emptyDrawing } from '../../drawing.ts';
import { MESH_FORMATS, sniffMesh } from '../../formats/index.ts';
import { MESH_LIMITS, readMeshes } from '../../formats/meshes.ts';
import type { Part } from '../../formats/part.ts';
import { AssetSchema, SOURCE_BASE, type SourceKind } from '../kind.ts';
import { arrangeMeshes } from './arrange.ts';

/** One user unit is one unit of the file, y up and front towards +z. */
export const MeshSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('mesh'),
  asset: AssetSchema,
  format: z.enum(MESH_FORMATS),
});
export type MeshSource = z.infer<typeof MeshSourceSchema>;

type Origin = Pick<MeshSource, 'asset' | 'name' | 'format'>;

export const mesh = {
  kind: 'mesh',
  schema: MeshSourceSchema,
  build: 'part',
  file: {
    limit: () => MESH_LIMITS.bytes,
    plural: 'meshes',
    advice: 'Reduce it first.',
    sniff: (head) => sniffMesh(head) !== null,
    open: ({ asset, name, head }) => ({ asset, name, format: sniffMesh(head)! }),
  },
  assets: ({ asset }) => [asset],
  contentKey: ({ asset }) => asset,
  open: async ({ asset, name, format }, reader) => readMeshes(await reader.bytes(asset, name), format),
  drawingKey: ({ asset }) => asset,
  drawing: () => emptyDrawing(1, 1),
  // Its parts are needed all the same.
  isDrawn: () => false,
  parts: (parts) => parts,
  arrive({ id, name, asset, format }, parts, _stages, options) {
    const { placement, ...arranged } = arrangeMeshes(parts, format, options);
    return { ...arranged, source: { kind: 'mesh', id, name, asset, format, edits: [], ...placement }, leftOut: [] };
  },
} as const satisfies SourceKind<MeshSource, Origin, readonly Part[]>;

// mesh.ts — mesh files; their parts are the members of layers.
import { z } from 'zod';
import { AssetSchema } from '../../base/assets.ts';
import { MESH_FORMATS, sniffMesh } from '../../formats/facts.ts';
import { MESH_LIMITS } from '../../formats/meshes.ts';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

/** One user unit is one unit of the file, y up and front towards +z. */
export const MeshSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('mesh'),
  asset: AssetSchema,
  format: z.enum(MESH_FORMATS),
});
export type MeshSource = z.infer<typeof MeshSourceSchema>;

export type Origin = Pick<MeshSource, 'asset' | 'name' | 'format'>;

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
  drawingKey: ({ asset }) => asset,
} as const satisfies SourceKind<MeshSource, Origin>;

// vector.ts — drawings from vector files.
import { z } from 'zod';
import { AssetSchema } from '../../base/assets.ts';
import { vectorLimit } from '../../formats/facts.ts';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

export const VectorSourceSchema = z.object({ ...SOURCE_BASE, kind: z.literal('vector'), asset: AssetSchema });
export type VectorSource = z.infer<typeof VectorSourceSchema>;

export type Origin = Pick<VectorSource, 'asset' | 'name'>;

export const vector = {
  kind: 'vector',
  schema: VectorSourceSchema,
  build: 'slab',
  file: {
    limit: vectorLimit,
    plural: 'vector files',
    advice: 'Simplify it first.',
    // What is nothing else is taken for a drawing: only its reader can say what is wrong with it.
    sniff: () => true,
    open: ({ asset, name }) => ({ asset, name }),
  },
  assets: ({ asset }) => [asset],
  contentKey: ({ asset }) => asset,
  drawingKey: ({ asset }) => asset,
} as const satisfies SourceKind<VectorSource, Origin>;

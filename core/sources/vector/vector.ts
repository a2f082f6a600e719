// vector.ts — drawings from vector files.
import { z } from 'zod';
import type { Drawing } from '../../drawing.ts';
import { decodeVector, readVector, vectorLimit } from '../../formats/vector.ts';
import { arrange } from '../arrange.ts';
import { AssetSchema, SOURCE_BASE, type SourceKind } from '../kind.ts';

export const VectorSourceSchema = z.object({ ...SOURCE_BASE, kind: z.literal('vector'), asset: AssetSchema });
export type VectorSource = z.infer<typeof VectorSourceSchema>;

type Origin = Pick<VectorSource, 'asset' | 'name'>;

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
  open: async ({ asset, name }, reader, report) => readVector(decodeVector(await reader.bytes(asset, name)), report),
  drawingKey: ({ asset }) => asset,
  drawing: (_source, drawing) => drawing(),
  isDrawn: () => false,
  parts: () => [],
  arrive(origin, drawing, _stages, options) {
    const { placement, ...arranged } = arrange(drawing, options);
    return {
      ...arranged,
      source: { kind: 'vector', edits: [], ...origin, ...placement },
      warnings: [...drawing.warnings, ...arranged.warnings],
      leftOut: drawing.leftOut,
    };
  },
} as const satisfies SourceKind<VectorSource, Origin, Drawing>;

// drawing.ts — what is drawn here: all its shapes come from its edits.
import { z } from 'zod';
import { emptyDrawing } from '../../drawing.ts';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

/** One user unit is one project unit. */
export const DrawingSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('drawing'),
  width: z.number().positive().max(1e9),
  height: z.number().positive().max(1e9),
});
export type DrawingSource = z.infer<typeof DrawingSourceSchema>;

type Origin = Pick<DrawingSource, 'width' | 'height'>;

export const drawing = {
  kind: 'drawing',
  schema: DrawingSourceSchema,
  build: 'slab',
  file: null,
  assets: () => [],
  contentKey: () => '',
  open: async () => null,
  drawingKey: ({ width, height }) => JSON.stringify([width, height]),
  drawing: ({ width, height }) => emptyDrawing(width, height),
  isDrawn: () => true,
  parts: () => [],
  arrive: ({ id, name, width, height }) => ({
    source: { kind: 'drawing', id, name, width, height, edits: [], scale: 1, origin: [width / 2, height / 2] },
    proposals: [],
    warnings: [],
    leftOut: [],
    size: 0,
  }),
} as const satisfies SourceKind<DrawingSource, Origin, null>;

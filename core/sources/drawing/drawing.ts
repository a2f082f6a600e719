// drawing.ts — what is drawn here: all its shapes come from its edits.
import { z } from 'zod';
import { SOURCE_BASE, type SourceKind } from '../kind.ts';

/** One user unit is one project unit. */
export const DrawingSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('drawing'),
  width: z.number().positive().max(1e9),
  height: z.number().positive().max(1e9),
});
export type DrawingSource = z.infer<typeof DrawingSourceSchema>;

export type Origin = Pick<DrawingSource, 'width' | 'height'>;

export const drawing = {
  kind: 'drawing',
  schema: DrawingSourceSchema,
  build: 'slab',
  file: null,
  assets: () => [],
  contentKey: () => '',
  drawingKey: ({ width, height }) => JSON.stringify([width, height]),
} as const satisfies SourceKind<DrawingSource, Origin>;

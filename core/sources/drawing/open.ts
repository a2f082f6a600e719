// open.ts — a sheet to draw on: nothing is opened, and nothing lies on it.
import { emptyDrawing } from '../../drawing.ts';
import type { Opener } from '../kind.ts';
import type { DrawingSource, Origin } from './drawing.ts';

export const drawingOpener = {
  kind: 'drawing',
  open: async () => null,
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
} as const satisfies Opener<DrawingSource, Origin, null>;

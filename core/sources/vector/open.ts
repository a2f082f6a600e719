// open.ts — vector files read into drawings.
import type { Drawing } from '../../drawing.ts';
import { decodeVector, readVector } from '../../formats/vector.ts';
import { arrange } from '../arrange.ts';
import type { Opener } from '../kind.ts';
import type { Origin, VectorSource } from './vector.ts';

export const vectorOpener = {
  kind: 'vector',
  open: async ({ asset, name }, reader, report) => readVector(decodeVector(await reader.bytes(asset, name)), report),
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
} as const satisfies Opener<VectorSource, Origin, Drawing>;

// part.ts — parts of a mesh that was brought in, as high as the layer is: its settings.
import { z } from 'zod';
import { merged } from '../../base/merged.ts';
import { LEAST, length } from '../../base/quantities.ts';
import { SIDES } from '../../mesh/types.ts';
import type { BuildKind } from '../kind.ts';

export const PartSchema = z.object({
  kind: z.literal('part'),
  /** How thick it is: the file's own thickness is stretched to this. */
  depth: length(LEAST),
});
export type PartSettings = z.infer<typeof PartSchema>;

export const part = {
  kind: 'part',
  schema: PartSchema,
  change: PartSchema.omit({ kind: true }).partial(),
  changed: merged,
  from: 'meshes',
  sides: SIDES,
  start: ({ depth }) => ({ kind: 'part', depth }),
  needs: () => [],
  heightOf: ({ depth }) => depth,
  withHeight: (settings, depth) => ({ ...settings, depth }),
  elevation: ({ depth }) => ({ height: depth, front: null, back: null, form: 'flat' }),
} as const satisfies BuildKind<PartSettings>;

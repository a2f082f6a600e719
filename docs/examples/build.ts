// build.ts — a kind of build: outlines as a plate with upright walls, whose one length is its thickness.
import { z } from 'zod';
import { merged } from '../../core/base/merged.ts';
import { LEAST, length } from '../../core/base/quantities.ts';
import type { Builder, BuildKind } from '../../core/builds/kind.ts';
import { SIDES } from '../../core/mesh/types.ts';
import { bendsOf } from '../../core/solid/bends.ts';
import { planSlab, raiseSlab, type SlabPlan, type SlabSpec } from '../../core/solid/slab.ts';

// What is declared as a length follows changes of the unit by itself.
const schema = z.object({ kind: z.literal('plate'), thickness: length(LEAST) });
type Plate = z.infer<typeof schema>;

const specOf = ({ thickness }: Plate): SlabSpec => ({
  depth: thickness,
  front: null,
  back: null,
  faces: 'fewest',
  cell: 1,
  wallRows: 1,
});

export const plate = {
  kind: 'plate',
  schema,
  change: schema.omit({ kind: true }).partial(),
  changed: merged,
  from: 'outlines',
  sides: SIDES,
  start: ({ depth }) => ({ kind: 'plate', thickness: depth }),
  needs: () => [],
  heightOf: ({ thickness }) => thickness,
  withHeight: (settings, thickness) => ({ ...settings, thickness }),
  elevation: ({ thickness }) => ({ height: thickness, front: null, back: null, form: 'flat' }),
} as const satisfies BuildKind<Plate>;

export const plateBuilder = {
  kind: 'plate',
  // All plates of the same outlines have one plan: thickness is height, and heights come last.
  planKey: () => '',
  plan: ({ regions }, settings) => planSlab(regions, specOf(settings)),
  buffersOf: ({ points, rows, starts, corners, sides, flow }) =>
    [points, rows, starts, corners, sides, flow.edges, flow.points, flow.next].map(({ buffer }) => buffer),
  raiseKey: ({ thickness }) => String(thickness),
  raise: (plan, _input, settings) => ({
    mesh: raiseSlab(plan, specOf(settings)),
    edgePath: 'none',
    ringOutlines: 0,
    warnings: [],
  }),
  bends: ({ flow }, curves, tolerance) => bendsOf(flow, curves(), tolerance),
  opened: (mesh) => mesh,
  openedKey: () => '',
  flat: (_side, { regions }) => regions,
} as const satisfies Builder<Plate, SlabPlan>;

// build.ts — a slab built: planned from outlines, which is slow, and raised to its heights, which is fast.
import { OfObject } from '../../base/of-object.ts';
import { centroidOf, ringsOf } from '../../outline/measure.ts';
import { insetRegions } from '../../outline/offset.ts';
import type { Region } from '../../outline/types.ts';
import { bendsOf } from '../../solid/bends.ts';
import { fitSpec, planKey, planSlab, raiseSlab, type SlabPlan, withoutCaps } from '../../solid/slab.ts';
import type { Builder, BuildInput } from '../kind.ts';
import { riseOf, type Slab } from './schema.ts';
import { specOf } from './slab.ts';

export const slabBuilder = {
  kind: 'slab',
  planKey: (input, settings) =>
    `${planKey(fitted(input, settings).spec)} ${stepsOf(settings).map(({ layer }) => layer)}`,
  plan: (input, settings) => planSlab(input.regions, fitted(input, settings).spec),
  buffersOf: ({ points, rows, starts, corners, sides, flow, levels }) =>
    [points, rows, starts, corners, sides, flow.edges, flow.points, flow.next, ...(levels ? [levels] : [])].map(
      ({ buffer }) => buffer,
    ),
  raiseKey({ depth, edge, backEdge, front, regions }) {
    const rises = `${riseOf(edge)} ${backEdge ? riseOf(backEdge) : ''}`;
    return `${depth} ${edge.on} ${rises} ${front ? JSON.stringify(front) : ''} ${regions ? JSON.stringify(regions) : ''}`;
  },
  raise(plan, input, settings) {
    const { spec, warnings } = fitted(input, settings);
    if (plan.unheldOutlines > 0) {
      const which = plan.unheldOutlines === 1 ? 'One outline is' : `${plan.unheldOutlines} outlines are`;
      const message = `${which} too intricate for the edge to hold back; it ends in ridges there.`;
      warnings.push({ code: 'not-held', message });
    }
    if (plan.lostFlange) {
      const message = 'The outlines are too intricate for an edge that reaches out this far; it was left out.';
      warnings.push({ code: 'no-flange', message });
    }
    if (plan.lostSteps > 0) {
      const which = plan.lostSteps === 1 ? 'One layer that was' : `${plan.lostSteps} layers that were`;
      const message = `${which} to stand out of the front does not lie on what is flat of it.`;
      warnings.push({ code: 'no-region', message });
    }
    const { edgePath, ringOutlines } = plan;
    return { mesh: raiseSlab(plan, spec), edgePath, ringOutlines, warnings };
  },
  bends: ({ flow }, curves, tolerance) => bendsOf(flow, curves(), tolerance),
  opened: (mesh, { caps }) => withoutCaps(mesh, caps),
  openedKey: ({ caps }) => caps,
  flat(side, { regions, profiles }, settings) {
    if (side === 'front' && settings.front && settings.front.is !== 'flat') return [];
    const edge = specOf(settings, profiles)[side];
    const isTaken = edge && edge.way === 'in' && edge.rise > 0 && edge.reach > 0;
    return isTaken ? insetRegions(regions, edge.reach, 0) : regions;
  },
} as const satisfies Builder<Slab, SlabPlan>;

const middles = new OfObject((regions: readonly Region[]) => centroidOf(ringsOf(regions)));

function fitted({ extent, regions, profiles, others }: BuildInput, settings: Slab) {
  const steps = stepsOf(settings).map(({ layer, by }) => ({ regions: others.get(layer) ?? [], by }));
  return fitSpec({ ...specOf(settings, profiles, middles.get(regions)), steps }, extent);
}

/** What changes nothing is no step. */
const stepsOf = ({ regions = [] }: Slab) => regions.filter(({ by }) => by !== 0);

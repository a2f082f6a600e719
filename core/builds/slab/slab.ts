// slab.ts — outlines extruded to a depth, with an edge on front and back: its settings.
import { roundFigure } from '../../base/figures.ts';
import { merged } from '../../base/merged.ts';
import { SIDES } from '../../mesh/types.ts';
import type { FrontForm } from '../../solid/form.ts';
import { isCurved, type NamedProfile, type Profile, type ProfileCurve, profileRows } from '../../solid/profile.ts';
import type { SlabEdge, SlabSpec } from '../../solid/slab.ts';
import type { BuildKind, Elevation, ElevationRim } from '../kind.ts';
import {
  type Edge,
  type EdgeShape,
  riseOf,
  type Slab,
  type SlabChange,
  SlabChangeSchema,
  SlabSchema,
} from './schema.ts';

export const NO_EDGE: Edge = {
  profile: 'round',
  on: 'none',
  reach: 0,
  rise: null,
  steps: 3,
  way: 'in',
  beyond: 'ridge',
  corners: 'mitred',
  mitreLimit: 5,
};

/** Cells of a face mesh along the longest side of what came in. */
const CELLS = 40;

export const slab = {
  kind: 'slab',
  schema: SlabSchema,
  change: SlabChangeSchema,
  changed,
  from: 'outlines',
  sides: SIDES,
  start: ({ depth, reach, size }) => ({
    kind: 'slab',
    depth,
    edge: reach > 0 ? { ...NO_EDGE, on: 'front', reach } : NO_EDGE,
    backEdge: null,
    faces: 'fewest',
    cell: roundFigure(size / CELLS),
    wallRows: 1,
    caps: 'both',
  }),
  needs: ({ regions = [] }) => regions.map(({ layer }) => layer),
  heightOf: ({ depth }) => depth,
  withHeight: (settings, depth) => ({ ...settings, depth }),
  elevation,
} as const satisfies BuildKind<Slab>;

/**
 * A back edge that is changed and is not there yet begins as the front's. How an edge goes round corners goes for both sides.
 */
function changed(settings: Slab, change: SlabChange): Slab {
  const { backEdge: back, ...others } = change;
  const next = merged(settings, others);
  if (back === null || (back === undefined && !settings.backEdge)) return { ...next, backEdge: null };
  const { on: _, ...front } = next.edge;
  const { corners, mitreLimit } = front;
  return { ...next, backEdge: { ...merged(settings.backEdge ?? front, back ?? {}), corners, mitreLimit } };
}

/** A curved edge is drawn with at least this many steps. */
const SMOOTH_STEPS = 4;

function elevation(settings: Slab, profiles: readonly NamedProfile[]): Elevation {
  const { front, back, depth } = specOf(settings, profiles);
  const rises = (front?.rise ?? 0) + (back?.rise ?? 0);
  const shrunk = rises > depth ? depth / rises : 1;
  const rim = (edge: SlabEdge | null): ElevationRim | null => {
    if (!edge || edge.reach === 0) return null;
    const steps = isCurved(edge.profile) ? Math.max(edge.steps, SMOOTH_STEPS) : edge.steps;
    const { insets, heights } = profileRows(edge.profile, steps);
    const rows = insets.map((inset, k) => [inset, (1 - heights[k]!) * edge.rise * shrunk] as const);
    return { way: edge.way, reach: edge.reach, rows };
  };
  const form = settings.regions?.length ? 'stepped' : (settings.front?.is ?? 'flat');
  return { height: depth, front: rim(front), back: rim(back), form };
}

/**
 * @param profiles those that were drawn by hand
 * @param middle of the area: where a slanted front is as high as the depth says
 */
export function specOf(
  { depth, edge, backEdge, faces, cell, wallRows, front: shape }: Slab,
  profiles: readonly NamedProfile[],
  middle: readonly [x: number, y: number] = [0, 0],
): SlabSpec {
  const form: FrontForm = shape?.is === 'slanted' ? { ...shape, pivot: middle } : (shape ?? { is: 'flat' });
  const { on, ...rim } = edge;
  const drawn = (each: EdgeShape): SlabEdge => ({
    ...each,
    rise: riseOf(each),
    profile: profileOf(each.profile, profiles),
  });
  return {
    depth,
    front: on === 'front' || on === 'both' ? drawn(rim) : null,
    back: on === 'back' || on === 'both' ? drawn(backEdge ?? rim) : null,
    // A dome needs points to rise.
    faces: form.is === 'crowned' && faces === 'fewest' ? 'even' : faces,
    cell,
    wallRows,
    form,
  };
}

/** What a profile is; a drawn one that nobody knows any more is a chamfer. */
export function profileOf(profile: EdgeShape['profile'], profiles: readonly NamedProfile[]): Profile | ProfileCurve {
  if (typeof profile === 'string') return profile;
  return profiles.find(({ name }) => name === profile.drawn) ?? 'chamfer';
}

/** The settings with another profile wherever they have the drawn one of this name. */
export function withProfile(settings: Slab, drawn: string, profile: EdgeShape['profile']): Slab {
  const isIt = (shape: EdgeShape | null) => typeof shape?.profile === 'object' && shape.profile.drawn === drawn;
  const { edge, backEdge } = settings;
  if (!isIt(edge) && !isIt(backEdge)) return settings;
  return {
    ...settings,
    edge: isIt(edge) ? { ...edge, profile } : edge,
    backEdge: backEdge && isIt(backEdge) ? { ...backEdge, profile } : backEdge,
  };
}

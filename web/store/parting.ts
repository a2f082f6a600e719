// parting.ts — layers that fill the same space or share a plane: gone to, and parted.
import type { Overlap } from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';
import { screen } from './screen.ts';

/** Layers are parted by so many tolerances where nothing else is said: no light falls through, and no renderer mixes them up. */
const APART = 5;

export const usualGap = (tolerance: number): number => Number((APART * tolerance).toPrecision(3));

/** Parts all layers that are shown. */
export async function partLayers(gap: number): Promise<void> {
  const project = useProject.getState().history?.present;
  if (!project) return;
  const outcome = await geometry((api) => api.partedBases(project, gap));
  // What has changed meanwhile is not overwritten.
  if (!outcome.ok || useProject.getState().history?.present !== project || outcome.value.length === 0) return;
  dispatch({ do: 'set-bases', bases: outcome.value });
}

/** Chooses two layers and goes to where they overlap. */
export async function showOverlap(overlap: Overlap): Promise<void> {
  const project = useProject.getState().history?.present;
  if (!project) return;
  screen.select([...overlap.layers]);
  const outcome = await geometry((api) => api.overlapPlace(project, overlap));
  if (outcome.ok && outcome.value) screen.pointAt(outcome.value);
}

// tidy.ts — a mesh made tidy, step by step, with a count of what each step changed.
import type { Mesh } from '../types.ts';
import { facesOf, meshOf, type Step } from './faces.ts';
import { dropStraight, mergeFlat } from './flat.ts';
import { weldNear } from './near.ts';
import { turnOutward } from './outward.ts';
import { removeDoubles, removeFlat } from './useless.ts';

export interface TidySettings {
  /** Points nearer than this become one, in units of the mesh. */
  readonly weld: number;
  /** Points nearer than this to the line between their neighbours go; below 0 all stay. */
  readonly straight: number;
  /** Flat neighbours that meet at no more than this become one polygon, degrees; below 0 none do. */
  readonly flat: number;
}

/** Done in this order. */
export const TIDY_STEPS = ['welded', 'removed', 'turned', 'merged', 'dropped'] as const;
export type TidyStep = (typeof TIDY_STEPS)[number];

export interface Tidied {
  readonly mesh: Mesh;
  /** Points welded, faces removed, faces turned, faces fewer by merging, points dropped. */
  readonly changes: Readonly<Record<TidyStep, number>>;
}

/** Nothing is lost that encloses anything: a mesh that was closed still is. */
export function tidy(mesh: Mesh, { weld, straight, flat }: TidySettings): Tidied {
  const changes: Record<TidyStep, number> = { welded: 0, removed: 0, turned: 0, merged: 0, dropped: 0 };
  let faces: Step['faces'] = facesOf(mesh);
  const take = (step: TidyStep, { faces: left, changed }: Step) => {
    faces = left;
    changes[step] += changed;
  };
  const before = faces.length;
  take('welded', weldNear(faces, mesh.positions, weld));
  take('removed', { faces, changed: before - faces.length });
  take('removed', removeDoubles(faces));
  take('removed', removeFlat(faces, mesh.positions));
  take('turned', turnOutward(faces, mesh.positions));
  if (flat >= 0) take('merged', mergeFlat(faces, mesh, flat));
  if (straight >= 0) take('dropped', dropStraight(faces, mesh.positions, straight));
  return { mesh: meshOf(faces, mesh), changes };
}

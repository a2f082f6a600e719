// tidy.ts — a mesh made tidy, step by step, with a count of what each step changed.
import type { Mesh } from '../types.ts';
import { closeRims } from './close.ts';
import { facesOf, isClosed, meshOf, type Step, volumeOf } from './faces.ts';
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
  /** Whether open rims get flat caps. */
  readonly close: boolean;
}

/** Done in this order. */
export const TIDY_STEPS = ['welded', 'removed', 'turned', 'closed', 'merged', 'dropped'] as const;
export type TidyStep = (typeof TIDY_STEPS)[number];

export interface TidyChange {
  /** Points welded, faces removed, faces turned, faces of caps, faces fewer by merging, points dropped. */
  readonly count: number;
  /** How far the surface moved at most, in units of the mesh. */
  readonly farthest: number;
  /** Before and after the step, in cubic units of the mesh; null while the mesh is open. */
  readonly before: number | null;
  readonly after: number | null;
}

export interface Tidied {
  readonly mesh: Mesh;
  readonly changes: Readonly<Record<TidyStep, TidyChange>>;
}

/** What leaves everything but points in the very same place as it is. */
export const ONLY_WELDED: TidySettings = { weld: 0, straight: -1, flat: -1, close: false };

/** Nothing is lost that encloses anything: a mesh that was closed still is. */
export function tidy(mesh: Mesh, { weld, straight, flat, close }: TidySettings): Tidied {
  const { positions } = mesh;
  const changes: Partial<Record<TidyStep, TidyChange>> = {};
  let faces: Step['faces'] = facesOf(mesh);
  const volume = () => (isClosed(faces, positions.length / 3) ? volumeOf(faces, positions) : null);
  let now = volume();
  const take = (step: TidyStep, { faces: left, changed, farthest = 0 }: Step) => {
    const known = changes[step] ?? { count: 0, farthest: 0, before: now };
    faces = left;
    if (changed > 0) now = volume();
    changes[step] = {
      count: known.count + changed,
      farthest: Math.max(known.farthest, farthest),
      before: known.before,
      after: now,
    };
  };
  const before = faces.length;
  take('welded', weldNear(faces, positions, weld));
  take('removed', { faces, changed: before - faces.length });
  take('removed', removeDoubles(faces));
  take('removed', removeFlat(faces, positions));
  take('turned', turnOutward(faces, positions));
  take('closed', close ? closeRims(faces, positions) : { faces, changed: 0 });
  // Which way is out is only known of what is closed.
  if (close) take('turned', turnOutward(faces, positions));
  take('merged', flat >= 0 ? mergeFlat(faces, mesh, flat) : { faces, changed: 0 });
  take('dropped', straight >= 0 ? dropStraight(faces, positions, straight) : { faces, changed: 0 });
  return { mesh: meshOf(faces, mesh), changes: changes as Tidied['changes'] };
}

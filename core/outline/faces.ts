// faces.ts — the faces that lines enclose together: every region an artist sees between them, whatever drew them.
import type { Path } from '../path/types.ts';
import { enclosedFaces } from './arrangement.ts';
import { Tracks } from './combine.ts';

/**
 * @param paths lines and curves, open or closed, in any order
 * @returns each face as a path of its own, its curves those of the lines around it; an outer contour and its holes
 */
export function facesBetween(paths: readonly Path[]): Path[] {
  const tracks = new Tracks(paths, false);
  return tracks.regions(enclosedFaces(paths.flatMap((_, i) => tracks.rings(i))));
}

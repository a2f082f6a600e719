// faces.ts — the faces that lines enclose together: every region an artist sees between them, whatever drew them.
import { flatten } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { enclosedFaces } from './arrangement.ts';
import { Tracks } from './combine.ts';
import { roughSize } from './corners.ts';
import { boundsOf } from './measure.ts';
import type { Ring } from './types.ts';

/**
 * @param paths lines and curves, open or closed, in any order
 * @returns each face as a path of its own, its curves those of the lines around it; an outer contour and its holes
 */
export function facesBetween(paths: readonly Path[]): Path[] {
  const tracks = new Tracks(paths, false);
  return tracks.regions(enclosedFaces(paths.flatMap((_, i) => tracks.rings(i))));
}

/** Heights at which a place is looked for, as shares of the whole. */
const HEIGHTS = [0.5, 0.37, 0.63, 0.21, 0.79, 0.11, 0.89];

/** A place inside a closed path (even-odd), well away from its boundary along one level line; null for nothing. */
export function placeInside(path: Path): [x: number, y: number] | null {
  const rings = flatten(path, roughSize([path]) / 1000);
  const bounds = boundsOf(rings);
  if (!bounds) return null;
  let best: { place: [number, number]; width: number } | null = null;
  for (const share of HEIGHTS) {
    const y = bounds.minY + share * (bounds.maxY - bounds.minY);
    const xs = rings.flatMap((ring) => crossingsAt(ring, y)).sort((a, b) => a - b);
    for (let i = 0; i + 1 < xs.length; i += 2) {
      const width = xs[i + 1]! - xs[i]!;
      if (!best || width > best.width) best = { place: [(xs[i]! + xs[i + 1]!) / 2, y], width };
    }
  }
  return best && best.width > 0 ? best.place : null;
}

function crossingsAt(ring: Ring, y: number): number[] {
  const xs: number[] = [];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    if (y0 > y !== y1 > y) xs.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
  }
  return xs;
}

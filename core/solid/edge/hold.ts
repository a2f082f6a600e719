// hold.ts — an edge that keeps within the local half-width: where a stroke is too narrow for the reach, all its rows draw
// together, so that a strip of flat front remains. Every corner of the rim runs along its bisector, as in the straight
// skeleton, but stops before anything happens to its edges; so rows correspond point by point, and all strips are quads.
import { tryInside } from '../../geometry/triangulate.ts';
import { ringsOf } from '../../outline/measure.ts';
import type { Region } from '../../outline/types.ts';
import { subdivide } from '../rim.ts';
import type { StripDrawing } from './drawing.ts';
import { linkedRings } from './lines.ts';
import { roofOver } from './roof.ts';
import { strips } from './sweep.ts';

/** How much of the way to the ridge an edge may take. */
const SHARE = 0.8;

/** The region with long edges divided where they lie beside narrow places, so that only what is narrow is held. */
export function holdingRim(region: Region, reach: number, extent: number): Region {
  const room = roomOf(region, reach, extent);
  if (!room) return region;
  let edge = 0;
  return subdivide(region, () => (room[edge++]! < reach ? reach : Infinity));
}

/**
 * @param rim as {@link holdingRim} gives it
 * @param levels distances from the outline where there is room, rising, > 0
 * @returns null where such a drawing does not pass its check
 */
export function heldDrawing(rim: Region, levels: readonly number[], extent: number): StripDrawing | null {
  const reach = levels.at(-1)!;
  const room = roomOf(rim, reach, extent);
  if (!room) return null;
  const { points, next } = linkedRings(ringsOf([rim]));
  const share = new Float64Array(next.length).fill(1);
  for (const [edge, free] of room.entries()) {
    if (free >= reach) continue;
    for (const corner of [edge, next[edge]!]) share[corner] = Math.min(share[corner]!, (SHARE * free) / reach);
  }
  taper(points, next, share, reach);
  const drawing = strips(points, next, levels, share);
  return isDrawing(drawing) ? drawing : null;
}

/** Most change of an edge's reach along the outline, so that no corner overtakes the next one. */
const SLOPE = 0.4;

/** Lets the reach grow again only gradually beside narrow places; changes `share`. */
function taper(points: Float64Array, next: Uint32Array, share: Float64Array, reach: number): void {
  const grown = (from: number, to: number) => {
    const length = Math.hypot(points[2 * to]! - points[2 * from]!, points[2 * to + 1]! - points[2 * from + 1]!);
    return share[from]! + (SLOPE * length) / reach;
  };
  // Twice along every ring and twice back reaches all around it.
  for (let round = 0; round < 2; round++) {
    for (let i = 0; i < next.length; i++) share[next[i]!] = Math.min(share[next[i]!]!, grown(i, next[i]!));
    for (let i = next.length - 1; i >= 0; i--) share[i] = Math.min(share[i]!, grown(next[i]!, i));
  }
}

/** How far each edge of the outline can go before anything happens to it, at most the reach; null where nobody knows. */
function roomOf(region: Region, reach: number, extent: number): Float64Array | null {
  const roof = roofOver(region, [reach], extent);
  if (!roof) return null;
  const room = new Float64Array(ringsOf([region]).reduce((sum, ring) => sum + ring.length / 2, 0)).fill(reach);
  for (const [f, edge] of roof.edges.entries()) {
    for (let c = roof.starts[f]!; c < roof.starts[f + 1]!; c++) {
      const point = roof.corners[c]!;
      if (roof.levels[point]! < 0) room[edge] = Math.min(room[edge]!, roof.times[point]!);
    }
  }
  return room;
}

/** Whether all faces turn left and the front can be triangulated. */
function isDrawing({ points: p, corners, front }: StripDrawing): boolean {
  for (let c = 0; c < corners.length; c += 4) {
    for (let k = 0; k < 4; k++) {
      const [a, b, d] = [0, 1, 2].map((m) => 2 * corners[c + ((k + m) % 4)]!) as [number, number, number];
      const cross = (p[b]! - p[a]!) * (p[d + 1]! - p[a + 1]!) - (p[b + 1]! - p[a + 1]!) * (p[d]! - p[a]!);
      if (!(cross > 0)) return false;
    }
  }
  return (tryInside(p, front)?.corners.length ?? 0) > 0;
}

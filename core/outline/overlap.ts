// overlap.ts — whether, and how much, sets of regions share of the sheet. Most pairs are told apart by their boxes, or by a disc
// that fits into one and lies in the other; only what is left is cut.
import { distanceToSegment } from '../path/flatten.ts';
import { cross, pointInRings } from './apart.ts';
import { fillRegions } from './arrangement.ts';
import { gridFor, toGrid } from './grid.ts';
import { boundsOf, centroidOf, regionsArea, ringsOf } from './measure.ts';
import { fromGridRegions } from './regions.ts';
import type { Bounds, Region, Ring } from './types.ts';

/** Regions with what is asked of them again and again. */
export interface Footprint {
  readonly regions: readonly Region[];
  /** One for each region, by their left sides. */
  readonly patches: readonly Patch[];
  readonly bounds: Bounds | null;
  readonly area: number;
}

interface Patch {
  readonly region: Region;
  readonly rings: readonly Ring[];
  readonly bounds: Bounds;
  /** The middle of its outer ring where that lies in it, and how far the boundary is; null elsewhere. */
  readonly disc: { readonly x: number; readonly y: number; readonly radius: number } | null;
}

/** @param regions disjoint, as `regionsOf` gives them */
export function footprintOf(regions: readonly Region[]): Footprint {
  const patches = regions.map((region): Patch => {
    const rings = [region.outer, ...region.holes];
    return { region, rings, bounds: boundsOf([region.outer])!, disc: discIn(region.outer, rings) };
  });
  patches.sort((a, b) => a.bounds.minX - b.bounds.minX);
  return { regions, patches, bounds: boundsOf(ringsOf(regions)), area: regionsArea(regions) };
}

function discIn(outer: Ring, rings: readonly Ring[]): Patch['disc'] {
  const [x, y] = centroidOf([outer]);
  return pointInRings(x, y, rings) ? { x, y, radius: clearance(x, y, rings) } : null;
}

/** Distance from a point to the nearest edge of the rings. */
function clearance(x: number, y: number, rings: readonly Ring[]): number {
  let least = Infinity;
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      least = Math.min(least, distanceToSegment(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
    }
  }
  return least;
}

/** Whether boxes share more than a line. */
export const boxesMeet = (a: Bounds, b: Bounds): boolean =>
  a.minX < b.maxX && a.maxX > b.minX && a.minY < b.maxY && a.maxY > b.minY;

/** Calls `meet` for every pair of patches whose boxes meet. */
function forEachMeeting(a: Footprint, b: Footprint, meet: (p: Patch, q: Patch) => void): void {
  if (!a.bounds || !b.bounds || !boxesMeet(a.bounds, b.bounds)) return;
  let first = 0;
  const widest = b.patches.reduce((most, { bounds }) => Math.max(most, bounds.maxX - bounds.minX), 0);
  for (const p of a.patches) {
    while (first < b.patches.length && b.patches[first]!.bounds.minX + widest <= p.bounds.minX) first++;
    for (let k = first; k < b.patches.length && b.patches[k]!.bounds.minX < p.bounds.maxX; k++) {
      if (boxesMeet(p.bounds, b.patches[k]!.bounds)) meet(p, b.patches[k]!);
    }
  }
}

/** Edges of two patches that are compared one with another; where there are more, cutting is no slower. */
const MOST_PAIRS = 20_000;

/** Two patches with no more edges than this are cut alone: a large one would be cut again and again. */
const SMALL = 500;

const edgesIn = ({ rings }: Patch) => rings.reduce((sum, ring) => sum + ring.length / 2, 0);

/** Whether two patches share nothing at all: true is certain, false is not. */
function areClear(p: Patch, q: Patch): boolean {
  if (edgesIn(p) * edgesIn(q) > MOST_PAIRS) return false;
  for (const ring of p.rings) for (const other of q.rings) if (ringsCross(ring, other)) return false;
  // A corner may lie on the other's boundary; that is a touch, which cutting decides.
  const isIn = (ring: Ring, rings: readonly Ring[]) => pointInRings(ring[0]!, ring[1]!, rings);
  return !isIn(p.region.outer, q.rings) && !isIn(q.region.outer, p.rings) && !touches(p, q) && !touches(q, p);
}

function ringsCross(a: Ring, b: Ring): boolean {
  for (let i = 0, h = a.length - 2; i < a.length; h = i, i += 2) {
    const [ax, ay, bx, by] = [a[h]!, a[h + 1]!, a[i]!, a[i + 1]!];
    const [minX, maxX, minY, maxY] = [Math.min(ax, bx), Math.max(ax, bx), Math.min(ay, by), Math.max(ay, by)];
    for (let k = 0, j = b.length - 2; k < b.length; j = k, k += 2) {
      const [cx, cy, dx, dy] = [b[j]!, b[j + 1]!, b[k]!, b[k + 1]!];
      if (Math.max(cx, dx) < minX || Math.min(cx, dx) > maxX || Math.max(cy, dy) < minY || Math.min(cy, dy) > maxY)
        continue;
      if (cross(ax, ay, bx, by, cx, cy, dx, dy)) return true;
    }
  }
  return false;
}

/** Whether a corner of one lies on the boundary of the other. */
function touches(p: Patch, q: Patch): boolean {
  const { minX, maxX, minY, maxY } = q.bounds;
  for (const ring of p.rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      if (x >= minX && x <= maxX && y >= minY && y <= maxY && clearance(x, y, q.rings) === 0) return true;
    }
  }
  return false;
}

/** The area of a disc that fits into one patch and lies in the other; 0 where none is known. */
function discShared({ disc }: Patch, q: Patch): number {
  if (!disc) return 0;
  const { minX, maxX, minY, maxY } = q.bounds;
  if (disc.x < minX || disc.x > maxX || disc.y < minY || disc.y > maxY || !pointInRings(disc.x, disc.y, q.rings))
    return 0;
  return Math.PI * Math.min(disc.radius, clearance(disc.x, disc.y, q.rings)) ** 2;
}

/** What two share below this share of the smaller one is rounding along a common boundary. */
export const ROUNDING_SHARE = 1e-6;

/** Whether {@link overlapArea} is more than 0; most pairs are told without cutting them. */
export function doOverlap(a: Footprint, b: Footprint, share: number): boolean {
  const least = share * Math.min(a.area, b.area);
  const pairs: [Patch, Patch][] = [];
  let isCertain = false;
  forEachMeeting(a, b, (p, q) => {
    isCertain ||= Math.max(discShared(p, q), discShared(q, p)) > least;
    if (!isCertain) pairs.push([p, q]);
  });
  if (isCertain) return true;
  // Regions of one side share nothing, so that shares of pairs add up, and mostly the first ones decide.
  let shared = 0;
  const large: [Patch, Patch][] = [];
  for (const pair of pairs) {
    const [p, q] = pair;
    if (edgesIn(p) + edgesIn(q) > SMALL) large.push(pair);
    else if (!areClear(p, q)) shared += sharedArea([p.region], [q.region]);
    if (shared > least) return true;
  }
  return shared + areaOf(large) > least;
}

/**
 * Area of a ∩ b, or 0 where they only touch: where it is no more than `share` of the smaller one's area, which rounding
 * along a common boundary can amount to.
 */
export function overlapArea(a: Footprint, b: Footprint, share: number): number {
  const pairs: [Patch, Patch][] = [];
  forEachMeeting(a, b, (p, q) => pairs.push([p, q]));
  const shared = areaOf(pairs);
  return shared > share * Math.min(a.area, b.area) ? shared : 0;
}

/** What the pairs share, in square sheet units. */
function areaOf(pairs: readonly (readonly [Patch, Patch])[]): number {
  const close = pairs.filter(([p, q]) => !areClear(p, q));
  if (close.length === 0) return 0;
  const regions = (side: 0 | 1) => [...new Set(close.map((pair) => pair[side].region))];
  return sharedArea(regions(0), regions(1));
}

/** Area of a ∩ b in square sheet units; 0 where they only touch along a line, up to rounding. */
export const sharedArea = (a: readonly Region[], b: readonly Region[]): number => regionsArea(sharedRegions(a, b));

/** What a and b share. */
export function sharedRegions(a: readonly Region[], b: readonly Region[]): Region[] {
  const [p, q] = [boundsOf(ringsOf(a)), boundsOf(ringsOf(b))];
  if (!p || !q || !boxesMeet(p, q)) return [];
  const grid = gridFor([...ringsOf(a), ...ringsOf(b)]);
  const onGrid = (regions: readonly Region[]) => ringsOf(regions).map((ring) => toGrid(ring, grid));
  return fromGridRegions(fillRegions([...onGrid(a), ...onGrid(b)], 'twice'), grid);
}

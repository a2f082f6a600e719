// simple.ts — paths that keep clear of each other and of themselves, as nearly all marks do: what they fill follows from which
// lies in which, and nothing has to be cut.
import { areNear } from './apart.ts';
import { FILLED, GRID_REACH, type GridFill, type GridPath, type GridRegion } from './arrangement.ts';
import { dropNegligible } from './simplify.ts';
import { TOUCH } from './touches.ts';

/** Pairs of edges that are looked at for every edge; where there are more, cutting is no slower. */
const PAIRS = 64;
/** Rings of which each is looked for in every other. */
const MOST_RINGS = 2000;

/**
 * What {@link fillRegions} gives, simplified, for paths of which no two edges come within {@link TOUCH} of each other.
 * @returns null where some do
 */
export function simpleRegions(paths: readonly GridPath[], fill: GridFill): GridRegion[] | null {
  const rings = paths.map(withoutRepeats).map(dropNegligible);
  if (rings.length > MOST_RINGS || rings.some((ring) => ring.length < 3) || !areApart(rings)) return null;
  const areas = rings.map(area);
  const inside = rings.map((_, i) => rings.flatMap((other, j) => (j !== i && contains(other, rings[i]!) ? [j] : [])));
  const isFilled = FILLED[fill];
  const outers: { ring: number; holes: GridPath[] }[] = [];
  const boundary = rings.map((_, i) => {
    const around = inside[i]!.reduce((winding, j) => winding + Math.sign(areas[j]!), 0);
    const [out, within] = [isFilled(around), isFilled(around + Math.sign(areas[i]!))];
    return out === within ? null : within ? 'outer' : 'hole';
  });
  const turned = (i: number, isLeft: boolean) => (areas[i]! > 0 === isLeft ? rings[i]! : rings[i]!.toReversed());
  for (const [i, kind] of boundary.entries()) if (kind === 'outer') outers.push({ ring: i, holes: [] });
  for (const [i, kind] of boundary.entries()) {
    if (kind !== 'hole') continue;
    const around = outers.filter(({ ring }) => inside[i]!.includes(ring));
    const [first, ...others] = around;
    const owner = others.reduce((a, b) => (Math.abs(areas[b.ring]!) < Math.abs(areas[a.ring]!) ? b : a), first!);
    owner.holes.push(turned(i, false));
  }
  return outers.map(({ ring, holes }) => ({ outer: turned(ring, true), holes }));
}

const withoutRepeats = (ring: GridPath): GridPath =>
  ring.filter(({ x, y }, i) => {
    const before = ring[i === 0 ? ring.length - 1 : i - 1]!;
    return x !== before.x || y !== before.y;
  });

/** Twice the area, positive for a ring that turns left. */
function area(ring: GridPath): number {
  let sum = 0;
  for (let i = 0, before = ring.length - 1; i < ring.length; before = i++) {
    sum += ring[before]!.x * ring[i]!.y - ring[i]!.x * ring[before]!.y;
  }
  return sum;
}

/** Whether a ring lies in another; the two are known to keep clear of each other. */
function contains(ring: GridPath, other: GridPath): boolean {
  const { x, y } = other[0]!;
  let isIn = false;
  for (let i = 0, before = ring.length - 1; i < ring.length; before = i++) {
    const [p, q] = [ring[before]!, ring[i]!];
    if (p.y > y !== q.y > y && x < ((p.x - q.x) * (y - q.y)) / (p.y - q.y) + q.x) isIn = !isIn;
  }
  return isIn;
}

/** Whether no two edges come within {@link TOUCH} steps of each other, but where one follows the other. */
function areApart(rings: readonly GridPath[]): boolean {
  const count = rings.reduce((sum, ring) => sum + ring.length, 0);
  const [x, y, next] = [new Float64Array(count), new Float64Array(count), new Uint32Array(count)];
  let first = 0;
  for (const ring of rings) {
    for (let k = 0; k < ring.length; k++) {
      x[first + k] = ring[k]!.x;
      y[first + k] = ring[k]!.y;
      next[first + k] = first + ((k + 1) % ring.length);
    }
    first += ring.length;
  }
  // Edges from left to right: where they begin and which they are in one number, which sorts without a comparison of ours.
  const keys = new Float64Array(count);
  for (let e = 0; e < count; e++) keys[e] = (Math.min(x[e]!, x[next[e]!]!) + GRID_REACH) * count + e;
  const order = Uint32Array.from(keys.sort(), (key) => key % count);
  // Most pairs are told apart by these, read one after the other.
  const [lowest, highest] = [new Float64Array(count), new Float64Array(count)];
  for (let i = 0; i < count; i++) {
    const [from, to] = [y[order[i]!]!, y[next[order[i]!]!]!];
    lowest[i] = Math.min(from, to);
    highest[i] = Math.max(from, to);
  }
  let pairs = 0;
  for (let i = 0; i < count; i++) {
    const e = order[i]!;
    const [ax, ay, bx, by] = [x[e]!, y[e]!, x[next[e]!]!, y[next[e]!]!];
    const end = (Math.max(ax, bx) + TOUCH + 1 + GRID_REACH) * count;
    const [low, high] = [lowest[i]! - TOUCH, highest[i]! + TOUCH];
    const [ux, uy] = [bx - ax, by - ay];
    const margin = TOUCH * Math.sqrt(ux * ux + uy * uy);
    for (let j = i + 1; j < count && keys[j]! < end; j++) {
      if (++pairs > PAIRS * (count + PAIRS)) return false;
      if (lowest[j]! > high || highest[j]! < low) continue;
      const f = order[j]!;
      const [cx, cy, dx, dy] = [x[f]!, y[f]!, x[next[f]!]!, y[next[f]!]!];
      if (next[e] === f || next[f] === e) {
        if (next[e] === f ? foldsBack(ax, ay, bx, by, dx, dy) : foldsBack(cx, cy, dx, dy, bx, by)) return false;
        continue;
      }
      // Most lie clear of the other's line.
      const [c, d] = [ux * (cy - ay) - uy * (cx - ax), ux * (dy - ay) - uy * (dx - ax)];
      if ((c > margin && d > margin) || (c < -margin && d < -margin)) continue;
      if (areNear([ax, ay, bx, by], [cx, cy, dx, dy], TOUCH)) return false;
    }
  }
  return true;
}

/** Whether the way a–b–c comes back to itself. */
function foldsBack(ax: number, ay: number, bx: number, by: number, cx: number, cy: number): boolean {
  const [ux, uy, vx, vy] = [ax - bx, ay - by, cx - bx, cy - by];
  const dot = ux * vx + uy * vy;
  if (dot <= 0) return false;
  // The end of the shorter one beside the longer one.
  return Math.abs(ux * vy - uy * vx) <= TOUCH * Math.max(Math.hypot(ux, uy), Math.hypot(vx, vy));
}

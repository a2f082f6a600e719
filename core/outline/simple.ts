// simple.ts — paths that keep clear of each other and of themselves, as nearly all marks do: what they fill follows from which
// lies in which, and nothing has to be cut.
import { areNear } from './apart.ts';
import { FILLED, type GridFill, type GridPath, type GridRegion } from './arrangement.ts';
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
  ring.filter(({ x, y }, i) => x !== ring.at(i - 1)!.x || y !== ring.at(i - 1)!.y);

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
  const ends = new Float64Array(4 * count);
  const next = new Uint32Array(count);
  let first = 0;
  for (const ring of rings) {
    for (const [k, { x, y }] of ring.entries()) {
      const after = ring[(k + 1) % ring.length]!;
      ends.set([x, y, after.x, after.y], 4 * (first + k));
      next[first + k] = first + ((k + 1) % ring.length);
    }
    first += ring.length;
  }
  const left = Float64Array.from(next, (_, e) => Math.min(ends[4 * e]!, ends[4 * e + 2]!));
  const order = Uint32Array.from(next.keys()).sort((e, f) => left[e]! - left[f]!);
  let pairs = 0;
  for (let i = 0; i < count; i++) {
    const e = order[i]!;
    const [ax, ay, bx, by] = [ends[4 * e]!, ends[4 * e + 1]!, ends[4 * e + 2]!, ends[4 * e + 3]!];
    const right = Math.max(ax, bx) + TOUCH;
    const [low, high] = [Math.min(ay, by) - TOUCH, Math.max(ay, by) + TOUCH];
    for (let j = i + 1; j < count; j++) {
      const f = order[j]!;
      if (left[f]! > right) break;
      if (++pairs > PAIRS * (count + PAIRS)) return false;
      const [cx, cy, dx, dy] = [ends[4 * f]!, ends[4 * f + 1]!, ends[4 * f + 2]!, ends[4 * f + 3]!];
      if ((cy > high && dy > high) || (cy < low && dy < low)) continue;
      if (next[e] === f ? foldsBack(ax, ay, bx, by, dx, dy) : next[f] === e && foldsBack(cx, cy, dx, dy, bx, by)) {
        return false;
      }
      if (next[e] !== f && next[f] !== e && areNear([ax, ay, bx, by], [cx, cy, dx, dy], TOUCH)) return false;
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

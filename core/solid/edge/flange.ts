// flange.ts — an edge that reaches outward: the roof over what the outlines leave free, up to a frame far enough away. Where
// outlines lie closer than their edges reach, these meet in a ridge and what lies between becomes one front.
import { isInside } from '../../outline/apart.ts';
import { boundsOf, ringArea } from '../../outline/measure.ts';
import { reversed } from '../../outline/reverse.ts';
import type { Region, Ring } from '../../outline/types.ts';
import type { CornerStyle } from './corners.ts';
import type { StripDrawing } from './drawing.ts';
import { roofOver } from './roof.ts';

/** A ring of what is free: which ring of the outlines it is, turned around; −1 for the frame. */
interface FreeRing {
  readonly points: Ring;
  readonly from: number;
}

/**
 * @param rims all outlines that are built together
 * @param levels distances from the outlines, rising, > 0
 * @returns faces counter-clockwise in plan, below the front; its edges have the front on their left. null where a roof does
 * not pass its check
 */
export function flangeDrawing(
  rims: readonly Region[],
  levels: readonly number[],
  extent: number,
  style: CornerStyle,
): StripDrawing | null {
  const rings = rims.flatMap(({ outer, holes }) => [outer, ...holes]);
  const firsts: number[] = [];
  let count = 0;
  for (const ring of rings) {
    firsts.push(count);
    count += ring.length / 2;
  }
  const reach = levels.at(-1)!;
  const points = rings.flatMap((ring) => [...ring]);
  const times: number[] = new Array(count).fill(0);
  const levelOf: number[] = new Array(count).fill(0);
  const starts = [0];
  const corners: number[] = [];
  const edges: number[] = [];
  const strips: number[] = [];
  const front: number[] = [];
  for (const free of freeOf(rims, rings, reach * (style.corners === 'rounded' ? 3 : style.mitreLimit + 2))) {
    const [outer, ...holes] = free.map((ring) => ring.points) as [Ring, ...Ring[]];
    const roof = roofOver({ outer, holes }, levels, extent, style);
    if (!roof) return null;
    // (1) The numbers that the rim's points have in the outlines, and the edges of the frame.
    const place: number[] = [];
    const edgeOf: number[] = [];
    for (const { points: ring, from } of free) {
      const n = ring.length / 2;
      for (let i = 0; i < n; i++) {
        place.push(from < 0 ? -1 : firsts[from]! + n - 1 - i);
        edgeOf.push(from < 0 ? FRAME : firsts[from]! + ((2 * n - 2 - i) % n));
      }
    }
    for (let i = place.length; i < roof.times.length; i++) {
      points.push(roof.points[2 * i]!, roof.points[2 * i + 1]!);
      levelOf.push(roof.levels[i]!);
      place.push(times.push(roof.times[i]!) - 1);
    }
    // (2) Everything but what the frame has swept.
    const isFrame = new Uint8Array(roof.times.length);
    for (const [f, own] of roof.edges.entries()) {
      const face = roof.corners.subarray(roof.starts[f], roof.starts[f + 1]);
      const edge = own < 0 ? -1 : edgeOf[own]!;
      if (edge === FRAME) {
        for (const corner of face) isFrame[corner] = 1;
        continue;
      }
      for (const corner of face) corners.push(place[corner]!);
      starts.push(corners.length);
      edges.push(edge);
      strips.push(roof.strips[f]!);
    }
    for (let e = 0; e < roof.front.length; e += 2) {
      const [a, b] = [roof.front[e]!, roof.front[e + 1]!];
      if (!isFrame[a]) front.push(place[b]!, place[a]!);
    }
  }
  return {
    points: Float64Array.from(points),
    times: Float64Array.from(times),
    levels: Int16Array.from(levelOf),
    starts: Uint32Array.from(starts),
    corners: Uint32Array.from(corners),
    edges: Int32Array.from(edges),
    strips: Uint16Array.from(strips),
    front: Uint32Array.from(front),
  };
}

const FRAME = -2;

/** What regions leave free: everything around them within a frame, and the inside of each hole. */
function freeOf(rims: readonly Region[], rings: readonly Ring[], margin: number): FreeRing[][] {
  const { minX, minY, maxX, maxY } = boundsOf(rings)!;
  const [x0, y0, x1, y1] = [minX - margin, minY - margin, maxX + margin, maxY + margin];
  const around: FreeRing[] = [{ points: Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1), from: -1 }];
  const free = [around];
  const holes: { ring: Ring; area: number; free: FreeRing[] }[] = [];
  let number = 0;
  const outers: FreeRing[] = [];
  for (const rim of rims) {
    outers.push({ points: reversed(rim.outer), from: number++ });
    for (const hole of rim.holes) {
      const own: FreeRing[] = [{ points: reversed(hole), from: number++ }];
      free.push(own);
      holes.push({ ring: hole, area: Math.abs(ringArea(hole)), free: own });
    }
  }
  holes.sort((a, b) => a.area - b.area);
  for (const outer of outers) {
    const within = holes.find(({ ring }) => isInside(outer.points, ring));
    (within?.free ?? around).push(outer);
  }
  return free;
}

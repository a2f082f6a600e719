// rim.ts — what walls hang on: outlines with as many points as the fronts ask for.
import { ringsOf } from '../outline/measure.ts';
import type { Region, Ring } from '../outline/types.ts';
import { edgesOf, linkedRings } from './edge/lines.ts';
import { type FrontFaces, meshFront } from './front/front.ts';
import type { FlatOutline } from './front/types.ts';

/** Splitting an outline brings about new splits, fewer each time: on the coast of a continent eight times in a row. */
const MAX_ROUNDS = 24;

/**
 * The region with the points on its outline that front and back need.
 * @param isFront whether one of them reaches to the outline itself, without an edge between
 */
export function rimFor(region: Region, faces: FrontFaces, isFront: boolean): Region {
  if (faces.kind === 'fewest') return region;
  let rim = subdivide(region, () => faces.cell);
  for (let round = 0; isFront && round < MAX_ROUNDS; round++) {
    const outline = outlineOf([rim]);
    const { added, splits } = meshFront(outline, faces);
    if (splits.size === 0) break;
    let edge = 0;
    const split = (ring: Ring) => {
      const values: number[] = [];
      for (let i = 0; i < ring.length; i += 2) {
        values.push(ring[i]!, ring[i + 1]!);
        for (const point of splits.get(edge++) ?? []) {
          const at = 2 * point - outline.points.length;
          values.push(added[at]!, added[at + 1]!);
        }
      }
      return Float64Array.from(values);
    };
    rim = { outer: split(rim.outer), holes: rim.holes.map(split) };
  }
  return rim;
}

/** All edges of regions; edge i leaves point i. */
export function outlineOf(regions: readonly Region[]): FlatOutline {
  const { points, next } = linkedRings(ringsOf(regions));
  return { points, edges: edgesOf(next) };
}

/**
 * The region with every edge divided into equal parts.
 * @param longest the most a part may measure; asked for every edge in turn
 */
export function subdivide(region: Region, longest: () => number): Region {
  return { outer: divideRing(region.outer, longest), holes: region.holes.map((hole) => divideRing(hole, longest)) };
}

function divideRing(ring: Ring, longest: () => number): Ring {
  const points: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    const [dx, dy] = [ring[j]! - ring[i]!, ring[j + 1]! - ring[i + 1]!];
    const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / longest() - 1e-9));
    for (let k = 0; k < parts; k++) points.push(ring[i]! + (dx * k) / parts, ring[i + 1]! + (dy * k) / parts);
  }
  return Float64Array.from(points);
}

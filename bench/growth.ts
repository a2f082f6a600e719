// growth.ts — how the time of an edged slab grows with the points of its outline, and how many triangles its front has beside a
// general-purpose triangulation library's.

import { tryInside } from '../core/geometry/triangulate.ts';
import { regionsOf } from '../core/outline/regions.ts';
import type { Region, Ring } from '../core/outline/types.ts';
import { outlineOf } from '../core/solid/rim.ts';
import { fitSpec, planSlab, raiseSlab } from '../core/solid/slab.ts';
import { roundEdge } from '../core/testing/edges.ts';
import { median } from './median.ts';
import { type Earcut, reference } from './references.ts';

const { default: earcut } = (await reference('earcut/src/earcut.js')) as { default: Earcut };
const POINTS = [1e3, 3e3, 1e4, 3e4, 1e5];
const SIZE = 100;
const ROUNDS = 3;

const ROUND = roundEdge({ reach: 0.01 * SIZE, rise: 0.01 * SIZE });

export function compareGrowth(): void {
  console.log(`Coasts of more and more points, a round edge of 1 % in 3 steps on both sides\n`);
  console.log('points    outline ms   slab ms   µs a point   front triangles ours / library');
  const measured = POINTS.map((count) => {
    const ring = coast(count);
    const times = Array.from({ length: ROUNDS }, () => {
      const started = performance.now();
      const regions = regionsOf([ring], 'nonzero');
      const outlined = performance.now();
      const { spec } = fitSpec({ depth: 4, front: ROUND, back: ROUND, faces: 'fewest', cell: 1, wallRows: 1 }, SIZE);
      raiseSlab(planSlab(regions, spec), spec);
      return { regions, outline: outlined - started, slab: performance.now() - outlined };
    });
    const [outline, slab] = [median(times.map((t) => t.outline)), median(times.map((t) => t.slab))];
    const { ours, library } = frontTriangles(times[0]!.regions);
    console.log(
      [
        String(count).padEnd(9),
        outline.toFixed(0).padEnd(12),
        slab.toFixed(0).padEnd(9),
        ((1000 * (outline + slab)) / count).toFixed(1).padEnd(12),
        `${ours} / ${library}`,
      ].join(' '),
    );
    return { count, ms: outline + slab };
  });
  console.log(`\ngrows as n^${exponent(measured).toFixed(2)}`);
}

/** Of the fronts, without any edge. */
function frontTriangles(regions: readonly Region[]): { ours: number; library: number } {
  let [ours, library] = [0, 0];
  for (const region of regions) {
    const { points, edges } = outlineOf([region]);
    ours += tryInside(points, edges)!.corners.length / 3;
    const rings = [region.outer, ...region.holes];
    const starts = region.holes.map((_, i) => rings.slice(0, i + 1).reduce((sum, ring) => sum + ring.length / 2, 0));
    library +=
      earcut(
        rings.flatMap((ring) => [...ring]),
        starts,
      ).length / 3;
  }
  return { ours, library };
}

/** Slope of the line through the logarithms, by least squares. */
export function exponent(measured: readonly { count: number; ms: number }[]): number {
  const [xs, ys] = [measured.map(({ count }) => Math.log(count)), measured.map(({ ms }) => Math.log(ms))];
  const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;
  const [mx, my] = [mean(xs), mean(ys)];
  const covariance = xs.reduce((sum, x, i) => sum + (x - mx) * (ys[i]! - my), 0);
  return covariance / xs.reduce((sum, x) => sum + (x - mx) ** 2, 0);
}

/** A coast: a ring roughened at every scale by moving middles (Fournier, Fussell & Carpenter 1982), the same every time. */
function coast(count: number): Ring {
  let seed = 20_260_901;
  const random = () => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    return seed / 2 ** 32 - 0.5;
  };
  let radii = Array.from({ length: 8 }, () => 0.42 * SIZE + 0.1 * SIZE * random());
  for (let rough = 0.06 * SIZE; radii.length < count; rough *= 0.48) {
    radii = radii.flatMap((r, i) => [r, (r + radii[(i + 1) % radii.length]!) / 2 + rough * random()]);
  }
  const step = radii.length / count;
  const ring = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    const angle = (2 * Math.PI * i) / count;
    const radius = radii[Math.floor(i * step)]!;
    ring[2 * i] = radius * Math.cos(angle);
    ring[2 * i + 1] = radius * Math.sin(angle);
  }
  return ring;
}

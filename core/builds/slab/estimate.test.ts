// The estimate against what is built: within a third, for shapes and divisions of all kinds.
import { describe, expect, it } from 'vitest';
import { faceCount } from '../../mesh/types.ts';
import { pointCount, regionsArea, ringsLength, ringsOf } from '../../outline/measure.ts';
import type { Region } from '../../outline/types.ts';
import { planSlab, raiseSlab } from '../../solid/slab.ts';
import { rectangle, region, regularPolygon, reversed, star } from '../../testing/shapes.ts';
import { slabBuilder } from './build.ts';
import { estimateFaces } from './estimate.ts';
import type { Slab } from './schema.ts';
import { NO_EDGE, slab, specOf } from './slab.ts';

const SHAPES: Record<string, readonly Region[]> = {
  disc: [region(regularPolygon(200, 50))],
  frame: [region(rectangle(0, 0, 120, 80), reversed(rectangle(10, 10, 100, 60)))],
  star: [region(star(9, 60, 30))],
};
const START = slab.start({ depth: 6, reach: 0, size: 100 });
const edge = { ...NO_EDGE, on: 'both', reach: 1, steps: 6 } as const;
const BUILDS: Record<string, Partial<Slab>> = {
  'a grid': { faces: 'grid', cell: 0.8 },
  'even triangles': { faces: 'even', cell: 0.8 },
  'a grid with edges': { faces: 'grid', cell: 0.6, edge },
  'even triangles with edges and rows': { faces: 'even', cell: 1, edge, wallRows: 5 },
  'rows alone': { wallRows: 20, caps: 'none' },
};

describe('the estimate of faces', () => {
  for (const [shape, regions] of Object.entries(SHAPES)) {
    for (const [build, change] of Object.entries(BUILDS)) {
      it(`is near for a ${shape} in ${build}`, () => {
        const settings = { ...START, ...change };
        const spec = specOf(settings, []);
        const mesh = slabBuilder.opened(raiseSlab(planSlab(regions, spec), spec), settings);
        const length = ringsLength(ringsOf(regions));
        const told = estimateFaces(settings, { area: regionsArea(regions), length, points: pointCount(regions) });
        expect(Math.abs(Math.log(told / faceCount(mesh)))).toBeLessThan(Math.log(4 / 3));
      });
    }
  }
});

// Offsets and widths against closed forms.
import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../formats/svg/read.ts';
import { flatten } from '../path/flatten.ts';
import { rectangle, region, regularPolygon, reversed, spikyRing, star } from '../testing/shapes.ts';
import { segmentsOf } from './apart.ts';
import { regionsArea, ringLength, ringsOf } from './measure.ts';
import { insetRegions } from './offset.ts';
import { regionsOf } from './regions.ts';
import { narrowest } from './width.ts';

describe('insets', () => {
  it('shrinks a rectangle by the distance on every side', () => {
    const [inner] = insetRegions([region(rectangle(0, 0, 10, 6))], 1, 0.01);
    expect(regionsArea([inner!])).toBeCloseTo(8 * 4, 4);
  });

  it('shrinks a regular polygon to one of its own kind', () => {
    // The apothem r·cos(π/n) falls by the distance, the area with its square.
    for (const n of [5, 8, 24]) {
      const apothem = 10 * Math.cos(Math.PI / n);
      const [inner] = insetRegions([region(regularPolygon(n, 10))], 2, 0.01);
      const expected = n * Math.tan(Math.PI / n) * (apothem - 2) ** 2;
      expect(regionsArea([inner!])).toBeCloseTo(expected, 3);
    }
  });

  it('grows holes and splits at a neck', () => {
    const frame = region(rectangle(0, 0, 10, 10), reversed(rectangle(4, 4, 2, 2)));
    expect(regionsArea(insetRegions([frame], 1, 0.01))).toBeCloseTo(64 - 16, 4);
    const neck = regionsOf([rectangle(0, 0, 4, 4), rectangle(4, 1.5, 2, 1), rectangle(6, 0, 4, 4)], 'nonzero');
    expect(neck).toHaveLength(1);
    expect(insetRegions(neck, 0.6, 0.01)).toHaveLength(2);
  });

  it('is empty where nothing is left', () => {
    expect(insetRegions([region(rectangle(0, 0, 10, 2))], 1, 0.01)).toEqual([]);
    expect(insetRegions([region(rectangle(0, 0, 10, 2))], 3, 0.01)).toEqual([]);
  });

  it('keeps every point at least the distance away from the outline', () => {
    fc.assert(
      fc.property(spikyRing, fc.double({ min: 0.05, max: 1, noNaN: true }), (ring, distance) => {
        const regions = regionsOf([ring], 'nonzero');
        const edges = segmentsOf(ringsOf(regions));
        for (const inner of ringsOf(insetRegions(regions, distance, 0.001))) {
          for (let i = 0; i < inner.length; i += 2) {
            for (let s = 0; s < edges.length; s += 4) {
              const [ax, ay, bx, by] = [edges[s]!, edges[s + 1]!, edges[s + 2]!, edges[s + 3]!];
              const [dx, dy] = [bx - ax, by - ay];
              const t = ((inner[i]! - ax) * dx + (inner[i + 1]! - ay) * dy) / (dx * dx + dy * dy);
              if (t < 0 || t > 1) continue;
              const off = Math.hypot(inner[i]! - ax - t * dx, inner[i + 1]! - ay - t * dy);
              expect(off).toBeGreaterThan(distance * (1 - 1e-4) - 1e-4);
            }
          }
        }
      }),
      { numRuns: 100 },
    );
  });
});

describe('the narrowest place', () => {
  it('is not looked for beyond what is asked for, and is the same below that', () => {
    const shapes = [
      region(rectangle(0, 0, 20, 3)),
      region(regularPolygon(7, 10)),
      region(regularPolygon(96, 10)),
      region(regularPolygon(300, 10), reversed(regularPolygon(200, 9))),
      region(star(5, 6, 3)),
    ];
    for (const shape of shapes) {
      const { safeReach } = narrowest(shape);
      for (const most of [0.1, 0.7, 1.4, 3, 30]) {
        expect(narrowest(shape, most).safeReach).toBeCloseTo(Math.min(safeReach, most), 6);
      }
    }
  });

  it('is half the short side of a rectangle', () => {
    const { safeReach, at } = narrowest(region(rectangle(0, 0, 20, 3)));
    expect(safeReach).toBeCloseTo(1.5, 6);
    expect(at[1]).toBeCloseTo(1.5, 6);
  });

  it('is the inner radius of a regular polygon', () => {
    expect(narrowest(region(regularPolygon(7, 10))).safeReach).toBeCloseTo(10 * Math.cos(Math.PI / 7), 3);
    expect(narrowest(region(regularPolygon(96, 10))).safeReach).toBeCloseTo(10, 1);
  });

  it('is half the width of a ring', () => {
    const ring = region(regularPolygon(64, 10), reversed(regularPolygon(64, 8)));
    expect(narrowest(ring).safeReach).toBeCloseTo(1, 1);
  });

  it('lies in the neck, where an inset first falls apart', () => {
    const [dumbbell] = regionsOf([rectangle(0, 0, 4, 4), rectangle(4, 1.5, 2, 1), rectangle(6, 0, 4, 4)], 'nonzero');
    const { safeReach, at } = narrowest(dumbbell!);
    expect(safeReach).toBeCloseTo(0.5, 5);
    expect(at[0]).toBeGreaterThanOrEqual(4);
    expect(at[0]).toBeLessThanOrEqual(6);
    expect(insetRegions([dumbbell!], safeReach * 0.98, 0.001)).toHaveLength(1);
    expect(insetRegions([dumbbell!], safeReach * 1.02, 0.001)).toHaveLength(2);
  });

  it('is not the tip of a corner', () => {
    // The inner circle of a triangle: r = 2·area / perimeter.
    const triangle = regularPolygon(3, 10);
    const inradius = (2 * regionsArea([region(triangle)])) / ringLength(triangle);
    expect(narrowest(region(triangle)).safeReach).toBeCloseTo(inradius, 3);
  });

  it('is not the tip of a tooth, however sharp, blunt or curved it is', () => {
    // Teeth of 7° to 60° on a disc: the disc inside is what is left of a front.
    for (const [teeth, inner] of [
      [24, 8],
      [60, 8.2],
      [12, 5],
      [9, 2],
    ] as const) {
      expect(narrowest(region(star(teeth, 10, inner))).thin[0].halfWidth).toBeCloseTo(inner, 3);
    }
    const needle = Float64Array.of(0, 0, 100, 1, 100, 40, 80, 40, 80, 1.5);
    expect(narrowest(region(needle)).safeReach).toBeGreaterThan(5);
    // A wedge of 6° that ends blunt, on a square.
    const wedge = Float64Array.of(0, 0, 0, -20, 20, -20, 20, 0, 11.05, 0, 10.001, 10, 9.999, 10, 8.95, 0);
    expect(narrowest(region(wedge)).safeReach).toBeGreaterThan(5);
    // A crescent between two arcs, tangent to each other nowhere.
    const disc = (r: number, cx: number) =>
      Float64Array.from(
        { length: 400 },
        (_, i) => (i % 2 === 0 ? cx : 0) + r * Math[i % 2 === 0 ? 'cos' : 'sin']((Math.PI * (i >> 1)) / 100),
      );
    const [crescent] = regionsOf([disc(10, 0), reversed(disc(9, 5))], 'positive');
    expect(narrowest(crescent!).safeReach).toBeGreaterThan(2);
  });

  it('lies between two corners that point at each other, or at a side', () => {
    const glass = Float64Array.of(10, 10, 50, 10, 30.2, 30, 50, 50, 10, 50, 29.8, 30);
    const { safeReach, at, thin } = narrowest(region(glass));
    expect(thin[0]).toEqual({ halfWidth: expect.closeTo(0.2, 6), at: [expect.closeTo(30, 6), expect.closeTo(30, 6)] });
    // Mitres of corners that open by 90.57° run ahead by 1 / sin(45.29°) of the reach.
    expect(safeReach).toBeCloseTo(0.2 * Math.sin(Math.atan(20 / 19.8)), 6);
    expect(at).toEqual([expect.closeTo(30, 6), expect.closeTo(30, 6)]);
    expect(insetRegions([region(glass)], 0.98 * safeReach, 0.0001)).toHaveLength(1);
    expect(insetRegions([region(glass)], 1.02 * safeReach, 0.0001)).toHaveLength(2);
    // A notch that nearly cuts a plate through.
    const notched = Float64Array.of(0, 0, 20, 0, 20, 10, 11, 10, 10, 0.3, 9, 10, 0, 10);
    expect(narrowest(region(notched)).thin[0].halfWidth).toBeCloseTo(0.15, 6);
  });

  it('is said with other thin places, well apart', () => {
    // Five plates joined by strips of 1, 1.2, 1.6 and 4.
    const plates = [0, 1, 2, 3, 4].map((i) => rectangle(12 * i, 0, 8, 8));
    const strips = [1, 1.2, 1.6, 4].map((w, i) => rectangle(12 * i + 7, 4 - w / 2, 6, w));
    const { thin } = narrowest(regionsOf([...plates, ...strips], 'nonzero')[0]!);
    expect(thin.map(({ halfWidth, at: [x] }) => [halfWidth, Math.floor(x / 12)])).toEqual([
      [expect.closeTo(0.5, 6), 0],
      [expect.closeTo(0.6, 5), 1],
      [expect.closeTo(0.8, 5), 2],
    ]);
  });

  // @mdi/svg 7.4.47 (Apache-2.0): below the safe reach nothing falls apart and no hole opens, whatever the drawing.
  it('keeps every hundredth icon in one piece below it', () => {
    const folder = 'bench/sets/node_modules/@mdi/svg/svg';
    const names = readdirSync(folder).filter((_, i) => i % 100 === 3);
    const parted: string[] = [];
    for (const name of names) {
      const { shapes } = readSvg(readFileSync(`${folder}/${name}`, 'utf8'));
      for (const each of regionsOf(
        shapes.flatMap((shape) => flatten(shape.path, 0.002)),
        'nonzero',
      )) {
        const { safeReach } = narrowest(each);
        const inner = insetRegions([each], 0.95 * safeReach, 0.001).filter((part) => regionsArea([part]) > 1e-3);
        if (inner.length !== 1 || inner[0]!.holes.length !== each.holes.length) parted.push(`${name} ${safeReach}`);
      }
    }
    expect(parted).toEqual([]);
  });
});

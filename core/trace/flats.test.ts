// Tones and colours: pictures painted with exact coverage from known shapes, traced back to them.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { regionsArea, ringArea } from '../outline/measure.ts';
import { sharedArea } from '../outline/overlap.ts';
import { regionsOf } from '../outline/regions.ts';
import type { Region, Ring } from '../outline/types.ts';
import { ellipsePath } from '../path/arc.ts';
import { flatten } from '../path/flatten.ts';
import type { Picture } from '../picture/types.ts';
import { painting } from '../testing/pictures.ts';
import { rectangle, regularPolygon } from '../testing/shapes.ts';
import { type FlatOptions, type FlatTrace, traceFlats } from './flats.ts';

const OPTIONS: FlatOptions = {
  isGrey: false,
  count: null,
  picked: [],
  layering: 'abutting',
  detail: 4,
  corner: (25 * Math.PI) / 180,
  smooth: null,
};
const trace = (picture: Picture, options: Partial<FlatOptions> = {}) => traceFlats(picture, { ...OPTIONS, ...options });
const disc = (cx: number, cy: number, r: number): Ring => flatten(ellipsePath(cx, cy, r, r), 0.0005)[0]!;
const regionsFrom = (trace: FlatTrace, colour: number): Region[] =>
  regionsOf(
    trace.colours[colour]!.pieces.flatMap(({ path }) => flatten(path, 0.002)),
    'evenodd',
  );
/** Area by the direction of the rings, in which shared boundaries cancel. */
const signedArea = (trace: FlatTrace, colour: number) =>
  trace.colours[colour]!.pieces.reduce(
    (sum, { path }) => sum + flatten(path, 0.002).reduce((part, ring) => part + ringArea(ring), 0),
    0,
  );

/** A disc over two stripes: three colours meet in two places on a circle. */
const FLAG = painting(160, 120, '#f4efe2', [
  [[rectangle(20.3, 20.4, 120.2, 40.3)], '#2f6f60'],
  [[rectangle(20.3, 60.7, 120.2, 40.1)], '#20344a'],
  [[disc(80.2, 60.4, 25.3)], '#c9593f'],
]);

describe('colours', () => {
  const flag = trace(FLAG);
  const named = Object.fromEntries(flag.colours.map(({ colour }, i) => [colour, i]));

  it('are those that were painted, and no others: fringes make none', () => {
    expect(new Set(Object.keys(named))).toEqual(new Set(['#f4efe2', '#2f6f60', '#20344a', '#c9593f']));
    expect(flag.seen).toBe(4);
    expect(flag.colours.map(({ pieces }) => pieces.length)).toEqual([1, 1, 1, 1]);
    expect(flag.colours.filter(({ isGround }) => isGround).map(({ colour }) => colour)).toEqual(['#f4efe2']);
  });

  it('have their areas to a few hundredths of a pixel along their boundary', () => {
    const cap = Math.PI * 25.3 ** 2;
    expect(Math.abs(regionsArea(regionsFrom(flag, named['#c9593f']!)) - cap)).toBeLessThan(0.03 * 2 * Math.PI * 25.3);
    const both = regionsArea(regionsFrom(flag, named['#2f6f60']!)) + regionsArea(regionsFrom(flag, named['#20344a']!));
    expect(Math.abs(both - (120.2 * 80.4 - cap))).toBeLessThan(0.03 * (2 * 200 + 2 * Math.PI * 25.3));
  });

  it('go smoothly on where a third one meets them: the circle stays one', () => {
    const [piece] = flag.colours[named['#c9593f']!]!.pieces;
    for (const ring of flatten(piece!.path, 0.005)) {
      for (let i = 0; i < ring.length; i += 2) {
        expect(Math.abs(Math.hypot(ring[i]! - 80.2, ring[i + 1]! - 60.4) - 25.3)).toBeLessThan(0.12);
      }
    }
    // Eight pieces of a circle, and one more for each of the two places where it is met.
    expect(piece!.path.length - 2).toBeLessThanOrEqual(10);
  });

  it('stacked: what is enclosed lies on what encloses it, and side by side is side by side', () => {
    const stacked = trace(FLAG, { layering: 'stacked' });
    const tiers = Object.fromEntries(stacked.colours.map(({ colour, pieces }) => [colour, pieces[0]!.tier]));
    expect(tiers).toEqual({ '#f4efe2': 0, '#2f6f60': 0, '#20344a': 0, '#c9593f': 1 });
    const [ground, ...rest] = stacked.colours.map((_, i) => regionsArea(regionsFrom(stacked, i)));
    expect(ground).toBeCloseTo(160 * 120, 2);
    // The disc is there twice: by itself, and as a part of the stripe that goes on beneath it.
    const disc = Math.PI * 25.3 ** 2;
    expect(Math.abs(rest.reduce((sum, area) => sum + area, 0) - (120.2 * 80.4 + disc))).toBeLessThan(0.03 * 560);
  });

  it('stacked: enclosed paper is a piece that lies on what encloses it, and holes to see through stay open', () => {
    const ring = painting(100, 100, '#ffffff', [
      [[disc(50, 50, 40)], '#2f6f60'],
      [[disc(50, 50, 20)], '#ffffff'],
    ]);
    const [paper, green] = trace(ring, { layering: 'stacked' }).colours;
    expect(paper!.pieces.map(({ tier, isGround }) => [tier, isGround])).toEqual([
      [0, true],
      [1, false],
    ]);
    expect(paper!.pieces[1]!.area / (Math.PI * 400)).toBeCloseTo(1, 1);
    expect(green!.pieces[0]!.area / (Math.PI * 1600)).toBeCloseTo(1, 1);
    const data = ring.data.slice();
    for (let i = 0; i < 100 * 100; i++) {
      const [dx, dy] = [(i % 100) + 0.5 - 50, Math.floor(i / 100) + 0.5 - 50];
      if (Math.hypot(dx, dy) < 12) data[4 * i + 3] = 0;
    }
    const open = trace({ ...ring, data }, { layering: 'stacked' });
    const hole = Math.PI * 12 ** 2;
    expect(open.colours[1]!.pieces[0]!.area / (Math.PI * 1600 - hole)).toBeCloseTo(1, 1);
    expect(open.colours[1]!.pieces[0]!.rings).toHaveLength(2);
  });

  it('stacked: the plate is seen through the counter of a letter, and is whole beneath it', () => {
    const plate = painting(140, 100, '#ffffff', [
      [[rectangle(10, 10, 120, 80)], '#20344a'],
      [[disc(70, 50, 32)], '#f2c14e'],
      [[disc(70, 50, 18)], '#20344a'],
      [[disc(70, 50, 7)], '#f2c14e'],
    ]);
    const { colours } = trace(plate, { layering: 'stacked' });
    const of = (hex: string) => colours.find(({ colour }) => colour === hex)!.pieces;
    expect(of('#20344a').map(({ tier, rings }) => [tier, rings.length])).toEqual([[0, 1]]);
    // The letter with its counter, and a dot in that: both lie on the plate.
    expect(of('#f2c14e').map(({ tier, rings }) => [tier, rings.length])).toEqual(
      expect.arrayContaining([
        [1, 2],
        [1, 1],
      ]),
    );
  });

  it('stacked: what crosses a ring lies on nothing but the ground, not on every other colour', () => {
    // A wave across a ring, both on paper, and a disc within the ring.
    const crossing = painting(160, 160, '#ffffff', [
      [[disc(80, 80, 60)], '#20344a'],
      [[disc(80, 80, 40)], '#b88a3d'],
      [[disc(80, 80, 12)], '#74b8b0'],
      [[rectangle(5, 100, 150, 14)], '#c9593f'],
    ]);
    const { colours } = trace(crossing, { layering: 'stacked' });
    const of = (hex: string) => colours.find(({ colour }) => colour === hex)!.pieces;
    expect(of('#c9593f').map(({ tier }) => tier)).toEqual([0]);
    expect(of('#c9593f')[0]!.area / (150 * 14)).toBeCloseTo(1, 2);
    expect(of('#20344a').map(({ tier }) => tier)).toEqual([0, 0]);
    expect(of('#b88a3d').map(({ tier }) => tier)).toEqual([1, 1]);
    expect(of('#74b8b0').map(({ tier }) => tier)).toEqual([2]);
  });

  it('leave out what is not beneath: a mark apart from the rest lies on the ground', () => {
    const apart = painting(120, 60, '#f4efe2', [
      [[disc(30, 30, 20)], '#20344a'],
      [[disc(90, 30, 12)], '#c9593f'],
    ]);
    const stacked = trace(apart, { layering: 'stacked' });
    expect(stacked.colours.map(({ pieces }) => pieces.length)).toEqual([1, 1, 1]);
  });

  it('that are only in pieces too small to keep are counted', () => {
    const spotted = painting(120, 60, '#f4efe2', [
      [[disc(30, 30, 20)], '#20344a'],
      [[rectangle(80, 20, 5, 5)], '#c9593f'],
    ]);
    expect([trace(spotted).colours.length, trace(spotted).small]).toEqual([3, 0]);
    const kept = trace(spotted, { detail: 30 });
    expect([kept.colours.length, kept.seen, kept.small]).toEqual([2, 3, 1]);
  });

  it('are merged to a given number, or picked by hand', () => {
    const two = trace(FLAG, { count: 2 });
    expect([two.colours.length, two.seen]).toEqual([2, 4]);
    const picked = trace(FLAG, { picked: ['#f4efe2', '#20344a', '#c9593f'] });
    expect(picked.colours.map(({ colour }) => colour)).toContain('#c9593f');
    expect(picked.colours).toHaveLength(3);
  });

  it('are the same every time', () => {
    expect(trace(FLAG, { count: 3 }).colours).toEqual(trace(FLAG, { count: 3 }).colours);
  });

  it('keep what can be seen through apart', () => {
    const { width, height, data } = painting(80, 80, '#000000', [[[disc(40, 40, 20)], '#c9593f']]);
    const clear = data.slice();
    for (let i = 0; i < width * height; i++) {
      const red = data[4 * i]! / 201;
      clear.set([201, 89, 63, 255 * red], 4 * i);
    }
    const [only, ...others] = trace({ width, height, data: clear }).colours;
    expect(others).toEqual([]);
    expect(regionsArea(regionsFrom(trace({ width, height, data: clear }), 0))).toBeCloseTo(Math.PI * 400, -1);
    expect(only!.isGround).toBe(false);
  });
});

describe('tones', () => {
  it('are greys, as many as asked for, nested by what spans more', () => {
    const steps = painting(120, 120, '#ffffff', [
      [[rectangle(10, 10, 100, 100)], '#b0b0b0'],
      [[rectangle(25, 25, 70, 70)], '#707070'],
      [[rectangle(40, 40, 40, 40)], '#202020'],
    ]);
    const traced = trace(steps, { isGrey: true, layering: 'stacked' });
    expect(traced.colours.map(({ colour }) => colour)).toEqual(['#ffffff', '#b0b0b0', '#707070', '#202020']);
    for (const [i, side] of [120, 100, 70, 40].entries()) {
      expect(regionsArea(regionsFrom(traced, i))).toBeCloseTo(side * side, -1);
    }
    expect(trace(steps, { isGrey: true, count: 2 }).colours).toHaveLength(2);
  });
});

describe('whatever is painted', () => {
  const COLOURS = ['#20344a', '#c9593f', '#74b8b0', '#b88a3d', '#2f6f60'] as const;
  const scene = fc.array(
    fc.record({
      x: fc.integer({ min: 5, max: 75 }),
      y: fc.integer({ min: 5, max: 75 }),
      size: fc.integer({ min: 6, max: 40 }),
      corners: fc.integer({ min: 3, max: 9 }),
      colour: fc.integer({ min: 0, max: 4 }),
    }),
    { minLength: 1, maxLength: 7 },
  );
  const paint = (shapes: readonly { x: number; y: number; size: number; corners: number; colour: number }[]) =>
    painting(
      80,
      80,
      '#f4efe2',
      shapes.map(({ x, y, size, corners, colour }) => [
        [regularPolygon(corners, size, 0.3 * size, x, y)],
        COLOURS[colour]!,
      ]),
    );

  it('abutting colours share the sheet out: their areas add up to it', () => {
    fc.assert(
      fc.property(scene, (shapes) => {
        const traced = trace(paint(shapes), { detail: 0 });
        const total = traced.colours.reduce((sum, _, i) => sum + signedArea(traced, i), 0);
        // Shared boundaries cancel, whatever curves were fitted to them.
        expect(Math.abs(total - 6400)).toBeLessThan(1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it('a face of three pixels that is placed inside out is a piece all the same', () => {
    // Found among 1,500 scenes: the face between three others, at (33, 52), was taken for a hole and lost.
    const traced = trace(
      paint([
        { x: 8, y: 34, size: 33, corners: 9, colour: 1 },
        { x: 27, y: 18, size: 24, corners: 4, colour: 0 },
        { x: 31, y: 64, size: 11, corners: 7, colour: 2 },
        { x: 29, y: 14, size: 17, corners: 9, colour: 0 },
        { x: 73, y: 66, size: 25, corners: 4, colour: 0 },
        { x: 51, y: 71, size: 20, corners: 8, colour: 2 },
        { x: 40, y: 48, size: 7, corners: 8, colour: 3 },
      ]),
      { detail: 0 },
    );
    expect(traced.colours.reduce((sum, _, i) => sum + signedArea(traced, i), 0)).toBeCloseTo(6400, 6);
  });

  it('stacked pieces lie whole on one of the tier beneath', () => {
    fc.assert(
      fc.property(scene, (shapes) => {
        const traced = trace(paint(shapes), { layering: 'stacked' });
        const pieces = traced.colours.flatMap(({ pieces: own }) => own).filter(({ isGround }) => !isGround);
        const all = pieces.map((piece) => ({
          ...piece,
          regions: regionsOf(flatten(piece.path, 0.002), 'evenodd'),
        }));
        for (const { tier, regions } of all) {
          if (tier === 0) continue;
          const shared = all
            .filter((other) => other.tier === tier - 1)
            .map((other) => sharedArea(regions, other.regions));
          // Where two curves run into each other at a flat angle they may cross by a few hundredths of a pixel.
          expect(regionsArea(regions) - Math.max(...shared)).toBeLessThan(1);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('every ring is closed and runs with its colour on the right', () => {
    fc.assert(
      fc.property(scene, (shapes) => {
        for (const { pieces } of trace(paint(shapes), { detail: 0 }).colours) {
          for (const { path, area } of pieces) {
            expect(path[0]![0]).toBe('M');
            expect(path.at(-1)![0]).toBe('Z');
            expect(area).toBeGreaterThan(0);
            for (const segment of path) for (const v of segment.slice(1)) expect(Number.isFinite(v)).toBe(true);
          }
        }
      }),
      { numRuns: 40 },
    );
  });
});

// Rules of values: closed forms of each kind, and what holds for all of them.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withLengths } from '../base/quantities.ts';
import { RULE_KINDS, RuleBySchema, ruleKind, ruleValues } from './index.ts';
import type { Subject } from './kind.ts';

const subject = (id: string, change: Partial<Subject> = {}): Subject => ({
  id,
  lightness: 0.5,
  area: 1,
  centre: [0, 0],
  level: 0,
  nesting: 0,
  ...change,
});

describe('rules', () => {
  it('by order and by containment count levels: 1 : 2 : 3 where the step is the first value', () => {
    const stack = [0, 1, 2].map((level) => subject(`${level}`, { level, nesting: 2 - level }));
    expect(ruleValues({ kind: 'order', from: 1.5, step: 1.5 }, stack)).toEqual([1.5, 3, 4.5]);
    expect(ruleValues({ kind: 'containment', from: 4, step: -1 }, stack)).toEqual([2, 3, 4]);
  });

  it('by lightness go evenly from the darkest to the lightest', () => {
    const greys = [0.2, 0.7, 0.45].map((lightness, i) => subject(`${i}`, { lightness }));
    expect(ruleValues({ kind: 'lightness', from: 1, to: 6 }, greys)).toEqual([1, 6, 3.5]);
    expect(ruleValues({ kind: 'lightness', from: 6, to: 1 }, greys)).toEqual([6, 1, 3.5]);
  });

  it('by size go by the side of a square as large', () => {
    // Sides 1, 2 and 4.
    const squares = [1, 4, 16].map((area, i) => subject(`${i}`, { area }));
    expect(ruleValues({ kind: 'area', from: 0, to: 3 }, squares)).toEqual([0, 1, 3]);
  });

  it('by distance and along a line go by where the middles lie', () => {
    const places = (
      [
        [3, 4],
        [0, 0],
        [6, 8],
      ] as const
    ).map((centre, i) => subject(`${i}`, { centre }));
    expect(ruleValues({ kind: 'distance', from: 0, to: 10, at: [0, 0] }, places)).toEqual([5, 0, 10]);
    expect(ruleValues({ kind: 'along', from: 0, to: 6, towardsDeg: 0 }, places)).toEqual([3, 0, 6]);
    // Upwards 4, 0, 8; to the left the other way round.
    expect(ruleValues({ kind: 'along', from: 0, to: 8, towardsDeg: 90 }, places)).toEqual([
      expect.closeTo(4, 12),
      0,
      8,
    ]);
    expect(ruleValues({ kind: 'along', from: 0, to: 6, towardsDeg: 180 }, places)).toEqual([3, 6, 0]);
  });

  it('by a list go round', () => {
    const five = [0, 1, 2, 3, 4].map((i) => subject(`${i}`));
    expect(ruleValues({ kind: 'list', values: [2, 3] }, five)).toEqual([2, 3, 2, 3, 2]);
  });

  it('by chance are even, unlike for ids that are nearly alike, and stay when others come', () => {
    const many = Array.from({ length: 4000 }, (_, i) => subject(`layer-${i}`));
    const values = ruleValues({ kind: 'spread', from: 0, to: 1, seed: 7 }, many);
    expect(ruleValues({ kind: 'spread', from: 0, to: 1, seed: 7 }, many.slice(3).reverse())).toEqual(
      values.slice(3).reverse(),
    );
    // Pearson's test in 20 classes: 19 degrees of freedom, 43.8 is passed by chance once in a thousand (tables of chi squared).
    const chi = (all: readonly number[]) => {
      const counts = Array.from({ length: 20 }, () => 0);
      for (const v of all) counts[Math.min(19, Math.floor(20 * v))]!++;
      return counts.reduce((sum, count) => sum + (count - all.length / 20) ** 2 / (all.length / 20), 0);
    };
    expect(chi(values)).toBeLessThan(43.8);
    // Neighbours: differences of independent values are spread evenly too, once they are taken round.
    expect(chi(values.slice(1).map((v, i) => (v - values[i]! + 1) % 1))).toBeLessThan(43.8);
    expect(ruleValues({ kind: 'spread', from: 0, to: 1, seed: 8 }, many)).not.toEqual(values);
  });
});

const subjects = fc.array(
  fc.record({
    id: fc.string({ minLength: 1 }),
    lightness: fc.double({ min: 0, max: 1, noNaN: true }),
    area: fc.double({ min: 0, max: 1e6, noNaN: true }),
    centre: fc.tuple(fc.double({ min: -1e3, max: 1e3, noNaN: true }), fc.double({ min: -1e3, max: 1e3, noNaN: true })),
    level: fc.nat(20),
    nesting: fc.nat(20),
  }),
  { maxLength: 12 },
);

describe.each(RULE_KINDS.map(({ kind }) => kind))('the rule by %s', (name) => {
  const kind = ruleKind(name);
  const by = kind.start({ from: 2, to: 5 });

  it('begins with settings that its schema takes, and has a value for each layer, or for none', () => {
    expect(RuleBySchema.parse(by)).toEqual(by);
    fc.assert(
      fc.property(subjects, (all) => {
        const values = kind.values(by, all);
        expect(values).toHaveLength(all.length);
        expect(values.every(Number.isFinite)).toBe(true);
      }),
    );
  });

  it('means the same in another unit', () => {
    fc.assert(
      fc.property(subjects, (all) => {
        const inches = withLengths(RuleBySchema, by, (v) => v / 25.4);
        const places = all.map((each) => ({
          ...each,
          area: each.area / 25.4 ** 2,
          centre: [each.centre[0] / 25.4, each.centre[1] / 25.4] as const,
        }));
        const values = kind.values(by, all);
        for (const [i, v] of kind.values(inches, places).entries()) expect(v * 25.4).toBeCloseTo(values[i]!, 6);
      }),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { feetAndInches, lengthToMm, lengthToPx, parseLength, parseMeasure } from './units.ts';

describe('lengths', () => {
  it('reads numbers in any spelling', () => {
    expect(parseLength('12')).toEqual({ value: 12, unit: '' });
    expect(parseLength(' -.5e1PX ')).toEqual({ value: -5, unit: 'px' });
    expect(parseLength('50%')).toEqual({ value: 50, unit: '%' });
    expect(parseLength('auto')).toBeNull();
    expect(parseLength('1 2')).toBeNull();
  });

  // CSS Values and Units 4, §6.2: 1in = 2.54cm = 96px, 1cm = 10mm, 1Q = 1/40cm, 1pc = 1/6in, 1pt = 1/72in.
  it.each([
    ['1in', 96, 25.4],
    ['1cm', 96 / 2.54, 10],
    ['1mm', 9.6 / 2.54, 1],
    ['40q', 96 / 2.54, 10],
    ['6pc', 96, 25.4],
    ['72pt', 96, 25.4],
  ])('%s is %f px', (text, px, mm) => {
    const length = parseLength(text)!;
    expect(lengthToPx(length, 0)).toBeCloseTo(px, 10);
    expect(lengthToMm(length)).toBeCloseTo(mm, 10);
  });

  it('knows no physical size of px and plain numbers', () => {
    expect(lengthToMm(parseLength('10px')!)).toBeNull();
    expect(lengthToMm(parseLength('10')!)).toBeNull();
  });

  it('takes percentages of what it is told', () => {
    expect(lengthToPx(parseLength('25%')!, 80)).toBe(20);
  });
});

// 1 ft = 12 in = 0.3048 m exactly (NIST Special Publication 811, appendix B.8); ways of writing them are common practice.
describe('lengths as people write them', () => {
  it.each([
    ['12', 'mm', 12],
    ['3,5 m', 'mm', 3500],
    ['3.5m', 'cm', 350],
    ["12'", 'm', 3.6576],
    ['12\' 6"', 'in', 150],
    ['12′-6 1/2″', 'in', 150.5],
    ['12ft 6in', 'ft', 12.5],
    ["12' 6", 'ft', 12.5],
    ['6 1/2"', 'mm', 165.1],
    ['1/2', 'in', 0.5],
    ['-3', 'ft', -3],
    ['-1\' 6"', 'ft', -1.5],
    ['.5', 'm', 0.5],
  ] as const)('%s in %s is %f', (text, unit, value) => {
    expect(parseMeasure(text, unit)).toBeCloseTo(value, 9);
  });

  it.each(['', ' ', 'door', '12 furlongs', '6" 12\'', '3m 4m', '3 4', '1//2', "12' 6' "])('%j is none', (text) => {
    expect(parseMeasure(text, 'mm')).toBeNull();
  });

  it.each([
    [12.5, '12′ 6″'],
    [12 + 6.5 / 12, '12′ 6 1/2″'],
    [1 / 12, '1″'],
    [3 / 16 / 12, '3/16″'],
    [5, '5′'],
    [0, '0″'],
    [-1.5, '−1′ 6″'],
    [0.0333333, '0.4″'],
    [0.99999999, '1′'],
  ])('%f ft is %s', (feet, words) => {
    expect(feetAndInches(feet)).toBe(words);
  });

  it('come back from what is written to a thousandth of an inch', () => {
    fc.assert(
      fc.property(fc.double({ min: -500, max: 500, noNaN: true }), (feet) => {
        const back = parseMeasure(feetAndInches(feet), 'ft')!;
        expect(Math.abs(back - feet) * 12).toBeLessThan(5.1e-3);
      }),
      { numRuns: 1000 },
    );
  });
});

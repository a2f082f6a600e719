import { describe, expect, it } from 'vitest';
import { feetAndInches, lengthToMm, lengthToPx, parseLength } from './units.ts';

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

describe('feet and inches', () => {
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
  ])('%f ft are written as %s', (feet, words) => {
    expect(feetAndInches(feet)).toBe(words);
  });
});

// Numbers on screen.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calculate } from '../core/index.ts';
import { countOf, exactNumber, formatBytes, formatCount, formatNumber } from './format.ts';

describe('numbers', () => {
  it.each([
    [0, '0'],
    [-0.00000001, '-0.00000001'],
    [0.001929, '0.0019'],
    [0.05, '0.05'],
    [0.83333333, '0.833'],
    [12.34567, '12.346'],
    [-123.456, '-123.46'],
    [1234.56, '1\u202f234.6'],
    [29348.5, '29\u202f349'],
    [1e6, '1\u202f000\u202f000'],
  ])('%d is written %s', (value, text) => {
    expect(formatNumber(value)).toBe(text);
  });

  it('are near what they stand for, and can be typed as they are shown', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), (value) => {
        const read = calculate(formatNumber(value), { unit: null });
        expect(read.ok && Math.abs(read.value - value)).toBeLessThanOrEqual(Math.max(0.05 * value, 0) + 1e-12);
        const exact = calculate(exactNumber(value), { unit: null });
        expect(exact.ok && Math.abs(exact.value - value)).toBeLessThanOrEqual(1e-7 * value);
      }),
    );
  });

  it('count things and bytes', () => {
    expect(formatCount(29348)).toBe('29\u202f348');
    expect(countOf(1, 'layer')).toBe('1 layer');
    expect(countOf(12000, 'face')).toBe('12\u202f000 faces');
    expect(formatBytes(12_345)).toBe('12.3\u00a0kB');
    expect(formatBytes(12_345_678)).toBe('12.35\u00a0MB');
  });
});

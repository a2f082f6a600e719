// Numbers as people type them. Sums are checked against the language's own arithmetic.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Asked, calculate } from './arithmetic.ts';
import { feetAndInches } from './units.ts';

const value = (text: string, asked: Asked) => {
  const answer = calculate(text, asked);
  if (!answer.ok) throw new Error(answer.message);
  return answer.value;
};
const refusal = (text: string, asked: Asked) => {
  const answer = calculate(text, asked);
  return answer.ok ? `${answer.value}` : answer.message;
};
const MM: Asked = { unit: 'mm' };
const PLAIN: Asked = { unit: null };

// 1 ft = 12 in = 0.3048 m exactly (NIST Special Publication 811, appendix B.8); ways of writing them are common practice.
describe('what is typed', () => {
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
    ['½', 'in', 0.5],
    ['1/2 in', 'mm', 12.7],
    ['12/6/2', 'mm', 1],
    ['1/2.5', 'mm', 0.4],
    ['6½"', 'mm', 165.1],
    ['1 000', 'mm', 1000],
    ['1\u202f234,5', 'mm', 1234.5],
    ['1e1', 'mm', 10],
    ['2.5e-1 m', 'mm', 250],
    ['-3', 'ft', -3],
    ['−3', 'ft', -3],
    ['.5', 'm', 0.5],
    ['3*4', 'mm', 12],
    ['3 × 4 + 1', 'mm', 13],
    ['2 * (3 + 4) / 7', 'mm', 2],
    ['2 in / 4', 'mm', 12.7],
    ['1 in + 1', 'mm', 26.4],
    ['1 m - 2 cm', 'mm', 980],
    ['12 ft - 6 in', 'in', 138],
    ['10 in / 5 in', 'mm', 2],
    ['-(1 + 2)', 'mm', -3],
  ] as const)('%s in %s is %f', (text, unit, expected) => {
    expect(value(text, { unit })).toBeCloseTo(expected, 9);
  });

  it('may call other values by their word, and take shares', () => {
    const asked: Asked = { unit: 'mm', whole: 40, words: { depth: 6 } };
    expect(value('depth/30', asked)).toBeCloseTo(0.2, 12);
    expect(value('Depth + 1 cm', asked)).toBe(16);
    expect(value('5 %', asked)).toBe(2);
    expect(value('50% + 1', asked)).toBe(21);
    // A field in per cent has no share to take.
    expect(value('5 %', PLAIN)).toBe(5);
    expect(value('45°', PLAIN)).toBe(45);
  });

  it.each([
    ['', MM, 'A number is asked for.'],
    ['door', MM, '“door” is not known here.'],
    ['dept/3', { unit: 'mm', words: { depth: 1 } }, '“dept” is not known here. Words that can be used: depth.'],
    ['12 furlongs', MM, '“furlongs” is no unit that is known here: mm, cm, m, in, ft.'],
    ['3 ** 4', MM, '“3 ** 4” cannot be read from “* 4” on.'],
    ['3 *', MM, '“3 *” cannot be read: it ends too soon.'],
    ['3 4', MM, '“3 4” cannot be read from “4” on.'],
    ['3m 4m', MM, '“3m 4m” cannot be read from “4m” on.'],
    ['6" 12\'', MM, "“6\" 12'” cannot be read from “12'” on."],
    ["12' 6'", MM, "“12' 6'” cannot be read from “6'” on."],
    ['(1 + 2', MM, 'A bracket of “(1 + 2” is not closed.'],
    ['1/0', MM, 'Nothing can be divided by 0.'],
    ['3 / (2 - 2)', MM, 'Nothing can be divided by 0.'],
    ['2 mm * 3 mm', MM, 'A length times a length is an area.'],
    ['3 / 2 mm', MM, 'A number cannot be divided by a length.'],
    ['5 mm', PLAIN, '“5 mm” is a length, and none is asked for here.'],
    ['5 %', { unit: 'mm', whole: null }, '“5 %” is a share of nothing here.'],
    ['9e999', MM, '“9e999” is no finite number.'],
    ['constructor', { unit: 'mm', words: {} }, '“constructor” is not known here.'],
  ] as const)('%j is refused in a sentence', (text, asked, sentence) => {
    expect(refusal(text, asked)).toBe(sentence);
  });

  it('is what the language makes of any sum', () => {
    const sum = fc.letrec<{ sum: string }>((tie) => ({
      sum: fc.oneof(
        { maxDepth: 4 },
        fc.integer({ min: 1, max: 99 }).map(String),
        fc.tuple(tie('sum'), fc.constantFrom('+', '-', '*'), tie('sum')).map(([a, o, b]) => `(${a} ${o} ${b})`),
        tie('sum').map((inside) => `-${inside.startsWith('-') ? `(${inside})` : inside}`),
      ),
    })).sum;
    fc.assert(
      fc.property(sum, (text) => {
        // biome-ignore lint/security/noGlobalEval: the language itself is the reference here
        expect(value(text, MM)).toBeCloseTo(eval(text), 6);
      }),
      { numRuns: 500 },
    );
  });

  it('comes back from feet and inches as they are written', () => {
    fc.assert(
      fc.property(fc.double({ min: -500, max: 500, noNaN: true }), (feet) => {
        expect(Math.abs(value(feetAndInches(feet), { unit: 'ft' }) - feet) * 12).toBeLessThan(5.1e-3);
      }),
    );
  });
});

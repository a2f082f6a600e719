// Caches bounded by bytes: what is kept, what goes, and that nothing the size of a project is forgotten for its number.
import { describe, expect, it } from 'vitest';
import { bytesOf } from './bytes.ts';
import { Budget, Memo } from './memo.ts';

describe('bytes of a value', () => {
  it('are those of its arrays, its texts and its parts', () => {
    const plain = bytesOf({ a: 1, b: true });
    expect(bytesOf(new Float64Array(1000))).toBeGreaterThanOrEqual(8000);
    expect(bytesOf(new Float64Array(1000))).toBeLessThan(8100);
    expect(bytesOf('x'.repeat(500))).toBeGreaterThanOrEqual(1000);
    expect(bytesOf({ a: 1, b: new Uint8Array(100) })).toBeGreaterThanOrEqual(plain + 100);
    expect(bytesOf(new Map([['key', new Uint8Array(300)]]))).toBeGreaterThan(300);
    expect([bytesOf(null), bytesOf(undefined), bytesOf(7), bytesOf(() => 7)]).toEqual([0, 0, 0, 0]);
  });
});

describe('a memo', () => {
  const block = () => new Uint8Array(1000);

  it('makes each value once', () => {
    const memo = new Memo<number>(new Budget(1e6));
    let made = 0;
    const value = () => memo.get('k', () => ++made);
    expect([value(), value(), memo.has('k'), memo.has('other')]).toEqual([1, 1, true, false]);
  });

  it('remembers no throw', () => {
    const memo = new Memo<number>(new Budget(1e6));
    expect(() =>
      memo.get('k', () => {
        throw new Error('no');
      }),
    ).toThrow('no');
    expect(memo.get('k', () => 3)).toBe(3);
  });

  it('holds any number of small values', () => {
    const memo = new Memo<number[]>(new Budget(1e7));
    for (let i = 0; i < 10_000; i++) memo.set(`layer ${i}`, [i]);
    expect(memo.has('layer 0')).toBe(true);
  });

  it('lets go of what was used longest ago, across memos, and keeps what is used', () => {
    const budget = new Budget(5000);
    const [a, b] = [new Memo<Uint8Array>(budget), new Memo<Uint8Array>(budget)];
    for (const key of ['1', '2']) a.set(key, block());
    for (const key of ['1', '2']) b.set(key, block());
    a.get('1', block);
    b.set('3', block());
    expect([a.has('1'), a.has('2'), b.has('1'), b.has('2'), b.has('3')]).toEqual([true, false, true, true, true]);
    expect(budget.bytes).toBeLessThanOrEqual(5000);
  });

  it('keeps one value that is larger than all it may hold, and counts one that is replaced once', () => {
    const budget = new Budget(500);
    const memo = new Memo<Uint8Array>(budget);
    memo.set('large', block());
    expect(memo.has('large')).toBe(true);
    const { bytes } = budget;
    memo.set('large', block());
    expect(budget.bytes).toBe(bytes);
    memo.set('small', new Uint8Array(1));
    expect([memo.has('large'), memo.has('small')]).toEqual([false, true]);
  });
});

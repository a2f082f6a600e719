// Ends of lines: which are paired, and that what is joined runs as its first line does, however many there are.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePath } from '../path/parse.ts';
import { printPath } from '../path/print.ts';
import { numbersFrom } from '../testing/plans.ts';
import { gapsBetween, joinEnds, type LooseEnd, looseEnds } from './ends.ts';

const end = (x: number, y: number, path: number): LooseEnd => ({ path, contour: 0, atStart: true, x, y });
const joined = (most: number, ...ds: string[]) => {
  const paths = ds.map((d) => parsePath(d).path);
  return joinEnds(paths, gapsBetween(looseEnds(paths), most)).map((path) => printPath(path, 6));
};

describe('gaps between ends', () => {
  it('are those of the nearest pairs first, no end twice: as if all pairs were sorted', () => {
    const number = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(fc.array(fc.tuple(number, number), { maxLength: 40 }), number, (places, most) => {
        const ends = places.map(([x, y], i) => end(x, y, i));
        const pairs = ends.flatMap((a, i) =>
          ends.slice(i + 1).map((b) => ({ a, b, size: Math.hypot(a.x - b.x, a.y - b.y) })),
        );
        pairs.sort((p, q) => p.size - q.size || p.a.path - q.a.path || p.b.path - q.b.path);
        const used = new Set<LooseEnd>();
        const wanted = pairs.filter(({ a, b, size }) => {
          if (size > most || used.has(a) || used.has(b)) return false;
          used.add(a).add(b);
          return true;
        });
        const key = ({ a, b }: { a: LooseEnd; b: LooseEnd }) => `${a.path} ${b.path}`;
        expect(gapsBetween(ends, most).map(key).sort()).toEqual(wanted.map(key).sort());
      }),
      { numRuns: 500 },
    );
  });
});

describe('lines joined at their ends', () => {
  it('run as the first of them does', () => {
    expect(joined(0.1, 'M10 0L20 0', 'M10 0L0 0', 'M30 0L20 0')).toEqual(['M0 0L10 0L20 0L30 0', '', '']);
  });

  it('close where they come round to where they began', () => {
    expect(joined(0.1, 'M0 0L10 0', 'M10 10L10 0', 'M10 10L0 0')).toEqual(['M0 0L10 0L10 10Z', '', '']);
    expect(joined(5, 'M0 0L0 3L3 3L3 0')).toEqual(['M0 0L0 3L3 3L3 0Z']);
  });

  it('are one line of a hundred thousand, in whatever order they come', () => {
    const count = 100_000;
    const random = numbersFrom(7);
    const order = Array.from({ length: count }, (_, i) => i);
    for (let i = count - 1; i > 0; i--) {
      const k = Math.floor(random() * (i + 1));
      [order[i], order[k]] = [order[k]!, order[i]!];
    }
    const paths = order.map((i) => parsePath(random() < 0.5 ? `M${i} 0L${i + 1} 0` : `M${i + 1} 0L${i} 0`).path);
    const all = joinEnds(paths, gapsBetween(looseEnds(paths), 0.1)).filter((path) => path.length > 0);
    expect(all).toHaveLength(1);
    expect(all[0]).toHaveLength(count + 1);
  });
});

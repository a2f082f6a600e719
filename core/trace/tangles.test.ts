// No outlines of a trace cross, however narrow and noisy what they follow: told by the check that looks at any drawing.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkOutlines } from '../check/check.ts';
import { prepare } from '../picture/prepare.ts';
import type { Picture } from '../picture/types.ts';
import { noisy, painting, softened } from '../testing/pictures.ts';
import { TRACE_DEFAULTS } from './settings.ts';
import { tanglesIn } from './tangles.ts';
import { trace } from './trace.ts';

const COLOURS = ['#20344a', '#c9593f', '#e7b75f', '#2f6f60', '#b8cbd0'];

/** Spokes that taper from a few pixels to none, over each other. */
function spokes(turns: readonly number[], width: number): Picture {
  return painting(
    128,
    96,
    '#f4efe2',
    turns.map((turn, i) => {
      const [x, y] = [Math.cos(turn), Math.sin(turn)];
      const [cx, cy] = [64 - 40 * x, 48 - 30 * y];
      const ring = Float64Array.of(
        cx - width * y,
        cy + width * x,
        cx + width * y,
        cy - width * x,
        64 + 44 * x,
        48 + 34 * y,
      );
      return [[ring], COLOURS[i % COLOURS.length]!];
    }),
  );
}

const kindsIn = (picture: Picture) => {
  const { drawing } = trace(prepare(picture, []), { ...TRACE_DEFAULTS, mode: 'colours' });
  return checkOutlines(drawing, new Set(drawing.ground)).map(({ kind }) => kind);
};

describe('a trace', () => {
  it('has no outlines that cross, are dust or lie on their own colour', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: Math.PI, noNaN: true }), { minLength: 3, maxLength: 7 }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.constantFrom(0, 0.7, 1.5),
        fc.constantFrom(0, 6, 12),
        (turns, width, blur, grain) => {
          const kinds = kindsIn(noisy(softened(spokes(turns, width), blur), grain));
          for (const kind of ['crossing', 'dust', 'overlap', 'point'] as const) expect(kinds).not.toContain(kind);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('tangles', () => {
  const line = (...points: readonly (readonly [number, number])[]) => ({
    start: { x: points[0]![0], y: points[0]![1] },
    segments: points.slice(1).map(([x, y]) => ['L', x, y] as const),
  });

  it('are where two stretches or two parts of one pass through each other, not where they share an end', () => {
    const [first, second] = [line([0, 0], [10, 10]), line([10, 10], [20, 0])];
    expect(tanglesIn([first, second], 0.01)).toEqual([]);
    const across = tanglesIn([first, line([0, 4], [10, 4])], 0.01);
    expect(across[0]).toEqual({ at: { x: 4, y: 4 }, edges: [0, 1] });
    const own = tanglesIn([line([0, 0], [10, 0], [10, 5], [5, 5], [5, -5])], 0.01);
    expect(own[0]).toEqual({ at: { x: 5, y: 0 }, edges: [0, 0] });
  });
});

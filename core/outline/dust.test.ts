// What is smaller than the tolerance is left out, and never decides how thin strokes are.
import { describe, expect, it } from 'vitest';
import { Evaluator } from '../evaluate/evaluator.ts';
import { readVector } from '../formats/vector.ts';
import { projectOf } from '../testing/projects.ts';
import { rectangle } from '../testing/shapes.ts';
import { isDust, withoutDust } from './dust.ts';
import { narrowest } from './width.ts';

describe('dust', () => {
  it('is what is smaller than a square of the tolerance, or thinner than half of it', () => {
    expect(isDust(rectangle(0, 0, 0.9, 0.9), 1)).toBe(true);
    expect(isDust(rectangle(0, 0, 1.1, 1.1), 1)).toBe(false);
    expect(isDust(rectangle(0, 0, 100, 0.49), 1)).toBe(true);
    expect(isDust(rectangle(0, 0, 100, 0.6), 1)).toBe(false);
  });

  it('goes, also from holes, but not where it is all there is', () => {
    const [large, speck] = [rectangle(0, 0, 10, 10), rectangle(20, 0, 0.1, 0.1)];
    const hole = rectangle(3, 3, 0.1, 0.1).reverse();
    for (let i = 0; i < hole.length; i += 2) [hole[i], hole[i + 1]] = [hole[i + 1]!, hole[i]!];
    const kept = withoutDust(
      [
        { outer: large, holes: [hole] },
        { outer: speck, holes: [] },
      ],
      0.5,
    );
    expect(kept).toEqual([{ outer: large, holes: [] }]);
    expect(withoutDust([{ outer: speck, holes: [] }], 0.5)).toHaveLength(1);
  });
});

describe('a touch that is thinner than the tolerance', () => {
  it('is not called the thinnest stroke', () => {
    // Two squares that a neck of a thousandth joins.
    const outer = Float64Array.of(
      0,
      0,
      10,
      0,
      10,
      4.9995,
      11,
      4.9995,
      11,
      0,
      21,
      0,
      21,
      10,
      11,
      10,
      11,
      5.0005,
      10,
      5.0005,
      10,
      10,
      0,
      10,
    );
    expect(narrowest({ outer, holes: [] }).thin[0].halfWidth).toBeCloseTo(0.0005, 6);
    expect(narrowest({ outer, holes: [] }, Infinity, 0.01).thin[0].halfWidth).toBeGreaterThan(1);
  });
});

describe('a drawing of 100 mm with details of 0.0003 mm', () => {
  it('is built without them: no triangle is as small, and the thinnest stroke is one that is seen', () => {
    const specks = Array.from({ length: 20 }, (_, i) => `M${5 + 4 * i} 70h.0003v.0003h-.0003z`).join('');
    const drawing = readVector(
      `<svg viewBox="0 0 100 80"><path fill="#204060" d="M0 0h100v40h-100z M20 10v.0003h.0003v-.0003z ${specks}"/></svg>`,
    );
    const { project } = projectOf(drawing);
    const evaluator = new Evaluator({ content: () => drawing });
    const [layer] = project.layers;
    const { regions } = evaluator.outlines(project, layer!);
    expect(regions.map(({ holes }) => holes.length)).toEqual([0]);
    expect(2 * evaluator.width(project, layer!)!.thin[0].halfWidth).toBeCloseTo(40, 3);
    expect(layer!.build).toMatchObject({ edge: { reach: 0.8 } });
  });
});

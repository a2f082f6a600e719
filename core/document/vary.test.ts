// Variants: documents with one value or two set, made without touching the one they are variants of.
import { describe, expect, it } from 'vitest';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import { ProjectSchema } from './schema.ts';
import { startValues, VARIED, variant } from './vary.ts';

const DRAWING =
  '<svg viewBox="0 0 90 60"><rect width="60" height="40" fill="#204060"/><circle cx="50" cy="30" r="20" fill="#c33"/></svg>';
const { project, evaluator } = projectOf(readSvg(DRAWING), { depth: 4 });
const layers = project.layers.map(({ id }) => id);

describe('a value that is varied', () => {
  it.each(VARIED.map((varied) => [varied.word, varied] as const))(
    '%s: starts with values that make valid documents, each another',
    (_, varied) => {
      const values = startValues(varied, project.layers);
      expect(values.length).toBeGreaterThanOrEqual(2);
      const made = values.map((value) => variant(project, layers, [{ varied, value }]));
      for (const each of made) expect(ProjectSchema.parse(each)).toEqual(each);
      expect(new Set(made.map((each) => JSON.stringify(each.layers))).size).toBe(values.length);
      if (varied.is !== 'choice') {
        for (const [i, each] of made.entries()) expect(varied.of(each.layers[0]!)).toBe(values[i]);
      }
    },
  );

  it('leaves the document as it is, and what nobody varies in the variant', () => {
    const before = JSON.stringify(project);
    const depth = VARIED.find(({ id }) => id === 'depth')!;
    const gold = VARIED.find(({ id }) => id === 'material')!;
    const made = variant(
      project,
      [layers[1]!],
      [
        { varied: depth, value: 9 },
        { varied: gold, value: 'gold' },
      ],
    );
    expect(JSON.stringify(project)).toBe(before);
    expect(made.layers[0]).toBe(project.layers[0]);
    expect(made.layers[1]!.material.metalness).toBe(1);
    expect(
      evaluator
        .mesh(made, made.layers[1]!)
        .mesh.positions.filter((_, i) => i % 3 === 2)
        .reduce((a, b) => Math.max(a, b)),
    ).toBe(9);
  });

  it('of glass is as thick as the library says, whatever the unit', () => {
    const material = VARIED.find(({ id }) => id === 'material')!;
    const made = variant({ ...project, unit: 'cm' }, layers, [{ varied: material, value: 'glass' }]);
    // 2 mm.
    expect(made.layers[0]!.material.thickness).toBeCloseTo(0.2, 9);
  });

  it('that makes no valid document is refused with the reason', () => {
    const depth = VARIED.find(({ id }) => id === 'depth')!;
    expect(() => variant(project, layers, [{ varied: depth, value: -3 }])).toThrow(/The change was not made/);
  });
});

// Outlines written and read back, on the demo's patch and on an open set of icons.
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { applyCommand } from '../document/commands.ts';
import { Evaluator, NO_DATA } from '../document/evaluate.ts';
import { emptyProject, type Project } from '../document/schema.ts';
import { arrange } from '../sources/arrange.ts';
import { OUTLINE_FORMATS, readBackOutlines, writeOutlines } from './outlines.ts';
import { readVector } from './vector.ts';

function projectOf(text: string): { project: Project; evaluator: Evaluator } {
  let ids = 0;
  const drawing = readVector(text);
  const { placement, layers } = arrange(drawing, 's', {
    unit: 'mm',
    tolerance: 0.01,
    size: 90,
    newId: () => `l${++ids}`,
  });
  const source = { id: 's', kind: 'vector' as const, name: 's', asset: '0'.repeat(64), edits: [], ...placement };
  const project = applyCommand(emptyProject('Out'), { do: 'add-source', source, layers: [...layers] });
  const evaluator = new Evaluator(NO_DATA);
  evaluator.adopt(source, drawing);
  return { project, evaluator };
}

describe.each(OUTLINE_FORMATS)('outlines as %s', (format) => {
  it('of the patch come back the same, in millimetres, a group or layer for each layer', () => {
    const { project, evaluator } = projectOf(readFileSync('demo/patch.svg', 'utf8'));
    const groups = evaluator.outlineGroups(project);
    const file = writeOutlines(groups, format, 1);
    const read = readBackOutlines(file, groups, format, 1);
    expect(read.rows.filter(({ same }) => !same)).toEqual([]);
    expect(read.rows.find(({ what }) => what === 'layers')!.built).toBe(String(groups.length));
    expect(Number(read.rows.find(({ what }) => what === 'width')!.read)).toBeCloseTo(90, 3);
    const text = new TextDecoder().decode(file.bytes);
    expect(readVector(text).mmPerUnit).toBeCloseTo(format === 'svg' ? 25.4 / 96 : 1, 6);
  });

  it('of icons come back the same', () => {
    const folder = new URL('../../node_modules/@mdi/svg/svg/', import.meta.url);
    const names = readdirSync(folder).filter((_, i) => i % 250 === 0);
    expect(names.length).toBeGreaterThan(25);
    for (const name of names) {
      const { project, evaluator } = projectOf(readFileSync(new URL(name, folder), 'utf8'));
      const groups = evaluator.outlineGroups(project);
      const { rows } = readBackOutlines(writeOutlines(groups, format, 1), groups, format, 1);
      expect(
        rows.filter(({ same }) => !same),
        name,
      ).toEqual([]);
    }
  });
});

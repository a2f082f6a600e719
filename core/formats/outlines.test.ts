// Outlines written and read back, on the demo's patch and on an open set of icons.
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { projectOf as projectOfDrawing } from '../testing/projects.ts';
import { OUTLINE_FORMATS } from './facts.ts';
import { outlineFormat } from './index.ts';
import { readBackOutlines, writeOutlines } from './read-back.ts';
import { readVector } from './vector.ts';

const projectOf = (text: string) => projectOfDrawing(readVector(text), { size: 90 });

describe.each([...OUTLINE_FORMATS])('outlines as %s', (id) => {
  const format = outlineFormat(id);

  it('of the patch come back the same, in millimetres, a group or layer for each layer', () => {
    const { project, evaluator } = projectOf(readFileSync('demo/patch.svg', 'utf8'));
    const groups = evaluator.outlineGroups(project);
    const file = writeOutlines(format, groups, 1);
    const read = readBackOutlines(format, file, groups, 1);
    expect(read.rows.filter(({ same }) => !same)).toEqual([]);
    expect(read.rows.find(({ what }) => what === 'layers')!.built).toBe(String(groups.length));
    expect(Number(read.rows.find(({ what }) => what === 'width')!.read)).toBeCloseTo(90, 3);
    const text = new TextDecoder().decode(file[format.extension]!);
    expect(readVector(text).mmPerUnit).toBeCloseTo(id === 'svg' ? 25.4 / 96 : 1, 6);
  });

  it('of icons come back the same', () => {
    const folder = new URL('../../bench/sets/node_modules/@mdi/svg/svg/', import.meta.url);
    const names = readdirSync(folder).filter((_, i) => i % 250 === 0);
    expect(names.length).toBeGreaterThan(25);
    for (const name of names) {
      const { project, evaluator } = projectOf(readFileSync(new URL(name, folder), 'utf8'));
      const groups = evaluator.outlineGroups(project);
      const { rows } = readBackOutlines(format, writeOutlines(format, groups, 1), groups, 1);
      expect(
        rows.filter(({ same }) => !same),
        name,
      ).toEqual([]);
    }
  });
});

// What a step is called.
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { applyCommand, type Command, type Edit, type Project, readSvg, UNPLACED } from '../../core/index.ts';
import { projectOf } from '../../core/testing/projects.ts';
import { stepWords } from './step-words.ts';

const { project } = projectOf(readSvg(readFileSync('demo/patch.svg', 'utf8')));
const [night, marsh] = project.layers as [Project['layers'][0], Project['layers'][0]];
const edit: Edit = { id: 'e1', on: true, action: { do: 'remove', shapes: ['night'] } };
const source = project.sources[0]!;
const change = (layers: readonly string[], part: object): Command =>
  ({ do: 'change-layers', layers, change: part }) as Command;

describe('steps in words', () => {
  it.each<[string, Command]>([
    ['Renamed to Sign', { do: 'rename-project', name: 'Sign' }],
    ['Unit: in', { do: 'set-unit', unit: 'in' }],
    ['Tolerance of curves', { do: 'set-tolerance', tolerance: 0.5 }],
    [`Depth of ${night.name}`, change([night.id], { build: { depth: 77 } })],
    ['Base of 2 layers', change([night.id, marsh.id], { base: 9 })],
    [`Edge of ${night.name}`, change([night.id], { build: { edge: { steps: 9 } } })],
    [`Material of ${night.name}`, change([night.id], { material: { roughness: 0.11 } })],
    [`${marsh.name} left out`, change([marsh.id], { shown: false })],
    ['Order of the layers', { do: 'reorder', moved: [night.id], into: null, on: project.layers[3]!.id }],
    ['Birds grouped', { do: 'group', id: 'g', name: 'Birds', layers: [night.id, marsh.id], groups: [] }],
    [
      `Placement of ${night.name}`,
      { do: 'place', places: [{ id: night.id, placement: { ...UNPLACED, turn: [0, 90, 0] } }] },
    ],
    [`Lock of ${night.name}`, change([night.id], { locked: true })],
    [`${night.name} removed`, { do: 'remove-layer', layer: night.id }],
    [`${source.name}: size`, { do: 'scale-source', source: source.id, scale: 9 }],
    [`${source.name} taken out`, { do: 'remove-source', source: source.id }],
    [`${source.name}: Remove`, { do: 'change-source', source: { ...source, edits: [edit] }, layers: [] }],
  ])('%s', (words, command) => {
    expect(stepWords(project, applyCommand(project, command))).toBe(words);
  });
});

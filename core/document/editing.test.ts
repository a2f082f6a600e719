// Edits in the document: layers follow them, they can be done again from the document alone, and survive other sources.
import { describe, expect, it } from 'vitest';
import type { Edit, EditAction } from '../edits/schema.ts';
import { Evaluator } from '../evaluate/evaluator.ts';
import { readVector } from '../formats/vector.ts';
import { regionsArea } from '../outline/measure.ts';
import { projectOf, wishesOf } from '../testing/projects.ts';
import { applyCommand } from './commands/index.ts';
import { changeEdits, moveMembers } from './editing.ts';
import { readProject } from './migrate.ts';
import type { Project } from './schema.ts';

const SVG = `<svg viewBox="0 0 100 100"><g>
  <rect id="red" fill="#cc0000" width="40" height="40"/>
  <rect id="blue" fill="#0000cc" x="20" y="20" width="40" height="40"/>
  <path id="blues" fill="#0000cc" d="M70 0h10v10h-10z M85 0h10v10h-10z"/></g></svg>`;

const evaluator = (text = SVG) => new Evaluator({ content: () => readVector(text) });

let ids = 0;
const options = wishesOf({ newId: () => `new-${++ids}` });

const start = (): Project => projectOf(readVector(SVG)).project;

function withEdits(project: Project, edits: Edit[], target: string | null = null): Project {
  const source = project.sources[0]!;
  const own = evaluator();
  const [before, after] = [own.drawing(source), own.drawing({ ...source, edits })];
  const { gone, layers, source: edited } = changeEdits(project, source, edits, before, after, options, target);
  return applyCommand(project, { do: 'change-source', source: edited, layers: [...layers], gone: [...gone] });
}

const edit = (id: string, action: EditAction, on = true): Edit => ({ id, on, action });
const members = (project: Project) => project.layers.map((layer) => [...layer.members]);
const area = (project: Project) =>
  project.layers.reduce((sum, layer) => sum + regionsArea(evaluator().outlines(project, layer).regions), 0);

const UNITE = edit('u', { do: 'combine', how: 'union', shapes: ['#red', '#blue', '#blues'] });

describe('layers', () => {
  it('lose what an edit takes, and go when nothing is left of them', () => {
    const project = start();
    expect(members(project)).toEqual([['#red'], ['#blue', '#blues']]);
    const united = withEdits(project, [UNITE]);
    expect(members(united)).toEqual([['#red']]);
    expect(area(united)).toBeCloseTo(2 * 1600 - 400 + 200, 2);
  });

  it('get their shapes back when the edit is switched off', () => {
    const united = withEdits(start(), [edit('u', { do: 'combine', how: 'union', shapes: ['#blue', '#blues'] })]);
    expect(members(united)).toEqual([['#red'], ['#blue']]);
    const back = withEdits(united, [{ ...united.sources[0]!.edits[0]!, on: false }]);
    expect(members(back)).toEqual([['#red'], ['#blue', '#blues']]);
    expect(area(back)).toBeCloseTo(area(start()), 6);
  });

  it('take in what is made of their shapes, beside those', () => {
    const project = withEdits(start(), [edit('s', { do: 'separate', shapes: ['#blues'] })]);
    expect(members(project)).toEqual([['#red'], ['#blue', '#blues', '#blues/s.1']]);
    const gone = withEdits(project, []);
    expect(members(gone)).toEqual([['#red'], ['#blue', '#blues']]);
  });

  it('are made for shapes that are drawn, unless a layer was chosen for them', () => {
    const shape = { id: 'pen-1', name: 'bar', d: 'M0 80H50V90H0Z', colour: '#00aa55', stroke: null };
    const draw = edit('d', { do: 'draw', shapes: [shape] });
    const alone = withEdits(start(), [draw]);
    expect(alone.layers.at(-1)).toMatchObject({ members: ['pen-1'], material: { colour: '#00aa55' } });
    const project = start();
    expect(members(withEdits(project, [draw], project.layers[0]!.id))[0]).toEqual(['#red', 'pen-1']);
  });

  it('keep their recipe while their outlines change', () => {
    const project = start();
    const [red] = project.layers;
    const deep = applyCommand(project, { do: 'change-layers', layers: [red!.id], change: { build: { depth: 7 } } });
    expect(withEdits(deep, [UNITE]).layers[0]).toMatchObject({ id: red!.id, build: { depth: 7 } });
  });

  it('exchange shapes', () => {
    const project = start();
    const [red, blue] = project.layers;
    const layers = moveMembers(project, ['#blues'], red!.id);
    expect(layers.map((layer) => [layer.id, layer.members])).toEqual([
      [red!.id, ['#red', '#blues']],
      [blue!.id, ['#blue']],
    ]);
  });
});

describe('the document', () => {
  it('holds all that is needed to do its edits again', () => {
    const edits = [
      UNITE,
      edit('g', { do: 'grow', shapes: ['#red'], by: 2, join: 'round' }),
      edit('o', { do: 'remove', shapes: ['#red'] }, false),
    ];
    const project = withEdits(start(), edits);
    const copy = readProject(JSON.parse(JSON.stringify(project)));
    const own = evaluator();
    expect(own.drawing(copy.sources[0]!)).toEqual(evaluator().drawing(project.sources[0]!));
    expect(area(copy)).toBe(area(project));
    expect(own.edited(copy.sources[0]!).outcomes.map(({ id }) => id)).toEqual(['u', 'g']);
  });

  it('keeps edits whose shapes another file does not have, and names what is missing', () => {
    const project = withEdits(start(), [UNITE, edit('g', { do: 'grow', shapes: ['#red'], by: 2, join: 'round' })]);
    const other = evaluator(SVG.replace('id="blue"', 'id="teal"'));
    const { outcomes, drawing } = other.edited(project.sources[0]!);
    expect(outcomes.map(({ missing }) => missing)).toEqual([['#blue'], []]);
    expect(drawing.shapes.map(({ id }) => id)).toEqual(['#red', '#teal']);
  });

  it('does only what is new when an edit is added', () => {
    const own = evaluator();
    const source = start().sources[0]!;
    const one = own.edited({ ...source, edits: [UNITE] });
    const two = own.edited({
      ...source,
      edits: [UNITE, edit('m', { do: 'move', shapes: ['#red'], matrix: [1, 0, 0, 1, 5, 0] })],
    });
    expect(two.outcomes[0]).toBe(one.outcomes[0]);
  });
});

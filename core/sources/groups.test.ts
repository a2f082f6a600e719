// Groups of a drawing become groups of the stack, as far as they tell anything apart.
import { describe, expect, it } from 'vitest';
import { type Branch, branchesOf } from '../document/groups.ts';
import type { Layer } from '../document/schema.ts';
import { sortIntoLayers } from '../document/sorting.ts';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';

const SHEET = 'viewBox="0 0 100 100"';
const BIRD = `<svg ${SHEET}><g id="icon">
  <g id="left-wing"><path d="M0 0H10V10H0Z" fill="#204060"/><path d="M0 20H10V30H0Z" fill="#c03020"/></g>
  <g><title>Body of it</title>
    <g id="legs"><path d="M40 0H50V10H40Z" fill="#204060"/></g>
    <g id="g4812"><path d="M40 20H50V30H40Z" fill="#c03020"/></g>
  </g>
  <path d="M70 0H80V10H70Z" fill="#204060"/>
</g></svg>`;

const tree = (branches: readonly Branch<Layer>[]): unknown[] =>
  branches.map(({ layer, group, members }) => (layer ? layer.name : { [group.name]: tree(members) }));
const arranged = (svg: string, keepsGroups: boolean) => projectOf(readSvg(svg), { keepsGroups });

describe('the groups of a drawing', () => {
  it('are those of the stack: titles before ids, one around everything left out', () => {
    const { project } = arranged(BIRD, true);
    expect(tree(branchesOf(project))).toEqual([
      { 'Left wing': ['Dark slate gray', 'Fire brick'] },
      { 'Body of it': ['Legs', expect.any(String)] },
      expect.any(String),
    ]);
  });

  it('do not part shapes of one colour where they are not asked for', () => {
    const { project } = arranged(BIRD, false);
    expect(project.groups).toBeUndefined();
    expect(project.layers).toHaveLength(2);
  });

  it('that programs name, or that hold one layer each, change nothing but names', () => {
    const { project } = arranged(
      `<svg ${SHEET}><g id="a1"><path d="M0 0H9V9Z"/></g><g id="Layer_2"><path d="M20 0H29V9Z"/></g></svg>`,
      true,
    );
    expect(project.layers).toHaveLength(2);
    expect(project.groups).toBeUndefined();
  });

  it('sort shapes by hand as well', () => {
    const drawing = readSvg(BIRD);
    const { project } = arranged(BIRD, false);
    let id = 0;
    const { layers } = sortIntoLayers(
      project,
      project.sources[0]!,
      drawing,
      drawing.shapes.map((shape) => shape.id),
      'group',
      () => `new-${++id}`,
    );
    expect(layers.map(({ name }) => name)).toContain('Left wing, fire brick');
    expect(layers.map(({ name }) => name)).toContain('Legs');
    expect(layers.flatMap(({ members }) => members)).toHaveLength(drawing.shapes.length);
  });
});

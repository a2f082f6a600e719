// The sheet before anything is built, beside what is built then.
import { describe, expect, it } from 'vitest';
import { resolve } from '../document/resolve.ts';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import { BuildViews } from './build.ts';
import { sheetView } from './sheet.ts';

const DRAWING = `<svg viewBox="0 0 100 100">
  <circle cx="30" cy="40" r="20" fill="#204060"/>
  <path d="M60 20H90V80H60Z" fill="#c06030"/>
  <path d="M50 10V95" fill="none" stroke="#206040" stroke-width="2"/>
</svg>`;
const OVERLAYS = { checker: false, wire: false };

describe('the sheet', () => {
  const { project, evaluator } = projectOf(readSvg(DRAWING), { depth: 4 });
  const sheet = sheetView(evaluator, resolve(project));
  const view = new BuildViews(evaluator).view(resolve(project), new Set(), OVERLAYS);

  it('shows the very shapes that are shown when all is built', () => {
    expect(sheet.layers).toEqual(view.layers.map(({ id, shapes }) => ({ id, shapes })));
    expect(sheet.layers.flatMap(({ shapes }) => shapes)).toHaveLength(3);
  });

  it('has a box that what is built fits into, up to the width of strokes', () => {
    const [rough, built] = [sheet.box!, view.box!];
    for (const axis of [0, 1, 2] as const) {
      const stroke = 0.05 * (built.max[axis] - built.min[axis]);
      expect(rough.min[axis]).toBeLessThanOrEqual(built.min[axis] + stroke);
      expect(rough.max[axis]).toBeGreaterThanOrEqual(built.max[axis] - stroke);
      expect(rough.max[axis] - rough.min[axis]).toBeLessThan(1.2 * (built.max[axis] - built.min[axis]));
    }
  });

  it('leaves out of its box what is hidden or switched off', () => {
    const [circle, square, line] = project.layers;
    const skipped = { ...square!, skipped: [...square!.members] };
    const { box } = sheetView(
      evaluator,
      resolve({ ...project, layers: [circle!, skipped, { ...line!, shown: false }] }),
    );
    const { box: alone } = sheetView(evaluator, resolve({ ...project, layers: [circle!] }));
    expect(box!.max[0]).toBe(alone!.max[0]);
    expect(sheetView(evaluator, resolve({ ...project, layers: [] })).box).toBeNull();
  });
});

// Fronts whose pieces stand at heights of their own: volumes by area × height, one closed body, whatever lies on whatever.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GeometryError } from '../base/errors.ts';
import { applyCommand } from '../document/commands/index.ts';
import type { Project } from '../document/schema.ts';
import { readSvg } from '../formats/svg/read.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { isSound, proofOf } from '../mesh/proof.ts';
import { layUvs } from '../mesh/uv.ts';
import { regionsArea } from '../outline/measure.ts';

import { projectOf } from '../testing/projects.ts';

/** A plate of one colour, with outlines of others on it, which stand out by so much each. */
function plate(inner: string, by: readonly number[], build: object = {}) {
  const made = projectOf(readSvg(`<svg viewBox="0 0 100 100" width="100mm" height="100mm">${inner}</svg>`), {
    depth: 10,
    tolerance: 0.01,
  });
  const [ground, ...others] = made.project.layers as [Project['layers'][0], ...Project['layers']];
  const regions = others.slice(0, by.length).map(({ id }, i) => ({ layer: id, by: by[i]! }));
  const changes = [
    { layers: [ground.id], change: { build: { edge: { on: 'none' as const }, ...build, regions } } },
    { layers: others.map(({ id }) => id), change: { shown: false } },
  ];
  const project = changes.reduce(
    (before, each) => applyCommand(before, { do: 'change-layers', ...each }),
    made.project,
  );
  const layer = project.layers[0]!;
  const areaOf = (i: number) => regionsArea(made.evaluator.outlines(project, project.layers[i]!).regions);
  return { ...made, project, layer, areaOf, mesh: () => made.evaluator.mesh(project, layer).mesh };
}

const PLATE = '<rect width="100" height="80" fill="#102030"/>';
const SQUARE = '<rect x="20" y="20" width="30" height="20" fill="#c04020"/>';
const RING = '<path d="M60 15h30v30h-30zM70 25v10h10v-10z" fill="#20a040"/>';
const INNER = '<circle cx="30" cy="30" r="6" fill="#e0c020"/>';
const EVEN = { faces: 'even', cell: 7 };
const GRID = { faces: 'grid', cell: 6 };
const ROUND = { edge: { on: 'both', reach: 2, steps: 3, profile: 'round' } };

describe('regions of a front', () => {
  it.each([
    ['raised', [3, 5]],
    ['sunk', [-4, -2]],
    ['one of each', [2.5, -6]],
  ])('%s add their area × their height (handbook)', (_, by) => {
    for (const faces of [{}, EVEN, GRID]) {
      const made = plate(PLATE + SQUARE + RING, by, faces);
      const { volume } = proofOf(made.mesh());
      const added = 600 * by[0]! + 800 * by[1]!;
      expect(volume).toBeCloseTo(80_000 + added, 6);
      const { max } = boxOfPoints([made.mesh().positions]);
      expect(max[2]).toBeCloseTo(10 + Math.max(0, ...by), 9);
    }
  });

  it('lie on each other: the smaller on the larger, its height counted from there', () => {
    const made = plate(PLATE + SQUARE + INNER, [3, -1]);
    expect(proofOf(made.mesh()).volume).toBeCloseTo(80_000 + 3 * 600 - made.areaOf(2), 6);
  });

  it.each([{}, EVEN, GRID, ROUND, { ...ROUND, ...EVEN }, { ...ROUND, ...GRID }])(
    'are one closed body without crossings, %o',
    (build) => {
      const made = plate(PLATE + SQUARE + RING + INNER, [3, -4, 2], build);
      const proof = proofOf(made.mesh());
      expect(isSound(proof)).toBe(true);
      expect(proof.shells).toBe(1);
    },
  );

  it('have walls that are made of what walls are, and places on pictures', () => {
    const { mesh } = plate(PLATE + SQUARE, [3]);
    const walls = mesh().sides.reduce((count, side) => count + (side === 2 ? 1 : 0), 0);
    // Four of the plate, four of the square on it.
    expect(walls).toBe(8);
    for (const layout of ['units', 'fitted', 'packed'] as const) {
      expect(layUvs(mesh(), layout)!.every(Number.isFinite)).toBe(true);
    }
  });

  it('that come over the rim are cut there, and those beside the front are said', () => {
    const over = plate(
      '<rect width="60" height="80" fill="#102030"/><rect x="50" y="30" width="30" height="20" fill="#c04020"/>',
      [3],
    );
    const proof = proofOf(over.mesh());
    expect(isSound(proof)).toBe(true);
    // Half of it lies on the plate, but for the thousandth that is left free along three sides.
    expect(proof.volume).toBeGreaterThan(48_000 + 3 * 200 * 0.97);
    expect(proof.volume).toBeLessThan(48_000 + 3 * 200);
    const beside = plate(
      '<rect width="60" height="80" fill="#102030"/><rect x="70" y="30" width="20" height="20" fill="#c04020"/>',
      [3],
    );
    expect(proofOf(beside.mesh()).volume).toBeCloseTo(48_000, 6);
    const { warnings } = beside.evaluator.build(beside.project, beside.layer);
    expect(warnings.map(({ message }) => message)).toEqual([
      'One layer that was to stand out of the front does not lie on what is flat of it.',
    ]);
  });

  it('follow the outlines of their layer, and fall away with it', () => {
    const made = plate(PLATE + SQUARE, [3]);
    const before = proofOf(made.mesh()).volume;
    const other = made.project.layers[1]!;
    const larger = applyCommand(made.project, {
      do: 'change-layers',
      layers: [other.id],
      change: { skipped: [...other.members] },
    });
    const volume = (project: Project) => proofOf(made.evaluator.mesh(project, project.layers[0]!).mesh).volume;
    expect(volume(larger)).toBeCloseTo(80_000, 6);
    expect(volume(made.project)).toBeCloseTo(before, 9);
    expect(volume(applyCommand(made.project, { do: 'remove-layer', layer: other.id }))).toBeCloseTo(80_000, 6);
  });

  it('that sink through the back are refused with what is possible', () => {
    const { mesh } = plate(PLATE + SQUARE, [-12]);
    expect(mesh).toThrow(GeometryError);
    expect(mesh).toThrow('A region of the front sinks by 12, where only 9.9 are');
  });

  it('go with a front that slants or is crowned', () => {
    for (const front of [
      { is: 'slanted', degrees: 5, towardsDeg: 30 },
      { is: 'crowned', height: 4, dome: 'soft' },
    ]) {
      const proof = proofOf(plate(PLATE + SQUARE + RING, [3, -2], { front }).mesh());
      expect(isSound(proof)).toBe(true);
    }
  });

  it('are closed wherever circles and squares lie on each other and on the rim', () => {
    const place = fc.tuple(
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: 0, max: 80 }),
      fc.integer({ min: 4, max: 30 }),
    );
    const height = fc.oneof(fc.integer({ min: 1, max: 6 }), fc.integer({ min: -3, max: -1 }));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, height, fc.boolean()), { minLength: 1, maxLength: 5 }),
        fc.constantFrom({}, EVEN, GRID, ROUND, { ...ROUND, ...EVEN }),
        (list, build) => {
          const shapes = list.map(([[x, y, r], , isRound], i) => {
            const fill = `fill="#${String(i + 1).repeat(6)}"`;
            return isRound
              ? `<circle cx="${x}" cy="${y}" r="${r}" ${fill}/>`
              : `<rect x="${x}" y="${y}" width="${r}" height="${r}" ${fill}/>`;
          });
          const made = plate(
            PLATE + shapes.join(''),
            list.map(([, by]) => by),
            build,
          );
          const proof = proofOf(made.mesh());
          expect(isSound(proof)).toBe(true);
          expect(proof.shells).toBe(1);
        },
      ),
      { numRuns: 60 },
    );
  });
});

// Fronts that slant or are domed, by the volumes of handbooks, and closed whatever they do.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GeometryError } from '../base/errors.ts';
import type { FrontShape } from '../builds/slab/schema.ts';
import { applyCommand } from '../document/commands/index.ts';
import { readSvg } from '../formats/svg/read.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { proofOf } from '../mesh/proof.ts';
import { regionsArea } from '../outline/measure.ts';
import { projectOf } from '../testing/projects.ts';

const drawn = (inner: string, change: object = {}) => {
  const made = projectOf(readSvg(`<svg viewBox="0 0 100 100" width="100mm" height="100mm">${inner}</svg>`), {
    depth: 10,
    tolerance: 0.001,
  });
  const layers = made.project.layers.map(({ id }) => id);
  const project = applyCommand(made.project, { do: 'change-layers', layers, change: { build: change } });
  return { ...made, project, layer: project.layers[0]! };
};
const NONE = { edge: { on: 'none' as const } };
const slanted = (degrees: number, towardsDeg: number): FrontShape => ({ is: 'slanted', degrees, towardsDeg });
const STAR = '<path d="M50 5 61 38 95 38 68 59 78 92 50 72 22 92 32 59 5 38 39 38Z"/>';
const L = '<path d="M0 0H20V70H60V90H0Z"/>';
const DISC = '<circle cx="50" cy="50" r="40"/>';

const proofFor = ({ evaluator, project, layer }: ReturnType<typeof drawn>) =>
  proofOf(evaluator.mesh(project, layer).mesh);

describe('a slanted front', () => {
  it('encloses area × mean height (handbook): the depth is that of the middle of the area', () => {
    for (const outline of [L, STAR]) {
      for (const [degrees, towards] of [
        [5, 0],
        [8, 137],
        [-6, 60],
      ] as const) {
        const made = drawn(outline, { ...NONE, front: slanted(degrees, towards) });
        const area = regionsArea(made.evaluator.outlines(made.project, made.layer).regions);
        expect(proofFor(made).volume / (area * 10)).toBeCloseTo(1, 9);
      }
    }
  });

  it('rises by its angle towards its direction', () => {
    const made = drawn('<rect width="40" height="20"/>', { ...NONE, front: slanted(10, 0) });
    const { positions } = made.evaluator.mesh(made.project, made.layer).mesh;
    const { min, max } = boxOfPoints([positions]);
    expect(max[2]).toBeCloseTo(10 + 20 * Math.tan(Math.PI / 18), 9);
    const left = Math.max(
      ...Array.from({ length: positions.length / 3 }, (_, i) =>
        positions[3 * i] === min[0] ? positions[3 * i + 2]! : -Infinity,
      ),
    );
    expect(left).toBeCloseTo(10 - 20 * Math.tan(Math.PI / 18), 9);
  });

  it('is closed, without a crossing and as many faces as flat, with any edge and any way', () => {
    const flat = proofFor(drawn(STAR, { edge: { on: 'both', reach: 1.5, steps: 3 } }));
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (degrees, towards) => {
          const proof = proofFor(
            drawn(STAR, { edge: { on: 'both', reach: 1.5, steps: 3 }, front: slanted(degrees, towards) }),
          );
          expect(proof.closed).toBe(true);
          expect(proof.findings.filter(({ fault }) => fault !== 'sliver')).toEqual([]);
          expect(proof.counts).toEqual(flat.counts);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('that would cut through the back is refused, with the angle that is possible', () => {
    const made = drawn(STAR, { ...NONE, front: slanted(40, 90) });
    const failure = (() => {
      try {
        made.evaluator.mesh(made.project, made.layer);
        return null;
      } catch (error) {
        return error;
      }
    })();
    expect(failure).toBeInstanceOf(GeometryError);
    const most = Number(/less than ([\d.]+)°/.exec((failure as Error).message)![1]);
    expect(() => proofFor(drawn(STAR, { ...NONE, front: slanted(most * 0.98, 90) }))).not.toThrow();
  });
});

describe('a crowned front', () => {
  const extra = (dome: 'round' | 'soft' | 'straight', height: number, cell: number) => {
    const crowned = proofFor(drawn(DISC, { ...NONE, faces: 'even', cell, front: { is: 'crowned', height, dome } }));
    const flat = proofFor(drawn(DISC, { ...NONE, faces: 'even', cell }));
    expect(crowned.closed).toBe(true);
    return (crowned.volume - flat.volume) / (Math.PI * 40 * 40 * height);
  };
  it.each([
    // Over a disc: a paraboloid holds half of its cylinder, a cone a third, half an ellipsoid two thirds (handbook).
    ['soft', 1 / 2],
    ['straight', 1 / 3],
    ['round', 2 / 3],
  ] as const)('%s over a disc holds its share of the cylinder', (dome, share) => {
    expect(extra(dome, 6, 1.5)).toBeCloseTo(share, 2);
    expect(extra(dome, -4, 1.5)).toBeCloseTo(share, 2);
  });

  it('rises to its height in the middle, and from nothing at its rim', () => {
    const made = drawn(DISC, {
      edge: { on: 'front', reach: 2, rise: 2 },
      cell: 2,
      front: { is: 'crowned', height: 5, dome: 'soft' },
    });
    const { mesh } = made.evaluator.mesh(made.project, made.layer);
    expect(boxOfPoints([mesh.positions]).max[2]).toBeCloseTo(15, 6);
    expect(proofOf(mesh).findings.filter(({ fault }) => fault !== 'sliver')).toEqual([]);
  });

  it('has points to rise, though as few faces as possible were asked for', () => {
    const made = drawn(L, { ...NONE, faces: 'fewest', cell: 4, front: { is: 'crowned', height: 3, dome: 'round' } });
    expect(boxOfPoints([made.evaluator.mesh(made.project, made.layer).mesh.positions]).max[2]).toBeCloseTo(13, 6);
  });

  it('rises where a stroke is narrower than its faces are large, and stays closed', () => {
    const bar = '<rect x="5" y="45" width="90" height="6"/>';
    const made = drawn(bar, { ...NONE, cell: 20, front: { is: 'crowned', height: 2, dome: 'straight' } });
    const { mesh } = made.evaluator.mesh(made.project, made.layer);
    // Every face of the front has a corner that rises.
    for (let f = 0; f < mesh.sides.length; f++) {
      if (mesh.sides[f] !== 0) continue;
      const heights = [...mesh.corners.subarray(mesh.starts[f]!, mesh.starts[f + 1]!)].map(
        (p) => mesh.positions[3 * p + 2]!,
      );
      expect(Math.max(...heights)).toBeGreaterThan(10);
    }
    const proof = proofOf(mesh);
    expect(proof.closed).toBe(true);
    expect(proof.findings.filter(({ fault }) => fault !== 'sliver')).toEqual([]);
  });

  it('made of a grid, too, has faces that lie beside each other on the sheet and never cross', () => {
    // Cells that the rim cuts have many corners, and are no longer plane.
    const ring = '<path fill-rule="evenodd" d="M12 20a30 34 0 1 0 70 6a40 20 0 1 0-70-6ZM40 42l12 3-3 12-12-4Z"/>';
    for (const cell of [3, 5, 9]) {
      const made = drawn(ring, {
        edge: { on: 'front', reach: 0.5, steps: 2 },
        faces: 'grid',
        cell,
        front: { is: 'crowned', height: -4, dome: 'soft' },
      });
      const proof = proofFor(made);
      expect(proof.closed).toBe(true);
      expect(proof.findings.filter(({ fault }) => fault !== 'sliver')).toEqual([]);
    }
  });

  it('that sinks through the back is refused', () => {
    const made = drawn(DISC, { ...NONE, cell: 4, front: { is: 'crowned', height: -12, dome: 'soft' } });
    expect(() => made.evaluator.mesh(made.project, made.layer)).toThrow(/sinks by 12, where only 9.9 are/);
  });
});

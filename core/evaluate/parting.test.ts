// Layers that share planes and space are told apart, gone to, and parted: against boxes, where all of it can be counted.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { NO_EDGE } from '../builds/slab/slab.ts';
import { applyCommand } from '../document/commands/index.ts';
import { resolve } from '../document/resolve.ts';
import type { Project } from '../document/schema.ts';
import { drawingOf, filledShape } from '../testing/drawings.ts';
import { projectOf } from '../testing/projects.ts';
import type { Overlap } from './overlaps.ts';
import { overlapPlace, partedBases } from './parting.ts';

interface Slab {
  readonly x: number;
  readonly y: number;
  readonly side: number;
  readonly base: number;
  readonly depth: number;
}

/** A layer for each, one user unit a millimetre, in colours that keep them apart. */
function stackOf(slabs: readonly Slab[]) {
  const shapes = slabs.map(({ x, y, side }, i) =>
    filledShape(`s${i}`, `M${x} ${y}h${side}v${side}h${-side}Z`, `#${(0x101010 + 7 * i).toString(16)}`),
  );
  const made = projectOf(drawingOf(...shapes), { build: { edge: NO_EDGE } });
  const project = made.project.layers.reduce(
    (before: Project, layer, i) =>
      applyCommand(before, {
        do: 'change-layers',
        layers: [layer.id],
        change: { base: slabs[i]!.base, build: { depth: slabs[i]!.depth } },
      }),
    made.project,
  );
  return { project, evaluator: made.evaluator, ids: project.layers.map(({ id }) => id) };
}

const slab = (x: number, base: number, depth = 2, side = 10, y = 0): Slab => ({ x, y, side, base, depth });
const found = (...slabs: Slab[]) => {
  const { project, evaluator, ids } = stackOf(slabs);
  const scale = project.sources[0]!.scale;
  return evaluator.overlaps(resolve(project)).map(({ layers, area, ...overlap }) => ({
    ...overlap,
    layers: layers.map((id) => ids.indexOf(id)),
    area: area / scale ** 2,
  }));
};

describe('what layers share', () => {
  it('is space, a plane, or the face that one lies on', () => {
    expect(found(slab(0, 0), slab(5, 1))).toEqual([
      { layers: [0, 1], from: 1, to: 2, isTouching: false, flush: [], area: expect.closeTo(50, 6) },
    ]);
    expect(found(slab(0, 0), slab(5, 1, 1))).toMatchObject([{ flush: ['front'], isTouching: false }]);
    expect(found(slab(0, 0), slab(4, 2))).toMatchObject([{ from: 2, to: 2, isTouching: true, flush: [] }]);
    expect(found(slab(0, 2), slab(4, 0))).toMatchObject([{ from: 2, to: 2, isTouching: true, flush: [] }]);
  });

  it('is nothing beside each other, at a distance above each other, or along a common edge', () => {
    expect(found(slab(0, 0), slab(20, 0))).toEqual([]);
    expect(found(slab(0, 0), slab(4, 2.001))).toEqual([]);
    expect(found(slab(0, 0), slab(10, 0))).toEqual([]);
  });

  it('has a place, well inside, halfway up what is shared', () => {
    const { project, evaluator } = stackOf([slab(0, 0), slab(6, 1)]);
    const [overlap] = evaluator.overlaps(resolve(project)) as [Overlap];
    const place = overlapPlace(evaluator, resolve(project), overlap)!;
    const { scale, origin } = project.sources[0]!;
    expect(place[0] / scale + origin[0]).toBeCloseTo(8, 3);
    expect(place[2]).toBe(1.5);
  });
});

describe('parted', () => {
  const slabs = fc.array(
    fc.record({
      x: fc.nat(12),
      y: fc.nat(12),
      side: fc.integer({ min: 2, max: 8 }),
      base: fc.integer({ min: -2, max: 6 }),
      depth: fc.integer({ min: 1, max: 4 }),
    }),
    { minLength: 2, maxLength: 8 },
  );

  it('no two layers come nearer than the gap, none sinks, and what stood apart stays', () => {
    fc.assert(
      fc.property(slabs, (all) => {
        const { project, evaluator } = stackOf(all);
        const bases = partedBases(evaluator, resolve(project), 0.25);
        const after = applyCommand(project, { do: 'set-bases', bases });
        for (const [i, layer] of after.layers.entries()) {
          expect(layer.base).toBeGreaterThanOrEqual(project.layers[i]!.base);
        }
        expect(evaluator.overlaps(resolve(after))).toEqual([]);
        const [stack] = [after.layers.map(({ base, build }) => [base, base + heightOf(build)] as const)];
        for (const [i, p] of all.entries()) {
          for (const [j, q] of all.entries()) {
            const areOver =
              i < j &&
              Math.min(p.x + p.side, q.x + q.side) > Math.max(p.x, q.x) &&
              Math.min(p.y + p.side, q.y + q.side) > Math.max(p.y, q.y);
            if (!areOver) continue;
            const [[a, b], [c, d]] = [stack[i]!, stack[j]!];
            expect(Math.max(a - d, c - b)).toBeGreaterThanOrEqual(0.25 - 1e-9);
          }
        }
        // Once parted nothing more is to do.
        expect(partedBases(evaluator, resolve(after), 0.25)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('leaves layers that are not built where they are', () => {
    const { project, evaluator, ids } = stackOf([slab(0, 0), slab(0, 0), slab(0, 0)]);
    const hidden = applyCommand(project, { do: 'change-layers', layers: [ids[1]!], change: { shown: false } });
    expect(partedBases(evaluator, resolve(hidden), 1)).toEqual([{ layer: ids[2], base: 3 }]);
  });
});

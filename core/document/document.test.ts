// The document: commands, history, arranging a drawing, evaluating it.
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GeometryError } from '../base/errors.ts';
import { uniqueName } from '../base/names.ts';
import { heightOf } from '../builds/index.ts';
import { type Edge, riseOf } from '../builds/slab/schema.ts';
import { Evaluator } from '../evaluate/evaluator.ts';
import { readSvg } from '../formats/svg/read.ts';
import { isSound, proofOf } from '../mesh/proof.ts';
import { regionsArea } from '../outline/measure.ts';
import type { Source } from '../sources/index.ts';
import { colourName } from '../sources/names.ts';
import { drawingOf, filledShape, strokedShape } from '../testing/drawings.ts';
import { projectOf as projectOfDrawing, wishesOf } from '../testing/projects.ts';
import { arrangeLayers } from './arrive.ts';
import type { LayerChange } from './commands/change-layers.ts';
import { applyCommand, COMMAND_KINDS, type Command, CommandSchema } from './commands/index.ts';
import { record, redo, startHistory, undo } from './history.ts';
import { readProject } from './migrate.ts';
import { emptyProject, type Layer, type Project } from './schema.ts';
import { sortIntoLayers } from './sorting.ts';

const evaluatorFor = (svg: string) => new Evaluator({ content: () => readSvg(svg) });
const PATCH = readFileSync('demo/patch.svg', 'utf8');
const depthOf = ({ build }: Layer) => heightOf(build);
const slabOf = ({ build }: Layer) => {
  if (build.kind !== 'slab') throw new Error('It is no slab.');
  return build;
};

/** A project with one drawing of 100 units square, 1 mm a unit. */
const projectOf = (svg: string, size?: number): Project => projectOfDrawing(readSvg(svg), { size }).project;

const drawing = (body: string) => `<svg viewBox="0 0 100 100">${body}</svg>`;
const SQUARES = drawing(
  '<rect id="low" width="40" height="40" fill="teal"/><rect id="high" x="20" y="20" width="40" height="40" fill="#c33"/><rect x="70" y="70" width="20" height="20" fill="teal"/>',
);

describe('arranging', () => {
  it('makes one layer a colour, in paint order, named, resting on what lies below', () => {
    const { layers } = projectOf(SQUARES);
    expect(layers.map(({ name, members, base }) => [name, members.length, base])).toEqual([
      ['Teal', 2, 0],
      ['High', 1, depthOf(layers[0]!)],
    ]);
    expect(layers.map(({ material }) => material.colour)).toEqual(['#008080', '#cc3333']);
  });

  it('keeps what is painted on top on top: a colour below and above another becomes two layers', () => {
    const body = '<rect width="50" height="50" fill="white"/><rect x="5" y="5" width="40" height="40" fill="#c33"/>';
    const eye = '<circle cx="20" cy="20" r="4" fill="white"/>';
    const away = '<circle cx="80" cy="80" r="4" fill="white"/>';
    const layersOf = (more: string) =>
      projectOf(drawing(body + more)).layers.map(({ name, base }, i, all) => [
        name,
        base === (i > 0 ? all[i - 1]!.base + depthOf(all[i - 1]!) : 0),
      ]);
    // Each rests on the one before.
    expect(layersOf(away)).toEqual([
      ['White', true],
      [expect.any(String), true],
    ]);
    expect(layersOf(eye)).toEqual([
      ['White', true],
      [expect.any(String), true],
      ['White 2', true],
    ]);
  });

  it('lands centred and at the size that was asked for', () => {
    const project = projectOf(SQUARES, 180);
    const evaluator = evaluatorFor(SQUARES);
    const rings = project.layers.flatMap((layer) =>
      evaluator.outlines(project, layer).regions.map(({ outer }) => outer),
    );
    const xs = rings.flatMap((ring) => [...ring].filter((_, i) => i % 2 === 0));
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([-90, 90]);
  });

  it('keeps the physical size a drawing states', () => {
    const svg = '<svg width="10cm" viewBox="0 0 50 50"><rect width="50" height="25"/></svg>';
    const sizeIn = (unit: 'mm' | 'in') => arrangeLayers(readSvg(svg), 's', wishesOf({ unit })).size;
    expect(sizeIn('mm')).toBeCloseTo(100, 6);
    expect(sizeIn('in')).toBeCloseTo(10 / 2.54, 6);
  });

  it('recognises paper that covers the sheet, switches it off and says so', () => {
    const svg = drawing(
      '<rect id="paper" width="100" height="100" fill="#fbfaf4"/><circle cx="50" cy="50" r="20" fill="#fbfaf4"/>',
    );
    const { layers, warnings } = arrangeLayers(readSvg(svg), 's', wishesOf());
    expect(layers.map(({ ground, shown, members }) => [ground, shown, members])).toEqual([
      [true, false, ['#paper']],
      [false, true, ['/circle1']],
    ]);
    expect(warnings[0]!.message).toContain('“paper” covers the whole sheet');
  });

  it.each([
    ['a coloured sheet', '<rect width="100" height="100" fill="#20344a"/><circle r="9"/>'],
    ['white that does not cover', '<rect width="60" height="100" fill="white"/><circle r="9"/>'],
    ['white that is all there is', '<rect width="100" height="100" fill="white"/>'],
    ['white on top', '<circle r="9"/><rect width="100" height="100" fill="white"/>'],
  ])('builds %s', (_, body) => {
    expect(projectOf(drawing(body)).layers.some(({ ground }) => ground)).toBe(false);
  });

  it('starts with an edge that is safe everywhere', () => {
    const project = projectOf(PATCH, 90);
    const evaluator = evaluatorFor(PATCH);
    for (const layer of project.layers.filter(({ shown }) => shown)) {
      expect(slabOf(layer).edge.reach).toBeLessThan(evaluator.width(project, layer)!.safeReach);
    }
  });

  it('says so when no shape has an area', () => {
    expect(() => projectOf(drawing('<path d="M0 0L9 9Z"/>'))).toThrow(/no filled shape with an area/);
  });

  it('names colours in words, each name once', () => {
    expect(colourName('#2f4f4f')).toBe('Dark slate gray');
    expect(colourName('#fe0000')).toBe('Red');
    const taken = new Set<string>();
    expect([1, 2, 3].map(() => uniqueName('Red', taken))).toEqual(['Red', 'Red 2', 'Red 3']);
  });
});

describe('lines by the ten thousand', () => {
  const d = Array.from({ length: 20_001 }, (_, i) => `M${i % 150} ${Math.floor(i / 150)}h0.5`).join('');

  it('are kept, switched off and not outlined unasked', () => {
    const heavy = drawingOf(strokedShape('lines', d, 0.01), filledShape('plate', 'M0 0h40v40h-40z', '#a04020'));
    const { layers, warnings, size } = arrangeLayers(heavy, 's', wishesOf());
    expect(layers.map(({ shown, members }) => [shown, members])).toEqual([
      [false, ['lines']],
      [true, ['plate']],
    ]);
    expect(warnings.map(({ code }) => code)).toEqual(['not-built']);
    expect(size).toBeCloseTo(149.5, 6);
  });
});

describe('commands', () => {
  const project = projectOf(SQUARES);
  const [low, high] = project.layers as [Project['layers'][0], Project['layers'][0]];

  it('change what they name and nothing else', () => {
    const after = applyCommand(project, {
      do: 'change-layers',
      layers: [low.id],
      change: { build: { depth: 7, edge: { reach: 2 } } },
    });
    const build = slabOf(low);
    expect(after.layers[0]).toEqual({ ...low, build: { ...build, depth: 7, edge: { ...build.edge, reach: 2 } } });
    expect(after.layers[0]!.members).toBe(low.members);
    expect(after.profiles).toBe(project.profiles);
    expect(after.layers[1]).toBe(high);
    expect(after.sources).toBe(project.sources);
    expect(project.layers[0]).toBe(low);
  });

  it('keep real sizes when the unit changes', () => {
    const inches = applyCommand(project, { do: 'set-unit', unit: 'in' });
    expect(depthOf(inches.layers[0]!) * 25.4).toBeCloseTo(depthOf(low), 9);
    expect(inches.sources[0]!.scale * 25.4).toBeCloseTo(project.sources[0]!.scale, 9);
    expect(inches.tolerance * 25.4).toBeCloseTo(project.tolerance, 9);
    const back = applyCommand(inches, { do: 'set-unit', unit: 'mm' });
    expect(depthOf(back.layers[0]!)).toBeCloseTo(depthOf(low), 9);
  });

  it('copy a layer: beside it in the list, on top of it in the stack, under a name of its own', () => {
    const once = applyCommand(project, { do: 'copy-layer', layer: low.id, id: 'copy' });
    const { layers } = applyCommand(once, { do: 'copy-layer', layer: low.id, id: 'again' });
    expect(layers.map(({ id }) => id)).toEqual([low.id, 'again', 'copy', high.id]);
    expect(layers.map(({ name }) => name)).toEqual([low.name, `${low.name} 3`, `${low.name} 2`, high.name]);
    expect(layers[1]).toEqual({ ...low, id: 'again', name: `${low.name} 3`, base: low.base + depthOf(low) });
  });

  it('move, remove and rename', () => {
    expect(
      applyCommand(project, { do: 'reorder', moved: [low.id], into: null, on: high.id }).layers.map(({ id }) => id),
    ).toEqual([high.id, low.id]);
    expect(applyCommand(project, { do: 'remove-layer', layer: low.id }).layers).toEqual([high]);
    expect(applyCommand(project, { do: 'remove-source', source: 'source' })).toMatchObject({ sources: [], layers: [] });
    expect(applyCommand(project, { do: 'rename-project', name: ' Patch ' }).name).toBe('Patch');
  });

  it('refuse what is not there and what does not fit', () => {
    const refused = (command: Command) => {
      try {
        applyCommand(project, command);
      } catch (error) {
        return (error as GeometryError).code;
      }
      return 'taken';
    };
    expect(refused({ do: 'remove-layer', layer: 'nobody' })).toBe('unknown-id');
    expect(refused({ do: 'scale-source', source: 'nobody', scale: 1 })).toBe('unknown-id');
    expect(refused({ do: 'change-layers', layers: [low.id], change: { build: { depth: Number.NaN } } })).toBe(
      'out-of-range',
    );
    expect(refused({ do: 'change-layers', layers: [low.id], change: { build: { depth: 0 } } })).toBe('out-of-range');
    expect(refused({ do: 'change-layers', layers: [low.id], change: { material: { colour: 'red' } } })).toBe(
      'out-of-range',
    );
  });

  it('take of a build’s settings what each layer has', () => {
    const part = { ...high, id: 'part', build: { kind: 'part', depth: 2 } } as const;
    const mixed = { ...project, layers: [low, part] };
    const change = { build: { depth: 5, edge: { reach: 0.3 } } };
    const { layers } = applyCommand(mixed, { do: 'change-layers', layers: [low.id, 'part'], change });
    expect([depthOf(layers[0]!), slabOf(layers[0]!).edge.reach]).toEqual([5, 0.3]);
    expect(layers[1]!.build).toEqual({ kind: 'part', depth: 5 });
  });

  it('let the rise of an edge follow its reach until it has one of its own', () => {
    const change = (of: Project, edge: Partial<Edge>) =>
      applyCommand(of, { do: 'change-layers', layers: [low.id], change: { build: { edge } } });
    const edgeOf = ({ layers }: Project) => slabOf(layers[0]!).edge;
    const wide = change(project, { on: 'front', reach: 2 });
    expect(riseOf(edgeOf(wide))).toBe(2);
    const steep = change(wide, { rise: 0.5 });
    expect(riseOf(edgeOf(change(steep, { reach: 3 })))).toBe(0.5);
    expect(riseOf(edgeOf(change(steep, { reach: 3, rise: null })))).toBe(3);
  });

  it('change single settings of back edges and of tidying, of each layer its own', () => {
    const settings = (of: Project, layer: string, change: LayerChange) =>
      applyCommand(of, { do: 'change-layers', layers: [layer], change });
    const tidy = { weld: 0.1, straight: -1, flat: 2, close: false };
    const first = settings(project, low.id, {
      tidy,
      build: { edge: { on: 'both', reach: 1 }, backEdge: { reach: 2 } },
    });
    const backs = settings(first, high.id, { build: { edge: { on: 'both', reach: 1 }, backEdge: { steps: 7 } } });
    const change: LayerChange = {
      tidy: { weld: 0.3 },
      build: { edge: { corners: 'rounded' }, backEdge: { rise: 0.2 } },
    };
    const after = applyCommand(backs, { do: 'change-layers', layers: [low.id, high.id], change });
    const [one, two] = after.layers as [Layer, Layer];
    expect(slabOf(one).backEdge).toMatchObject({ reach: 2, rise: 0.2, steps: 3, corners: 'rounded' });
    expect(slabOf(two).backEdge).toMatchObject({ reach: 1, rise: 0.2, steps: 7, corners: 'rounded' });
    expect([one.tidy, two.tidy]).toEqual([{ ...tidy, weld: 0.3 }, null]);
  });

  it('are plain data', () => {
    const command: Command = { do: 'change-layers', layers: [low.id], change: { base: 3 } };
    expect(CommandSchema.parse(JSON.parse(JSON.stringify(command)))).toEqual(command);
    expect(CommandSchema.safeParse({ do: 'explode' }).success).toBe(false);
    expect(new Set(COMMAND_KINDS.map((kind) => kind.do)).size).toBe(COMMAND_KINDS.length);
  });
});

describe('sorting into layers', () => {
  const nested = drawingOf(
    filledShape('out', 'M0 0h100v100h-100z', '#204060'),
    filledShape('mid', 'M10 10h80v80h-80z', '#a04020'),
    filledShape('in', 'M20 20h20v20h-20z', '#204060'),
    filledShape('beside', 'M60 60h20v20h-20z', '#a04020'),
  );
  let n = 0;
  const newId = () => `l${++n}`;
  const { layers } = arrangeLayers(nested, 's', wishesOf({ newId }));
  const one = { ...layers[0]!, members: nested.shapes.map(({ id }) => id), skipped: ['in'] };
  const place = { scale: 1, origin: [0, 0] as [number, number] };
  const own: Source = { id: 's', kind: 'drawing', name: 'd', edits: [], width: 100, height: 100, ...place };
  const project = applyCommand(emptyProject('p'), { do: 'add-source', source: own, layers: [one] });
  const sort = (by: 'colour' | 'nesting', ids = one.members) => sortIntoLayers(project, own, nested, ids, by, newId);

  it('makes one for each colour', () => {
    const { layers: sorted, gone } = sort('colour');
    expect(sorted.map(({ members }) => members)).toEqual([
      ['out', 'in'],
      ['mid', 'beside'],
    ]);
    expect(sorted.map(({ material }) => material.colour)).toEqual(['#204060', '#a04020']);
    expect(sorted[0]!.skipped).toEqual(['in']);
    expect(gone).toEqual([one.id]);
  });

  it('makes one for each depth of nesting, and leaves the others where they are', () => {
    expect(sort('nesting').layers.map(({ members }) => members)).toEqual([['out'], ['mid'], ['in', 'beside']]);
    const { layers: some, gone } = sort('nesting', ['mid', 'in']);
    expect(some.map(({ members }) => members)).toEqual([['out', 'beside'], ['mid'], ['in']]);
    expect(gone).toEqual([]);
    expect(new Set(some.map(({ name }) => name)).size).toBe(3);
  });
});

describe('history', () => {
  const start = startHistory(projectOf(SQUARES));
  const [low] = start.present.layers;
  const depth = (value: number): Command => ({
    do: 'change-layers',
    layers: [low!.id],
    change: { build: { depth: value } },
  });
  const depthIn = ({ present }: typeof start) => depthOf(present.layers[0]!);

  it('undoes and redoes whatever was done', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.1, max: 99, noNaN: true }), { minLength: 1, maxLength: 20 }),
        (depths) => {
          const done = depths.reduce((history, value) => record(history, depth(value)), start);
          const undone = depths.reduce((history) => undo(history), done);
          expect(undone.present).toBe(start.present);
          const redone = depths.reduce((history) => redo(history), undone);
          expect(redone.present).toEqual(done.present);
        },
      ),
    );
  });

  it('takes a drag as one change', () => {
    let history = record(start, depth(1), 'drag');
    history = record(history, depth(2), 'drag');
    history = record(history, depth(3), 'drag');
    expect(history.past).toHaveLength(1);
    expect(depthIn(undo(history))).toBe(depthIn(start));
    history = record(history, depth(4), 'another drag');
    expect(depthIn(undo(history))).toBe(3);
  });

  it('forgets what was undone when something new is done', () => {
    const history = record(undo(record(start, depth(5))), depth(6));
    expect(redo(history)).toBe(history);
    expect(undo(undo(history)).present).toBe(start.present);
  });
});

describe('reading documents', () => {
  it('takes what was written and names what does not fit', () => {
    const project = projectOf(SQUARES);
    expect(readProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
    expect(() => readProject({ ...project, unit: 'furlong' })).toThrow(/cannot be read: unit/);
    expect(() => readProject({ ...project, version: 99 })).toThrow(
      /newer version of the application \(document 99; .* left as it is/,
    );
    expect(() => readProject(null)).toThrow(GeometryError);
  });
});

describe('evaluating', () => {
  const project = projectOf(SQUARES);
  const evaluator = evaluatorFor(SQUARES);
  const [low, high] = project.layers as [Project['layers'][0], Project['layers'][0]];

  it('builds sound parts at their bases', () => {
    const parts = evaluator.parts(project);
    expect(parts.map(({ name }) => name)).toEqual(['Teal', 'High']);
    for (const [i, { mesh }] of parts.entries()) {
      const proof = proofOf(mesh);
      expect(isSound(proof)).toBe(true);
      expect(proof.min[2]).toBeCloseTo(project.layers[i]!.base, 9);
      expect(proof.size[2]).toBeCloseTo(depthOf(project.layers[i]!), 9);
    }
    expect(evaluator.parts(project, [high.id])).toHaveLength(1);
  });

  it('computes again only what lies behind a change', () => {
    const before = evaluator.build(project, low);
    expect(evaluator.build(project, { ...low, base: 50, name: 'Other' }).mesh).toBe(before.mesh);
    const deeper = evaluator.build(project, { ...low, build: { ...slabOf(low), depth: depthOf(low) + 1 } });
    expect(deeper.mesh).not.toBe(before.mesh);
    // A new depth gives new heights to the same faces.
    expect(deeper.mesh.corners).toBe(before.mesh.corners);
    const { edge } = slabOf(low);
    const build = { ...slabOf(low), edge: { ...edge, reach: edge.reach / 2 } };
    const narrower = evaluator.build(project, { ...low, build });
    expect(narrower.mesh.corners).not.toBe(before.mesh.corners);
  });

  it('leaves out skipped shapes and reports stranded ones', () => {
    const all = evaluator.outlines(project, low);
    const fewer = evaluator.outlines(project, { ...low, skipped: ['#low'] });
    expect(regionsArea(all.regions) - regionsArea(fewer.regions)).toBeCloseTo(1600, 3);
    expect(evaluator.outlines(project, { ...low, members: ['#low', '#gone'] }).stranded).toEqual(['#gone']);
  });

  it('finds layers that fill the same space, and tells those that lie on each other', () => {
    expect(evaluator.overlaps(project)).toMatchObject([
      { layers: [low.id, high.id], from: depthOf(low), to: depthOf(low), isTouching: true, flush: [] },
    ]);
    const by = depthOf(high) / 2;
    const sunk = { ...project, layers: [low, { ...high, base: depthOf(low) - by }] };
    const [overlap] = evaluator.overlaps(sunk);
    expect(overlap).toMatchObject({
      layers: [low.id, high.id],
      from: depthOf(low) - by,
      to: depthOf(low),
      isTouching: false,
    });
    expect(overlap!.area).toBeCloseTo(400, 3);
  });

  it('measures the demo: every layer sound, with true volumes', () => {
    const patch = projectOf(PATCH, 90);
    const own = evaluatorFor(PATCH);
    for (const layer of patch.layers.filter(({ shown }) => shown)) {
      const proof = own.proof(patch, layer);
      expect(isSound(proof)).toBe(true);
      const area = regionsArea(own.outlines(patch, layer).regions);
      expect(proof.volume).toBeLessThan(area * depthOf(layer));
      expect(proof.volume).toBeGreaterThan(area * depthOf(layer) * 0.8);
    }
  });

  it('names a layer whose source is missing', () => {
    expect(() => evaluator.build({ ...project, sources: [] }, low)).toThrow(/“Teal” belongs to a source that is not/);
  });
});

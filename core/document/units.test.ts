// Changing the unit: every length of any project is restated, which the schemas alone decide, and comes back as it was.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { withLengths } from '../base/quantities.ts';
import { MM_PER_UNIT, UNITS, type Unit } from '../base/units.ts';
import { BUILD_KINDS } from '../builds/index.ts';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import { applyCommand } from './commands/index.ts';
import { type Layer, LayerSchema, type Project, ProjectSchema } from './schema.ts';

const SIGN =
  '<svg viewBox="0 0 90 60"><rect width="60" height="40" fill="#204060"/><circle cx="50" cy="30" r="20" fill="#c33"/></svg>';
const { project } = projectOf(readSvg(SIGN));
const [first, second] = project.layers as [Layer, Layer];

const length = fc.double({ min: 1e-4, max: 900, noNaN: true });
const edge = (base: Extract<Layer['build'], { kind: 'slab' }>['edge']) =>
  fc
    .record({ reach: length, rise: fc.option(length), mitreLimit: fc.double({ min: 1, max: 100, noNaN: true }) })
    .map((own) => ({ ...base, ...own }));

/** Any slab layer: every number of it something else. */
const anyLayer = (layer: Layer): fc.Arbitrary<Layer> => {
  if (layer.build.kind !== 'slab') throw new Error('It is no slab.');
  const { edge: shape } = layer.build;
  return fc
    .record({
      base: fc.oneof(
        length,
        length.map((v) => -v),
        fc.constant(0),
      ),
      build: fc.record({
        depth: length,
        cell: length,
        edge: edge(shape),
        backEdge: fc.option(edge(shape).map(({ on: _, ...back }) => back)),
        kind: fc.constant('slab' as const),
        faces: fc.constantFrom('fewest', 'even', 'grid'),
        wallRows: fc.integer({ min: 1, max: 64 }),
        caps: fc.constant('both' as const),
      }),
      tidy: fc.option(
        fc.record({
          weld: length,
          straight: fc.oneof(length, fc.constant(-1)),
          flat: fc.double({ min: -1, max: 90, noNaN: true }),
          close: fc.boolean(),
        }),
      ),
    })
    .map((own) => ({ ...layer, ...own }) as Layer);
};
const anyProject = fc
  .record({ tolerance: length, layers: fc.tuple(anyLayer(first), anyLayer(second)), scale: length })
  .map(
    ({ tolerance, layers, scale }): Project => ({
      ...project,
      tolerance,
      layers,
      sources: project.sources.map((source) => ({ ...source, scale })),
    }),
  );

const inUnit = (from: Project, unit: Unit) => applyCommand(from, { do: 'set-unit', unit });

/** Every number of a document, by its path. */
function numbersOf(value: unknown, path = ''): [path: string, value: number][] {
  if (typeof value === 'number') return [[path, value]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, part]) => numbersOf(part, `${path}/${name}`));
}

/** Numbers that are lengths in project units, written down by hand; all others stay. */
const LENGTHS =
  /^\/(tolerance|sources\/\d+\/scale|layers\/\d+\/(base|build\/(depth|cell|(edge|backEdge)\/(reach|rise))|tidy\/(weld|straight)))$/;

describe('another unit', () => {
  it('restates every length and nothing else, and mm → in → m → mm finds every number again', () => {
    fc.assert(
      fc.property(anyProject, (any) => {
        const before = numbersOf(any);
        const inches = new Map(numbersOf(inUnit(any, 'in')));
        for (const [path, value] of before) {
          const isSign = path.endsWith('straight') && value < 0;
          const expected = LENGTHS.test(path) && !isSign ? value / 25.4 : value;
          expect([path, inches.get(path)]).toEqual([path, expect.closeTo(expected, 9)]);
        }
        const back = new Map(numbersOf(inUnit(inUnit(inUnit(any, 'in'), 'm'), 'mm')));
        for (const [path, value] of before)
          expect(Math.abs(back.get(path)! - value)).toBeLessThanOrEqual(1e-9 * Math.abs(value));
      }),
    );
  });

  it('keeps real sizes between any two units', () => {
    for (const from of UNITS) {
      for (const to of UNITS) {
        const [a, b] = [inUnit(project, from), inUnit(inUnit(project, from), to)];
        const millimetres = (of: Project) =>
          numbersOf(of.layers)
            .filter(([path]) => /depth|base|reach/.test(path))
            .map(([, v]) => v * MM_PER_UNIT[of.unit]);
        for (const [i, v] of millimetres(a).entries()) expect(millimetres(b)[i]).toBeCloseTo(v, 9);
      }
    }
  });

  it('leaves what holds no length the very same objects', () => {
    const inches = inUnit(project, 'in');
    expect(inches.layers[0]!.members).toBe(first.members);
    expect(inches.layers[0]!.material).toBe(first.material);
    expect(inUnit(project, 'mm').layers).toBe(project.layers);
  });
});

describe('a field of a schema', () => {
  /** Numbers that are no lengths, by their names; a new number is listed here or declared as a length. */
  const PLAIN =
    /(steps|count|span|layer\/scale$|front\/degrees|specular|ior|transmission|coat|sheenRoughness|glowStrength|mitreLimit|wallRows|crease|flat|opacity|roughness|metalness|version|points|isSmooth|towardsDeg|seed|marks\/)/;

  it('that is a number is a length, or known to be none', () => {
    const undeclared: string[] = [];
    const look = (schema: z.ZodType, path: string): void => {
      if (schema instanceof z.ZodNumber && withLengths(schema, 1, () => 2) !== 2 && !PLAIN.test(path))
        undeclared.push(path);
      if (schema instanceof z.ZodOptional || schema instanceof z.ZodNullable) look(schema.unwrap() as z.ZodType, path);
      if (schema instanceof z.ZodArray) look(schema.element as z.ZodType, path);
      if (schema instanceof z.ZodUnion) for (const option of schema.options) look(option as z.ZodType, path);
      if (schema instanceof z.ZodObject) {
        for (const [name, part] of Object.entries(schema.shape)) look(part as z.ZodType, `${path}/${name}`);
      }
    };
    look(LayerSchema, 'layer');
    for (const { schema } of BUILD_KINDS) look(schema, 'build');
    look(ProjectSchema.omit({ sources: true, layers: true }), 'project');
    expect(undeclared).toEqual([]);
  });
});

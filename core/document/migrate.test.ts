// Documents of every version, as the application of their time saved its demo projects: each comes forward, and builds what the
// newest builds.
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { type Edge, riseOf, type Slab } from '../builds/slab/schema.ts';
import { NO_EDGE } from '../builds/slab/slab.ts';
import { readProject } from './migrate.ts';
import { DOCUMENT_VERSION, emptyProject, type Layer, type Project } from './schema.ts';

const FOLDER = new URL('./fixtures/', import.meta.url);
const FILES = readdirSync(FOLDER).filter((name) => /^v\d+-.*\.json$/.test(name));
const saved = (name: string) => JSON.parse(readFileSync(new URL(name, FOLDER), 'utf8'));

/** A layer as older versions have it: those before builds were slabs without saying so. */
interface OldLayer extends Pick<Layer, 'name' | 'base' | 'shown' | 'material'> {
  readonly depth: number;
  readonly edge: Edge;
  readonly build?: Slab;
}

/** What an artist sees of a stack. */
const stackOf = ({ layers }: Project) =>
  layers.map(({ name, base, build, shown, material }) => [name, base, heightOf(build), shown, material.colour]);

describe('documents of older versions', () => {
  it('are kept for each version there was', () => {
    const versions = new Set(FILES.map((name) => saved(name).version));
    expect([...versions].sort()).toEqual(Array.from({ length: DOCUMENT_VERSION - 1 }, (_, i) => i + 1));
  });

  it.each(FILES)('%s comes forward with its stack', (name) => {
    const old = saved(name);
    const project = readProject(old);
    expect(project.version).toBe(DOCUMENT_VERSION);
    expect(readProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
    const layers: OldLayer[] = old.layers.map((layer: OldLayer) => ({ ...layer, ...layer.build }));
    expect(stackOf(project)).toEqual(
      layers.map(({ name: of, base, depth, shown, material }) => [of, base, depth, shown, material.colour]),
    );
    for (const [i, { build }] of project.layers.entries()) {
      const edge = build.kind === 'slab' ? build.edge : NO_EDGE;
      expect({ ...edge, rise: riseOf(edge) }).toMatchObject(layers[i]!.edge);
    }
  });

  it('lets rises follow their reaches where they were equal, and nowhere else', () => {
    const { layers } = readProject(saved('v5-patch.json'));
    const rises = layers.map(({ name, build }) => [name, build.kind === 'slab' && build.edge.rise]);
    expect(rises).toContainEqual(['Night', null]);
    expect(rises).toContainEqual(['Heron', 0.6]);
  });

  it('gives parts of meshes that were brought in a build of their own', () => {
    const old = saved('v4-patch.json');
    const asset = 'c'.repeat(64);
    const source = { ...old.sources[0], kind: 'mesh', format: 'stl', asset };
    const { layers } = readProject({ ...old, sources: [source] });
    for (const [i, { build }] of layers.entries()) expect(build).toEqual({ kind: 'part', depth: old.layers[i].depth });
  });
});

describe('documents that cannot be read', () => {
  it.each([
    [
      'of a newer version',
      { ...emptyProject('New'), version: DOCUMENT_VERSION + 1 },
      /newer version of the application/,
    ],
    ['without a version', { name: 'None' }, /cannot be read: version/],
    ['that are no document', [1, 2, 3], /cannot be read/],
    ['with a list that is none', { ...saved('v1-patch.json'), layers: 'many' }, /cannot be read: layers/],
    ['with parts that nobody knows', { ...emptyProject('More'), stage: { lamps: [] } }, /cannot be read: stage/],
  ])('%s are refused in a sentence', (_, document, message) => {
    expect(() => readProject(document)).toThrow(message);
  });
});

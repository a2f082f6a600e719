// What a change makes anew and what it leaves, however large the project and however little may be kept.
import { describe, expect, it } from 'vitest';
import { heightOf } from '../builds/index.ts';
import { NO_EDGE } from '../builds/slab/slab.ts';
import { applyCommand } from '../document/commands/index.ts';
import { deltaOf, withDelta } from '../document/delta.ts';
import { resolve } from '../document/resolve.ts';
import { LIMITS, type Project } from '../document/schema.ts';
import { readSvg } from '../formats/svg/read.ts';
import { NO_PICTURES, projectOf } from '../testing/projects.ts';
import { BuildViews } from '../views/build.ts';
import { Evaluator } from './evaluator.ts';
import { exportProject } from './export.ts';

/** Squares on a grid, each of a colour of its own, so that each becomes a layer. */
function squares(count: number): string {
  const side = Math.ceil(Math.sqrt(count));
  const shapes = Array.from({ length: count }, (_, i) => {
    const colour = `#${(0x100000 + 4099 * i).toString(16).slice(0, 6)}`;
    return `<rect x="${12 * (i % side)}" y="${12 * Math.floor(i / side)}" width="10" height="10" fill="${colour}"/>`;
  });
  return `<svg viewBox="0 0 ${12 * side} ${12 * side}">${shapes.join('')}</svg>`;
}

const OVERLAYS = { checker: false, wire: false };

/** As worker and page have it: the page is handed what it does not have, and the document crosses as what changed in it. */
function watched(project: Project, evaluator: Evaluator) {
  const views = new BuildViews(evaluator);
  const known = new Set<string>();
  let [sent, here]: [Project | null, Project | null] = [null, null];
  const look = (next: Project) => {
    here = withDelta(here, structuredClone(deltaOf(sent, next))) as Project;
    sent = next;
    const view = views.view(resolve(here), known, OVERLAYS);
    for (const { key, shapesKey } of view.layers) known.add(key).add(shapesKey);
    return view.layers.flatMap(({ id, mesh }) => (mesh ? [id] : []));
  };
  return { look, first: look(project) };
}

const deeper = (project: Project, id: string): Project => {
  const layer = project.layers.find((each) => each.id === id)!;
  const change = { build: { depth: heightOf(layer.build) + 1 } };
  return applyCommand(project, { do: 'change-layers', layers: [id], change });
};

describe('a project of as many layers as it may hold', () => {
  const { project, evaluator } = projectOf(readSvg(squares(LIMITS.layers)), { depth: 4 });
  const { look, first } = watched(project, evaluator);

  it('is built whole once', () => {
    expect(project.layers.length).toBe(LIMITS.layers);
    expect(first.length).toBe(LIMITS.layers);
    expect(look({ ...project })).toEqual([]);
  });

  it('has one mesh made anew for one depth', () => {
    const id = project.layers[LIMITS.layers >> 1]!.id;
    expect(look(deeper(project, id))).toEqual([id]);
    // The mesh of before was kept.
    expect(look(project)).toEqual([]);
  });

  it('cannot become larger, and says so', () => {
    const layer = { ...project.layers[0]!, id: 'one-more' };
    const source = { ...project.sources[0]!, id: 'another' };
    expect(() => applyCommand(project, { do: 'add-source', source, layers: [layer] })).toThrow(
      `a project holds at most ${LIMITS.layers} layers`,
    );
  });
});

describe('an evaluator that may keep next to nothing', () => {
  it('makes the very same files', async () => {
    const drawing = readSvg(squares(9));
    const { project } = projectOf(drawing, { depth: 4 });
    const filesWith = async (bytes: number) => {
      const evaluator = new Evaluator({ content: () => drawing, bytes });
      const { files } = await exportProject(
        evaluator,
        resolve(project),
        { format: 'glb', lengths: 'metres' },
        NO_PICTURES,
      );
      return files;
    };
    expect(await filesWith(1)).toEqual(await filesWith(2 ** 30));
  });
});

describe('overlaps', () => {
  /** Boxes as squares of 10 at these places, in height from `base` to `base + depth`. */
  const stacked = (bases: readonly number[]) => {
    const shapes = bases.map((_, i) => `<rect x="${6 * i}" width="10" height="10" fill="#${i + 1}${i + 1}c"/>`);
    const { project, evaluator } = projectOf(readSvg(`<svg viewBox="0 0 99 10">${shapes.join('')}</svg>`), {
      depth: 4,
    });
    const layers = project.layers.map((layer, i) => ({ ...layer, base: bases[i]! }));
    return { project: { ...project, layers }, evaluator };
  };

  it('are the neighbours that share height, with what they share', () => {
    const { project, evaluator } = stacked([0, 2, 20, 21]);
    const scale = project.sources[0]!.scale;
    const found = evaluator.overlaps(resolve(project));
    const ids = project.layers.map(({ id }) => id);
    expect(found.map(({ layers, from, to }) => [...layers.map((id) => ids.indexOf(id)), from, to])).toEqual([
      [0, 1, 2, 4],
      [2, 3, 21, 24],
    ]);
    // 4 of 10 wide, 10 high.
    for (const { area } of found) expect(area).toBeCloseTo(40 * scale * scale, 3);
  });

  it('found again after one layer moved are those that a fresh look finds', () => {
    const { project, evaluator } = stacked([0, 2, 4, 6, 8]);
    evaluator.overlaps(resolve(project));
    for (const [i, base] of [
      [1, 30],
      [3, 1],
      [1, 2],
      [0, 7],
    ] as const) {
      const moved = { ...project, layers: project.layers.map((layer, k) => (k === i ? { ...layer, base } : layer)) };
      const fresh = stacked(moved.layers.map((layer) => layer.base));
      const plain = ({ project: of, evaluator: by }: typeof fresh) => {
        const ids = of.layers.map(({ id }) => id);
        return by
          .overlaps(resolve(of))
          .map(({ layers, from, to }) => [...layers.map((id) => ids.indexOf(id)), from, to]);
      };
      expect(plain({ project: moved, evaluator })).toEqual(plain(fresh));
    }
  });
});

describe('what was drawn and made on an earlier occasion', () => {
  it('gives the same mesh to an evaluator that has no content', () => {
    const first = projectOf(readSvg(squares(3)), {
      depth: 4,
      build: { edge: { ...NO_EDGE, on: 'both', reach: 1, rise: 1 } },
    });
    const project = resolve(first.project);
    const meshes = project.layers.map((layer) => first.evaluator.mesh(project, layer));

    const second = new Evaluator();
    for (const source of project.sources) {
      expect(second.isDrawn(source)).toBe(false);
      second.adoptDrawing(source, structuredClone(first.evaluator.edited(source)));
      expect(second.isDrawn(source)).toBe(true);
    }
    for (const layer of project.layers) {
      expect(second.made(project, layer)).toBeNull();
      expect(second.madeKey(project, layer)).toBe(first.evaluator.madeKey(project, layer));
      second.adoptLayer(project, layer, structuredClone(first.evaluator.made(project, layer)!));
      expect(second.pending(project, layer)).toBeNull();
    }
    expect(project.layers.map((layer) => second.mesh(project, layer))).toEqual(meshes);
  });

  it('has another key where anything of it is another', () => {
    const { project, evaluator } = projectOf(readSvg(squares(2)), { depth: 4 });
    const [a, b] = project.layers;
    const key = (next: Project, layer = next.layers[0]!) => evaluator.madeKey(resolve(next), layer);
    const changed = [
      key(project, b),
      key(deeper(project, a!.id)),
      key({ ...project, tolerance: 2 * project.tolerance }),
      key({ ...project, sources: project.sources.map((source) => ({ ...source, scale: 2 * source.scale })) }),
      key({ ...project, layers: [{ ...a!, skipped: [...a!.members] }, b!] }),
    ];
    expect(new Set([key(project), ...changed]).size).toBe(changed.length + 1);
  });
});

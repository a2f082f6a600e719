// large.ts — what large projects cost: rebuilt unchanged, with one depth changed, their overlaps; and drawings of many colours on their
// way to arranged layers.
import {
  applyCommand,
  BuildViews,
  deltaOf,
  Evaluator,
  heightOf,
  type Project,
  readSvg,
  resolve,
  type SourceReader,
  withDelta,
} from '../core/index.ts';
import { projectOf, wishesOf } from '../core/testing/projects.ts';
import { exponent } from './growth.ts';
import { median } from './median.ts';

const LAYERS = 400;
const SHAPES = 50;
const ROUNDS = 15;
const COLOURS = [40, 120, 300];
const DISCS = 12;

export async function compareLarge(): Promise<void> {
  timeRebuilds();
  console.log();
  await timeArranging();
}

/** Discs of many colours, strewn: every layer has some everywhere, and rests on whatever lies below. */
function strewn(colours: number, discs: number, radius: number): string {
  let seed = 7;
  const random = () => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    return seed / 2 ** 32;
  };
  const shapes = Array.from({ length: colours * discs }, (_, i) => {
    const colour = `#${(0x100000 + 4099 * (i % colours)).toString(16).padStart(6, '0').slice(0, 6)}`;
    const [x, y] = [1000 * random(), 1000 * random()];
    return `<circle cx="${x.toFixed(2)}" cy="${y.toFixed(2)}" r="${radius}" fill="${colour}"/>`;
  });
  return `<svg viewBox="0 0 1000 1000">${shapes.join('')}</svg>`;
}

function timeRebuilds(): void {
  const drawing = readSvg(strewn(LAYERS, SHAPES, 2.5));
  const { project } = projectOf(drawing, { tolerance: 0.02, depth: 4 });
  const evaluator = new Evaluator({ content: () => drawing });
  const views = new BuildViews(evaluator);
  const overlays = { checker: false, wire: false };
  const known = new Set<string>();
  let [sent, here]: [Project | null, Project | null] = [null, null];
  /** As the worker has it: what changed crosses, and what the page has already is not handed over again. */
  const rebuild = (next: Project) => {
    const started = performance.now();
    here = withDelta(here, structuredClone(deltaOf(sent, next))) as Project;
    sent = next;
    const view = views.view(resolve(here), known, overlays);
    const ms = performance.now() - started;
    const uploads = view.layers.filter(({ mesh }) => mesh).length;
    for (const { key, shapesKey } of view.layers) known.add(key).add(shapesKey);
    return { ms, uploads };
  };
  const first = rebuild(project);
  const unchanged = median(Array.from({ length: ROUNDS }, () => rebuild({ ...project }).ms));
  const layer = project.layers[200]!;
  const changes = Array.from({ length: ROUNDS }, (_, i) => {
    const change = { build: { depth: heightOf(layer.build) + 0.01 * (i + 1) } };
    return rebuild(applyCommand(project, { do: 'change-layers', layers: [layer.id], change }));
  });
  const overlaps = median(
    Array.from({ length: 5 }, () => {
      const own = new Evaluator({ content: () => drawing });
      for (const each of project.layers) own.outlines(project, each);
      const started = performance.now();
      own.overlaps(sunken(project));
      return performance.now() - started;
    }),
  );
  console.log(`${project.layers.length} layers of ${SHAPES} shapes\n`);
  console.log(`first build              ${first.ms.toFixed(0)} ms, ${first.uploads} meshes`);
  console.log(`unchanged                ${unchanged.toFixed(1)} ms`);
  const uploads = Math.max(...changes.map((change) => change.uploads));
  console.log(
    `one depth changed        ${median(changes.map(({ ms }) => ms)).toFixed(1)} ms, ${uploads} mesh handed over`,
  );
  console.log(`overlaps, first time     ${overlaps.toFixed(0)} ms`);
}

/** All layers at a few heights, so that many share some. */
const sunken = (project: Project): Project => ({
  ...project,
  layers: project.layers.map((layer, i) => ({ ...layer, base: 3 * (i % 20) })),
});

async function timeArranging(): Promise<void> {
  console.log(`Drawings of many colours, ${DISCS} small discs each, from their text to arranged outlines\n`);
  console.log('colours   ms');
  const measured: { count: number; ms: number }[] = [];
  for (const count of COLOURS) {
    const bytes = new TextEncoder().encode(strewn(count, DISCS, 8));
    const times: number[] = [];
    for (let round = 0; round < 3; round++) times.push(await arranged(bytes));
    const ms = median(times);
    measured.push({ count, ms });
    console.log(`${String(count).padEnd(9)} ${ms.toFixed(0)}`);
  }
  console.log(`\ngrows as n^${exponent(measured).toFixed(2)}`);
}

async function arranged(bytes: Uint8Array): Promise<number> {
  const reader = { bytes: async () => bytes } as Pick<SourceReader, 'bytes'> as SourceReader;
  const started = performance.now();
  const evaluator = new Evaluator();
  const file = { id: 'source', name: 'discs.svg', asset: 'd'.repeat(64), head: bytes };
  const { source, layers } = await evaluator.bringIn(file, reader, wishesOf());
  const project: Project = { ...projectOfNothing, sources: [source], layers: [...layers] };
  for (const layer of project.layers) evaluator.outlines(project, layer);
  return performance.now() - started;
}

const projectOfNothing: Project = {
  version: 6,
  name: 'Discs',
  unit: 'mm',
  tolerance: 0.01,
  profiles: [],
  sources: [],
  layers: [],
};

// seed.ts — the demo: the mission patch, the crest, the name, the hall and the tiles of the Saltmarsh Observatory, drawn for this
// project.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  type Arrival,
  applyCommand,
  type Command,
  type Copies,
  changeEdits,
  type Edit,
  Evaluator,
  emptyProject,
  gaveOf,
  type LayerChange,
  type LayerWishes,
  LETTERING_DEFAULTS,
  type Lettering,
  LIBRARY,
  layersOfMarks,
  madeOf,
  type Paint,
  type Project,
  type ProjectReply,
  partAreas,
  planOf,
  type RuleBy,
  resolve,
  type Source,
  type SourceReader,
  type Step,
  smallPartLimit,
  subjectsOf,
  UNPLACED,
  type WallLimits,
} from '../../core/index.ts';
import { readerOf } from '../../node/reader.ts';
import { NotFound } from '../errors.ts';
import type { AssetStore } from '../stores/assets.ts';
import type { ProjectStore } from '../stores/projects.ts';

export interface DemoDeps {
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
  /** Folder with the demo's drawings. */
  readonly demoFolder: string;
}

/** Diameter of the patch in mm. */
const SIZE = 90;

/** What an artist changed by hand after bringing the patch in, by layer name. */
const CHANGES: Readonly<Record<string, LayerChange>> = {
  Night: { build: { depth: 3, edge: { reach: 0.5 } } },
  Marsh: { base: 3, build: { depth: 2, edge: { profile: 'chamfer', reach: 0.4, steps: 1 } } },
  Tide: { base: 5, build: { depth: 1.4, edge: { reach: 0.4 } } },
  Moon: { base: 3, build: { depth: 2.4, edge: { reach: 0.5, rise: 0.6, steps: 4 } } },
  Heron: { base: 6.4, build: { depth: 2.6, edge: { reach: 0.4, rise: 0.6 } } },
  Rim: {
    base: 3,
    build: { depth: 4, edge: { reach: 1.1, steps: 4 } },
    material: { metalness: 0.4, roughness: 0.4 },
  },
};

/** Each layer of the patch 3 mm above what it overlaps; what lies on the marsh differs from it by hand. */
const STEPPED: RuleBy = { kind: 'order', from: 0, step: 3 };

/** Seeds an empty database. */
export async function seedDemo(deps: DemoDeps): Promise<void> {
  if ((await deps.projects.list()).length === 0) await restoreDemo(deps);
}

/** The demo projects, the one that is shown first last. */
type DemoName = 'hall' | 'word' | 'crest' | 'tiles' | 'patch';

/** Makes the demo anew and removes the old one. @returns the patch */
export async function restoreDemo(deps: DemoDeps): Promise<ProjectReply> {
  const { projects } = deps;
  const made: [DemoName, Project][] = [];
  for (const name of Object.keys(DEMOS) as DemoName[]) made.push([name, await demoDocument(deps, name)]);
  const old = (await projects.list()).filter((project) => project.isDemo);
  const fresh: ProjectReply[] = [];
  for (const [demo, document] of made) {
    const project = await projects.create(document, { demo });
    await projects.setPicture(
      project.id,
      project.revision,
      readFileSync(join(deps.demoFolder, 'pictures', `${demo}.png`)),
    );
    fresh.push(project);
  }
  for (const { id } of old) await projects.remove(id);
  return fresh.at(-1)!;
}

/** Gives one demo project the document it came with, as its newest revision. @throws {NotFound} where it is none */
export async function restoreOneDemo(deps: DemoDeps, id: string): Promise<ProjectReply> {
  const { projects } = deps;
  const { revision } = await projects.get(id);
  const name = await projects.demoOf(id);
  if (!name || !(name in DEMOS)) throw new NotFound(`Project ${id} is no demo that could be restored.`);
  await projects.save(id, revision, await demoDocument(deps, name as DemoName));
  return projects.get(id);
}

interface Demo {
  readonly files: readonly string[];
  readonly make: (place: Workplace, ...stored: Stored[]) => Promise<Project>;
}

const DEMOS: Readonly<Record<DemoName, Demo>> = {
  hall: { files: ['hall.dxf', 'hall.jpg'], make: (place, work, scan) => hallProject(place, work!, scan!) },
  word: { files: [], make: wordProject },
  crest: { files: ['crest.jpg'], make: (place, scan) => crestProject(place, scan!) },
  tiles: { files: ['tiles.svg'], make: (place, drawing) => tilesProject(place, drawing!) },
  patch: { files: ['patch.svg'], make: (place, drawing) => patchProject(place, drawing!) },
};

/** What was traced and laid out once, by folder and name: it comes out the same every time, and takes seconds. */
const documents = new Map<string, Promise<Project>>();

async function demoDocument({ assets, demoFolder }: DemoDeps, name: DemoName): Promise<Project> {
  const { files, make } = DEMOS[name];
  const stored: Stored[] = [];
  for (const file of files) {
    const bytes = readFileSync(join(demoFolder, file));
    stored.push({ name: file, asset: await assets.put(bytes), head: bytes });
  }
  const key = join(demoFolder, name);
  const known = documents.get(key);
  if (known) return known;
  const reader = readerOf((asset) => stored.find((file) => file.asset === asset)!.head);
  const document = make({ evaluator: new Evaluator(), reader }, ...stored);
  documents.set(key, document);
  document.catch(() => documents.delete(key));
  return document;
}

interface Workplace {
  readonly evaluator: Evaluator;
  readonly reader: SourceReader;
}

interface Stored {
  readonly name: string;
  readonly asset: string;
  readonly head: Uint8Array;
}

const added = (project: Project, { source, layers, groups = [] }: Brought): Project =>
  applyCommand(project, { do: 'add-source', source, layers: [...layers], groups: [...groups] });

type Brought = Pick<Arrival, 'source' | 'layers'> & Partial<Pick<Arrival, 'groups'>>;

/** Ids of a project's layers, the same every time. */
function counting(prefix: string): () => string {
  let ids = 0;
  return () => `${prefix}-${++ids}`;
}

/** Longest side of the crest in mm. */
const CREST_SIZE = 120;

async function crestProject({ evaluator, reader }: Workplace, { name, asset }: Stored): Promise<Project> {
  const empty = emptyProject('Saltmarsh crest');
  const prepare: Step[] = [
    { id: 'crest-straight', on: true, action: { do: 'straighten', by: -1.6 } },
    { id: 'crest-threshold', on: true, action: { do: 'threshold', level: null } },
    { id: 'crest-specks', on: true, action: { do: 'specks', ink: 40, holes: 40 } },
  ];
  const wishes: LayerWishes = { unit: 'mm', tolerance: empty.tolerance, size: CREST_SIZE, newId: counting('crest') };
  const origin = { id: 'crest', name, asset, prepare };
  const { source, layers } = await evaluator.begin('picture', origin, reader, wishes);
  const named = layers.map((layer) => ({ ...layer, name: 'Crest', build: { ...layer.build, depth: 5 } }));
  return added(empty, { source, layers: named });
}

/** Metres of the hall that a pixel of its scan stands for. */
const METRES_PER_PIXEL = 0.01;
/** Real sizes in millimetres, the unit of the line work. */
const HALL_WALLS: WallLimits = {
  thinnest: 80,
  thickest: 500,
  widest: 2500,
  door: { sill: 0, head: 2100 },
  window: { sill: 900, head: 2100 },
};
const HALL_LAYERS: Readonly<Record<string, LayerChange>> = {
  WALLS: { build: { depth: 2.8, edge: { on: 'none' } }, material: { colour: '#d9d2c3' } },
  FURNITURE: { build: { depth: 0.75, edge: { on: 'none' } }, material: { colour: '#7a6248' } },
  DOORS: { shown: false },
};
/** Longest side of the hall's scan, in pixels. */
const HALL_PIXELS = 1720;

/** The visitors' hall: line work whose walls are found with their openings, and the scan of its printed plan. */
async function hallProject({ evaluator, reader }: Workplace, work: Stored, scan: Stored): Promise<Project> {
  const newId = counting('hall');
  let project = applyCommand(emptyProject('Saltmarsh hall'), { do: 'set-unit', unit: 'm' });
  project = applyCommand(project, { do: 'set-tolerance', tolerance: 0.001 });
  const options = { unit: 'm', tolerance: project.tolerance, newId } as const;

  const prepare: Step[] = [{ id: 'hall-straight', on: true, action: { do: 'straighten', by: 0.7 } }];
  const origin = { id: 'scan', name: scan.name, asset: scan.asset, prepare };
  const size = METRES_PER_PIXEL * HALL_PIXELS;
  const placed = await evaluator.begin('picture', origin, reader, { ...options, size });
  const hidden = placed.layers.map((layer) => ({ ...layer, name: 'Scan', shown: false }));
  project = added(project, { source: placed.source, layers: hidden });

  const { source, layers } = await evaluator.bringIn({ id: 'work', ...work }, reader, options);
  project = added(project, { source, layers });
  const drawing = evaluator.drawing(source);
  const { walls, replaced } = planOf(drawing.shapes, [], HALL_WALLS);
  const edit: Edit = {
    id: 'walls',
    on: true,
    action: { do: 'walls', after: [...replaced], walls: [...walls], colour: '#4a5058' },
  };
  const after = evaluator.drawing({ ...source, edits: [edit] });
  const { source: edited, layers: next, gone } = changeEdits(project, source, [edit], drawing, after, options);
  project = applyCommand(project, { do: 'change-source', source: edited, layers: [...next], gone: [...gone] });
  return changedByName(project, HALL_LAYERS);
}

function changedByName(project: Project, changes: Readonly<Record<string, LayerChange>>): Project {
  return Object.entries(changes).reduce((changed, [name, change]) => {
    const own = changed.layers.filter((layer) => layer.name === name).map(({ id }) => id);
    return applyCommand(changed, { do: 'change-layers', layers: own, change });
  }, project);
}

/** The observatory's name in a display face above “stars” in a connected script, whose dots are a layer of their own. */
async function wordProject({ evaluator, reader }: Workplace): Promise<Project> {
  const newId = counting('word');
  const lines: readonly (Pick<Lettering, 'text' | 'font' | 'size'> & {
    readonly below: number;
    readonly name: string;
  })[] = [
    { text: 'SALTMARSH', font: { from: 'bundle', name: 'display-serif' }, size: 26, below: -19, name: 'Saltmarsh' },
    { text: 'نجوم', font: { from: 'bundle', name: 'connected-script' }, size: 44, below: 19, name: 'Stars' },
  ];
  let project = emptyProject('Saltmarsh word');
  const options = { unit: 'mm', tolerance: project.tolerance, newId } as const;
  for (const { below, name, ...line } of lines) {
    const origin = { id: newId(), name, lettering: { ...LETTERING_DEFAULTS, ...line } };
    const arrived = await evaluator.begin('lettering', origin, reader, { ...options, depth: 4 });
    const [x, y] = arrived.source.origin;
    const source: Source = { ...arrived.source, origin: [x, y - below] };
    project = added(project, { source, layers: arrived.layers.map((layer) => ({ ...layer, name })) });
    const drawing = evaluator.drawing(source);
    const limit = smallPartLimit(drawing.shapes.flatMap(partAreas));
    if (limit === null) continue;
    const edit: Edit = {
      id: 'dots',
      on: true,
      action: { do: 'separate', shapes: drawing.shapes.map((shape) => shape.id), below: limit },
    };
    const after = evaluator.drawing({ ...source, edits: [edit] });
    const edited = changeEdits(project, source, [edit], drawing, after, options);
    project = applyCommand(project, { do: 'change-source', source: edited.source, layers: [...edited.layers] });
    const parted = layersOfMarks(project, source.id, 'dots', newId);
    const coloured = parted.map((layer) =>
      layer.name === name ? layer : { ...layer, material: { ...layer.material, colour: DOTS } },
    );
    project = applyCommand(project, { do: 'change-source', source: edited.source, layers: coloured });
  }
  return project;
}

/** Colour of the dots over the word. */
const DOTS = '#c9593f';

async function patchProject({ evaluator, reader }: Workplace, file: Stored): Promise<Project> {
  const empty = emptyProject('Saltmarsh mission patch');
  const wishes: LayerWishes = { unit: 'mm', tolerance: empty.tolerance, size: SIZE, newId: counting('patch') };
  const brought = added(empty, await evaluator.bringIn({ id: 'patch', ...file }, reader, wishes));
  const subjects = subjectsOf(
    evaluator,
    resolve(brought),
    brought.layers.filter(({ shown }) => shown).map(({ id }) => id),
  );
  const rule = { id: 'base', what: 'base' as const, by: STEPPED, gave: gaveOf(STEPPED, subjects) };
  const ruled = applyCommand(brought, { do: 'set-rule', rule });
  const paints = METALS.map(([name, side, id]) => paintOf(ruled, name, id, side));
  return applyCommand(changedByName(ruled, CHANGES), { do: 'paint', paints });
}

/** Cloth in metal: what of the patch is made of something else than the rest of its layer, by layer name. */
const METALS = [
  ['Rim', 'edge', 'brass'],
  ['Rim', 'wall', 'brass'],
  ['Moon', 'edge', 'gold'],
  ['Heron', 'edge', 'copper'],
] as const;

/** A material of the library on a layer, or on one of its sides. */
function paintOf(
  { layers }: Project,
  name: string,
  id: (typeof LIBRARY)[number]['id'],
  side: Paint['side'] = null,
): Paint {
  const layer = layers.find((each) => each.name === name)!;
  return { layer: layer.id, side, material: madeOf(LIBRARY.find((known) => known.id === id)!, layer.material) };
}

/** Leaves and pearls on a ring, tiles in a row: each drawn once. */
async function tilesProject({ evaluator, reader }: Workplace, file: Stored): Promise<Project> {
  const empty = emptyProject('Saltmarsh tide tiles');
  const wishes: LayerWishes = {
    unit: 'mm',
    tolerance: empty.tolerance,
    newId: counting('tiles'),
    depth: 3,
    keepsGroups: true,
  };
  const brought = added(empty, await evaluator.bringIn({ id: 'tiles', ...file }, reader, wishes));
  const layer = (name: string) => brought.layers.find((each) => each.name === name)!;
  const group = (name: string) => brought.groups!.find((each) => each.name === name)!.id;
  // Around the middle of the drawing, which is 120 mm wide and high.
  const { origin, scale } = brought.sources[0]!;
  const centre: [number, number, number] = [60 - scale * origin[0], scale * origin[1] - 60, 0];
  const around: Copies = { along: 'ring', count: 16, axis: 'z', centre, span: 360, isTurned: true };
  const commands: Command[] = [
    {
      do: 'place',
      places: [
        { id: group('Rosette'), placement: { ...UNPLACED, copies: around } },
        { id: group('Tile'), placement: { ...UNPLACED, copies: { along: 'line', count: 3, step: [19, 0, 0] } } },
      ],
    },
    {
      do: 'change-layers',
      layers: [layer('Leaf').id],
      change: {
        build: { depth: 2, edge: { reach: 0.6 }, cell: 1, front: { is: 'crowned', height: 2, dome: 'soft' } },
      },
    },
    {
      do: 'change-layers',
      layers: ['Pearl', 'Star'].map((name) => layer(name).id),
      change: { build: { depth: 2.4, edge: { on: 'front', reach: 1.1, rise: 1.1, steps: 6 } } },
    },
    {
      do: 'change-layers',
      layers: [layer('Crest line').id],
      change: { build: { depth: 1.6, edge: { reach: 0.5, steps: 4 } } },
    },
    {
      do: 'paint',
      paints: [
        paintOf(brought, 'Leaf', 'enamel'),
        paintOf(brought, 'Leaf', 'brass', 'edge'),
        paintOf(brought, 'Leaf', 'brass', 'wall'),
        paintOf(brought, 'Pearl', 'gold'),
        paintOf(brought, 'Star', 'gold'),
        paintOf(brought, 'Plate', 'lacquer'),
        paintOf(brought, 'Plate', 'painted-wood', 'wall'),
        paintOf(brought, 'Crest line', 'frosted'),
      ],
    },
  ];
  return commands.reduce(applyCommand, brought);
}

// seed.ts — the demo: the mission patch, the crest and the name of the Saltmarsh Observatory, drawn for this project.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  applyCommand,
  prepare as applySteps,
  arrange,
  changeEdits,
  decodeVector,
  decodeXml,
  type Edit,
  Evaluator,
  emptyProject,
  type LayerChange,
  LETTERING_DEFAULTS,
  type Lettering,
  layersOfMarks,
  layLetters,
  NO_DATA,
  type Project,
  type ProjectReply,
  partAreas,
  placePicture,
  planOf,
  readSvg,
  readVector,
  type Source,
  type Step,
  smallPartLimit,
  startSettings,
  trace,
  type WallLimits,
} from '../../core/index.ts';
import { decodeAsset } from '../../node/decode.ts';
import { fontsFor } from '../../node/fonts.ts';
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
  Night: { depth: 3, edge: { reach: 0.5, rise: 0.5 } },
  Marsh: { base: 3, depth: 2, edge: { profile: 'chamfer', reach: 0.4, rise: 0.4, steps: 1 } },
  Tide: { base: 5, depth: 1.4, edge: { reach: 0.4, rise: 0.4 } },
  Moon: { base: 3, depth: 2.4, edge: { reach: 0.5, rise: 0.6, steps: 4 } },
  Heron: { base: 6.4, depth: 2.6, edge: { reach: 0.4, rise: 0.6 } },
  Rim: { base: 3, depth: 4, edge: { reach: 1.1, rise: 1.1, steps: 4 }, material: { metalness: 0.4, roughness: 0.4 } },
};

/** Seeds an empty database. */
export async function seedDemo(deps: DemoDeps): Promise<void> {
  if ((await deps.projects.list()).length === 0) await restoreDemo(deps);
}

/** Makes the demo anew and removes the old one. @returns the patch */
export async function restoreDemo({ projects, assets, demoFolder }: DemoDeps): Promise<ProjectReply> {
  const read = (name: string) => readFileSync(join(demoFolder, name));
  const [patch, crest, hall, scan] = [read('patch.svg'), read('crest.jpg'), read('hall.dxf'), read('hall.jpg')];
  const documents = [
    await hallProject({ bytes: hall, asset: await assets.put(hall) }, { bytes: scan, asset: await assets.put(scan) }),
    await wordProject(),
    await crestProject(crest, await assets.put(crest)),
    patchProject(patch, await assets.put(patch)),
  ];
  const old = (await projects.list()).filter((project) => project.isDemo);
  const fresh: ProjectReply[] = [];
  for (const document of documents) fresh.push(await projects.create(document, { isDemo: true }));
  for (const { id } of old) await projects.remove(id);
  return fresh.at(-1)!;
}

/** Longest side of the crest in mm. */
const CREST_SIZE = 120;

async function crestProject(bytes: Buffer, asset: string): Promise<Project> {
  let ids = 0;
  const empty = emptyProject('Saltmarsh crest');
  const { picture } = await decodeAsset(bytes);
  const { width, height } = picture;
  const prepare: Step[] = [
    { id: 'crest-straight', on: true, action: { do: 'straighten', by: -1.6 } },
    { id: 'crest-threshold', on: true, action: { do: 'threshold', level: null } },
    { id: 'crest-specks', on: true, action: { do: 'specks', ink: 40, holes: 40 } },
  ];
  const settings = startSettings(picture);
  const traced = trace(applySteps(picture, prepare), settings);
  const { source, layers } = placePicture(
    { id: 'crest', kind: 'picture', name: 'crest.jpg', asset, width, height, prepare, trace: settings },
    traced,
    { unit: 'mm', tolerance: empty.tolerance, size: CREST_SIZE, newId: () => `crest-${++ids}` },
  );
  const named = layers.map((layer) => ({ ...layer, name: 'Crest', depth: 5 }));
  return applyCommand(empty, { do: 'add-source', source, layers: named });
}

interface Stored {
  readonly bytes: Buffer;
  readonly asset: string;
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
  WALLS: { depth: 2.8, edge: { on: 'none' }, material: { colour: '#d9d2c3' } },
  FURNITURE: { depth: 0.75, edge: { on: 'none' }, material: { colour: '#7a6248' } },
  DOORS: { shown: false },
};

/** The visitors' hall: line work whose walls are found with their openings, and the scan of its printed plan. */
async function hallProject(work: Stored, scan: Stored): Promise<Project> {
  let ids = 0;
  const newId = () => `hall-${++ids}`;
  let project = applyCommand(emptyProject('Saltmarsh hall'), { do: 'set-unit', unit: 'm' });
  project = applyCommand(project, { do: 'set-tolerance', tolerance: 0.001 });
  const options = { unit: 'm', tolerance: project.tolerance, newId } as const;

  const { picture } = await decodeAsset(scan.bytes);
  const prepare: Step[] = [{ id: 'hall-straight', on: true, action: { do: 'straighten', by: 0.7 } }];
  const settings = startSettings(picture);
  const size = METRES_PER_PIXEL * Math.max(picture.width, picture.height);
  const { width, height } = picture;
  const placed = placePicture(
    { id: 'scan', kind: 'picture', name: 'hall.jpg', asset: scan.asset, width, height, prepare, trace: settings },
    trace(applySteps(picture, prepare), settings),
    { ...options, size },
  );
  const hidden = placed.layers.map((layer) => ({ ...layer, name: 'Scan', shown: false }));
  project = applyCommand(project, { do: 'add-source', source: placed.source, layers: hidden });

  const drawing = readVector(decodeVector(work.bytes));
  const { placement, layers } = arrange(drawing, 'work', options);
  const source: Source = {
    id: 'work',
    kind: 'vector',
    name: 'hall.dxf',
    asset: work.asset,
    edits: [],
    ...placement,
  };
  project = applyCommand(project, { do: 'add-source', source, layers: [...layers] });
  const { walls, replaced } = planOf(drawing.shapes, [], HALL_WALLS);
  const edit: Edit = {
    id: 'walls',
    on: true,
    action: { do: 'walls', after: [...replaced], walls: [...walls], colour: '#4a5058' },
  };
  const evaluator = new Evaluator({ ...NO_DATA, text: () => decodeVector(work.bytes) });
  const after = evaluator.drawing({ ...source, edits: [edit] });
  const edited = changeEdits(project, source, [edit], drawing, after, options);
  project = applyCommand(project, {
    do: 'change-source',
    source: edited.source,
    layers: [...edited.layers],
    gone: [...edited.gone],
  });
  return changedByName(project, HALL_LAYERS);
}

function changedByName(project: Project, changes: Readonly<Record<string, LayerChange>>): Project {
  return Object.entries(changes).reduce((changed, [name, change]) => {
    const own = changed.layers.filter((layer) => layer.name === name).map(({ id }) => id);
    return applyCommand(changed, { do: 'change-layers', layers: own, change });
  }, project);
}

/** The observatory's name in a display face above “stars” in a connected script, whose dots are a layer of their own. */
async function wordProject(): Promise<Project> {
  let ids = 0;
  const newId = () => `word-${++ids}`;
  const lines: readonly (Pick<Lettering, 'text' | 'font' | 'size'> & {
    readonly below: number;
    readonly name: string;
  })[] = [
    { text: 'SALTMARSH', font: { from: 'bundle', name: 'display-serif' }, size: 26, below: -19, name: 'Saltmarsh' },
    { text: 'نجوم', font: { from: 'bundle', name: 'connected-script' }, size: 44, below: 19, name: 'Stars' },
  ];
  let project = emptyProject('Saltmarsh word');
  for (const { below, name, ...line } of lines) {
    const lettering = { ...LETTERING_DEFAULTS, ...line };
    const fonts = await fontsFor(lettering.font, () => new Uint8Array());
    const drawing = layLetters(lettering, fonts);
    const { x, y, width, height } = drawing.sheet;
    const placement = { scale: 1, origin: [x + width / 2, y + height / 2 - below] as [number, number] };
    const id = newId();
    const { layers } = arrange(drawing, id, { unit: 'mm', tolerance: project.tolerance, placement, depth: 4, newId });
    const source: Source = { id, kind: 'lettering', name, lettering, edits: [], ...placement };
    const named = layers.map((layer) => ({ ...layer, name }));
    project = applyCommand(project, { do: 'add-source', source, layers: named });
    const limit = smallPartLimit(drawing.shapes.flatMap(partAreas));
    if (limit === null) continue;
    const evaluator = new Evaluator({ ...NO_DATA, fonts: () => fonts });
    const edit: Edit = {
      id: 'dots',
      on: true,
      action: { do: 'separate', shapes: drawing.shapes.map((shape) => shape.id), below: limit },
    };
    const after = evaluator.drawing({ ...source, edits: [edit] });
    const options = { unit: 'mm', tolerance: project.tolerance, newId } as const;
    const edited = changeEdits(project, source, [edit], drawing, after, options);
    project = applyCommand(project, { do: 'change-source', source: edited.source, layers: [...edited.layers] });
    const parted = layersOfMarks(project, id, 'dots', newId);
    const coloured = parted.map((layer) =>
      layer.name === name ? layer : { ...layer, material: { ...layer.material, colour: DOTS } },
    );
    project = applyCommand(project, { do: 'change-source', source: edited.source, layers: coloured });
  }
  return project;
}

/** Colour of the dots over the word. */
const DOTS = '#c9593f';

function patchProject(bytes: Buffer, asset: string): Project {
  let ids = 0;
  const empty = emptyProject('Saltmarsh mission patch');
  const { placement, layers } = arrange(readSvg(decodeXml(bytes)), 'patch', {
    unit: 'mm',
    tolerance: empty.tolerance,
    size: SIZE,
    newId: () => `patch-${++ids}`,
  });
  const source = { id: 'patch', kind: 'vector' as const, name: 'patch.svg', asset, edits: [], ...placement };
  return changedByName(applyCommand(empty, { do: 'add-source', source, layers: [...layers] }), CHANGES);
}

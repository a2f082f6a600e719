// build-file.ts — one input to one output, with its report. Runs in a worker thread or in the main one alike.
import { basename, extname } from 'node:path';
import {
  applyCommand,
  type BakeWishes,
  boundsOf,
  type Curves,
  checkBake,
  type EdgePath,
  Evaluator,
  emptyProject,
  type Format,
  type FormatId,
  formatOf,
  GeometryError,
  gaveOf,
  isLeftOpen,
  type Layer,
  type MeshCounts,
  type MeshFormat,
  MM_PER_UNIT,
  madeOf,
  type OutlineFormat,
  type Point3,
  type Project,
  partsToWrite,
  picturesOn,
  proofOf,
  type Resolved,
  regionsArea,
  resolve,
  ringsOf,
  type SourceReader,
  subjectsOf,
  totalsOf,
  type Warning,
  whereWords,
  writeOutlines,
} from '../core/index.ts';
import { hashOf, readerOf } from '../node/reader.ts';
import { Clock } from './clock.ts';
import type { BuildSettings, MaterialWish } from './options.ts';
import { readBytes } from './read.ts';
import type { RuleWish } from './rules.ts';
import { writeBytes, writeChunks } from './write.ts';

export interface BuildTask {
  readonly kind: 'build';
  readonly input: string;
  readonly output: string;
  readonly format: FormatId;
  readonly curves: Curves;
  readonly bake: BakeWishes | undefined;
  readonly settings: BuildSettings;
  /** Look for self-crossings too, the slowest of the checks; only a report shows them. */
  readonly crossings: boolean;
}

export interface FileReport {
  readonly input: string;
  readonly output: string;
  readonly ok: boolean;
  readonly error?: { readonly code: string; readonly message: string };
  readonly counts: MeshCounts;
  readonly closed: boolean;
  readonly crossings: number;
  readonly volume: number;
  readonly area: number;
  readonly size: Point3;
  readonly safeReach: number;
  readonly edgePath: EdgePath;
  readonly warnings: readonly Warning[];
  readonly ms: {
    readonly read: number;
    readonly outline: number;
    readonly mesh: number;
    readonly write: number;
    readonly total: number;
  };
}

type Laps = 'read' | 'outline' | 'mesh' | 'write';

/** Never throws: a failure is part of the report. */
export async function buildFile(task: BuildTask): Promise<FileReport> {
  const clock = new Clock<Laps>(['read', 'outline', 'mesh', 'write']);
  try {
    const evaluator = new Evaluator();
    const bytes = readBytes(task.input);
    const asset = hashOf(bytes);
    const paths = task.settings.material?.pictures ?? {};
    const reader = readerOf((wanted) => (wanted === asset ? bytes : readBytes(paths[wanted]!)));
    const file = { asset, head: bytes.subarray(0, HEAD) };
    const { project, warnings: found } = await projectOf(task, file, evaluator, reader, clock);
    const shown = project.layers.filter((layer) => layer.shown);
    for (const layer of shown) evaluator.outlines(project, layer);
    clock.lap('outline');
    const format = formatOf(task.format);
    if (task.bake) checkBake(format);
    const warnings = [...found, ...withoutPictures(format, shown)];
    return format.of === 'outlines'
      ? writeFlat(task, format, evaluator, project, warnings, clock)
      : await writeSolid(task, format, evaluator, project, reader, warnings, clock);
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return failedReport(task, code, error instanceof Error ? error.message : String(error), clock.times());
  }
}

async function writeSolid(
  { input, output, crossings, bake }: BuildTask,
  format: MeshFormat,
  evaluator: Evaluator,
  project: Resolved,
  reader: SourceReader,
  warnings: readonly Warning[],
  clock: Clock<Laps>,
): Promise<FileReport> {
  const shown = project.layers.filter((layer) => layer.shown);
  const builds = shown.map((layer) => evaluator.build(project, layer));
  const meshes = shown.map((layer) => evaluator.mesh(project, layer));
  clock.lap('mesh');
  const { parts, pictures } = await partsToWrite(evaluator, project, format, { bake }, reader);
  const name = basename(output, extname(output));
  for (const { extension, chunks } of format.write(parts, { name, metresPerUnit: 1, pictures })) {
    await writeChunks(extension === format.extension ? output : withEnding(output, extension), chunks);
  }
  clock.lap('write');
  const proofs = meshes.map(({ mesh }) => proofOf(mesh, { crossings }));
  const bases = shown.map((layer) => layer.base);
  const { closed, counts, volume, area, size, faults } = totalsOf(proofs, bases);
  const isMeant = closed || shown.some(isLeftOpen);
  return {
    input,
    output,
    ok: isMeant,
    ...(isMeant
      ? {}
      : { error: { code: 'not-closed', message: 'The mesh is open; the file was written all the same.' } }),
    counts,
    closed,
    crossings: faults.crossing,
    volume,
    area,
    size,
    safeReach: safeReachOf(evaluator, project, shown),
    edgePath: slowest(builds.map(({ edgePath }) => edgePath)),
    warnings: [...warnings, ...builds.flatMap((build) => build.warnings)],
    ms: clock.times(),
  };
}

function withoutPictures({ name, keeps }: Format, layers: readonly Layer[]): Warning[] {
  if (keeps.includes('pictures') || picturesOn(layers).length === 0) return [];
  return [{ code: 'left-out', message: `Left out: the pictures of the material, which ${name} does not hold.` }];
}

const withEnding = (path: string, extension: string) =>
  `${path.slice(0, -extname(path).length || undefined)}.${extension}`;

/** Outlines need no mesh: points are those between lines and curves, edges the lines and curves, faces the outlines. */
function writeFlat(
  { input, output, curves }: BuildTask,
  format: OutlineFormat,
  evaluator: Evaluator,
  project: Resolved,
  warnings: readonly Warning[],
  clock: Clock<Laps>,
): FileReport {
  clock.lap('mesh');
  const groups = evaluator.outlineGroups(project);
  writeBytes(
    output,
    writeOutlines(format, groups, MM_PER_UNIT[project.unit], { as: curves, tolerance: project.tolerance })[
      format.extension
    ]!,
  );
  clock.lap('write');
  const shown = project.layers.filter((layer) => layer.shown);
  const regions = shown.flatMap((layer) => evaluator.outlines(project, layer).regions);
  const bounds = boundsOf(ringsOf(regions));
  const segments = groups.flatMap(({ shapes }) => shapes.flatMap(({ path }) => path));
  const edges = segments.filter(([letter]) => letter !== 'M').length;
  return {
    input,
    output,
    ok: true,
    counts: { points: edges, edges, faces: regions.length, triangles: 0 },
    closed: true,
    crossings: 0,
    volume: 0,
    area: regionsArea(regions),
    size: bounds ? [bounds.maxX - bounds.minX, bounds.maxY - bounds.minY, 0] : [0, 0, 0],
    safeReach: safeReachOf(evaluator, project, shown),
    edgePath: 'none',
    warnings,
    ms: clock.times(),
  };
}

const safeReachOf = (evaluator: Evaluator, project: Resolved, layers: readonly Layer[]): number =>
  Math.min(...layers.map((layer) => evaluator.width(project, layer)?.safeReach ?? Infinity));

/** Bytes that tell what a file is. */
const HEAD = 64 * 1024;

async function projectOf(
  { input, settings: { wishes, profiles, material, isSplit, rules } }: BuildTask,
  { asset, head }: { readonly asset: string; readonly head: Uint8Array },
  evaluator: Evaluator,
  reader: SourceReader,
  clock: Clock<Laps>,
): Promise<{ project: Resolved; warnings: Warning[] }> {
  const name = basename(input, extname(input)).slice(0, 120).trim() || 'drawing';
  let ids = 0;
  const newId = () => `layer-${ids++}`;
  const file = { id: 'source', name, asset, head };
  await evaluator.openFile(file, reader);
  clock.lap('read');
  const { source, layers, warnings, leftOut } = await evaluator.bringIn(file, reader, { ...wishes, newId });
  const said = leftOut.map(({ what, count, where }) => ({
    code: 'left-out',
    message: `Left out: ${count} × ${what}, first at ${whereWords(where)}.`,
  }));
  const empty: Project = { ...emptyProject(name), tolerance: wishes.tolerance, profiles };
  const added = applyCommand(empty, { do: 'add-source', source, layers: [...layers] });
  const project = isSplit ? split(added, newId) : added;
  const painted = material ? withMaterial(project, material) : project;
  const ruled = rules.reduce((before, wish) => withRule(before, wish, evaluator), painted);
  return { project: resolve(ruled), warnings: [...warnings, ...said] };
}

/** Each outline a layer of its own. */
function split(project: Project, newId: () => string): Project {
  const several = project.layers.filter(({ members }) => members.length > 1);
  return several.reduce((before, { id, members }) => {
    const ids = members.map(newId);
    return applyCommand(before, { do: 'split-layer', layer: id, ids, group: `group of ${id}` });
  }, project);
}

function withMaterial(project: Project, { whole, change = {}, sides }: MaterialWish): Project {
  const layers = project.layers.map(({ id }) => id);
  if (whole) {
    const made = project.layers.map(({ id, material }) => ({
      layer: id,
      side: null,
      material: madeOf(whole, material),
    }));
    return applyCommand(project, { do: 'paint', paints: made });
  }
  const sideMaterials = sides ? { sideMaterials: sides } : {};
  return applyCommand(project, { do: 'change-layers', layers, change: { material: change, ...sideMaterials } });
}

/** What is built, with values by a rule. */
function withRule(project: Project, { what, by }: RuleWish, evaluator: Evaluator): Project {
  const built = project.layers.filter(({ shown }) => shown).map(({ id }) => id);
  const subjects = subjectsOf(evaluator, resolve(project), built);
  return applyCommand(project, { do: 'set-rule', rule: { id: what, what, by, gave: gaveOf(by, subjects) } });
}

function slowest(paths: readonly EdgePath[]): EdgePath {
  if (paths.includes('rings')) return 'rings';
  return paths.includes('skeleton') ? 'skeleton' : 'none';
}

const NO_TIME: FileReport['ms'] = { read: 0, outline: 0, mesh: 0, write: 0, total: 0 };

/** The report of a file that was not made. */
export function failedReport({ input, output }: BuildTask, code: string, message: string, ms = NO_TIME): FileReport {
  return {
    input,
    output,
    ok: false,
    error: { code, message },
    counts: { points: 0, edges: 0, faces: 0, triangles: 0 },
    closed: false,
    crossings: 0,
    volume: 0,
    area: 0,
    size: [0, 0, 0],
    safeReach: 0,
    edgePath: 'none',
    warnings: [],
    ms,
  };
}

// build-file.ts — one input to one output, with its report. Runs in a worker thread or in the main one alike.
import { mkdirSync, writeFileSync } from 'node:fs';
import { basename, dirname, extname } from 'node:path';
import {
  arrange,
  boundsOf,
  countOf,
  type Drawing,
  type EdgePath,
  Evaluator,
  type ExportFormat,
  emptyProject,
  GeometryError,
  type Layer,
  type MeshCounts,
  MM_PER_UNIT,
  NO_DATA,
  OUTLINE_FORMATS,
  type OutlineFormat,
  type Part,
  type Point3,
  type Project,
  type Proof,
  proofOf,
  regionsArea,
  ringsOf,
  type Warning,
  writeGlb,
  writeObj,
  writeOutlines,
  writeStl,
} from '../core/index.ts';
import { Clock } from './clock.ts';
import type { BuildSettings } from './options.ts';
import { readDrawing } from './read.ts';

export interface BuildTask {
  readonly kind: 'build';
  readonly input: string;
  readonly output: string;
  readonly format: ExportFormat | OutlineFormat;
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

/** Never throws: a failure is part of the report. */
export async function buildFile(task: BuildTask): Promise<FileReport> {
  const clock = new Clock(['read', 'outline', 'mesh', 'write']);
  try {
    const drawing = await readDrawing(task.input);
    clock.lap('read');
    const { project, warnings } = projectOf(drawing, task);
    const evaluator = new Evaluator(NO_DATA);
    evaluator.adopt(project.sources[0]!, drawing);
    const shown = project.layers.filter((layer) => layer.shown);
    for (const layer of shown) evaluator.outlines(project, layer);
    clock.lap('outline');
    const flat = OUTLINE_FORMATS.find((format) => format === task.format);
    if (flat) return writeFlat(task, flat, evaluator, project, warnings, clock);
    const builds = shown.map((layer) => evaluator.build(project, layer));
    const meshes = shown.map((layer) => evaluator.mesh(project, layer));
    const parts = evaluator.parts(project);
    clock.lap('mesh');
    await write(task.output, task.format as ExportFormat, parts);
    clock.lap('write');
    const proofs = meshes.map(({ whole }) => proofOf(whole, { crossings: task.crossings }));
    const closed = proofs.every((proof) => proof.closed);
    return {
      input: task.input,
      output: task.output,
      ok: closed,
      ...(closed
        ? {}
        : { error: { code: 'not-closed', message: 'The mesh is not closed; the file was written all the same.' } }),
      ...totals(
        proofs,
        shown.map((layer) => layer.base),
      ),
      safeReach: safeReachOf(evaluator, project, shown),
      edgePath: slowest(builds.map(({ edgePath }) => edgePath)),
      warnings: [...warnings, ...builds.flatMap((build) => build.warnings)],
      ms: clock.times(),
    };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return failedReport(task, code, error instanceof Error ? error.message : String(error), clock.times());
  }
}

/** Outlines need no mesh: points are those between lines and curves, edges the lines and curves, faces the outlines. */
function writeFlat(
  { input, output }: BuildTask,
  format: OutlineFormat,
  evaluator: Evaluator,
  project: Project,
  warnings: readonly Warning[],
  clock: Clock<'read' | 'outline' | 'mesh' | 'write'>,
): FileReport {
  clock.lap('mesh');
  mkdirSync(dirname(output), { recursive: true });
  const groups = evaluator.outlineGroups(project);
  writeFileSync(output, writeOutlines(groups, format, MM_PER_UNIT[project.unit]).bytes);
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

const safeReachOf = (evaluator: Evaluator, project: Project, layers: readonly Layer[]): number =>
  Math.min(...layers.map((layer) => evaluator.width(project, layer)?.safeReach ?? Infinity));

function projectOf(drawing: Drawing, { input, settings }: BuildTask): { project: Project; warnings: Warning[] } {
  let ids = 0;
  const arranged = arrange(drawing, 'source', {
    ...settings,
    unit: 'mm',
    newId: (kind) => `${kind}-${ids++}`,
  });
  const name = basename(input, extname(input));
  const source = {
    id: 'source',
    kind: 'vector' as const,
    name,
    asset: '0'.repeat(64),
    edits: [],
    ...arranged.placement,
  };
  const leftOut = drawing.leftOut.map(({ what, count, where }) => ({
    code: 'left-out',
    message: `Left out: ${count} × ${what}, first at ${where || 'the root'}.`,
  }));
  return {
    project: {
      ...emptyProject(name),
      tolerance: settings.tolerance,
      profiles: settings.profiles,
      sources: [source],
      layers: [...arranged.layers],
    },
    warnings: [...drawing.warnings, ...leftOut, ...arranged.warnings],
  };
}

async function write(output: string, format: ExportFormat, parts: readonly Part[]): Promise<void> {
  mkdirSync(dirname(output), { recursive: true });
  switch (format) {
    case 'glb':
      writeFileSync(output, await writeGlb(parts, { name: basename(output, '.glb') }));
      return;
    case 'stl':
      writeFileSync(output, writeStl(parts));
      return;
    case 'obj': {
      const library = `${basename(output, extname(output))}.mtl`;
      const { obj, mtl } = writeObj(parts, library);
      writeFileSync(output, obj);
      writeFileSync(`${output.slice(0, -extname(output).length)}.mtl`, mtl);
    }
  }
}

function totals(proofs: readonly Proof[], bases: readonly number[]) {
  const sum = (pick: (proof: Proof) => number) => proofs.reduce((total, proof) => total + pick(proof), 0);
  const low = (axis: number) => Math.min(...proofs.map((proof, i) => proof.min[axis]! + (axis === 2 ? bases[i]! : 0)));
  const high = (axis: number) =>
    Math.max(...proofs.map((proof, i) => proof.min[axis]! + proof.size[axis]! + (axis === 2 ? bases[i]! : 0)));
  return {
    counts: {
      points: sum((proof) => proof.counts.points),
      edges: sum((proof) => proof.counts.edges),
      faces: sum((proof) => proof.counts.faces),
      triangles: sum((proof) => proof.counts.triangles),
    },
    closed: proofs.every((proof) => proof.closed),
    crossings: sum((proof) => countOf(proof, 'crossing')),
    volume: sum((proof) => proof.volume),
    area: sum((proof) => proof.area),
    size: [high(0) - low(0), high(1) - low(1), high(2) - low(2)] as const,
  };
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

// export.ts — the job that evaluates a project, writes one file of it and reads that back.

import type { z } from 'zod';
import {
  assetsOf,
  CreateExportSchema,
  decodeVector,
  Evaluator,
  type ExportFile,
  type ExportFormat,
  fileNames,
  GeometryError,
  type LetterFont,
  MM_PER_UNIT,
  OUTLINE_FORMATS,
  type OutlineFormat,
  type Part,
  type Picture,
  type Project,
  type ReadBack,
  readBack,
  readBackOutlines,
  readMeshes,
  writeExport,
  writeOutlines,
} from '../../core/index.ts';
import { decodeAsset } from '../../node/decode.ts';
import { fontsFor } from '../../node/fonts.ts';
import type { JobKind, JobResult } from './kind.ts';

type ExportRequest = z.output<typeof CreateExportSchema>;

interface ExportTask {
  readonly document: Project;
  readonly assets: Readonly<Record<string, Uint8Array>>;
  readonly request: ExportRequest;
}

type Report = (share: number) => void;

export const exportJob = {
  kind: 'export',
  request: CreateExportSchema,
  patienceMs: 10 * 60_000,
  async gather(project, request, { projects, assets }) {
    const document = await projects.document(project, request.revision);
    const bytes = await Promise.all(assetsOf(document).map(async (asset) => [asset, await assets.get(asset)] as const));
    return { document, assets: Object.fromEntries(bytes), request };
  },
  async run({ document, assets, request }, report) {
    const started = performance.now();
    const evaluator = await evaluatorFor(document, assets);
    const outlines = OUTLINE_FORMATS.find((format) => format === request.format);
    const { file, read } = outlines
      ? outlinesOf(evaluator, document, request, outlines, report)
      : await meshesOf(evaluator, document, request, report);
    return result(document.name, request, file, read, started);
  },
} as const satisfies JobKind<ExportRequest, ExportTask>;

async function evaluatorFor(document: Project, assets: ExportTask['assets']): Promise<Evaluator> {
  const pictures = new Map<string, Picture>();
  const fonts = new Map<string, readonly LetterFont[]>();
  const meshes = new Map<string, readonly Part[]>();
  for (const source of document.sources) {
    if (source.kind === 'picture') pictures.set(source.asset, (await decodeAsset(assets[source.asset]!)).picture);
    if (source.kind === 'mesh') meshes.set(source.asset, await readMeshes(assets[source.asset]!, source.format));
    if (source.kind === 'lettering') {
      const { font } = source.lettering;
      fonts.set(JSON.stringify(font), await fontsFor(font, (asset) => assets[asset]!));
    }
  }
  return new Evaluator({
    text: (hash) => decodeVector(assets[hash]!),
    picture: (hash) => pictures.get(hash)!,
    fonts: (choice) => fonts.get(JSON.stringify(choice))!,
    meshes: (hash) => meshes.get(hash)!,
  });
}

interface Made {
  readonly file: ExportFile;
  readonly read: ReadBack;
}

const nothing = () =>
  new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');

async function meshesOf(
  evaluator: Evaluator,
  document: Project,
  request: ExportRequest,
  report: Report,
): Promise<Made> {
  const format = request.format as ExportFormat;
  const wanted = document.layers.filter((layer) => layer.shown && (request.layers?.includes(layer.id) ?? true));
  for (const [i, layer] of wanted.entries()) {
    evaluator.mesh(document, layer);
    report((0.7 * (i + 1)) / wanted.length);
  }
  const parts = evaluator.parts(document, request.layers);
  if (parts.length === 0) throw nothing();
  const metresPerUnit = request.lengths === 'metres' ? MM_PER_UNIT[document.unit] / 1000 : 1;
  const file = await writeExport(parts, format, { name: document.name, metresPerUnit });
  report(0.85);
  return { file, read: await readBack(file, parts, format) };
}

/** Outlines need no meshes. */
function outlinesOf(
  evaluator: Evaluator,
  document: Project,
  request: ExportRequest,
  format: OutlineFormat,
  report: Report,
): Made {
  const groups = evaluator.outlineGroups(document, request.layers);
  if (groups.length === 0) throw nothing();
  const mmPerUnit = MM_PER_UNIT[document.unit];
  const file = writeOutlines(groups, format, mmPerUnit);
  report(0.6);
  return { file, read: readBackOutlines(file, groups, format, mmPerUnit) };
}

function result(name: string, { format }: ExportRequest, file: ExportFile, read: ReadBack, started: number): JobResult {
  const fileName = `${fileNames([name])[0]}.${file.extension}`;
  const report = { fileName, format, ...read, ms: Math.round(performance.now() - started) };
  return { fileName, mime: file.mime, bytes: file.bytes, report };
}

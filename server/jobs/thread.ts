// thread.ts — the worker thread that evaluates one project and writes one file.
import { parentPort, workerData } from 'node:worker_threads';
import {
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
import type { ExportRequest, FinishedExport } from '../stores/jobs.ts';

export interface ThreadTask {
  readonly document: Project;
  readonly assets: Readonly<Record<string, Uint8Array>>;
  readonly request: ExportRequest;
}

export type ThreadMessage =
  | { readonly kind: 'progress'; readonly progress: number }
  | { readonly kind: 'done'; readonly result: Omit<FinishedExport, 'bytes'> & { readonly bytes: Uint8Array } }
  | { readonly kind: 'failed'; readonly error: { code: string; message: string } };

const send = (message: ThreadMessage) => parentPort?.postMessage(message);

try {
  await work(workerData as ThreadTask);
} catch (error) {
  const code = error instanceof GeometryError ? error.code : 'unexpected';
  send({ kind: 'failed', error: { code, message: error instanceof Error ? error.message : String(error) } });
}

async function work({ document, assets, request }: ThreadTask): Promise<void> {
  const started = performance.now();
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
  const evaluator = new Evaluator({
    text: (hash) => decodeVector(assets[hash]!),
    picture: (hash) => pictures.get(hash)!,
    fonts: (choice) => fonts.get(JSON.stringify(choice))!,
    meshes: (hash) => meshes.get(hash)!,
  });
  const outlines = OUTLINE_FORMATS.find((format) => format === request.format);
  if (outlines) {
    finishOutlines(evaluator, document, request, outlines, started);
    return;
  }
  const format = request.format as ExportFormat;
  const wanted = document.layers.filter((layer) => layer.shown && (request.layers?.includes(layer.id) ?? true));
  for (const [i, layer] of wanted.entries()) {
    evaluator.mesh(document, layer);
    send({ kind: 'progress', progress: (0.7 * (i + 1)) / wanted.length });
  }
  const parts = evaluator.parts(document, request.layers);
  if (parts.length === 0) {
    throw new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');
  }
  const metresPerUnit = request.lengths === 'metres' ? MM_PER_UNIT[document.unit] / 1000 : 1;
  const file = await writeExport(parts, format, { name: document.name, metresPerUnit });
  send({ kind: 'progress', progress: 0.85 });
  const { rows, ok, bytes } = await readBack(file, parts, format);
  finish(document.name, request, file, { rows, ok, bytes }, started);
}

/** Outlines need no meshes. */
function finishOutlines(
  evaluator: Evaluator,
  document: Project,
  request: ExportRequest,
  format: OutlineFormat,
  started: number,
): void {
  const groups = evaluator.outlineGroups(document, request.layers);
  if (groups.length === 0) {
    throw new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');
  }
  const mmPerUnit = MM_PER_UNIT[document.unit];
  const file = writeOutlines(groups, format, mmPerUnit);
  send({ kind: 'progress', progress: 0.6 });
  finish(document.name, request, file, readBackOutlines(file, groups, format, mmPerUnit), started);
}

function finish(name: string, { format }: ExportRequest, file: ExportFile, read: ReadBack, started: number): void {
  const fileName = `${fileNames([name])[0]}.${file.extension}`;
  const report = { fileName, format, ...read, ms: Math.round(performance.now() - started) };
  send({ kind: 'done', result: { fileName, mime: file.mime, bytes: file.bytes, report } });
}

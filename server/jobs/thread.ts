// thread.ts — the worker thread that evaluates one project and writes one file.
import { parentPort, workerData } from 'node:worker_threads';
import {
  decodeVector,
  Evaluator,
  fileNames,
  GeometryError,
  type LetterFont,
  MM_PER_UNIT,
  type Picture,
  type Project,
  readBack,
  writeExport,
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
  for (const source of document.sources) {
    if (source.kind === 'picture') pictures.set(source.asset, (await decodeAsset(assets[source.asset]!)).picture);
    if (source.kind === 'lettering') {
      const { font } = source.lettering;
      fonts.set(JSON.stringify(font), await fontsFor(font, (asset) => assets[asset]!));
    }
  }
  const evaluator = new Evaluator({
    text: (hash) => decodeVector(assets[hash]!),
    picture: (hash) => pictures.get(hash)!,
    fonts: (choice) => fonts.get(JSON.stringify(choice))!,
  });
  const wanted = document.layers.filter((layer) => layer.shown && (request.layers?.includes(layer.id) ?? true));
  for (const [i, layer] of wanted.entries()) {
    evaluator.build(document, layer);
    send({ kind: 'progress', progress: (0.7 * (i + 1)) / wanted.length });
  }
  const parts = evaluator.parts(document, request.layers);
  if (parts.length === 0) {
    throw new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');
  }
  const metresPerUnit = request.lengths === 'metres' ? MM_PER_UNIT[document.unit] / 1000 : 1;
  const file = await writeExport(parts, request.format, { name: document.name, metresPerUnit });
  send({ kind: 'progress', progress: 0.85 });
  const { rows, ok, bytes } = await readBack(file, parts, request.format);
  const fileName = `${fileNames([document.name])[0]}.${file.extension}`;
  const report = { fileName, format: request.format, bytes, ok, rows, ms: Math.round(performance.now() - started) };
  send({ kind: 'done', result: { fileName, mime: file.mime, bytes: file.bytes, report } });
}

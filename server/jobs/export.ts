// export.ts — the job that evaluates a project, writes one file of it and reads that back.
import type { z } from 'zod';
import {
  assetsOf,
  CreateExportSchema,
  Evaluator,
  exportProject,
  fileName,
  type Project,
  resolve,
} from '../../core/index.ts';
import { readerOf } from '../../node/reader.ts';
import type { JobKind } from './kind.ts';

type ExportRequest = z.output<typeof CreateExportSchema>;

interface ExportTask {
  readonly document: Project;
  readonly assets: Readonly<Record<string, Uint8Array>>;
  readonly request: ExportRequest;
}

export const exportJob = {
  kind: 'export',
  request: CreateExportSchema,
  patienceMs: 10 * 60_000,
  async gather(project, request, { projects, assets }) {
    const document = await projects.document(project, request.revision);
    return { document, assets: await assets.all(assetsOf(document)), request };
  },
  async run({ document, assets, request }, report) {
    const started = performance.now();
    const project = resolve(document);
    const evaluator = new Evaluator();
    const reader = readerOf((asset) => assets[asset]!);
    for (const source of project.sources) await evaluator.open(source, reader);
    const { file, read } = await exportProject(evaluator, project, request, reader, report);
    const name = `${fileName(project.name)}.${file.extension}`;
    const ms = Math.round(performance.now() - started);
    const about = { fileName: name, format: request.format, ...read, bytes: file.bytes.length, ms };
    return { fileName: name, mime: file.mime, bytes: file.bytes, report: about };
  },
} as const satisfies JobKind<ExportRequest, ExportTask>;

// project-file.ts — a saved project to a file of any format: the very bytes that the page exports.
import { dirname, join } from 'node:path';
import {
  Evaluator,
  exportProject,
  fileName,
  GeometryError,
  type ReadBackRow,
  readProjectFile,
  resolve,
} from '../core/index.ts';
import { hashOf, readerOf } from '../node/reader.ts';
import { Clock } from './clock.ts';
import type { ProjectCommand } from './options.ts';
import { readBytes } from './read.ts';
import { writeBytes } from './write.ts';

export interface ProjectReport {
  readonly input: string;
  readonly output: string;
  /** Whether what was read back from the file is what was built. */
  readonly ok: boolean;
  readonly error?: { readonly code: string; readonly message: string };
  readonly rows: readonly ReadBackRow[];
  readonly ms: Record<'read' | 'write' | 'total', number>;
}

/** Never throws: a failure is part of the report. */
export async function exportProjectFile({ input, out, format, lengths, bake }: ProjectCommand): Promise<ProjectReport> {
  const clock = new Clock<'read' | 'write'>(['read', 'write']);
  try {
    const { document, assets } = await readProjectFile(readBytes(input), hashOf);
    const project = resolve(document);
    const evaluator = new Evaluator();
    const reader = readerOf((asset) => assets[asset]!);
    for (const source of project.sources) await evaluator.open(source, reader);
    clock.lap('read');
    const { files, read } = await exportProject(evaluator, project, { format, lengths, bake }, reader);
    for (const [extension, bytes] of Object.entries(files)) {
      const own = join(dirname(out), `${fileName(project.name)}.${extension}`);
      // Others are known to the first by the name that the page gives them.
      writeBytes(extension === format ? out : own, bytes);
    }
    clock.lap('write');
    const wrong = read.rows.filter(({ same }) => !same).map(({ what }) => what);
    const message = `What was read back from the file differs in ${wrong.join(', ')}; it was written all the same.`;
    const error = read.ok ? {} : { error: { code: 'read-back', message } };
    return { input, output: out, ok: read.ok, ...error, rows: read.rows, ms: clock.times() };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    const message = error instanceof Error ? error.message : String(error);
    return { input, output: out, ok: false, error: { code, message }, rows: [], ms: clock.times() };
  }
}

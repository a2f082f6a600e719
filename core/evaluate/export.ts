// export.ts — a project as a file: evaluated, written, read back. The page, the command line and scripts get the very same bytes.
import { GeometryError } from '../base/errors.ts';
import { MM_PER_UNIT } from '../base/units.ts';
import type { Resolved } from '../document/resolve.ts';
import type { FormatId } from '../formats/facts.ts';
import type { Curves, MeshFormat, OutlineFormat } from '../formats/format.ts';
import { formatOf } from '../formats/index.ts';
import { settledParts } from '../formats/part.ts';
import {
  bytesOfFiles,
  type ExportFile,
  exportFile,
  type FileBytes,
  fileName,
  type ReadBack,
  readBackMeshes,
  readBackOutlines,
  writeOutlines,
} from '../formats/read-back.ts';
import type { Report } from '../sources/kind.ts';
import type { Evaluator } from './evaluator.ts';

export interface ExportWishes {
  readonly format: FormatId;
  /** Ids; all layers that are shown when absent. */
  readonly layers?: readonly string[] | undefined;
  /** `metres` lets a file that knows metres open at its real size; `units` leaves one project unit as one unit of the file. */
  readonly lengths: 'metres' | 'units';
  /** How formats that leave a choice write curves. */
  readonly curves?: Curves | undefined;
}

export interface Exported {
  readonly file: ExportFile;
  /** The files in it, by their extensions. */
  readonly files: FileBytes;
  readonly read: ReadBack;
}

/** @throws {GeometryError} 'nothing-to-build' where no layer that is shown has outlines */
export async function exportProject(
  evaluator: Evaluator,
  project: Resolved,
  wishes: ExportWishes,
  report: Report = () => {},
): Promise<Exported> {
  const format = formatOf(wishes.format);
  const made =
    format.of === 'meshes'
      ? await meshesOf(evaluator, project, format, wishes, report)
      : outlinesOf(evaluator, project, format, wishes, report);
  return { ...made, file: exportFile(format, made.files, fileName(project.name)) };
}

const nothing = () =>
  new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');

async function meshesOf(
  evaluator: Evaluator,
  project: Resolved,
  format: MeshFormat,
  { layers, lengths }: ExportWishes,
  report: Report,
): Promise<Omit<Exported, 'file'>> {
  const wanted = project.layers.filter((layer) => layer.shown && (layers?.includes(layer.id) ?? true));
  for (const [i, layer] of wanted.entries()) {
    evaluator.mesh(project, layer);
    report((0.7 * (i + 1)) / wanted.length);
  }
  const parts = evaluator.parts(project, layers);
  if (parts.length === 0) throw nothing();
  const metresPerUnit = lengths === 'metres' ? MM_PER_UNIT[project.unit] / 1000 : 1;
  // Scenes have the project's own name, files one that file systems take.
  const options = { name: format.partNames ? fileName(project.name) : project.name, metresPerUnit };
  const files = await bytesOfFiles(format.write(parts, options));
  report(0.85);
  return { files, read: await readBackMeshes(format, files, settledParts(parts), options) };
}

/** Outlines need no meshes. */
function outlinesOf(
  evaluator: Evaluator,
  project: Resolved,
  format: OutlineFormat,
  { layers, curves: as = 'splines' }: ExportWishes,
  report: Report,
): Omit<Exported, 'file'> {
  const groups = evaluator.outlineGroups(project, layers);
  if (groups.length === 0) throw nothing();
  const mmPerUnit = MM_PER_UNIT[project.unit];
  const curves = { as, tolerance: project.tolerance };
  const files = writeOutlines(format, groups, mmPerUnit, curves);
  report(0.6);
  return { files, read: readBackOutlines(format, files, groups, mmPerUnit, curves) };
}

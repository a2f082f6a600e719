// export.ts — a project as a file: evaluated, written, read back. The page, the command line and scripts get the very same bytes.
import { bake } from '../bake/bake.ts';
import type { BakeWishes } from '../bake/wishes.ts';
import { GeometryError } from '../base/errors.ts';
import { MM_PER_UNIT } from '../base/units.ts';
import type { Resolved } from '../document/resolve.ts';
import { type Layer, picturesOn } from '../document/schema.ts';
import type { FormatId } from '../formats/facts.ts';
import type { Curves, Format, MeshFormat, OutlineFormat, Pictures } from '../formats/format.ts';
import { formatOf } from '../formats/index.ts';
import { type Part, settledParts } from '../formats/part.ts';
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
import { encodePng } from '../picture/png.ts';
import type { Picture } from '../picture/types.ts';
import type { Report, SourceReader } from '../sources/kind.ts';
import type { Evaluator } from './evaluator.ts';

export interface ExportWishes {
  readonly format: FormatId;
  /** Ids; all layers that are shown when absent. */
  readonly layers?: readonly string[] | undefined;
  /** `metres` lets a file that knows metres open at its real size; `units` leaves one project unit as one unit of the file. */
  readonly lengths: 'metres' | 'units';
  /** How formats that leave a choice write curves. */
  readonly curves?: Curves | undefined;
  /** Everything baked into one picture, for formats that keep pictures. */
  readonly bake?: BakeWishes | undefined;
}

export interface Exported {
  readonly file: ExportFile;
  /** The files in it, by their extensions. */
  readonly files: FileBytes;
  readonly read: ReadBack;
}

/**
 * @param reader has the bytes of pictures on the sides of layers
 * @throws {GeometryError} 'nothing-to-build' where no layer that is shown has outlines; 'out-of-range' for what the format cannot hold
 */
export async function exportProject(
  evaluator: Evaluator,
  project: Resolved,
  wishes: ExportWishes,
  reader: SourceReader,
  report: Report = () => {},
): Promise<Exported> {
  const format = formatOf(wishes.format);
  if (wishes.bake) checkBake(format);
  const made =
    format.of === 'meshes'
      ? await meshesOf(evaluator, project, format, wishes, reader, report)
      : outlinesOf(evaluator, project, format, wishes, report);
  return { ...made, file: exportFile(format, made.files, fileName(project.name)) };
}

/** @throws {GeometryError} 'out-of-range' for a format that keeps no pictures */
export function checkBake({ name, keeps }: Format): void {
  if (keeps.includes('pictures')) return;
  throw new GeometryError(
    'out-of-range',
    `${name} holds no pictures, so nothing can be baked into it. Take GLB or OBJ.`,
  );
}

/** Pictures on the sides of layers, by their assets. @throws {GeometryError} 'bad-file', which names the picture */
async function shownPictures(
  evaluator: Evaluator,
  layers: readonly Layer[],
  reader: SourceReader,
): Promise<Map<string, Picture>> {
  const shown = new Map<string, Picture>();
  for (const picture of picturesOn(layers)) {
    if (shown.has(picture.asset)) continue;
    try {
      shown.set(picture.asset, await evaluator.openPicture(picture, reader));
    } catch (error) {
      if (!(error instanceof GeometryError)) throw error;
      throw new GeometryError(error.code, `“${picture.name}”, which lies on a side: ${error.message}`);
    }
  }
  return shown;
}

const nothing = () =>
  new GeometryError('nothing-to-build', 'There is nothing to export: no layer with outlines is switched on.');

/**
 * What a file of meshes is written from: its parts, and the pictures that lie on them, as PNG; baked, where that is wished for.
 * @throws {GeometryError} 'nothing-to-build'; 'bad-file', which names the picture that cannot be read
 */
export async function partsToWrite(
  evaluator: Evaluator,
  project: Resolved,
  format: MeshFormat,
  { layers, bake: wishes }: Pick<ExportWishes, 'layers' | 'bake'>,
  reader: SourceReader,
  report: Report = () => {},
): Promise<{ parts: readonly Part[]; pictures: Pictures }> {
  const wanted = project.layers.filter((layer) => layer.shown && (layers?.includes(layer.id) ?? true));
  const built = wishes ? BUILT_TO_BAKE : BUILT;
  for (const [i, layer] of wanted.entries()) {
    evaluator.mesh(project, layer);
    report((built * (i + 1)) / wanted.length);
  }
  const parts = evaluator.parts(project, layers);
  if (parts.length === 0) throw nothing();
  const shown = format.keeps.includes('pictures') ? await shownPictures(evaluator, wanted, reader) : new Map();
  if (!wishes) return { parts, pictures: pngsOf(shown) };
  return bake(parts, wishes, shown, (share) => report(built + (WRITTEN - built) * share));
}

async function meshesOf(
  evaluator: Evaluator,
  project: Resolved,
  format: MeshFormat,
  { layers, lengths, bake: wishes }: ExportWishes,
  reader: SourceReader,
  report: Report,
): Promise<Omit<Exported, 'file'>> {
  const { parts, pictures } = await partsToWrite(evaluator, project, format, { layers, bake: wishes }, reader, report);
  const metresPerUnit = lengths === 'metres' ? MM_PER_UNIT[project.unit] / 1000 : 1;
  // Scenes have the project's own name, files one that file systems take.
  const options = { name: format.partNames ? fileName(project.name) : project.name, metresPerUnit, pictures };
  const files = await bytesOfFiles(format.write(parts, options));
  report(WRITTEN);
  return { files, read: await readBackMeshes(format, files, settledParts(parts), options) };
}

/** Shares of the work that are done when everything is built, also where it is baked then, and when it is written. */
const [BUILT, BUILT_TO_BAKE, WRITTEN] = [0.7, 0.3, 0.85];

const pngsOf = (shown: ReadonlyMap<string, Picture>): Pictures =>
  new Map([...shown].map(([asset, { data, width, height }]) => [asset, encodePng(data, width, height)]));

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

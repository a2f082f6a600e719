// read-back.ts — content to the bytes of a file, and the file read again and set beside what went in: of what its format says it
// keeps.
import { zipSync } from 'fflate';
import type { Shape } from '../drawing.ts';
import type { Material } from '../materials/schema.ts';
import { proofOf } from '../mesh/proof.ts';
import { totalsOf } from '../mesh/totals.ts';
import { trianglesOf } from '../mesh/triangles.ts';
import type { Mesh } from '../mesh/types.ts';
import { roughSize } from '../outline/corners.ts';
import { coverOf } from '../outline/cover.ts';
import { boundsOf, regionsArea, ringsLength, ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { pngSize } from '../picture/png.ts';
import type {
  CurveWishes,
  Format,
  MeshFormat,
  MeshWriteOptions,
  OutlineFormat,
  OutlineGroup,
  Pictures,
  WrittenFile,
} from './format.ts';
import { fileNames, joinBytes, type Part, paintOf } from './part.ts';
import { separate } from './stl/stl.ts';

/** What is offered: one file, or a zip of several. */
export interface ExportFile {
  readonly extension: string;
  readonly mime: string;
  readonly bytes: Uint8Array;
}

export interface ReadBackRow {
  readonly what: string;
  readonly built: string;
  readonly read: string;
  readonly same: boolean;
}

export interface ReadBack {
  readonly rows: readonly ReadBackRow[];
  readonly ok: boolean;
}

/** The bytes of each file, by its extension. */
export type FileBytes = Readonly<Record<string, Uint8Array>>;

export async function bytesOfFiles(files: readonly WrittenFile[]): Promise<FileBytes> {
  const bytes: Record<string, Uint8Array> = {};
  for (const { extension, chunks } of files) {
    const all: Uint8Array[] = [];
    for await (const chunk of chunks) all.push(chunk);
    bytes[extension] = joinBytes(all);
  }
  return bytes;
}

/** @param name of the files, without an ending */
export function exportFile(format: Format, files: FileBytes, name: string): ExportFile {
  const all = Object.entries(files);
  if (all.length === 1) return { extension: format.extension, mime: format.mime, bytes: all[0]![1] };
  const named = Object.fromEntries(all.map(([extension, bytes]) => [`${name}.${extension}`, bytes]));
  // A fixed date makes equal projects give equal files.
  return { extension: 'zip', mime: 'application/zip', bytes: zipSync(named, { mtime: '2000-01-01' }) };
}

// --- meshes -------------------------------------------------------------------------------------------------------------

/** Lengths in a file are float32: what was read may differ by this share. */
const FLOAT_SHARE = 2e-6;

/** Reads the files again and sets them beside the parts they were made from. */
export async function readBackMeshes(
  format: MeshFormat,
  files: FileBytes,
  parts: readonly Part[],
  { metresPerUnit, pictures = new Map() }: MeshWriteOptions,
): Promise<ReadBack> {
  // Files with groups hold their parts in another order.
  const byName = (list: readonly Part[]) => list.toSorted((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
  const read = await partsIn(format, files, parts, format.isMetric ? metresPerUnit : 1);
  const sum = (meshes: readonly Mesh[]) => totalsOf(meshes.map((mesh) => proofOf(mesh, { crossings: false })));
  const built = sum(parts.map((part) => part.mesh));
  const found = sum(read.map((part) => part.mesh));
  const size = Math.max(...built.size);
  const rows: ReadBackRow[] = [
    row('triangles', built.counts.triangles, found.counts.triangles, 0),
    row('closed parts', built.closedParts, found.closedParts, 0),
    ...(built.openParts + found.openParts > 0 ? [row('open parts', built.openParts, found.openParts, 0)] : []),
    row('volume', built.volume, found.volume, FLOAT_SHARE * size ** 3),
    ...(['width', 'height', 'depth'] as const).map((what, axis) =>
      row(what, built.size[axis]!, found.size[axis]!, FLOAT_SHARE * size),
    ),
  ];
  if (format.keeps.includes('parts')) {
    const names = parts.map((part) => part.name);
    const expected = (format.partNames?.(names) ?? names).toSorted();
    const found = byName(read).map((part) => part.name);
    rows.push(textRow('parts', expected.join(', '), found.join(', ')));
  }
  if (format.keeps.includes('colours')) {
    const built = byName(parts).flatMap((part) => paintOf(part).map(({ material }) => material.colour));
    const found = byName(read).flatMap(({ colours, material }) => colours ?? [material.colour]);
    rows.push(textRow('colours', built.join(' '), found.join(' ')));
  }
  if (format.keeps.includes('pictures') && pictures.size > 0) {
    const built = byName(parts).flatMap((part) => paintOf(part).flatMap(({ material }) => sizeIn(pictures, material)));
    const found = byName(read).flatMap((part) => part.pictures ?? []);
    rows.push(textRow('pictures', counted(built), counted(found)));
  }
  return { rows, ok: rows.every((entry) => entry.same) };
}

function sizeIn(pictures: Pictures, { picture }: Material): string[] {
  const bytes = picture && pictures.get(picture.asset);
  return bytes ? [pngSize(bytes)] : [];
}

/** Words, each once, with how often it is there. */
const counted = (words: readonly string[]) =>
  [...new Set(words)].map((word) => `${words.filter((other) => other === word).length} of ${word}`).join(', ');

/** @param scale how much of the file's own unit a project unit is */
async function partsIn(
  format: MeshFormat,
  files: FileBytes,
  built: readonly Part[],
  scale: number,
): Promise<readonly Part[]> {
  const read = (await format.readWritten?.(files)) ?? (await format.read(files[format.extension]!));
  const parts = format.keeps.includes('parts') ? read : splitBody(read[0]!.mesh, built);
  if (scale === 1) return parts;
  return parts.map(({ mesh, ...part }) => ({
    ...part,
    mesh: { ...mesh, positions: mesh.positions.map((v) => v / scale) },
  }));
}

/** Parts follow each other in a file of one body, so that each can be checked by itself. */
function splitBody(body: Mesh, built: readonly Part[]): Part[] {
  let from = 0;
  return built.map((part) => {
    const to = from + 9 * trianglesOf(part.mesh).faces.length;
    const positions = body.positions.slice(from, to);
    from = to;
    return { ...part, mesh: separate(positions) };
  });
}

// --- outlines -----------------------------------------------------------------------------------------------------------

/** Extremes of curves are kept by every flattening, so a coarse one gives bounds exactly. */
const ROUGH = 0.05;
/** Areas are compared by chords; both sides have the same ones up to rounding. */
const AREA_SHARE = 1e-4;
/** Coordinates are written to seven decimals of a unit. */
const LENGTH_SHARE = 1e-6;

/** Curves kept, layers as groups. @param mmPerUnit millimetres in a project unit */
export function writeOutlines(
  format: OutlineFormat,
  groups: readonly OutlineGroup[],
  mmPerUnit: number,
  curves?: CurveWishes,
): FileBytes {
  const bounds = boundsOf(groups.flatMap(({ shapes }) => ringsOf(shapes.flatMap((shape) => coverOf(shape, ROUGH)))));
  const { minX, minY, maxX, maxY } = bounds ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  const sheet = { x: minX, y: minY, width: maxX - minX, height: maxY - minY };
  return { [format.extension]: new TextEncoder().encode(format.write({ groups, sheet, mmPerUnit, curves })) };
}

/** Reads the file again and sets it beside the outlines it was made from. */
export function readBackOutlines(
  format: OutlineFormat,
  files: FileBytes,
  groups: readonly OutlineGroup[],
  mmPerUnit: number,
  curves?: CurveWishes,
): ReadBack {
  const drawing = format.read(format.decode(files[format.extension]!));
  // The user unit of a file may be another one, so lengths come back through their physical size.
  const scale = (drawing.mmPerUnit ?? mmPerUnit) / mmPerUnit;
  const shapes = groups.flatMap((group) => group.shapes);
  const [built, found] = [measured(shapes, 1), measured(drawing.shapes, scale)];
  // Where curves were written as something else, outlines may lie as far off as was allowed.
  const off = format.hasCurveChoice && curves && curves.as !== 'splines' ? curves.tolerance : 0;
  const allowed = LENGTH_SHARE * Math.max(built.width, built.height) + 2 * off;
  const isFilled = shapes.every(({ stroke }) => !stroke);
  const rows: ReadBackRow[] = [
    row('outlines', built.contours, found.contours, 0),
    row('width', built.width, found.width, allowed),
    row('height', built.height, found.height, allowed),
    ...(format.keeps.includes('strokes') || isFilled
      ? [row('area', built.area, found.area, AREA_SHARE * built.area + off * built.length)]
      : []),
    row('layers', groups.length, new Set(drawing.shapes.map(({ group }) => group)).size, 0),
  ];
  if (format.keeps.includes('colours')) {
    const colours = (list: readonly Shape[]) => [...new Set(list.map(({ colour }) => colour))].join(' ');
    rows.push(textRow('colours', colours(shapes), colours(drawing.shapes)));
  }
  return { rows, ok: rows.every((entry) => entry.same) };
}

function measured(shapes: readonly Shape[], scale: number) {
  const size = roughSize(shapes.map(({ path }) => path));
  const regions = shapes.map((shape) => coverOf(shape, size / 5000));
  const rings = regions.flatMap(ringsOf);
  const bounds = boundsOf(rings) ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  return {
    contours: shapes.reduce((sum, { path }) => sum + path.filter(([letter]) => letter === 'M').length, 0),
    width: (bounds.maxX - bounds.minX) * scale,
    height: (bounds.maxY - bounds.minY) * scale,
    area: regionsArea(regionsOf(rings, 'nonzero')) * scale * scale,
    length: ringsLength(rings) * scale,
  };
}

function row(what: string, built: number, read: number, allowed: number): ReadBackRow {
  const print = (v: number) => (Number.isInteger(v) ? String(v) : v.toPrecision(6));
  return { what, built: print(built), read: print(read), same: Math.abs(built - read) <= allowed };
}

function textRow(what: string, built: string, read: string): ReadBackRow {
  return { what, built, read, same: built === read };
}

/** A name as files may have it. */
export const fileName = (name: string): string => fileNames([name])[0]!;

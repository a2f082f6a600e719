// export.ts — parts to the bytes of a file, and the read-back: the file is read again and compared with what went in.
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { type Proof, proofOf } from '../mesh/proof.ts';
import { trianglesOf } from '../mesh/triangles.ts';
import type { Mesh } from '../mesh/types.ts';
import { readGlb, writeGlb } from './glb/glb.ts';
import { readObj, writeObj } from './obj/obj.ts';
import { fileNames, type Part } from './part.ts';
import { readStl, separate, writeStl } from './stl/stl.ts';

export const EXPORT_FORMATS = ['glb', 'obj', 'stl'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export interface ExportFile {
  /** OBJ comes as a zip, because its materials are a second file. */
  readonly extension: 'glb' | 'zip' | 'stl' | 'svg' | 'dxf';
  readonly mime: string;
  readonly bytes: Uint8Array;
  /** How much of the file's own unit a project unit is. */
  readonly scale?: number;
}

export interface ExportOptions {
  /** Base name of the file and of the scene in it. */
  readonly name: string;
  /** See {@link GlbOptions}; the other formats have no unit. */
  readonly metresPerUnit: number;
}

export async function writeExport(
  parts: readonly Part[],
  format: ExportFormat,
  { name, metresPerUnit }: ExportOptions,
): Promise<ExportFile> {
  switch (format) {
    case 'glb':
      return {
        extension: 'glb',
        mime: 'model/gltf-binary',
        bytes: await writeGlb(parts, { name, metresPerUnit }),
        scale: metresPerUnit,
      };
    case 'stl':
      return { extension: 'stl', mime: 'model/stl', bytes: writeStl(parts) };
    case 'obj': {
      const [base] = fileNames([name]);
      const { obj, mtl } = writeObj(parts, `${base}.mtl`);
      // A fixed date makes equal projects give equal files.
      const files = { [`${base}.obj`]: strToU8(obj), [`${base}.mtl`]: strToU8(mtl) };
      return { extension: 'zip', mime: 'application/zip', bytes: zipSync(files, { mtime: '2000-01-01' }) };
    }
  }
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
  readonly bytes: number;
}

/** Lengths in a file are float32: what was read may differ by this share. */
const FLOAT_SHARE = 2e-6;

/** Reads `file` again and sets it beside the parts it was made from. */
export async function readBack(file: ExportFile, parts: readonly Part[], format: ExportFormat): Promise<ReadBack> {
  const read = await readParts(file, format, parts);
  const sum = (meshes: readonly Mesh[]) => totals(meshes.map((mesh) => proofOf(mesh, { crossings: false })));
  const built = sum(parts.map((part) => part.mesh));
  const found = sum(read.map((part) => part.mesh));
  const size = Math.max(...built.size);
  const rows: ReadBackRow[] = [
    row('triangles', built.triangles, found.triangles, 0),
    row('closed parts', built.closed, found.closed, 0),
    row('volume', built.volume, found.volume, FLOAT_SHARE * size ** 3),
    ...(['width', 'height', 'depth'] as const).map((what, axis) =>
      row(what, built.size[axis]!, found.size[axis]!, FLOAT_SHARE * size),
    ),
  ];
  if (format !== 'stl') {
    const names = parts.map((part) => part.name);
    const expected = format === 'obj' ? fileNames(names) : names;
    const colours = (list: readonly Part[]) => list.map((part) => part.material.colour).join(' ');
    rows.push(textRow('parts', expected.join(', '), read.map((part) => part.name).join(', ')));
    rows.push(textRow('colours', colours(parts), colours(read)));
  }
  return { rows, ok: rows.every((entry) => entry.same), bytes: file.bytes.length };
}

async function readParts(
  { bytes, scale = 1 }: ExportFile,
  format: ExportFormat,
  built: readonly Part[],
): Promise<readonly Part[]> {
  switch (format) {
    case 'glb': {
      const parts = await readGlb(bytes);
      return parts.map(({ mesh, ...part }) => ({
        ...part,
        mesh: { ...mesh, positions: mesh.positions.map((v) => v / scale) },
      }));
    }
    case 'stl':
      return splitBody(readStl(bytes)[0]!.mesh, built);
    case 'obj': {
      const files = Object.entries(unzipSync(bytes));
      const text = (ending: string) =>
        strFromU8(files.find(([name]) => name.endsWith(ending))?.[1] ?? new Uint8Array());
      return readObj({ obj: text('.obj'), mtl: text('.mtl') });
    }
  }
}

/** STL holds one body; parts follow each other in it, so that each can be checked by itself. */
function splitBody(body: Mesh, built: readonly Part[]): Part[] {
  let from = 0;
  return built.map((part) => {
    const to = from + 9 * trianglesOf(part.mesh).faces.length;
    const positions = body.positions.slice(from, to);
    from = to;
    return { ...part, mesh: separate(positions) };
  });
}

function totals(proofs: readonly Proof[]) {
  const low = [0, 1, 2].map((k) => Math.min(...proofs.map((proof) => proof.min[k]!)));
  const high = [0, 1, 2].map((k) => Math.max(...proofs.map((proof) => proof.min[k]! + proof.size[k]!)));
  return {
    triangles: proofs.reduce((sum, proof) => sum + proof.counts.triangles, 0),
    closed: proofs.filter((proof) => proof.closed).length,
    volume: proofs.reduce((sum, proof) => sum + proof.volume, 0),
    size: high.map((v, k) => v - low[k]!),
  };
}

export function row(what: string, built: number, read: number, allowed: number): ReadBackRow {
  const print = (v: number) => (Number.isInteger(v) ? String(v) : v.toPrecision(6));
  return { what, built: print(built), read: print(read), same: Math.abs(built - read) <= allowed };
}

export function textRow(what: string, built: string, read: string): ReadBackRow {
  return { what, built, read, same: built === read };
}

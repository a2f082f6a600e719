// prove-file.ts — the proof of one mesh file, part by part.
import { readFileSync } from 'node:fs';
import { FAULT_WORDS, GeometryError, isSound, type Proof, proofOf, readMeshes, sniffMesh } from '../core/index.ts';

export interface PartReport extends Proof {
  readonly name: string;
  readonly sound: boolean;
  /** Points that the file has more than once, as it must where light or pictures change. */
  readonly welded: number;
}

export interface MeshReport {
  readonly input: string;
  /** Whether every part is sound. */
  readonly ok: boolean;
  readonly error?: { readonly code: string; readonly message: string };
  readonly parts: readonly PartReport[];
}

/** Never throws: a failure is part of the report. */
export async function proveFile(input: string): Promise<MeshReport> {
  try {
    const bytes = readFileSync(input);
    const format = sniffMesh(bytes);
    if (!format) throw new GeometryError('bad-file', 'This is no mesh that can be read; GLB, OBJ and STL can.');
    const parts = (await readMeshes(bytes, format)).map(({ name, mesh }): PartReport => {
      const proof = proofOf(mesh);
      return { name, sound: isSound(proof), welded: mesh.positions.length / 3 - proof.counts.points, ...proof };
    });
    return { input, ok: parts.every(({ sound }) => sound), parts };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return {
      input,
      ok: false,
      error: { code, message: error instanceof Error ? error.message : String(error) },
      parts: [],
    };
  }
}

/** A report for people. */
export function printed({ input, error, parts }: MeshReport): string {
  if (error) return `${input}: ${error.message}\n`;
  return parts
    .map(({ name, sound, closed, findings, counts, shells, volume, area, size }) => {
      const said = findings.map(({ fault, count, places: [place] }) => {
        const where = place ? `, first at ${place.map(short).join(', ')}` : '';
        return `  ${count} ${FAULT_WORDS[fault][count === 1 ? 0 : 1]}${where}\n`;
      });
      return [
        `${input}: ${name}: ${sound ? 'sound' : closed ? 'closed, but not sound' : 'open'}\n`,
        `  ${counts.points} points, ${counts.edges} edges, ${counts.faces} faces, ${counts.triangles} triangles, ${shells} ${shells === 1 ? 'shell' : 'shells'}\n`,
        `  ${size.map(short).join(' × ')}, area ${short(area)}, volume ${short(volume)}\n`,
        ...said,
      ].join('');
    })
    .join('');
}

const short = (v: number) => String(Number(v.toPrecision(6)));

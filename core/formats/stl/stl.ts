// stl.ts — binary STL: 80 bytes of header, a count, 50 bytes a triangle, little-endian. All parts in one body.
import { GeometryError } from '../../base/errors.ts';
import { PLAIN } from '../../materials/schema.ts';
import { triangleIndices } from '../../mesh/triangles.ts';
import type { Mesh } from '../../mesh/types.ts';
import type { MeshFormat } from '../format.ts';
import { joinBytes, type Part, settledParts, triangleMesh } from '../part.ts';
import { HEADER, RECORD, stlFacts } from './facts.ts';

export const stl = {
  ...stlFacts,
  read: async (bytes) => readStl(bytes),
  write: (parts) => [{ extension: 'stl', chunks: stlChunks(settledParts(parts)) }],
} as const satisfies MeshFormat;

/** A part at a time. */
function* stlChunks(parts: readonly Part[]): Iterable<Uint8Array> {
  const divided = apart(parts).map((mesh) => ({ mesh, indices: triangleIndices(mesh) }));
  const head = new Uint8Array(HEADER + 4);
  // The header must not begin with "solid", which is how readers tell the text form.
  for (const [i, character] of [...'Outline Stack, binary STL'].entries()) head[i] = character.charCodeAt(0);
  const count = divided.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  new DataView(head.buffer).setUint32(HEADER, count, true);
  yield head;
  for (const { mesh, indices } of divided) yield records(mesh.positions, indices);
}

/** The whole file. */
export const writeStl = (parts: readonly Part[]): Uint8Array => joinBytes([...stlChunks(parts)]);

function records(p: Float64Array, indices: Uint32Array): Uint8Array {
  const bytes = new Uint8Array((RECORD * indices.length) / 3);
  const view = new DataView(bytes.buffer);
  for (let t = 0, at = 0; t < indices.length; t += 3, at += RECORD) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    place(view, at, nx / length, ny / length, nz / length);
    place(view, at + 12, p[a]!, p[a + 1]!, p[a + 2]!);
    place(view, at + 24, p[b]!, p[b + 1]!, p[b + 2]!);
    place(view, at + 36, p[c]!, p[c + 1]!, p[c + 2]!);
  }
  return bytes;
}

function place(view: DataView, at: number, x: number, y: number, z: number): void {
  view.setFloat32(at, x, true);
  view.setFloat32(at + 4, y, true);
  view.setFloat32(at + 8, z, true);
}

/**
 * The parts' meshes without common points. Readers weld equal points, so that two closed parts that lie wall to wall would
 * become one body with edges of four faces; each part that shares a point is moved aside by a few float32 steps.
 */
function apart(parts: readonly Part[]): Mesh[] {
  if (parts.length < 2) return parts.map(({ mesh }) => mesh);
  const reach = parts.reduce((most, { mesh }) => mesh.positions.reduce((m, v) => Math.max(m, Math.abs(v)), most), 0);
  const step = 2 ** (Math.ceil(Math.log2(reach || 1)) - 23);
  const taken = new Set<string>();
  return parts.map(({ mesh }) => {
    for (let steps = 0; ; steps++) {
      const positions = mesh.positions.map((v, i) => (i % 3 === 0 ? Math.fround(v) + steps * step : v));
      const keys = Array.from({ length: positions.length / 3 }, (_, p) =>
        Array.from(positions.subarray(3 * p, 3 * p + 3), Math.fround).join(),
      );
      if (keys.some((key) => taken.has(key))) continue;
      for (const key of keys) taken.add(key);
      return steps === 0 ? mesh : { ...mesh, positions };
    }
  });
}

/**
 * The bodies of an STL, binary or text, as separate triangles; points are not welded. A binary one has one body.
 * @throws {GeometryError} 'bad-file'
 */
export function readStl(bytes: Uint8Array): Part[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= HEADER + 4 ? view.getUint32(HEADER, true) : -1;
  // Some writers leave bytes behind the last triangle.
  const isBinary = count >= 0 && bytes.length >= HEADER + 4 + RECORD * count;
  const text = new TextDecoder('latin1').decode(bytes.subarray(0, HEADER));
  if (/^\s*solid\b/.test(text) && !(isBinary && bytes.length === HEADER + 4 + RECORD * count)) return readText(bytes);
  if (!isBinary) {
    throw new GeometryError('bad-file', 'This is not an STL file: its length does not fit its triangle count.');
  }
  const positions = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 9; k++) positions[9 * t + k] = view.getFloat32(HEADER + 4 + RECORD * t + 12 + 4 * k, true);
  }
  return [{ name: 'body', mesh: separate(positions), material: PLAIN }];
}

function readText(bytes: Uint8Array): Part[] {
  const bodies: { name: string; positions: number[] }[] = [];
  for (const [i, line] of new TextDecoder().decode(bytes).split(/\r?\n/).entries()) {
    const [keyword, ...rest] = line.trim().split(/\s+/);
    if (keyword === 'solid') bodies.push({ name: rest.join(' ') || 'body', positions: [] });
    if (keyword !== 'vertex') continue;
    const place = rest.slice(0, 3).map(Number);
    if (place.length < 3 || !place.every(Number.isFinite)) {
      throw new GeometryError('bad-file', `The STL file has a point that is not three numbers in line ${i + 1}.`);
    }
    bodies.at(-1)!.positions.push(...place);
  }
  return bodies.map(({ name, positions }) => {
    if (positions.length % 9 !== 0)
      throw new GeometryError('bad-file', `The body “${name}” of the STL file has a facet without three points.`);
    return { name, mesh: separate(Float64Array.from(positions)), material: PLAIN };
  });
}

/** Triangles that share no points. */
export function separate(positions: Float64Array): Mesh {
  return triangleMesh(
    positions,
    Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
  );
}

// stl.ts — binary STL: 80 bytes of header, a count, 50 bytes a triangle, little-endian. All parts in one body.
import { GeometryError } from '../../base/errors.ts';
import { trianglesOf } from '../../mesh/triangles.ts';
import type { Mesh } from '../../mesh/types.ts';
import { type Part, PLAIN, triangleMesh } from '../part.ts';

const HEADER = 80;
const RECORD = 50;

export function writeStl(parts: readonly Part[]): Uint8Array {
  const divided = apart(parts).map((mesh) => ({ mesh, indices: trianglesOf(mesh).indices }));
  const count = divided.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  const bytes = new Uint8Array(HEADER + 4 + RECORD * count);
  // The header must not begin with "solid", which is how readers tell the text form.
  for (const [i, character] of [...'Outline Stack, binary STL'].entries()) bytes[i] = character.charCodeAt(0);
  const view = new DataView(bytes.buffer);
  view.setUint32(HEADER, count, true);
  let at = HEADER + 4;
  for (const { mesh, indices } of divided) {
    const p = mesh.positions;
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
      const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
      const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
      const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const length = Math.hypot(nx, ny, nz) || 1;
      view.setFloat32(at, nx / length, true);
      view.setFloat32(at + 4, ny / length, true);
      view.setFloat32(at + 8, nz / length, true);
      for (let k = 0; k < 9; k++)
        view.setFloat32(at + 12 + 4 * k, p[3 * indices[t + Math.floor(k / 3)]! + (k % 3)]!, true);
      at += RECORD;
    }
  }
  return bytes;
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

// stl.ts — binary STL: 80 bytes of header, a count, 50 bytes a triangle, little-endian. All parts in one body.
import { GeometryError } from '../errors.ts';
import { trianglesOf } from '../mesh/triangles.ts';
import type { Mesh } from '../mesh/types.ts';
import { type Part, triangleMesh } from './part.ts';

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
    for (let t = 0; t < indices.length; t += 3) {
      const triangle = [0, 1, 2].map((k) => pointOf(mesh, indices[t + k]!));
      for (const [k, value] of [...facetNormal(triangle), ...triangle.flat()].entries())
        view.setFloat32(at + 4 * k, value, true);
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

type Point = [number, number, number];

const pointOf = ({ positions }: Mesh, i: number): Point => [
  positions[3 * i]!,
  positions[3 * i + 1]!,
  positions[3 * i + 2]!,
];

function facetNormal(triangle: readonly Point[]): Point {
  const [a, b, c] = triangle as [Point, Point, Point];
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const normal: Point = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const length = Math.hypot(...normal) || 1;
  return [normal[0] / length, normal[1] / length, normal[2] / length];
}

/** One mesh of separate triangles; points are not welded. @throws {GeometryError} 'bad-file' */
export function readStl(bytes: Uint8Array): Mesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= HEADER + 4 ? view.getUint32(HEADER, true) : -1;
  if (bytes.length !== HEADER + 4 + RECORD * count) {
    throw new GeometryError('bad-file', 'This is not a binary STL file: its length does not fit its triangle count.');
  }
  const positions = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 9; k++) positions[9 * t + k] = view.getFloat32(HEADER + 4 + RECORD * t + 12 + 4 * k, true);
  }
  return triangleMesh(
    positions,
    Uint32Array.from({ length: 3 * count }, (_, i) => i),
  );
}

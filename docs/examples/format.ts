// format.ts — a mesh format: OFF, counts in front, then points, then polygons. One body.
import { GeometryError } from '../../core/base/errors.ts';
import type { MeshFacts, MeshFormat } from '../../core/formats/format.ts';
import type { Part } from '../../core/formats/part.ts';
import { PLAIN } from '../../core/materials/schema.ts';
import { joinMeshes } from '../../core/mesh/place.ts';

export const offFacts = {
  id: 'off',
  name: 'OFF',
  about: 'one body of polygons, as text',
  of: 'meshes',
  extension: 'off',
  mime: 'model/vnd.off',
  keeps: [],
  isMetric: false,
  sniff: (head) => new TextDecoder().decode(head.subarray(0, 4)).trim() === 'OFF',
} as const satisfies MeshFacts;

export const off = {
  ...offFacts,
  read: async (bytes) => [readOff(new TextDecoder().decode(bytes))],
  write: (parts) => [{ extension: 'off', chunks: offChunks(parts) }],
} as const satisfies MeshFormat;

/** A face at a time, so that no file is held whole. */
function* offChunks(parts: readonly Part[]): Generator<Uint8Array> {
  const { positions, starts, corners } = joinMeshes(parts.map(({ mesh }) => mesh));
  const line = (...values: (string | number)[]) => new TextEncoder().encode(`${values.join(' ')}\n`);
  yield line('OFF');
  yield line(positions.length / 3, starts.length - 1, 0);
  for (let p = 0; p < positions.length; p += 3) yield line(...positions.subarray(p, p + 3));
  for (let f = 0; f + 1 < starts.length; f++) {
    const face = corners.subarray(starts[f], starts[f + 1]);
    yield line(face.length, ...face);
  }
}

/** @throws {GeometryError} 'bad-file' */
function readOff(text: string): Part {
  const values = text.trim().split(/\s+/).slice(1).map(Number);
  const [points = 0, faces = 0] = values;
  const positions = Float64Array.from(values.slice(3, 3 + 3 * points));
  const [starts, corners] = [[0], [] as number[]];
  for (let at = 3 + 3 * points; starts.length <= faces && at < values.length; at += 1 + values[at]!) {
    corners.push(...values.slice(at + 1, at + 1 + values[at]!));
    starts.push(corners.length);
  }
  const isWhole = starts.length === faces + 1 && corners.every((corner) => corner >= 0 && corner < points);
  if (!isWhole || !positions.every(Number.isFinite)) {
    throw new GeometryError('bad-file', 'This OFF file ends before all of its faces; export it again.');
  }
  const sides = new Uint8Array(faces);
  const mesh = { positions, starts: Uint32Array.from(starts), corners: Uint32Array.from(corners), sides };
  return { name: 'body', material: PLAIN, mesh };
}

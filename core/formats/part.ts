// part.ts — what goes into a file: named meshes with a material each.
import type { Point, Rigid } from '../geometry/rigid.ts';
import type { Material } from '../materials/schema.ts';
import type { Shading } from '../mesh/normals.ts';
import { placedAt } from '../mesh/place.ts';
import type { Mesh } from '../mesh/types.ts';

export interface Part {
  readonly name: string;
  readonly mesh: Mesh;
  readonly material: Material;
  /** {@link SHADING} where nothing else is said. */
  readonly shading?: Shading;
  /** Flat u, v for every corner of the mesh, v upward. */
  readonly uvs?: Float32Array | null;
  /** Where it stands; parts of which the mesh is the very same object share it. Where nothing is said the mesh stands as it is. */
  readonly stand?: Stand;
}

/** Where a part or a group of parts stands. */
export interface Stand {
  /** From where the mesh is to the world. */
  readonly place: Rigid;
  /** The point of the mesh, or of what is in the group, that it is turned about. */
  readonly middle: Point;
  /** The group that it is in; the very same object for all that is in one. */
  readonly group?: StandingGroup;
}

export interface StandingGroup extends Stand {
  readonly name: string;
}

/** Parts of which each mesh is where it stands, as for files that hold no places. */
export function settledParts(parts: readonly Part[]): Part[] {
  return parts.map(({ stand, ...part }) => (stand ? { ...part, mesh: placedAt(part.mesh, stand.place) } : part));
}

/** Red, green and blue of `#rrggbb` as 0–1, still sRGB-encoded. */
export function hexToRgb(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255];
}

/** sRGB transfer function, decoding (IEC 61966-2-1). */
export function srgbToLinear(v: number): number {
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
}

/** sRGB transfer function, encoding. */
export function linearToSrgb(v: number): number {
  return v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055;
}

export function rgbToHex(rgb: readonly number[]): string {
  return `#${rgb
    .map((v) =>
      Math.round(Math.min(1, Math.max(0, v)) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

/** Names as files may hold them: unique, without characters that end a token. */
export function fileNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain = name.trim().replace(/[\s/\\:*?"<>|#]+/g, '_') || 'part';
    let unique = plain;
    for (let n = 2; taken.has(unique); n++) unique = `${plain}_${n}`;
    taken.add(unique);
    return unique;
  });
}

/** A mesh of triangles only, from positions and indices as a file holds them. */
export function triangleMesh(positions: ArrayLike<number>, indices: ArrayLike<number>): Mesh {
  return {
    positions: Float64Array.from(positions),
    starts: Uint32Array.from({ length: indices.length / 3 + 1 }, (_, i) => 3 * i),
    corners: Uint32Array.from(indices),
    sides: new Uint8Array(indices.length / 3),
  };
}

/** Pieces of a file as one. */
export function joinBytes(chunks: readonly Uint8Array[]): Uint8Array {
  const [only] = chunks;
  if (only && chunks.length === 1) return only;
  const bytes = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return bytes;
}

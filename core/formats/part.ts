// part.ts — what goes into a file: named meshes with a material each.
import type { Point, Rigid } from '../geometry/rigid.ts';
import type { Material, SideMaterials } from '../materials/schema.ts';
import { type MadeSides, materialsOf, numberedSides } from '../materials/sides.ts';
import type { Shading } from '../mesh/normals.ts';
import { placedAt } from '../mesh/place.ts';
import { type Mesh, SIDES } from '../mesh/types.ts';
import { hexOf, type Rgb } from '../picture/colour.ts';

export interface Part {
  readonly name: string;
  readonly mesh: Mesh;
  readonly material: Material;
  /** Of sides that are made of something else. */
  readonly sideMaterials?: SideMaterials | undefined;
  /** Colours of all materials of a part that was read, where it has several. */
  readonly colours?: readonly string[];
  /** Sizes of the pictures that a part which was read shows, as words. */
  readonly pictures?: readonly string[];
  /** What its material is called in files; as the part itself where nothing is said. Parts can share one. */
  readonly materialName?: string;
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

/** A material that faces of a part have, named as the part and its sides. */
export interface PaintedSection {
  readonly name: string;
  readonly material: Material;
  /** For {@link Mesh.sides}: whether faces of a side are of it. */
  readonly has: readonly boolean[];
}

/** What a part is made of: each material that any of its faces has, the part's own first. */
export function paintOf({ name, mesh, material, sideMaterials, materialName = name }: Part): PaintedSection[] {
  const made = materialsOf(material, sideMaterials);
  const numbers = numberedSides(made, SIDES);
  const used = new Set(mesh.sides);
  const painted = made.map(({ material: own, sides }: MadeSides, i) => ({
    name: sides ? `${materialName}, ${sides.join(' and ')}` : materialName,
    material: own,
    has: numbers.map((number) => number === i),
  }));
  const kept = painted.filter(({ has }) => has.some((is, side) => is && used.has(side)));
  return kept.length > 0 ? kept : painted.slice(0, 1);
}

/** Parts of which each mesh is where it stands, as for files that hold no places. */
export function settledParts(parts: readonly Part[]): Part[] {
  return parts.map(({ stand, ...part }) => (stand ? { ...part, mesh: placedAt(part.mesh, stand.place) } : part));
}

/** `#rrggbb` of shares that are sRGB-encoded, 0 … 1; what lies outside is brought in. */
export const rgbToHex = (rgb: readonly number[]): string =>
  hexOf(rgb.map((v) => Math.round(Math.min(1, Math.max(0, v)) * 255)) as unknown as Rgb);

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

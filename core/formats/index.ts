// index.ts — every file format. Of those that know how a file begins, the first has it.
import { dxf } from './dxf/dxf.ts';
import type { Format, MeshFormat, OutlineFormat } from './format.ts';
import { glb } from './glb/glb.ts';
import { obj } from './obj/obj.ts';
import { stl } from './stl/stl.ts';
import { svg } from './svg/svg.ts';

export const FORMATS = [glb, obj, stl, svg, dxf] as const;
export type FormatId = (typeof FORMATS)[number]['id'];

type Of<O extends Format['of']> = Extract<(typeof FORMATS)[number], { readonly of: O }>['id'];
export type MeshFormatId = Of<'meshes'>;
export type OutlineFormatId = Of<'outlines'>;

const ids = <O extends Format['of']>(of: O) =>
  FORMATS.flatMap((format) => (format.of === of ? [format.id] : [])) as unknown as readonly [Of<O>, ...Of<O>[]];

export const FORMAT_IDS = FORMATS.map(({ id }) => id) as unknown as readonly [FormatId, ...FormatId[]];
export const MESH_FORMATS = ids('meshes');
export const OUTLINE_FORMATS = ids('outlines');

export const formatOf = (id: FormatId): Format => FORMATS.find((format) => format.id === id)!;
export const meshFormat = (id: MeshFormatId) => formatOf(id) as MeshFormat;
export const outlineFormat = (id: OutlineFormatId) => formatOf(id) as OutlineFormat;

/** How much of a file is looked at to tell what it is; in front of drawings editors write comments and style sheets. */
const MESH_HEAD = 4096;
const OUTLINE_HEAD = 64 * 1024;

/** The format of a mesh file that begins like this; null for anything else. */
export function sniffMesh(head: Uint8Array): MeshFormatId | null {
  const found = FORMATS.find((format) => format.of === 'meshes' && format.sniff(head.subarray(0, MESH_HEAD)));
  return (found?.id as MeshFormatId | undefined) ?? null;
}

/** The format of a vector file that begins like this; null for anything else. */
export function sniffOutlines(head: Uint8Array): OutlineFormat | null {
  const found = FORMATS.find((format) => format.of === 'outlines' && format.sniff(head.subarray(0, OUTLINE_HEAD)));
  return (found as OutlineFormat | undefined) ?? null;
}

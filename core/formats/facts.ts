// facts.ts — every file format, as far as menus and sniffing go. Of those that know how a file begins, the first has it.
import { dxfFacts } from './dxf/facts.ts';
import type { MeshFacts, OutlineFacts } from './format.ts';
import { glbFacts } from './glb/facts.ts';
import { objFacts } from './obj/facts.ts';
import { stlFacts } from './stl/facts.ts';
import { svgFacts } from './svg/facts.ts';

type Facts = MeshFacts | OutlineFacts;

export const FORMATS = [glbFacts, objFacts, stlFacts, svgFacts, dxfFacts] as const;
export type FormatId = (typeof FORMATS)[number]['id'];

type Of<O extends Facts['of']> = Extract<(typeof FORMATS)[number], { readonly of: O }>['id'];
export type MeshFormatId = Of<'meshes'>;
export type OutlineFormatId = Of<'outlines'>;

const ids = <O extends Facts['of']>(of: O) =>
  FORMATS.flatMap((format) => (format.of === of ? [format.id] : [])) as unknown as readonly [Of<O>, ...Of<O>[]];

export const FORMAT_IDS = FORMATS.map(({ id }) => id) as unknown as readonly [FormatId, ...FormatId[]];
export const MESH_FORMATS = ids('meshes');
export const OUTLINE_FORMATS = ids('outlines');

export const factsOf = (id: FormatId): Facts => FORMATS.find((format) => format.id === id)!;

/** How much of a file is looked at to tell what it is; in front of drawings editors write comments and style sheets. */
const MESH_HEAD = 4096;
const OUTLINE_HEAD = 64 * 1024;

/** The format of a mesh file that begins like this; null for anything else. */
export function sniffMesh(head: Uint8Array): MeshFormatId | null {
  const found = FORMATS.find((format) => format.of === 'meshes' && format.sniff(head.subarray(0, MESH_HEAD)));
  return (found?.id as MeshFormatId | undefined) ?? null;
}

/** The format of a vector file that begins like this; null for anything else. */
export function sniffOutlines(head: Uint8Array): OutlineFormatId | null {
  const found = FORMATS.find((format) => format.of === 'outlines' && format.sniff(head.subarray(0, OUTLINE_HEAD)));
  return (found?.id as OutlineFormatId | undefined) ?? null;
}

/** What nobody knows is taken for SVG: only a reader can say what is wrong with it. */
export const outlineFormatOf = (head: Uint8Array): OutlineFormatId => sniffOutlines(head) ?? 'svg';

/** Bytes of a vector file at the most, by how it begins: a line takes ten times as much in DXF as in SVG. */
export const vectorLimit = (head: Uint8Array): number => (factsOf(outlineFormatOf(head)) as OutlineFacts).limit;

// index.ts — every kind of source, as data. Of those that are files, the first that knows how a file begins has it.
import { z } from 'zod';
import { kindNamed, schemasOf } from '../base/kinds.ts';
import { drawing } from './drawing/drawing.ts';
import type { SourceKind } from './kind.ts';
import { lettering } from './lettering/lettering.ts';
import { mesh } from './mesh/mesh.ts';
import { picture } from './picture/picture.ts';
import { vector } from './vector/vector.ts';

export const SOURCE_KINDS = [picture, mesh, lettering, drawing, vector] as const;

export const SourceSchema = z.discriminatedUnion('kind', schemasOf(SOURCE_KINDS));
export type Source = z.infer<typeof SourceSchema>;
export type SourceKindName = Source['kind'];

type AnyKind = SourceKind<Source, unknown>;

/** The kind of a source. Sources go to the kind they name, so that each sees only its own. */
export function sourceKind(kind: SourceKindName): AnyKind {
  return kindNamed(SOURCE_KINDS, 'kind', kind);
}

/** The kind of file that begins like this. */
export function fileKind(head: Uint8Array): AnyKind & { readonly file: NonNullable<AnyKind['file']> } {
  const kinds: readonly object[] = SOURCE_KINDS;
  const found = (kinds as readonly AnyKind[]).find(({ file }) => file?.sniff(head));
  return found as AnyKind & { readonly file: NonNullable<AnyKind['file']> };
}

/** Hashes of the bytes that a source is made from. */
export const assetsOfSource = (source: Source): readonly string[] => sourceKind(source.kind).assets(source);

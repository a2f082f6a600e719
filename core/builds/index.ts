// index.ts — every kind of build, as settings.
import { z } from 'zod';
import { kindNamed, schemasOf } from '../base/kinds.ts';
import type { BuildKind } from './kind.ts';
import { part } from './part/part.ts';
import { slab } from './slab/slab.ts';

export const BUILD_KINDS = [slab, part] as const;

export const BuildSchema = z.discriminatedUnion('kind', schemasOf(BUILD_KINDS));
export type Build = z.infer<typeof BuildSchema>;
export type BuildKindName = Build['kind'];

type All<Union> = (Union extends unknown ? (each: Union) => void : never) extends (all: infer Both) => void
  ? Both
  : never;
type Changes = All<(typeof BUILD_KINDS)[number]['change']['shape']>;

/** A change of a build's settings; what a layer's own kind does not know of it is passed over. */
export const BuildChangeSchema = z.object(
  Object.assign({}, ...BUILD_KINDS.map(({ change }) => change.shape)) as Changes,
);
export type BuildChange = z.infer<typeof BuildChangeSchema>;

/** The kind of some settings. Settings go to the kind they name, so that each sees only its own. */
export function buildKind(kind: BuildKindName): BuildKind<Build> {
  return kindNamed(BUILD_KINDS, 'kind', kind);
}

/** How high a body with these settings is from its base. */
export const heightOf = (build: Build): number => buildKind(build.kind).heightOf(build);

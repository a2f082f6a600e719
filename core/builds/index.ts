// index.ts — every kind of build.
import { z } from 'zod';
import type { BuildKind } from './kind.ts';
import { part } from './part/part.ts';
import { slab } from './slab/slab.ts';

export const BUILD_KINDS = [slab, part] as const;

export const BuildSchema = z.discriminatedUnion('kind', [slab.schema, part.schema]);
export type Build = z.infer<typeof BuildSchema>;
export type BuildKindName = Build['kind'];

/** A change of a build's settings; what a layer's own kind does not know of it is passed over. */
export const BuildChangeSchema = z.object({ ...part.change.shape, ...slab.change.shape });
export type BuildChange = z.infer<typeof BuildChangeSchema>;

/** The kind of some settings. Settings go to the kind they name, so that each sees only its own. */
export function buildKind(kind: BuildKindName): BuildKind<Build, unknown> {
  return BUILD_KINDS.find((known) => known.kind === kind) as unknown as BuildKind<Build, unknown>;
}

/** How high a body with these settings is from its base. */
export const heightOf = (build: Build): number => buildKind(build.kind).heightOf(build);

// builders.ts — how every kind of build is built.
import { kindNamed } from '../base/kinds.ts';
import type { Build, BuildKindName } from './index.ts';
import type { Builder } from './kind.ts';
import { partBuilder } from './part/build.ts';
import { slabBuilder } from './slab/build.ts';

const BUILDERS = [slabBuilder, partBuilder] as const;

/** The builder of a kind. Settings go to the kind they name, so that each sees only its own. */
export function builderOf(kind: BuildKindName): Builder<Build, unknown> {
  return kindNamed(BUILDERS, 'kind', kind);
}

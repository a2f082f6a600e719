// index.ts — the sentences of each kind of build, between those that all layers have.
import type { ComponentType } from 'react';
import type { Build, BuildChange, BuildKindName, Layer } from '../../../../../core/index.ts';
import type { Narrowest } from '../../narrowest.ts';
import type { AtLeastOne } from '../several.tsx';
import { SlabSentences } from './SlabSentences.tsx';

export type LayerOf<K extends BuildKindName> = Layer & { build: Extract<Build, { kind: K }> };

export interface BuildSentencesProps<K extends BuildKindName> {
  /** Those of the chosen layers that are built so. */
  layers: AtLeastOne<LayerOf<K>>;
  /** The narrowest place of all chosen layers; null while none is known. */
  narrowest: Narrowest | null;
  /** Changes of lengths that suit it. */
  step: number;
  /** Changes all chosen layers. */
  change: (part: BuildChange, gesture?: string | null) => void;
}

/** A kind that is not here has nothing more to say than how high it is and where it stands. */
export const BUILD_SENTENCES: { readonly [K in BuildKindName]?: ComponentType<BuildSentencesProps<K>> } = {
  slab: SlabSentences,
};

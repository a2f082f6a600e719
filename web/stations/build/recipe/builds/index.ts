// index.ts — the sentences of each kind of build, between those that all layers have.
import type { ComponentType } from 'react';
import type { Build, BuildChange, BuildKindName, Layer } from '../../../../../core/index.ts';
import type { Narrowest } from '../../narrowest.ts';
import { SlabSentences } from './SlabSentences.tsx';

export interface BuildSentencesProps<K extends BuildKindName> {
  /** The first of the chosen layers, whose values are shown. */
  layer: Layer & { build: Extract<Build, { kind: K }> };
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

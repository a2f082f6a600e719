// SlabSentences.tsx — the recipe of slabs.
import type { Slab } from '../../../../../core/index.ts';
import { type Reading, readingOf } from '../several.tsx';
import { EdgeSentence } from './EdgeSentence.tsx';
import { FacesSentence } from './FacesSentence.tsx';
import { FrontSentence } from './FrontSentence.tsx';
import type { BuildSentencesProps } from './index.ts';
import { RegionsSentence } from './RegionsSentence.tsx';

export function SlabSentences({ layers, narrowest, step, change }: BuildSentencesProps<'slab'>) {
  const ofLayers = readingOf(layers);
  const of: Reading<Slab> = (read) => ofLayers(({ build }) => read(build));
  return (
    <>
      <EdgeSentence layers={layers} of={of} narrowest={narrowest} step={step / 2} change={change} />
      <FrontSentence layers={layers} of={of} step={step} change={change} />
      {layers.length === 1 && <RegionsSentence layer={layers[0]} step={step} change={change} />}
      <FacesSentence layers={layers} of={of} step={step} change={change} />
    </>
  );
}

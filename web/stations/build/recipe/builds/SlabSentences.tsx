// SlabSentences.tsx — the recipe of slabs.
import { EdgeSentence } from './EdgeSentence.tsx';
import { FacesSentence } from './FacesSentence.tsx';
import type { BuildSentencesProps } from './index.ts';

export function SlabSentences({ layer, narrowest, step, change }: BuildSentencesProps<'slab'>) {
  const slab = layer.build;
  return (
    <>
      <EdgeSentence slab={slab} layer={layer} narrowest={narrowest} step={step / 2} change={change} />
      <FacesSentence slab={slab} step={step} change={change} />
    </>
  );
}

// large.tsx — divisions that would make very many faces are held back until that is wanted.
import { type ReactNode, useState } from 'react';
import { type BuildChange, estimateFaces, type LayerView, type Slab } from '../../../../../core/index.ts';
import { Note } from '../../../../controls/Panel.tsx';
import { TextButton } from '../../../../controls/TextButton.tsx';
import { formatCount, formatSeconds } from '../../../../format.ts';
import { useBuild } from '../../../../store/build.ts';
import type { LayerOf } from './index.ts';

/** Faces that are made without a word. */
const MANY = 100_000;

type Change = (part: BuildChange, gesture?: string | null) => void;

/**
 * `weighed` makes a change, or holds it back where more faces than {@link MANY}, and more than there are, would come of it; `said`
 * then tells how many and how long they take, and asks.
 */
export function useWeighed(layers: readonly LayerOf<'slab'>[], change: Change): { weighed: Change; said: ReactNode } {
  const view = useBuild((state) => state.view);
  const pace = useBuild((state) => state.pace);
  const [held, setHeld] = useState<BuildChange | null>(null);
  const facesAfter = (part: BuildChange) =>
    layers.reduce((sum, { id, build }) => {
      const measured: LayerView | undefined = view?.layers.find((layer) => layer.id === id);
      return measured ? sum + estimateFaces({ ...build, ...part } as Slab, measured) : sum;
    }, 0);
  const weighed: Change = (part, gesture) => {
    const after = facesAfter(part);
    const isLarge = after > MANY && after > facesAfter({});
    setHeld(isLarge ? part : null);
    if (!isLarge) change(part, gesture);
  };
  if (!held) return { weighed, said: null };
  const faces = Number(facesAfter(held).toPrecision(2));
  const said = (
    <Note tone="ember">
      That makes about {formatCount(faces)} faces, which takes about {formatSeconds((faces * pace) / 1000)} here.{' '}
      <TextButton
        onClick={() => {
          setHeld(null);
          change(held);
        }}
      >
        Make them
      </TextButton>{' '}
      <TextButton onClick={() => setHeld(null)}>Leave it as it is</TextButton>
    </Note>
  );
  return { weighed, said };
}

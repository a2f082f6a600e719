// source.tsx — the station where things are brought in, and pictures traced.

import type { PictureSource } from '../../../core/index.ts';
import { later } from '../../controls/later.ts';
import { FlatView } from '../../scene/FlatView.tsx';
import { useDocumentPart } from '../../store/project.ts';
import { useSourceView } from '../../store/source-view.ts';
import type { Station } from '../kind.ts';

export const source = {
  path: 'source',
  title: 'Source',
  panel: later(
    () => import('./SourcePanel.tsx'),
    (module) => module.SourcePanel,
  ),
  desk: { isDivided: false, flat: Flat, tools: Tools },
  keys: [],
  listsArrivals: true,
  useFreshness: () => (useDocumentPart(({ sources }) => sources.length === 0) ? 'empty' : 'current'),
} satisfies Station;

/** The picture that is worked on: the one chosen, else the first; null where the chosen source is none. */
function usePicture(): PictureSource | null {
  const sources = useDocumentPart((document) => document.sources);
  const wanted = useSourceView((state) => state.source);
  const chosen = sources.find(({ id }) => id === wanted) ?? sources.find(({ kind }) => kind === 'picture');
  return chosen?.kind === 'picture' ? chosen : null;
}

const PictureDesk = later(
  () => import('../../picture/PictureDesk.tsx'),
  (module) => module.PictureDesk,
);
const PictureTools = later(
  () => import('../../picture/PictureTools.tsx'),
  (module) => module.PictureTools,
);

function Flat() {
  const picture = usePicture();
  return picture ? <PictureDesk key={picture.id} source={picture} /> : <FlatView />;
}

function Tools() {
  return usePicture() && <PictureTools />;
}

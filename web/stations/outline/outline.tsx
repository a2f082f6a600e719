// outline.tsx — the station where outlines are checked, edited and mended.

import type { Source } from '../../../core/index.ts';
import { later } from '../../controls/later.ts';
import { FlatView } from '../../scene/FlatView.tsx';
import { finishLine, takePointBack } from '../../store/drawing.ts';
import { outlineSource, removeChosen, useOutline } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { useScreen } from '../../store/screen.ts';
import { removeChosenWall } from '../../store/walls.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';

export const outline = {
  path: 'outline',
  title: 'Outline',
  panel: later(
    () => import('./OutlinePanel.tsx'),
    (module) => module.OutlinePanel,
  ),
  desk: { isDivided: false, flat: Flat, tools: Tools },
  keys: [
    {
      keys: 'delete, backspace',
      shown: 'Del',
      does: 'Remove the chosen shapes or points, or take back the last point drawn',
      act: () => takePointBack() || removeChosenWall() || removeChosen(),
    },
    { keys: 'enter', shown: 'Enter', does: 'End the line that is being drawn', act: () => finishLine() },
  ],
  useFreshness: useBuilt,
} satisfies Station;

/** The source whose outlines are worked on. */
function useOutlineSource(): Source | null {
  const document = useDocumentPart((present) => present);
  // Which source it is hangs on the selection too.
  useScreen((state) => state.selected);
  useOutline((state) => state.source);
  return outlineSource(document);
}

const OutlineDesk = later(
  () => import('../../outline/OutlineDesk.tsx'),
  (module) => module.OutlineDesk,
);
const OutlineTools = later(
  () => import('../../outline/OutlineTools.tsx'),
  (module) => module.OutlineTools,
);

function Flat() {
  const source = useOutlineSource();
  return source ? <OutlineDesk key={source.id} source={source} /> : <FlatView />;
}

function Tools() {
  const source = useOutlineSource();
  return source && <OutlineTools isPicture={source.kind === 'picture'} />;
}

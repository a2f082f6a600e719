// outline.tsx — the station where outlines are checked, edited and mended.

import type { Source } from '../../../core/index.ts';
import type { Key } from '../../controls/keys.ts';
import { later } from '../../controls/later.ts';
import { isOn, layersByShape } from '../../outline/choosing.ts';
import { FlatView } from '../../scene/FlatView.tsx';
import { finishLine, takePointBack } from '../../store/drawing.ts';
import { chooseIfFree } from '../../store/layers.ts';
import {
  copyBeside,
  inHand,
  isVisible,
  nudge,
  outlineSource,
  removeChosen,
  outline as station,
  useOutline,
} from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { useScreen } from '../../store/screen.ts';
import { nudgeWall, removeChosenWall } from '../../store/walls.ts';
import { useBuilt } from '../freshness.ts';
import type { Station } from '../kind.ts';

/** All that go on to the build and are in view. */
function chooseAll(): void {
  const current = inHand();
  const { view, hidden, isolated } = useOutline.getState();
  if (!current || !view) return;
  const layerOf = layersByShape(current.project.layers, current.source.id);
  const seen = view.shapes.filter(({ id }) => isOn(id, layerOf) && isVisible(id, { hidden, isolated }));
  station.choose(seen.map(({ id }) => id));
}

/** With Shift ten steps; up and down go through the layers while no shape is chosen. */
const ARROWS: readonly Key[] = (
  [
    ['left', '←', -1, 0],
    ['right', '→', 1, 0],
    ['up', '↑', 0, -1],
    ['down', '↓', 0, 1],
  ] as const
).flatMap(([way, shown, right, down]) =>
  [1, 10].map((steps) => ({
    keys: `${steps === 10 ? 'shift+' : ''}arrow${way}`,
    shown: steps === 10 ? `Shift ${shown}` : shown,
    does: `Move the chosen shapes ${way}${steps === 10 ? ', ten steps' : ''}`,
    act: () => {
      if (nudgeWall(steps * right, steps * down) || nudge(steps * right, steps * down)) return true;
      if (down !== 0 && steps === 1) chooseIfFree(down === 1 ? -1 : 1);
      return false;
    },
  })),
);

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
    { keys: 'mod+a', shown: 'Ctrl A', does: 'Choose all shapes', act: chooseAll },
    {
      keys: 'mod+d',
      shown: 'Ctrl D',
      does: 'Copy the chosen shapes beside themselves',
      act: () => void copyBeside(),
    },
    ...ARROWS,
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

// layer-keys.ts — what is done with the chosen layers: in their menu, by keys in their list, and found by typing.
import type { Key } from '../../controls/keys.ts';
import {
  buildChosen,
  chooseAlike,
  chooseGroupAround,
  copyChosen,
  groupChosen,
  hideChosen,
  lockChosen,
  moveChosen,
  removeChosenLayers,
  renameChosen,
  splitChosen,
  ungroupChosen,
} from '../../store/layers.ts';

export interface LayerKey extends Key {
  /** Whether it stands apart from those before it in the menu. */
  readonly isApart?: boolean;
}

export const LAYER_KEYS: readonly LayerKey[] = [
  { keys: 'f2', shown: 'F2', does: 'Rename', act: renameChosen },
  { keys: 'mod+d', shown: 'Ctrl D', does: 'Copy on top', act: copyChosen },
  { keys: 'h', shown: 'H', does: 'Hide or show in the view', act: hideChosen },
  { keys: 'b', shown: 'B', does: 'Build or leave out', act: buildChosen },
  { keys: 'l', shown: 'L', does: 'Lock or unlock', act: lockChosen },
  { keys: 'mod+g', shown: 'Ctrl G', does: 'Group', act: groupChosen, isApart: true },
  { keys: 'mod+shift+g', shown: 'Ctrl Shift G', does: 'Ungroup', act: ungroupChosen },
  { keys: 'alt+o', shown: 'Alt O', does: 'Make each outline a layer', act: splitChosen },
  { keys: 'alt+g', shown: 'Alt G', does: 'Choose the group around', act: chooseGroupAround },
  { keys: 'alt+c', shown: 'Alt C', does: 'Choose all of this colour', act: () => chooseAlike('colour'), isApart: true },
  { keys: 'alt+m', shown: 'Alt M', does: 'Choose all of this material', act: () => chooseAlike('material') },
  { keys: 'alt+d', shown: 'Alt D', does: 'Choose all of this depth', act: () => chooseAlike('depth') },
  { keys: 'alt+s', shown: 'Alt S', does: 'Choose all of this source', act: () => chooseAlike('source') },
  { keys: 'alt+arrowup', shown: 'Alt ↑', does: 'Move up the list', act: () => moveChosen(1), isApart: true },
  { keys: 'alt+arrowdown', shown: 'Alt ↓', does: 'Move down the list', act: () => moveChosen(-1) },
  { keys: 'delete, backspace', shown: 'Del', does: 'Remove', act: removeChosenLayers, isApart: true },
];

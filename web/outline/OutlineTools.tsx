// OutlineTools.tsx — how shapes are chosen and looked at, above the view.
import { BoxSelect, Lasso, UnfoldVertical } from 'lucide-react';
import { IconButton } from '../controls/IconButton.tsx';
import { Value } from '../controls/Value.tsx';
import { outline, useOutline } from '../store/outline.ts';

export function OutlineTools() {
  const { chooseBy, apart } = useOutline();
  return (
    <>
      <IconButton
        icon={BoxSelect}
        label="Drag a box round shapes"
        pressed={chooseBy === 'box'}
        onClick={() => outline.set({ chooseBy: 'box' })}
      />
      <IconButton
        icon={Lasso}
        label="Draw a line round shapes"
        pressed={chooseBy === 'lasso'}
        onClick={() => outline.set({ chooseBy: 'lasso' })}
      />
      <span className="mx-1 h-5 w-px bg-rule" />
      <IconButton
        icon={UnfoldVertical}
        label="Pull layers apart to look between them"
        pressed={apart > 0}
        onClick={() => outline.set({ apart: apart > 0 ? 0 : START_APART })}
      />
      {apart > 0 && (
        <Value
          label="How far layers are pulled apart"
          value={Math.round(100 * apart)}
          unit="%"
          max={200}
          step={5}
          onChange={(v) => outline.set({ apart: v / 100 })}
        />
      )}
      <span className="mx-1 h-5 w-px bg-rule" />
    </>
  );
}

const START_APART = 0.4;

// OutlineTools.tsx — how shapes are chosen and looked at, above the view.
import {
  BoxSelect,
  BrickWall,
  Lasso,
  PaintBucket,
  PenTool,
  Ruler,
  Slice,
  SplinePointer,
  UnfoldVertical,
} from 'lucide-react';
import { IconButton } from '../controls/IconButton.tsx';
import { Value } from '../controls/Value.tsx';
import { DifferenceButton, PictureOpacity } from '../picture/UnderlayTools.tsx';
import { outline, takeTool, useOutline } from '../store/outline.ts';

export function OutlineTools({ isPicture }: { isPicture: boolean }) {
  const { chooseBy, apart, tool, chosen } = useOutline();
  return (
    <>
      <IconButton
        icon={BoxSelect}
        label="Drag a box round shapes"
        pressed={tool === 'choose' && chooseBy === 'box'}
        onClick={() => outline.set({ chooseBy: 'box', tool: 'choose' })}
      />
      <IconButton
        icon={Lasso}
        label="Draw a line round shapes"
        pressed={tool === 'choose' && chooseBy === 'lasso'}
        onClick={() => outline.set({ chooseBy: 'lasso', tool: 'choose' })}
      />
      <IconButton
        icon={SplinePointer}
        label="Points and handles of the chosen shape"
        pressed={tool === 'points'}
        disabled={chosen.length === 0 && tool !== 'points'}
        onClick={() => void takeTool('points')}
      />
      <IconButton
        icon={Slice}
        label="Split the chosen shapes along a line"
        pressed={tool === 'split'}
        disabled={chosen.length === 0}
        onClick={() => void takeTool('split')}
      />
      <IconButton
        icon={PaintBucket}
        label="Fill faces between the chosen lines"
        pressed={tool === 'faces'}
        disabled={chosen.length === 0}
        onClick={() => void takeTool('faces')}
      />
      <IconButton
        icon={PenTool}
        label="Draw lines, curves and figures"
        pressed={tool === 'draw'}
        onClick={() => void takeTool('draw')}
      />
      <IconButton
        icon={BrickWall}
        label="Walls and their openings"
        pressed={tool === 'walls'}
        onClick={() => void takeTool('walls')}
      />
      <IconButton
        icon={Ruler}
        label="Measure, and set the real size"
        pressed={tool === 'measure'}
        onClick={() => void takeTool('measure')}
      />
      <span className="mx-1 h-5 w-px bg-rule" />
      {isPicture && (
        <>
          <PictureOpacity />
          <DifferenceButton />
        </>
      )}
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

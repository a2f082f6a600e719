// PictureTools.tsx — how the picture is looked at, above the view.
import { Ruler, Search, SquareSplitHorizontal } from 'lucide-react';
import { Choice } from '../controls/Choice.tsx';
import { IconButton } from '../controls/IconButton.tsx';
import { type Fill, sourceView, useSourceView } from '../store/source-view.ts';
import { DifferenceButton, PictureOpacity } from './UnderlayTools.tsx';

export function PictureTools() {
  const { fill, before, loupe, tool } = useSourceView();
  return (
    <>
      <PictureOpacity />
      <span className="ml-1 text-quiet">trace</span>
      <Choice<Fill>
        label="Trace"
        value={fill}
        options={[
          ['filled', 'filled'],
          ['outlined', 'outlined'],
          ['hidden', 'hidden'],
        ]}
        onChange={(next) => sourceView.set({ fill: next })}
      />
      <span className="mx-1 h-5 w-px bg-rule" />
      <IconButton
        icon={SquareSplitHorizontal}
        label="Before and after, divided"
        pressed={before > 0}
        onClick={() => sourceView.set({ before: before > 0 ? 0 : 0.5 })}
      />
      <DifferenceButton />
      <IconButton icon={Search} label="Loupe" pressed={loupe} onClick={() => sourceView.set({ loupe: !loupe })} />
      <IconButton
        icon={Ruler}
        label="Draw a line over a known length"
        pressed={tool?.kind === 'length'}
        onClick={() =>
          sourceView.set({ tool: tool?.kind === 'length' ? null : { kind: 'length', from: null, to: null } })
        }
      />
      <span className="mx-1 h-5 w-px bg-rule" />
    </>
  );
}

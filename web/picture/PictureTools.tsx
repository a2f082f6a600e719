// PictureTools.tsx — how the picture is looked at, above the view.
import { Diff, Ruler, Search, SquareSplitHorizontal } from 'lucide-react';
import { Choice } from '../controls/Choice.tsx';
import { IconButton } from '../controls/IconButton.tsx';
import { Value } from '../controls/Value.tsx';
import { type Fill, sourceView, useSourceView } from '../store/source-view.ts';

export function PictureTools() {
  const { strength, fill, before, difference, loupe, tool } = useSourceView();
  return (
    <>
      <span className="ml-1 text-quiet">picture</span>
      <Value
        label="Opacity of the picture"
        value={Math.round(100 * strength)}
        unit="%"
        max={100}
        step={5}
        onChange={(v) => sourceView.set({ strength: v / 100 })}
      />
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
      <IconButton
        icon={Diff}
        label="Show where picture and outlines disagree"
        pressed={difference}
        onClick={() => sourceView.set({ difference: !difference })}
      />
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

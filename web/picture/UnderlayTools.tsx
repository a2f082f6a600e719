// UnderlayTools.tsx — how strongly the picture shows beneath its outlines, and whether what differs between them is shown.
import { Diff } from 'lucide-react';
import { IconButton } from '../controls/IconButton.tsx';
import { Value } from '../controls/Value.tsx';
import { sourceView, useSourceView } from '../store/source-view.ts';

export function PictureOpacity() {
  const strength = useSourceView((state) => state.strength);
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
    </>
  );
}

export function DifferenceButton() {
  const difference = useSourceView((state) => state.difference);
  return (
    <IconButton
      icon={Diff}
      label="Show where picture and outlines disagree"
      pressed={difference}
      onClick={() => sourceView.set({ difference: !difference })}
    />
  );
}

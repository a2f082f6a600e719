// KnownLength.tsx — the line drawn over a known length, and what it measures.

import type { PictureSource } from '../../../core/index.ts';
import { Panel } from '../../controls/Panel.tsx';
import { formatNumber } from '../../format.ts';
import { sourceView, useSourceView } from '../../store/source-view.ts';
import { KnownLengthSentence } from '../KnownLengthSentence.tsx';

export function KnownLength({ source }: { source: PictureSource }) {
  const tool = useSourceView((state) => state.tool);
  if (tool?.kind !== 'length') return null;
  const { from, to } = tool;
  const pixels = from && to ? Math.hypot(to.x - from.x, to.y - from.y) : 0;
  return (
    <Panel title="Known length">
      {pixels < 2 ? (
        <p className="text-quiet">
          Draw a line over something whose length you know: a door, a printed dimension, a ruler.
        </p>
      ) : (
        <>
          <KnownLengthSentence source={source} length={pixels} />
          <p className="text-quiet text-sm">
            <span className="figure">{formatNumber(pixels)} px</span> in the picture; the project’s size follows.
          </p>
          <button
            type="button"
            className="mt-1 text-sm text-tide underline"
            onClick={() => sourceView.set({ tool: null })}
          >
            Done
          </button>
        </>
      )}
    </Panel>
  );
}

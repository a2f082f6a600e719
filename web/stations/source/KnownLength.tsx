// KnownLength.tsx — the line drawn over a known length, and what it measures.
import type { PictureSource } from '../../../core/index.ts';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { Value } from '../../controls/Value.tsx';
import { dispatch, useDocument } from '../../store/project.ts';
import { sourceView, useSourceView } from '../../store/source-view.ts';

export function KnownLength({ source }: { source: PictureSource }) {
  const unit = useDocument().unit;
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
          <Sentence>
            That line measures{' '}
            <Value
              label="Known length"
              value={Number((pixels * source.scale).toPrecision(5))}
              unit={unit}
              min={1e-3}
              step={1}
              onChange={(v, gesture) => dispatch({ do: 'scale-source', source: source.id, scale: v / pixels }, gesture)}
            />
            .
          </Sentence>
          <p className="text-quiet text-sm">
            <span className="figure">{pixels.toFixed(1)} px</span> in the picture; the project’s size follows.
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

// OutlineStation.tsx — which shapes are kept, by layer.
import { Eye, EyeOff } from 'lucide-react';
import { toggleShape } from '../bench/FlatView.tsx';
import { Note, Panel } from '../controls/Panel.tsx';
import { formatCount } from '../format.ts';
import { useBuild } from '../store/build.ts';
import { dispatch, useDocument } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';

/** Lists longer than this are cut; the view still holds every shape. */
const LISTED = 60;

export function OutlineStation() {
  const { layers } = useDocument();
  const view = useBuild((state) => state.view);
  const selected = useScreen((state) => state.selected);
  if (layers.length === 0) {
    return (
      <Panel title="Outline">
        <p className="text-quiet">There are no outlines yet. Bring something in at the Source station.</p>
      </Panel>
    );
  }
  return (
    <>
      <Panel title="Outline">
        <p>Choose what goes on to the build. A shape that is off stays in the project.</p>
        <Note>Click a shape to choose its layer; Alt-click switches the shape itself off or on.</Note>
      </Panel>
      {layers.toReversed().map((layer) => {
        const seen = view?.layers.find((entry) => entry.id === layer.id);
        const open = selected.includes(layer.id);
        return (
          <section key={layer.id} className={`border-rule border-b px-5 py-2 ${open ? 'bg-wash/50' : ''}`}>
            <div className="flex items-center gap-2">
              <span aria-hidden className="size-3.5 border border-rule" style={{ background: layer.material.colour }} />
              <button
                type="button"
                aria-expanded={open}
                className="min-w-0 flex-1 truncate text-left"
                onClick={() => screen.select(open ? [] : [layer.id])}
              >
                {layer.name}
              </button>
              <span className="text-quiet text-sm">
                {seen
                  ? `${seen.outlines} ${seen.outlines === 1 ? 'outline' : 'outlines'}, ${formatCount(seen.points)} points`
                  : ''}
              </span>
            </div>
            {layer.ground && <Note>Recognised as the paper behind the drawing and switched off.</Note>}
            {open && (
              <>
                <label className="my-1 flex items-center gap-2 text-sm">
                  <input
                    type="checkbox"
                    className="accent-tide"
                    checked={layer.shown}
                    onChange={() =>
                      dispatch({ do: 'change-layers', layers: [layer.id], change: { shown: !layer.shown } })
                    }
                  />
                  Build this layer
                </label>
                <ul className="text-sm">
                  {seen?.shapes?.slice(0, LISTED).map((shape) => (
                    <li key={shape.id}>
                      <button
                        type="button"
                        aria-pressed={!layer.skipped.includes(shape.id)}
                        className={`flex w-full items-center gap-2 py-0.5 text-left ${layer.skipped.includes(shape.id) ? 'text-quiet line-through' : ''}`}
                        onClick={() => toggleShape(layer, shape.id)}
                      >
                        {layer.skipped.includes(shape.id) ? (
                          <EyeOff size={14} aria-hidden />
                        ) : (
                          <Eye size={14} aria-hidden />
                        )}
                        {shape.name}
                        <span className="truncate text-quiet">{shape.id}</span>
                      </button>
                    </li>
                  ))}
                </ul>
                {(seen?.shapes?.length ?? 0) > LISTED && (
                  <Note>…and {seen!.shapes!.length - LISTED} more in the view.</Note>
                )}
              </>
            )}
          </section>
        );
      })}
    </>
  );
}

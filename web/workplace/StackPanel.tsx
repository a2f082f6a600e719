// StackPanel.tsx — the left side: the side elevation, and the layers by name.
import { Eye, EyeOff } from 'lucide-react';
import { memo } from 'react';
import { heightOf, type Layer } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { formatNumber } from '../format.ts';
import { dispatch, useDocument } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';
import { StackElevation } from './StackElevation.tsx';

export function StackPanel() {
  const { layers, unit } = useDocument();
  return (
    <aside className="flex min-h-0 flex-col border-rule border-r bg-paper" aria-label="Stack">
      <header className="flex items-baseline justify-between px-5 pt-4">
        <h2 className="font-serif text-lg">Stack</h2>
        <span className="text-quiet text-sm">seen from the side, {unit}</span>
      </header>
      {layers.some((layer) => layer.shown) && <StackElevation />}
      {layers.length === 0 && <p className="px-5 py-3 text-quiet">The layers of what you bring in will stand here.</p>}
      <ul className="min-h-0 flex-1 overflow-y-auto border-rule border-t py-1" aria-label="Layers">
        {layers.toReversed().map((layer) => (
          <LayerRow key={layer.id} layer={layer} />
        ))}
      </ul>
    </aside>
  );
}

const LayerRow = memo(function LayerRow({ layer }: { layer: Layer }) {
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const { id, name, shown, ground, build, material } = layer;
  return (
    <li className={`flex items-center gap-2 pr-2 pl-5 ${selected ? 'bg-wash' : ''}`}>
      <span aria-hidden className="size-3.5 shrink-0 border border-rule" style={{ background: material.colour }} />
      <button
        type="button"
        aria-pressed={selected}
        className={`min-w-0 flex-1 truncate py-1 text-left ${shown ? '' : 'text-quiet'} ${selected ? 'text-tide' : ''}`}
        onClick={(event) => (event.shiftKey ? screen.toggleSelected(id) : screen.select([id]))}
      >
        {name}
        {ground && <span className="text-quiet text-sm"> · paper, off</span>}
      </button>
      {shown && <span className="figure text-quiet">{formatNumber(heightOf(build))}</span>}
      <IconButton
        icon={shown ? Eye : EyeOff}
        label={shown ? `Leave ${name} out of the build` : `Build ${name}`}
        pressed={shown}
        className="!bg-transparent !size-7 !text-quiet"
        onClick={() => dispatch({ do: 'change-layers', layers: [id], change: { shown: !shown } })}
      />
    </li>
  );
});

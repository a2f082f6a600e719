// StackPanel.tsx — the left side: the side elevation, and the layers by name.
import { useDocument } from '../store/project.ts';
import { LayerList } from './LayerList.tsx';
import { StackElevation } from './StackElevation.tsx';

export function StackPanel({ isFolded }: { isFolded: boolean }) {
  const { layers, unit } = useDocument();
  return (
    <aside
      className={`min-h-0 flex-col border-rule border-r bg-paper max-md:row-start-4 max-md:flex max-md:max-h-[40rem] ${isFolded ? 'hidden' : 'flex'}`}
      aria-label="Stack"
    >
      <header className="flex items-baseline justify-between px-5 pt-4">
        <h2 className="font-serif text-lg">Stack</h2>
        <span className="text-quiet text-sm">seen from the side, {unit}</span>
      </header>
      {layers.some((layer) => layer.shown) && <StackElevation />}
      {layers.length === 0 && <p className="px-5 py-3 text-quiet">The layers of what you bring in will stand here.</p>}
      <LayerList />
    </aside>
  );
}

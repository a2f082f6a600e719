// OpenNote.tsx — which bodies are open, with the place and what closes them.
import { closingOf, type Layer } from '../../../core/index.ts';
import { Note } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { useOpenLayers } from '../../store/open.ts';
import { dispatch } from '../../store/project.ts';
import { showFault } from './faults.ts';

/** @param among layers that matter here @param then what it means for what is about to be done */
export function OpenNote({ among, then }: { among: readonly Layer[]; then?: string }) {
  const open = useOpenLayers().filter(({ id }) => among.some((layer) => layer.id === id));
  const [first] = open;
  if (!first) return null;
  const close = () => {
    // One step, however many they are.
    const gesture = crypto.randomUUID();
    for (const layer of open) dispatch({ do: 'change-layers', layers: [layer.id], change: closingOf(layer) }, gesture);
  };
  return (
    <Note tone="ember">
      {open.length === 1 ? `${first.name} is open` : `${open.length} bodies are open`}: no volume is enclosed
      {then ? `, and ${then}` : ''}.
      <span className="flex gap-4">
        <TextButton onClick={() => showFault(first, 'open')}>Show where</TextButton>
        <TextButton onClick={close}>{open.length === 1 ? 'Close it' : 'Close them'}</TextButton>
      </span>
    </Note>
  );
}

// OpenNote.tsx — which bodies are open, with the place and what closes them.
import { closingOf, type Layer } from '../../../core/index.ts';
import { Note } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { useBuild } from '../../store/build.ts';
import { dispatch, useDocument } from '../../store/project.ts';
import { showFault } from './faults.ts';

/** Those of the layers whose mesh has been looked at and is not closed. */
export function useOpenLayers(): readonly Layer[] {
  const { layers } = useDocument();
  const view = useBuild((state) => state.view);
  const proofs = useBuild((state) => state.proofs);
  const isOpen = ({ id, shown }: Layer) => {
    const meshKey = shown && view?.layers.find((seen) => seen.id === id)?.meshKey;
    return meshKey ? proofs[meshKey]?.closed === false : false;
  };
  return layers.filter(isOpen);
}

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

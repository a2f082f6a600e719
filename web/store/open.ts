// open.ts — which bodies are open.
import type { Layer } from '../../core/index.ts';
import { useBuild } from './build.ts';
import { useDocument } from './project.ts';

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

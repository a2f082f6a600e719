// open.ts — which bodies are open.
import type { Layer } from '../../core/index.ts';
import { useBuild } from './build.ts';
import { useDocument } from './project.ts';

/** Those of the layers whose mesh has been looked at and is not closed. */
export function useOpenLayers(): readonly Layer[] {
  const { layers } = useDocument();
  const view = useBuild((state) => state.view);
  const proofs = useBuild((state) => state.proofs);
  const meshKeys = new Map(view?.layers.map(({ id, meshKey }) => [id, meshKey]));
  return layers.filter(({ id, shown }) => shown && proofs[meshKeys.get(id) ?? '']?.closed === false);
}

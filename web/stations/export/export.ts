// export.ts — the station where meshes are taken away as files.
import { later } from '../../controls/later.ts';
import { useLastExport } from '../../store/export.ts';
import { useProject } from '../../store/project.ts';
import { BOTH } from '../desks.ts';
import type { Freshness, Station } from '../kind.ts';

export const exporting = {
  path: 'export',
  title: 'Export',
  panel: later(
    () => import('./ExportPanel.tsx'),
    (module) => module.ExportPanel,
  ),
  desk: BOTH,
  keys: [],
  useFreshness: useExported,
} satisfies Station;

function useExported(): Freshness {
  const revision = useProject((state) => state.revision);
  const isSaved = useProject((state) => state.save === 'saved');
  const exported = useLastExport();
  if (exported === null) return 'empty';
  return isSaved && exported === revision ? 'current' : 'behind';
}

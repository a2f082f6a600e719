// export.ts — which revision was last exported from this page.
import { create } from 'zustand';
import { useProject } from './project.ts';

interface ExportState {
  readonly project: string | null;
  readonly jobId: string | null;
  readonly revision: number;
}

export const useExport = create<ExportState>(() => ({ project: null, jobId: null, revision: 0 }));

export function rememberExport(project: string, jobId: string, revision: number): void {
  useExport.setState({ project, jobId, revision });
}

/** The revision of the open project's last export; null when it has none. */
export function useLastExport(): number | null {
  const id = useProject((state) => state.id);
  const { project, revision } = useExport();
  return project === id && project !== null ? revision : null;
}

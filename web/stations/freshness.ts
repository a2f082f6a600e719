// freshness.ts — whether what was built is that of the document.
import { useBuild } from '../store/build.ts';
import { useDocument } from '../store/project.ts';
import type { Freshness } from './kind.ts';

/** For stations whose work is done when everything is built. */
export function useBuilt(): Freshness {
  const document = useDocument();
  const { view, of, failure } = useBuild();
  if (document.layers.length === 0) return 'empty';
  return of === document && view && !failure ? 'current' : 'behind';
}

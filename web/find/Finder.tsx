// Finder.tsx — Ctrl K on every page; the search itself is fetched when it is first asked for.
import { Suspense } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { later } from '../controls/later.ts';
import { openFinder, useFinder } from './finder.ts';

const SearchDialog = later(
  () => import('./SearchDialog.tsx'),
  (module) => module.SearchDialog,
);

export function Finder() {
  const isOpen = useFinder((state) => state.isOpen);
  useHotkeys('mod+k', openFinder, { enableOnFormTags: true, preventDefault: true });
  return <Suspense fallback={null}>{isOpen && <SearchDialog />}</Suspense>;
}

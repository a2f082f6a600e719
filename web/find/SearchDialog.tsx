// SearchDialog.tsx — the search over everything.
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogBackdrop,
  DialogPanel,
} from '@headlessui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import useSWR from 'swr';
import { anchorOf, PAGES } from '../help/pages.ts';
import { api } from '../requests/api.ts';
import { toggleTheme } from '../store/theme.ts';
import { closeFinder, type Findable, matching, offered } from './finder.ts';

export function SearchDialog() {
  return (
    <Dialog open onClose={closeFinder} className="relative z-50" aria-label="Find anything">
      <DialogBackdrop className="fixed inset-0 bg-black/30" />
      <div className="fixed inset-x-0 top-[12vh] flex justify-center px-6">
        <DialogPanel className="w-full max-w-xl rounded-edge border border-rule bg-sheet shadow-lg">
          <Search />
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Search() {
  const [typed, setTyped] = useState('');
  const all = useAll();
  const found = matching(all, typed);
  const take = (chosen: Findable | null) => {
    if (!chosen) return;
    closeFinder();
    chosen.act();
  };
  return (
    <Combobox<Findable | null>
      value={null}
      onChange={take}
      onClose={() => {}}
      virtual={{ options: found as (Findable | null)[] }}
      immediate
    >
      <ComboboxInput
        autoFocus
        aria-label="Find anything"
        placeholder="A command, a station, a layer, a project, a page of the guide"
        className="w-full border-rule border-b bg-transparent px-5 py-3.5 text-lg placeholder:text-quiet focus:outline-none"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') closeFinder();
        }}
      />
      {found.length > 0 ? (
        <ComboboxOptions static className="h-80 overflow-y-auto py-1.5">
          {({ option }: { option: Findable }) => (
            <ComboboxOption
              value={option}
              className="flex w-full cursor-pointer items-baseline gap-3 px-5 py-1.5 data-[focus]:bg-wash data-[focus]:text-tide"
            >
              <span className="min-w-0 flex-1 truncate">{option.words}</span>
              <span className="text-quiet text-sm">{option.kind}</span>
              <span className="figure w-24 text-right text-quiet">{option.keys}</span>
            </ComboboxOption>
          )}
        </ComboboxOptions>
      ) : (
        <p className="px-5 py-4 text-quiet">Nothing is called so.</p>
      )}
    </Combobox>
  );
}

/** What the page offers, and what can be gone to from everywhere. */
function useAll(): readonly Findable[] {
  const navigate = useNavigate();
  const [here] = useState(offered);
  const { data: projects = [] } = useSWR('projects', api.projects);
  return [
    ...here,
    { id: 'theme', words: 'Day or night', kind: 'command', act: toggleTheme },
    ...PAGES.flatMap(({ name, title, headings }) => [
      { id: `guide ${name}`, words: title, kind: 'guide', act: () => navigate(`/help/${name}`) },
      ...headings.map((heading) => ({
        id: `guide ${name} ${heading}`,
        words: heading,
        kind: `guide, ${title}`,
        act: () => navigate(`/help/${name}#${anchorOf(heading)}`),
      })),
    ]),
    { id: 'projects', words: 'All projects', kind: 'page', act: () => navigate('/') },
    ...projects.map(({ id, name }) => ({
      id: `project ${id}`,
      words: name,
      kind: 'project',
      act: () => navigate(`/projects/${id}/build`),
    })),
  ];
}

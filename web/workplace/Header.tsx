// Header.tsx — project name, the route through the stations, undo, save state, theme, help.
import { CircleHelp, Moon, Redo2, Undo2 } from 'lucide-react';
import { memo } from 'react';
import { Link, NavLink } from 'react-router';
import { toggleTheme } from '../app/theme.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { useBuild } from '../store/build.ts';
import { useLastExport } from '../store/export.ts';
import { undoLast } from '../store/picture.ts';
import { dispatch, redoChange, useDocument, useDocumentPart, useProject } from '../store/project.ts';
import { SaveMark } from './SaveMark.tsx';

type Freshness = 'current' | 'behind' | 'empty' | 'coming';

export function Header({ onHelp }: { onHelp: () => void }) {
  const name = useDocumentPart((document) => document.name);
  const canUndo = useProject((state) => (state.history?.past.length ?? 0) > 0);
  const canRedo = useProject((state) => (state.history?.future.length ?? 0) > 0);
  return (
    <header className="col-span-3 grid grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] items-center border-rule border-b bg-sheet pr-3">
      <div className="flex min-w-0 items-baseline gap-2 px-5">
        <Link to="/" className="shrink-0 font-serif text-ink text-lg" title="All projects">
          Outline Stack
        </Link>
        <input
          key={name}
          aria-label="Project name"
          defaultValue={name}
          className="min-w-0 flex-1 truncate rounded-edge bg-transparent px-1.5 text-quiet focus:bg-paper focus:text-ink"
          onBlur={(event) => {
            const next = event.target.value.trim();
            if (next && next !== name) dispatch({ do: 'rename-project', name: next });
            else event.target.value = name;
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
        />
      </div>
      <RouteBar />
      <div className="flex min-w-0 items-center justify-end gap-0.5">
        <SaveMark />
        <IconButton icon={Undo2} label="Undo" disabled={!canUndo} onClick={undoLast} />
        <IconButton icon={Redo2} label="Redo" disabled={!canRedo} onClick={redoChange} />
        <IconButton icon={Moon} label="Day or night bench" onClick={toggleTheme} />
        <IconButton icon={CircleHelp} label="Keys" onClick={onHelp} />
      </div>
    </header>
  );
}

/** The stations as stops on a line; the mark at each says whether what it holds is current. */
function RouteBar() {
  const document = useDocument();
  const { view, of, failure } = useBuild();
  const revision = useProject((state) => state.revision);
  const saved = useProject((state) => state.save === 'saved');
  const exported = useLastExport();
  const evaluated: Freshness =
    document.layers.length === 0 ? 'empty' : of === document && view && !failure ? 'current' : 'behind';
  const stops: [path: string, name: string, freshness: Freshness][] = [
    ['source', 'Source', document.sources.length === 0 ? 'empty' : 'current'],
    ['outline', 'Outline', evaluated],
    ['build', 'Build', evaluated],
    ['stage', 'Stage', 'coming'],
    ['motion', 'Motion', 'coming'],
    ['export', 'Export', exported === null ? 'empty' : saved && exported === revision ? 'current' : 'behind'],
  ];
  return (
    <nav aria-label="Stations" className="flex justify-center">
      <ol className="flex">
        {stops.map(([path, name, freshness], i) => (
          <Stop key={path} path={path} name={name} freshness={freshness} isFirst={i === 0} />
        ))}
      </ol>
    </nav>
  );
}

interface StopProps {
  path: string;
  name: string;
  freshness: Freshness;
  isFirst: boolean;
}

const Stop = memo(function Stop({ path, name, freshness, isFirst }: StopProps) {
  return (
    <li className="relative">
      {!isFirst && <span aria-hidden className="-left-1/2 absolute top-[0.6rem] h-px w-full bg-rule" />}
      <NavLink
        to={path}
        title={`${name}: ${FRESHNESS[freshness]}`}
        className={({ isActive }) =>
          `relative flex w-[4.6rem] flex-col items-center gap-0.5 pt-1 text-sm ${isActive ? 'font-semibold text-tide' : freshness === 'coming' ? 'text-quiet' : 'text-ink'}`
        }
      >
        <span aria-hidden className={`my-px size-2.5 rounded-full border bg-sheet ${DOT[freshness]}`} />
        <span>{name}</span>
      </NavLink>
    </li>
  );
});

const FRESHNESS: Record<Freshness, string> = {
  current: 'up to date',
  behind: 'behind the latest change',
  empty: 'nothing yet',
  coming: 'coming later',
};
const DOT: Record<Freshness, string> = {
  current: 'border-tide !bg-tide',
  behind: 'border-tide',
  empty: 'border-quiet',
  coming: 'border-quiet border-dashed',
};

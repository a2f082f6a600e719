// Header.tsx — project name, the route through the stations, undo, save state, theme, help.
import { CircleHelp, Moon, Redo2, Search, Undo2 } from 'lucide-react';
import { memo } from 'react';
import { Link, NavLink } from 'react-router';
import { IconButton } from '../controls/IconButton.tsx';
import { openFinder } from '../find/finder.ts';
import { STATIONS } from '../stations/index.ts';
import type { Freshness, Station } from '../stations/kind.ts';
import { undoLast } from '../store/picture.ts';
import { dispatch, redoChange, useDocumentPart, useProject } from '../store/project.ts';
import { toggleTheme } from '../store/theme.ts';
import { SaveMark } from './SaveMark.tsx';
import { StepList } from './StepList.tsx';

export function Header({ station, onHelp }: { station: string; onHelp: () => void }) {
  const name = useDocumentPart((document) => document.name);
  const canUndo = useProject((state) => (state.history?.past.length ?? 0) > 0);
  const canRedo = useProject((state) => (state.history?.future.length ?? 0) > 0);
  return (
    <header className="col-span-3 grid min-h-[3.25rem] grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] items-center border-rule border-b bg-sheet pr-3 max-md:col-span-1 max-md:flex max-md:flex-wrap max-md:justify-between max-md:gap-y-1 max-md:py-1">
      <div className="flex min-w-0 items-baseline gap-2 px-5">
        <h1 className="sr-only">{`${station}: ${name}`}</h1>
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
        <IconButton icon={Search} label="Find anything" keys="Ctrl K" onClick={openFinder} />
        <IconButton icon={Undo2} label="Undo" keys="Ctrl Z" disabled={!canUndo} onClick={undoLast} />
        <IconButton icon={Redo2} label="Redo" keys="Ctrl Shift Z" disabled={!canRedo} onClick={redoChange} />
        <StepList />
        <IconButton icon={Moon} label="Day or night" onClick={toggleTheme} />
        <IconButton icon={CircleHelp} label="Help" keys="?" onClick={onHelp} />
      </div>
    </header>
  );
}

/** The stations as stops on a line; the mark at each says whether what it holds is current. */
function RouteBar() {
  return (
    <nav aria-label="Stations" className="flex justify-center">
      <ol className="flex">
        {STATIONS.map(
          ({ path, title, useFreshness }, i) =>
            useFreshness && <Stop key={path} path={path} title={title} useFreshness={useFreshness} isFirst={i === 0} />,
        )}
      </ol>
    </nav>
  );
}

interface StopProps extends Required<Pick<Station, 'path' | 'title' | 'useFreshness'>> {
  isFirst: boolean;
}

const Stop = memo(function Stop({ path, title, useFreshness, isFirst }: StopProps) {
  const freshness = useFreshness();
  return (
    <li className="relative">
      {!isFirst && <span aria-hidden className="-left-1/2 absolute top-[0.6rem] h-px w-full bg-rule" />}
      <NavLink
        to={path}
        title={`${title}: ${FRESHNESS[freshness]}`}
        className={({ isActive }) =>
          `relative flex w-[4.6rem] flex-col items-center gap-0.5 pt-1 text-sm ${isActive ? 'font-semibold text-tide' : 'text-ink'}`
        }
      >
        <span aria-hidden className={`my-px size-2.5 rounded-full border bg-sheet ${DOT[freshness]}`} />
        <span>{title}</span>
      </NavLink>
    </li>
  );
});

const FRESHNESS: Record<Freshness, string> = {
  current: 'up to date',
  behind: 'behind the latest change',
  empty: 'nothing yet',
};
const DOT: Record<Freshness, string> = {
  current: 'border-tide !bg-tide',
  behind: 'border-tide',
  empty: 'border-quiet',
};

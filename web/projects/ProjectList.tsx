// ProjectList.tsx — the first page: every project, a new one, the demo.
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { FilePlus2, FileUp, Moon, Search } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import useSWR from 'swr';
import type { ProjectSummary } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { Note } from '../controls/Panel.tsx';
import { isTextField } from '../controls/typing.ts';
import { openFinder } from '../find/finder.ts';
import { api } from '../requests/api.ts';
import { bringInLater, isNamedAsProject, pastedFiles } from '../store/arrivals.ts';
import { toggleTheme } from '../store/theme.ts';
import { ProjectCard } from './ProjectCard.tsx';
import { UnsavedNotes } from './UnsavedNotes.tsx';

const SORTS = {
  newest: (a: ProjectSummary, b: ProjectSummary) => b.updatedAt.localeCompare(a.updatedAt),
  name: (a: ProjectSummary, b: ProjectSummary) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  layers: (a: ProjectSummary, b: ProjectSummary) => b.layers - a.layers,
} as const;
type Sort = keyof typeof SORTS;

export function ProjectList() {
  const { data: projects, error, mutate } = useSWR('projects', api.projects, { dedupingInterval: 0 });
  const [failure, setFailure] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const [sort, setSort] = useState<Sort>('newest');
  /** Deleted since the page was opened, the last one at the end. */
  const [gone, setGone] = useState<readonly ProjectSummary[]>([]);
  const navigate = useNavigate();
  const attempt = async (act: () => Promise<unknown>) => {
    setFailure(null);
    try {
      await act();
      await mutate();
    } catch (problem) {
      setFailure(problem instanceof Error ? problem.message : String(problem));
    }
  };
  /** Project files become projects; of everything else one is begun. */
  const bringIn = (files: readonly File[]) =>
    attempt(async () => {
      const { opened, refused } = await openProjectFiles(files.filter(isNamedAsProject));
      const others = files.filter((file) => !isNamedAsProject(file));
      if (others.length > 0) {
        // What was refused is tried, and spoken of, once more where the others come in.
        await begin([...others, ...refused.map(({ file }) => file)]);
      } else if (refused.length > 0) {
        await mutate();
        throw new Error(refused.map(({ file, message }) => `“${file.name}” was not opened. ${message}`).join(' '));
      } else navigate(`/projects/${opened.at(-1)}/build`);
    });
  const begin = async (files: readonly File[] = []) => {
    const name = files[0]?.name
      .replace(/\.[^.]*$/, '')
      .trim()
      .slice(0, 120);
    const { id } = await api.createProject(name || 'Untitled');
    if (files.length > 0) bringInLater(id, files);
    navigate(`/projects/${id}/source`);
  };
  useEffect(() => {
    const paste = ({ clipboardData }: ClipboardEvent) => {
      const files = isTextField() ? [] : pastedFiles(clipboardData);
      if (files.length > 0) void bringIn(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  });
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const listed = (projects ?? [])
    .filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
    .sort(SORTS[sort]);
  const last = gone.at(-1);

  return (
    <main className="mx-auto max-w-5xl px-8 pt-12 pb-16">
      <title>Projects · Outline Stack</title>
      <header className="mb-7 flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="font-serif text-4xl">Outline Stack</h1>
          <p className="mt-1 max-w-md text-quiet">
            Flat outlines in, closed and bevelled solids out. Open the demo to look around, or begin with a file of your
            own.
          </p>
        </div>
        <div className="flex items-center gap-2">
          <IconButton icon={Search} label="Find anything" keys="Ctrl K" onClick={openFinder} />
          <IconButton icon={Moon} label="Day or night" onClick={toggleTheme} />
          <button
            type="button"
            className="ml-2 flex items-center gap-2 rounded-edge bg-tide px-4 py-2 text-sheet"
            onClick={() => void attempt(begin)}
          >
            <FilePlus2 size={17} aria-hidden /> New project
          </button>
        </div>
      </header>
      <UnsavedNotes onSaved={() => void mutate()} />
      {(error || failure) && <Note tone="ember">{failure ?? (error as Error).message}</Note>}
      <div className="mb-4 flex min-h-8 flex-wrap items-center gap-x-6 gap-y-2 text-sm">
        <input
          type="search"
          aria-label="Search the projects"
          placeholder="Search by name"
          className="w-64 rounded-edge border border-rule bg-sheet px-3 py-1 placeholder:text-quiet"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <select
          aria-label="Order"
          className="rounded-edge border-tide border-b bg-wash px-1 py-0.5 text-tide"
          value={sort}
          onChange={(event) => setSort(event.target.value as Sort)}
        >
          <option value="newest">changed last first</option>
          <option value="name">by name</option>
          <option value="layers">most layers first</option>
        </select>
        {projects && !projects.some((project) => project.isDemo) && (
          // Above the cards, so that what comes back is in sight however many there are.
          <button type="button" className="text-tide underline" onClick={() => void attempt(api.restoreDemo)}>
            Bring the demo projects back
          </button>
        )}
        <span role="status" className="ml-auto">
          {last && (
            <>
              {last.name} was deleted.{' '}
              <button
                type="button"
                className="text-tide underline"
                onClick={() =>
                  void attempt(async () => {
                    await api.bringProjectBack(last.id);
                    setGone(gone.slice(0, -1));
                  })
                }
              >
                Bring it back
              </button>
            </>
          )}
        </span>
      </div>
      <Cards
        first={<BringInCard onFiles={(files) => void bringIn(files)} />}
        projects={listed}
        card={(project) => (
          <ProjectCard
            project={project}
            onRename={(name) => void attempt(() => api.renameProject(project.id, name))}
            onCopy={() => void attempt(() => api.copyProject(project.id))}
            onRemove={() =>
              void attempt(async () => {
                await api.deleteProject(project.id);
                setGone([...gone, project]);
              })
            }
            onRestore={() => void attempt(() => api.restoreProject(project.id))}
          />
        )}
      />
      {projects && words.length > 0 && listed.length === 0 && (
        <p className="mt-6 text-quiet">No project is called so.</p>
      )}
    </main>
  );
}

/** Least width of a card, and the height that all have, with the room between them. */
const CARD = { width: 260, height: 262, gap: 20 } as const;

interface CardsProps {
  /** Stands before those of the projects. */
  first: ReactNode;
  projects: readonly ProjectSummary[];
  card: (project: ProjectSummary) => ReactNode;
}

/** Rows of cards, of which only those that can be seen are made. */
function Cards({ first, projects, card }: CardsProps) {
  const list = useRef<HTMLUListElement>(null);
  const [columns, setColumns] = useState(3);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setColumns(Math.max(1, Math.floor((entry!.contentRect.width + CARD.gap) / (CARD.width + CARD.gap)))),
    );
    observer.observe(list.current!);
    return () => observer.disconnect();
  }, []);
  const count = Math.ceil((projects.length + 1) / columns);
  const rows = useWindowVirtualizer({
    count,
    estimateSize: () => CARD.height + CARD.gap,
    overscan: 2,
    scrollMargin: list.current?.offsetTop ?? 0,
  });
  return (
    <ul ref={list} aria-label="Projects" className="relative" style={{ height: rows.getTotalSize() }}>
      {rows.getVirtualItems().flatMap(({ index, start }) =>
        Array.from({ length: columns }, (_, column) => {
          const place = index * columns + column - 1;
          const project = projects[place];
          if (place >= 0 && !project) return null;
          const width = `calc((100% - ${(columns - 1) * CARD.gap}px) / ${columns})`;
          return (
            <li
              key={project?.id ?? 'first'}
              className="absolute"
              style={{
                width,
                height: CARD.height,
                left: `calc(${column} * (${width} + ${CARD.gap}px))`,
                top: start - rows.options.scrollMargin,
              }}
            >
              {project ? card(project) : first}
            </li>
          );
        }),
      )}
    </ul>
  );
}

interface OpenedFiles {
  /** Ids of projects. */
  readonly opened: readonly string[];
  readonly refused: readonly { readonly file: File; readonly message: string }[];
}

async function openProjectFiles(files: readonly File[]): Promise<OpenedFiles> {
  const [opened, refused]: [string[], { file: File; message: string }[]] = [[], []];
  for (const file of files) {
    try {
      opened.push((await api.openProjectFile(file)).id);
    } catch (error) {
      refused.push({ file, message: error instanceof Error ? error.message : String(error) });
    }
  }
  return { opened, refused };
}

function BringInCard({ onFiles }: { onFiles: (files: readonly File[]) => void }) {
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (files) => {
      if (files.length > 0) onFiles(files);
    },
    noKeyboard: true,
  });
  return (
    <div
      {...getRootProps({
        tabIndex: -1,
        className: `flex h-full cursor-pointer flex-col items-center justify-center gap-3 rounded-edge border border-dashed p-6 text-center ${isDragActive ? 'border-tide bg-wash' : 'border-quiet'}`,
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Begin with files' })} />
      <FileUp size={26} strokeWidth={1.5} className="text-tide" aria-hidden />
      <p>
        Drop a picture, a drawing, a mesh or a project file to begin,
        <br />
        or{' '}
        <button
          type="button"
          className="text-tide underline"
          onClick={(event) => {
            event.stopPropagation();
            open();
          }}
        >
          choose one
        </button>
      </p>
    </div>
  );
}

// ProjectList.tsx — the first page: every project, a new one, the demo.
import { Download, FilePlus2, FileUp, RotateCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link, useNavigate } from 'react-router';
import useSWR from 'swr';
import type { ProjectSummary } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { Note } from '../controls/Panel.tsx';
import { api, projectFileUrl } from '../requests/api.ts';
import { bringInLater, isNamedAsProject } from '../store/import.ts';
import { toggleTheme } from '../store/theme.ts';
import { UnsavedNotes } from './UnsavedNotes.tsx';

const when = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });

export function ProjectList() {
  const { data: projects, error, mutate } = useSWR('projects', api.projects, { dedupingInterval: 0 });
  const [failure, setFailure] = useState<string | null>(null);
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

  return (
    <main className="mx-auto max-w-5xl px-8 py-14">
      <header className="mb-10 flex items-end justify-between">
        <div>
          <h1 className="font-serif text-4xl">Outline Stack</h1>
          <p className="mt-1 max-w-md text-quiet">
            Flat outlines in, closed and bevelled solids out. Open the demo to look around, or begin with a file of your
            own.
          </p>
        </div>
        <div className="flex items-center gap-3">
          <button type="button" className="text-quiet text-sm underline" onClick={toggleTheme}>
            Day or night
          </button>
          <button
            type="button"
            className="flex items-center gap-2 rounded-edge bg-tide px-4 py-2 text-sheet"
            onClick={() => void attempt(begin)}
          >
            <FilePlus2 size={17} aria-hidden /> New project
          </button>
        </div>
      </header>
      <UnsavedNotes onSaved={() => void mutate()} />
      {(error || failure) && <Note tone="ember">{failure ?? (error as Error).message}</Note>}
      <ul className="grid grid-cols-3 gap-5">
        <li>
          <BringInCard onFiles={(files) => void bringIn(files)} />
        </li>
        {projects?.map((project) => (
          <ProjectCard
            key={project.id}
            project={project}
            onRemove={() => void attempt(() => api.deleteProject(project.id))}
            onRestore={() => void attempt(api.restoreDemo)}
          />
        ))}
      </ul>
      {projects && !projects.some((project) => project.isDemo) && (
        <p className="mt-8">
          <button type="button" className="text-tide underline" onClick={() => void attempt(api.restoreDemo)}>
            Bring the demo projects back
          </button>
        </p>
      )}
    </main>
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
  const { getRootProps, getInputProps, isDragActive } = useDropzone({
    onDrop: (files) => {
      if (files.length > 0) onFiles(files);
    },
  });
  return (
    <div
      {...getRootProps({
        className: `flex h-full min-h-52 cursor-pointer flex-col items-center justify-center gap-3 rounded-edge border border-dashed p-6 text-center ${isDragActive ? 'border-tide bg-wash' : 'border-quiet'}`,
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Begin with files' })} />
      <FileUp size={26} strokeWidth={1.5} className="text-tide" aria-hidden />
      <p>
        Drop a picture, a drawing, a mesh or a project file to begin,
        <br />
        or <span className="text-tide underline">choose one</span>
      </p>
    </div>
  );
}

interface ProjectCardProps {
  project: ProjectSummary;
  onRemove: () => void;
  onRestore: () => void;
}

function ProjectCard({ project, onRemove, onRestore }: ProjectCardProps) {
  const { id, name, layers, stack, isDemo, updatedAt } = project;
  const [asking, setAsking] = useState(false);
  return (
    <li className="flex flex-col rounded-edge border border-rule bg-sheet">
      <Link to={`/projects/${id}/build`} className="block flex-1 px-5 pt-5 pb-3">
        <SmallElevation stack={stack} />
        <span className="mt-3 block font-serif text-xl">{name}</span>
        <span className="block text-quiet text-sm">
          {layers} {layers === 1 ? 'layer' : 'layers'}, {when.format(new Date(updatedAt))}
        </span>
      </Link>
      <footer className="flex items-center justify-between border-rule border-t px-3 py-1 text-sm">
        <span className="px-2 text-quiet">{isDemo ? 'Demo' : ''}</span>
        {asking ? (
          <span>
            Delete it?{' '}
            <button type="button" className="text-ember underline" onClick={onRemove}>
              Delete
            </button>{' '}
            <button type="button" className="text-quiet underline" onClick={() => setAsking(false)}>
              Keep
            </button>
          </span>
        ) : (
          <span>
            {isDemo && <IconButton icon={RotateCcw} label="Restore the demos as they came" onClick={onRestore} />}
            <a
              href={projectFileUrl(id)}
              download
              aria-label={`Save ${name} as a file`}
              title={`Save ${name} as a file`}
              className="inline-flex size-8 items-center justify-center rounded-edge hover:bg-wash"
            >
              <Download size={17} strokeWidth={1.75} aria-hidden />
            </a>
            <IconButton icon={Trash2} label={`Delete ${name}`} onClick={() => setAsking(true)} />
          </span>
        )}
      </footer>
    </li>
  );
}

const ELEVATION = { width: 260, height: 96, bars: 14 } as const;

/** The stack from the side, heights to scale within the card. */
function SmallElevation({ stack }: { stack: ProjectSummary['stack'] }) {
  const bars = stack.slice(0, ELEVATION.bars);
  const low = Math.min(0, ...bars.map(({ base }) => base));
  const high = Math.max(low + 1e-9, ...bars.map(({ base, depth }) => base + depth));
  const scale = (ELEVATION.height - 2) / (high - low);
  const pitch = ELEVATION.width / Math.max(bars.length, 6);
  return (
    <svg aria-hidden className="h-24 w-full" viewBox={`0 0 ${ELEVATION.width} ${ELEVATION.height}`}>
      {bars.map(({ colour, base, depth }, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: bars have no other identity than their place
          key={i}
          x={i * pitch + pitch * 0.12}
          width={pitch * 0.76}
          y={ELEVATION.height - 1 - (base + depth - low) * scale}
          height={Math.max(1, depth * scale)}
          fill={colour}
          className="stroke-ink/40"
          strokeWidth={0.6}
        />
      ))}
      <path d={`M0 ${ELEVATION.height - 1 + low * scale}H${ELEVATION.width}`} className="stroke-rule" />
    </svg>
  );
}

// ProjectCard.tsx — a project in the list: how it looks, what it is called, what can be done with it.
import { Copy, Download, Pencil, RotateCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ProjectSummary } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { tip } from '../controls/Tips.tsx';
import { countOf } from '../format.ts';
import { pictureUrl, projectFileUrl } from '../requests/api.ts';
import { SmallElevation } from './SmallElevation.tsx';

const when = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });

interface ProjectCardProps {
  project: ProjectSummary;
  onRename: (name: string) => void;
  onCopy: () => void;
  onRemove: () => void;
  onRestore: () => void;
}

export function ProjectCard({ project, onRename, onCopy, onRemove, onRestore }: ProjectCardProps) {
  const { id, name, layers, stack, isDemo, picture, updatedAt } = project;
  const [is, setIs] = useState<'shown' | 'renamed' | 'asking'>('shown');
  return (
    <div className="flex h-full flex-col overflow-hidden rounded-edge border border-rule bg-sheet">
      <Link to={`/projects/${id}/build`} className="block flex-1">
        <span className="block h-40 border-rule border-b bg-view">
          {picture === null ? (
            <SmallElevation stack={stack} />
          ) : (
            <img src={pictureUrl(id, picture)} alt="" loading="lazy" className="size-full object-contain" />
          )}
        </span>
        {is !== 'renamed' && <span className="block truncate px-4 pt-3 font-serif text-xl">{name}</span>}
      </Link>
      {is === 'renamed' && (
        <NameField
          name={name}
          onDone={(next) => {
            setIs('shown');
            if (next !== name) onRename(next);
          }}
        />
      )}
      <p className="px-4 pb-2 text-quiet text-sm">
        {isDemo && 'Demo, '}
        {countOf(layers, 'layer')}, {when.format(new Date(updatedAt))}
      </p>
      <footer className="flex min-h-9 items-center justify-end border-rule border-t px-2 text-sm">
        {is === 'asking' ? (
          <span className="flex-1 px-2">
            Restore it as it came?{' '}
            <button
              type="button"
              className="text-ember underline"
              onClick={() => {
                setIs('shown');
                onRestore();
              }}
            >
              Restore
            </button>{' '}
            <button type="button" className="text-quiet underline" onClick={() => setIs('shown')}>
              Keep
            </button>
          </span>
        ) : (
          <>
            {isDemo && (
              <IconButton icon={RotateCcw} label={`Restore ${name} as it came`} onClick={() => setIs('asking')} />
            )}
            <IconButton icon={Pencil} label={`Rename ${name}`} onClick={() => setIs('renamed')} />
            <IconButton icon={Copy} label={`Copy ${name}`} onClick={onCopy} />
            <a
              href={projectFileUrl(id)}
              download
              aria-label={`Save ${name} as a file`}
              {...tip(`Save ${name} as a file`)}
              className="inline-flex size-8 items-center justify-center rounded-edge hover:bg-wash"
            >
              <Download size={17} strokeWidth={1.75} aria-hidden />
            </a>
            <IconButton icon={Trash2} label={`Delete ${name}`} onClick={onRemove} />
          </>
        )}
      </footer>
    </div>
  );
}

function NameField({ name, onDone }: { name: string; onDone: (name: string) => void }) {
  return (
    <input
      // The button that asked for it is where the hand is.
      // biome-ignore lint/a11y/noAutofocus: it was asked for
      autoFocus
      aria-label={`Name of ${name}`}
      defaultValue={name}
      maxLength={120}
      className="mx-3 mt-2.5 border-tide border-b bg-paper px-1 font-serif text-xl"
      onFocus={(event) => event.target.select()}
      onBlur={(event) => onDone(event.target.value.trim() || name)}
      onKeyDown={(event) => {
        if (event.key === 'Escape') event.currentTarget.value = name;
        if (event.key === 'Escape' || event.key === 'Enter') event.currentTarget.blur();
      }}
    />
  );
}

// PictureCard.tsx — one picture: its steps, its trace, its pieces, and what could not be matched any more.
import { RefreshCw, X } from 'lucide-react';
import { useEffect } from 'react';
import { useDropzone } from 'react-dropzone';
import { type PictureSource, UNDERLAY } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { Note, Panel } from '../../controls/Panel.tsx';
import { formatCount, formatNumber } from '../../format.ts';
import { useBuild } from '../../store/build.ts';
import { replacePicture } from '../../store/import.ts';
import { cancelTrace, dropHeld, fetchStats, takeHeld, usePicture, useWished } from '../../store/picture.ts';
import { dispatch, useDocument } from '../../store/project.ts';
import { KnownLength } from './KnownLength.tsx';
import { PieceList } from './PieceList.tsx';
import { PrepareSteps } from './PrepareSteps.tsx';
import { TraceSentences } from './TraceSentences.tsx';

export function PictureCard({ source: known }: { source: PictureSource }) {
  const source = useWished(known);
  const { progress, failure, held, replaced } = usePicture();
  const stats = usePicture((state) => state.stats[known.id]);
  const isPending = usePicture((state) => known.id in state.wanted);
  const isKnown = stats !== undefined;
  // Asked for once; every later trace brings its own.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    if (!isKnown) void fetchStats(known);
  }, [known.id, isKnown]);
  return (
    <>
      <KnownLength source={known} />
      <Panel title="Prepare">
        <PrepareSteps source={source} />
      </Panel>
      <Panel title="Trace" aside={<Replace source={known} />}>
        <TraceSentences source={source} />
        {progress !== null && (
          <div className="my-2 flex items-center gap-2" role="status">
            <progress className="h-1.5 flex-1 accent-tide" value={progress} />
            <span className="text-quiet text-sm">Tracing…</span>
            <IconButton icon={X} label="Stop the trace" onClick={cancelTrace} />
          </div>
        )}
        {failure && <Note tone="ember">{failure} The picture keeps the trace it had.</Note>}
        {held && held.source.id === known.id && (
          <div className="my-2 border-ember border-l-2 pl-3 text-sm">
            <p className="text-ember">{held.message}</p>
            <button type="button" className="mr-3 text-tide underline" onClick={takeHeld}>
              Make layers of them all the same
            </button>
            <button type="button" className="text-tide underline" onClick={dropHeld}>
              Keep what there was
            </button>
          </div>
        )}
        {stats && source.trace.mode !== UNDERLAY && (
          <p
            className={`text-sm ${isPending ? 'opacity-50' : ''}`}
            data-trace-stats={isPending ? 'pending' : 'current'}
          >
            <span className="figure">{formatCount(stats.pieces)}</span> {stats.pieces === 1 ? 'piece' : 'pieces'} of{' '}
            <span className="figure">{formatCount(stats.curves)}</span> lines and curves,{' '}
            <span className="figure">{formatCount(stats.points)}</span> points. The farthest stray is{' '}
            <span className="figure">{formatNumber(stats.stray)} px</span>.
          </p>
        )}
        {replaced[known.id] && <Note tone="tide">{replaced[known.id]}</Note>}
        {stats?.warnings.map(({ message }) => (
          <Note key={message}>{message}</Note>
        ))}
      </Panel>
      <Stranded source={known} />
      {source.trace.mode !== UNDERLAY && <PieceList source={known} />}
    </>
  );
}

function Replace({ source }: { source: PictureSource }) {
  const { getRootProps, getInputProps, open } = useDropzone({
    noClick: true,
    noKeyboard: true,
    multiple: false,
    onDrop: ([file]) => file && void replacePicture(source.id, file),
    noDragEventsBubbling: true,
  });
  return (
    <span {...getRootProps()}>
      <input {...getInputProps({ 'aria-label': `Another picture for ${source.name}` })} />
      <IconButton icon={RefreshCw} label="Replace the picture, keep its layers" onClick={open} />
    </span>
  );
}

/** Pieces that layers were made for and that the trace does not have any more. */
function Stranded({ source }: { source: PictureSource }) {
  const { layers } = useDocument();
  const view = useBuild((state) => state.view);
  const own = layers.filter((layer) => layer.source === source.id);
  const lost = own.flatMap((layer) =>
    (view?.layers.find(({ id }) => id === layer.id)?.stranded ?? []).map((id) => ({ layer, id })),
  );
  if (lost.length === 0) return null;
  const forget = () => {
    const gone = new Set(lost.map(({ id }) => id));
    const without = (ids: readonly string[]) => ids.filter((id) => !gone.has(id));
    dispatch({
      do: 'change-source',
      source: { ...source, pieces: source.pieces.filter(({ id }) => !gone.has(id)) },
      layers: own.map((layer) => ({
        ...layer,
        members: without(layer.members),
        skipped: without(layer.skipped),
      })),
    });
  };
  return (
    <Panel title="Stranded">
      <p className="text-sm">
        {lost.length} {lost.length === 1 ? 'piece is' : 'pieces are'} not in this trace any more. Their layers keep them
        for a trace that has them again.
      </p>
      <ul className="my-1 max-h-28 overflow-y-auto text-quiet text-sm">
        {lost.slice(0, 60).map(({ layer, id }) => (
          <li key={`${layer.id} ${id}`}>
            <span className="figure">{id}</span> of {layer.name}
          </li>
        ))}
      </ul>
      <button type="button" className="text-sm text-tide underline" onClick={forget}>
        Forget them
      </button>
    </Panel>
  );
}

// SourcePanel.tsx — what was brought in, at what real size, and what could not be honoured.
import { FileUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import { type Source, UNITS, type Unit, whereWords } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { IconButton } from '../../controls/IconButton.tsx';
import { Note, Panel, Sentence } from '../../controls/Panel.tsx';
import { Value } from '../../controls/Value.tsx';
import { countOf, formatNumber } from '../../format.ts';
import { useBuild } from '../../store/build.ts';
import { drawOn } from '../../store/drawing.ts';
import { useImport } from '../../store/import.ts';
import { useLettering } from '../../store/lettering.ts';
import { dispatch, useDocument } from '../../store/project.ts';
import { sourceView, useSourceView } from '../../store/source-view.ts';
import { ImportNote } from './ImportNotes.tsx';
import { PictureCard } from './PictureCard.tsx';
import { NewText, TextCard } from './TextCard.tsx';
import { useBringIn } from './useBringIn.ts';

export function SourcePanel() {
  const { sources, unit } = useDocument();
  const results = useImport((state) => state.results);
  const failure = useLettering((state) => state.failure);
  return (
    <>
      <Panel title="Source">
        <BringIn />
        <NewText />
        <NewSheet />
        {failure && sources.length === 0 && <Note tone="ember">{failure}</Note>}
        {results.map((result) => (
          <ImportNote key={result.file} result={result} unit={unit} />
        ))}
        <Sentence>
          The project is measured in{' '}
          <Choice<Unit>
            label="Unit"
            value={unit}
            options={UNITS.map((each) => [each, UNIT_WORDS[each]] as const)}
            onChange={(next) => dispatch({ do: 'set-unit', unit: next })}
          />
          .
        </Sentence>
      </Panel>
      {sources.map((source) => (
        <SourceCard key={source.id} source={source} />
      ))}
    </>
  );
}

const UNIT_WORDS: Record<Unit, string> = {
  mm: 'millimetres',
  cm: 'centimetres',
  m: 'metres',
  in: 'inches',
  ft: 'feet and inches',
};

function BringIn() {
  const bringIn = useBringIn();
  const { getRootProps, getInputProps, isDragActive } = useDropzone({
    onDrop: bringIn,
    noDragEventsBubbling: true,
  });
  return (
    <div
      {...getRootProps({
        className: `flex cursor-pointer items-center gap-3 rounded-edge border border-dashed px-4 py-4 ${isDragActive ? 'border-tide bg-wash' : 'border-quiet'}`,
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Bring in files' })} />
      <FileUp size={20} strokeWidth={1.5} className="shrink-0 text-tide" aria-hidden />
      <p>
        Drop pictures, SVG or DXF files, meshes (GLB, OBJ, STL), or{' '}
        <span className="text-tide underline">choose them</span>
      </p>
    </div>
  );
}

/** A sheet of its own to draw on, with nothing traced or brought in beneath. */
function NewSheet() {
  const { unit, sources } = useDocument();
  const navigate = useNavigate();
  const [size, setSize] = useState<number | null>(null);
  const side = size ?? SHEET_SIZE[unit];
  const start = () => {
    const id = crypto.randomUUID();
    const drawn = sources.filter(({ kind }) => kind === 'drawing').length;
    const source: Source = {
      id,
      kind: 'drawing',
      name: drawn === 0 ? 'Drawing' : `Drawing ${drawn + 1}`,
      width: side,
      height: side,
      scale: 1,
      origin: [side / 2, side / 2],
      edits: [],
    };
    dispatch({ do: 'add-source', source, layers: [] });
    drawOn(id);
    navigate('../outline', { relative: 'path' });
  };
  return (
    <Sentence>
      Or{' '}
      <button type="button" className="text-tide hover:underline" onClick={start}>
        draw on an empty sheet
      </button>
      , <Value label="Side of the sheet" value={side} unit={unit} min={1e-3} step={side / 20} onChange={setSize} /> wide
      and high.
    </Sentence>
  );
}

/** A sheet is this large at first. */
const SHEET_SIZE: Record<Unit, number> = { mm: 100, cm: 10, m: 10, in: 4, ft: 30 };

function SourceCard({ source }: { source: Source }) {
  const { unit, layers } = useDocument();
  const view = useBuild((state) => state.view);
  const seen = view?.sources.find((entry) => entry.id === source.id);
  const size = useSize(source);
  const isShown = useSourceView((state) => state.source === source.id);
  const isOnly = useDocument().sources.filter(({ kind }) => kind === 'picture').length === 1;
  return (
    <>
      <Panel
        title={source.name}
        aside={
          <IconButton
            icon={Trash2}
            label={`Remove ${source.name} and its layers`}
            onClick={() => dispatch({ do: 'remove-source', source: source.id })}
          />
        }
      >
        {size && (
          <Sentence>
            Its longest side is{' '}
            <Value
              label="Longest side"
              value={Number(size.longest.toPrecision(6))}
              unit={unit}
              min={1e-3}
              step={size.longest >= 10 ? 1 : 0.1}
              onChange={(v, gesture) =>
                dispatch({ do: 'scale-source', source: source.id, scale: (source.scale * v) / size.longest }, gesture)
              }
            />
            : {formatNumber(size.width)} × {formatNumber(size.height)} {unit}.
          </Sentence>
        )}
        <p className="text-quiet text-sm">
          {source.kind === 'picture' && (
            <>
              <span className="figure">
                {source.width} × {source.height} px
              </span>
              ,{' '}
            </>
          )}
          {countOf(
            seen?.shapes ?? 0,
            { picture: 'piece', vector: 'shape', lettering: 'letter', drawing: 'shape', mesh: 'part' }[source.kind],
          )}{' '}
          in {countOf(layers.filter((layer) => layer.source === source.id).length, 'layer')}. Depths stay as they are
          when the size changes.
        </p>
        {seen && seen.leftOut.length > 0 && (
          <>
            <h3 className="mt-3 text-sm">Left out</h3>
            <ul className="text-quiet text-sm">
              {seen.leftOut.map(({ what, count, where }) => (
                <li key={what}>
                  <span className="figure">{count} ×</span> {what}
                  <span className="opacity-70"> — first at {whereWords(where)}</span>
                </li>
              ))}
            </ul>
          </>
        )}
        {source.kind === 'vector' &&
          seen?.warnings.slice(0, 12).map(({ message }) => <Note key={message}>{message}</Note>)}
        {source.kind === 'vector' && seen && seen.warnings.length > 12 && (
          <Note>…and {seen.warnings.length - 12} more.</Note>
        )}
        {source.kind === 'picture' && !isShown && !isOnly && (
          <button
            type="button"
            className="text-sm text-tide underline"
            onClick={() => sourceView.set({ source: source.id, openStep: null, tool: null })}
          >
            Work on this picture
          </button>
        )}
      </Panel>
      {source.kind === 'picture' && (isShown || isOnly) && <PictureCard source={source} />}
      {source.kind === 'lettering' && <TextCard source={source} />}
    </>
  );
}

/** Extent of what is shown; with several sources each is stated by its share of the whole. */
function useSize(source: Source): { longest: number; width: number; height: number } | null {
  const extents = useBuild((state) => state.view?.sources.find((entry) => entry.id === source.id)?.extent);
  if (!extents) return null;
  const [width, height] = [extents[0] * source.scale, extents[1] * source.scale];
  return { longest: Math.max(width, height), width, height };
}

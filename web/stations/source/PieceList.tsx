// PieceList.tsx — the pieces of a trace by colour and area, kept or discarded.
import { Eye, EyeOff } from 'lucide-react';
import type { Layer, PictureSource, PieceMark } from '../../../core/index.ts';
import { Note, Panel } from '../../controls/Panel.tsx';
import { formatNumber } from '../../format.ts';
import { useBuild } from '../../store/build.ts';
import { toggleShape } from '../../store/outline.ts';
import { dispatch, useDocument } from '../../store/project.ts';

/** Lists longer than this are cut; the view holds every piece. */
const LISTED = 24;

export function PieceList({ source }: { source: PictureSource }) {
  const { layers, unit } = useDocument();
  const marks = new Map(source.pieces.map((piece) => [piece.id, piece]));
  const own = layers.filter((layer) => layer.source === source.id);
  return (
    <Panel title="Pieces">
      <p className="mb-1 text-quiet text-sm">
        Click a piece in the view to discard or keep it, with Shift all of its colour.
      </p>
      {own.toReversed().map((layer) => (
        <LayerPieces key={layer.id} layer={layer} marks={marks} unit={unit} scale={source.scale} />
      ))}
    </Panel>
  );
}

const NONE: readonly string[] = [];

interface LayerPiecesProps {
  layer: Layer;
  marks: ReadonlyMap<string, PieceMark>;
  unit: string;
  scale: number;
}

function LayerPieces({ layer, marks, unit, scale }: LayerPiecesProps) {
  // What the trace has no more has no row.
  const gone = useBuild((state) => state.view?.layers.find(({ id }) => id === layer.id)?.stranded) ?? NONE;
  const pieces = layer.members
    .flatMap((id) => (gone.includes(id) ? [] : (marks.get(id) ?? [])))
    .sort((a, b) => b.area - a.area);
  const skipped = new Set(layer.skipped);
  return (
    <div className="relative border-rule border-t">
      <details className="py-1" open={pieces.length <= 6}>
        <summary className="flex cursor-pointer items-center gap-2 pr-7">
          <span
            aria-hidden
            className="size-3.5 shrink-0 border border-rule"
            style={{ background: layer.material.colour }}
          />
          <span className="min-w-0 flex-1 truncate">
            {layer.name} <span className="text-quiet text-sm">· {pieces.length}</span>
          </span>
        </summary>
        <ul className="text-sm">
          {pieces.slice(0, LISTED).map(({ id, area }, i) => {
            const isKept = layer.shown && !skipped.has(id);
            return (
              <li key={id} className={`flex items-center gap-2 pl-6 ${isKept ? '' : 'text-quiet line-through'}`}>
                <span className="figure min-w-0 flex-1 truncate">
                  {formatNumber(area * scale * scale)} {unit}²
                </span>
                <Toggle
                  label={`${isKept ? 'Discard' : 'Keep'} piece ${i + 1} of ${layer.name}`}
                  isKept={isKept}
                  disabled={!layer.shown}
                  onClick={() => toggleShape(layer, id)}
                />
              </li>
            );
          })}
        </ul>
        {pieces.length > LISTED && <Note>…and {pieces.length - LISTED} smaller ones in the view.</Note>}
      </details>
      <span className="absolute top-1 right-0">
        <Toggle
          label={`${layer.shown ? 'Discard' : 'Keep'} all of ${layer.name}`}
          isKept={layer.shown}
          onClick={() => dispatch({ do: 'change-layers', layers: [layer.id], change: { shown: !layer.shown } })}
        />
      </span>
    </div>
  );
}

interface ToggleProps {
  label: string;
  isKept: boolean;
  disabled?: boolean;
  onClick: () => void;
}

function Toggle({ label, isKept, disabled, onClick }: ToggleProps) {
  const Icon = isKept ? Eye : EyeOff;
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      className="grid size-6 place-items-center rounded-edge hover:bg-wash"
      onClick={(event) => {
        event.preventDefault();
        onClick();
      }}
    >
      <Icon size={15} aria-hidden />
    </button>
  );
}

// BetweenLayers.tsx — layers that fill the same space, lie in one plane or on each other: where, what it means, and parting them.
import { useState } from 'react';
import type { Overlap, Piercing } from '../../../core/index.ts';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { formatNumber } from '../../format.ts';
import { useBuild } from '../../store/build.ts';
import { partLayers, showOverlap, usualGap } from '../../store/parting.ts';
import { useDocument } from '../../store/project.ts';
import { screen } from '../../store/screen.ts';

/** Worse is said first. */
const KINDS = [
  {
    is: ({ flush }: Overlap) => flush.length > 0,
    title: 'Sides in one plane',
    means: 'Renderers cannot tell which of them is in front: it flickers.',
  },
  {
    is: ({ flush, isTouching }: Overlap) => flush.length === 0 && !isTouching,
    title: 'In the same space',
    means: 'Harmless to look at; not in glass, in a union or in a print.',
  },
  {
    is: ({ isTouching }: Overlap) => isTouching,
    title: 'On each other',
    means: 'Harmless to look at and in a print; in glass and in a union there are two faces in one plane.',
  },
] as const;
/** Rows of a kind that are listed. */
const MOST_ROWS = 30;

export function BetweenLayers() {
  const { unit, tolerance } = useDocument();
  const overlaps = useBuild((state) => state.view?.overlaps) ?? [];
  const [wanted, setWanted] = useState<number | null>(null);
  const gap = wanted ?? usualGap(tolerance);
  const piercings = useBuild((state) => state.piercings);
  if (overlaps.length + piercings.length === 0) return null;
  return (
    <Panel title="Between layers">
      {KINDS.map(({ is, title, means }) => {
        const found = overlaps.filter(is);
        if (found.length === 0) return null;
        return (
          <section key={title} className="mb-3 text-sm">
            <h3>{title}</h3>
            <p className="text-quiet">{means}</p>
            <ul>
              {found.slice(0, MOST_ROWS).map((overlap) => (
                <Row key={overlap.layers.join(' ')} overlap={overlap} unit={unit} />
              ))}
            </ul>
            {found.length > MOST_ROWS && <p className="text-quiet">…and {found.length - MOST_ROWS} more.</p>}
          </section>
        );
      })}
      {piercings.length > 0 && (
        <section className="mb-3 text-sm">
          <h3>Through each other</h3>
          <p className="text-quiet">
            They stand at an angle, or a front stands higher than it is deep; the faces of each that lie within the
            other are measured. Harmless to look at; not in glass, in a union or in a print.
          </p>
          <ul>
            {piercings.slice(0, MOST_ROWS).map((piercing) => (
              <PiercingRow key={piercing.layers.join(' ')} piercing={piercing} unit={unit} />
            ))}
          </ul>
          {piercings.length > MOST_ROWS && <p className="text-quiet">…and {piercings.length - MOST_ROWS} more.</p>}
        </section>
      )}
      {overlaps.length > 0 && (
        <Sentence>
          {piercings.length > 0 ? 'Those that lie flat' : 'All of them'} stand{' '}
          <Value label="Gap between layers" value={gap} unit={unit} min={1e-6} step={gap / 5} onChange={setWanted} />{' '}
          apart when you <TextButton onClick={() => void partLayers(gap)}>part them</TextButton>: the lowest stays, the
          others rise.
        </Sentence>
      )}
    </Panel>
  );
}

function Row({ overlap, unit }: { overlap: Overlap; unit: string }) {
  const { layers, area, from, to, flush, isTouching } = overlap;
  const figures = `${isTouching ? '' : `${formatNumber(to - from)} ${unit} over `}${formatNumber(area)} ${unit}²`;
  const sides = flush.length > 0 ? `, ${flush.join('s and ')}s` : '';
  return <PairRow layers={layers} more={sides} figures={figures} onClick={() => void showOverlap(overlap)} />;
}

function PiercingRow({ piercing: { layers, pairs, area, at }, unit }: { piercing: Piercing; unit: string }) {
  const figures = pairs === 0 ? 'one within the other' : `${formatNumber(area)} ${unit}² of faces`;
  const show = () => {
    screen.select([...layers]);
    screen.pointAt(at);
  };
  return <PairRow layers={layers} figures={figures} onClick={show} />;
}

interface PairRowProps {
  layers: readonly [id: string, id: string];
  /** Said after their names. */
  more?: string;
  figures: string;
  onClick: () => void;
}

function PairRow({ layers: pair, more = '', figures, onClick }: PairRowProps) {
  const { layers } = useDocument();
  const [a, b] = pair.map((id) => layers.find((layer) => layer.id === id)?.name ?? '');
  return (
    <li className="flex items-baseline gap-2 border-rule border-b py-0.5">
      <button
        type="button"
        className="min-h-6 flex-1 text-left text-tide underline-offset-2 hover:underline"
        onClick={onClick}
      >
        {`${a} and ${b}${more}`}
      </button>
      <span className="figure text-quiet">{figures}</span>
    </li>
  );
}

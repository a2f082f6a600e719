// ProofPanel.tsx — the proof as a page: what was measured on each mesh, what was found and where, and how edges and angles
// are spread. Beside it the view goes to the places that are pointed at.
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import type { LayerView, Totals } from '../../../core/index.ts';
import {
  type Bin,
  FAULT_WORDS,
  type Fault,
  heightOf,
  isSound,
  type Layer,
  type Proof,
  SLIVER_DEG,
} from '../../../core/index.ts';
import { Note, Panel } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { countOf, formatCount, formatNumber } from '../../format.ts';
import { useBuild } from '../../store/build.ts';
import { useDocument } from '../../store/project.ts';
import { screen, useScreen } from '../../store/screen.ts';
import { Bars } from './Bars.tsx';
import { BetweenLayers } from './BetweenLayers.tsx';
import { showFault } from './faults.ts';
import { OpenNote } from './OpenNote.tsx';
import { EDGE_PATH_WORDS } from './words.ts';

export function ProofPanel() {
  const document = useDocument();
  const navigate = useNavigate();
  const { view, proofs, totals, before, proven } = useBuild();
  const selected = useScreen((state) => state.selected);
  // The highest first, as in the stack.
  const shown = document.layers.filter((layer) => layer.shown).reverse();
  const layers = selected.length > 0 ? shown.filter(({ id }) => selected.includes(id)) : shown;
  const entries = layers.flatMap((layer): Entry[] => {
    const seen = view?.layers.find(({ id }) => id === layer.id);
    const proof = seen && proofs[seen.meshKey];
    return proof ? [{ layer, view: seen, proof }] : [];
  });
  return (
    <>
      <Panel
        title="Proof"
        aside={<TextButton onClick={() => navigate('../build', { relative: 'path' })}>Back to the recipe</TextButton>}
      >
        {totals ? (
          <TotalsTable totals={totals} before={before} unit={document.unit} />
        ) : (
          <p className="text-quiet">{shown.length === 0 ? 'Nothing is built yet.' : 'The meshes are being checked.'}</p>
        )}
        {proven !== document && totals && <Note>The newest change is still being checked.</Note>}
      </Panel>
      <BetweenLayers />
      {entries.length > 0 && <Spread entries={entries} unit={document.unit} />}
      {entries.map((entry) => (
        <LayerProof key={entry.layer.id} {...entry} unit={document.unit} />
      ))}
    </>
  );
}

interface Entry {
  readonly layer: Layer;
  readonly view: LayerView;
  readonly proof: Proof;
}

function TotalsTable({ totals, before, unit }: { totals: Totals; before: Totals | null; unit: string }) {
  const rows: [name: string, value: (of: Totals) => string][] = [
    ['points', (of) => formatCount(of.counts.points)],
    ['edges', (of) => formatCount(of.counts.edges)],
    ['faces', (of) => formatCount(of.counts.faces)],
    ['triangles', (of) => formatCount(of.counts.triangles)],
    [`area, ${unit}²`, (of) => formatNumber(of.area)],
    [`volume, ${unit}³`, (of) => (of.closedParts > 0 ? formatNumber(of.volume) : 'none')],
  ];
  return (
    <table className="w-full text-sm">
      <thead className="text-quiet">
        <tr>
          <th className="text-left font-normal">of all</th>
          {before && <th className="text-right font-normal">before</th>}
          <th className="text-right font-normal">now</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, value]) => (
          <tr key={name} className="border-rule border-b">
            <td className="py-0.5">{name}</td>
            {before && <td className="figure text-right text-quiet">{value(before)}</td>}
            <td className="figure text-right">{value(totals)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Angles and lengths over all meshes that are looked at. */
function Spread({ entries, unit }: { entries: readonly Entry[]; unit: string }) {
  const angles = summed(entries.map(({ proof }) => proof.angles));
  const lengths = summed(entries.map(({ proof }) => proof.lengths));
  return (
    <Panel title={entries.length === 1 ? entries[0]!.layer.name : `${entries.length} layers`}>
      <Bars title="Smallest angle of each triangle, degrees" bins={angles} label={({ from }) => String(from)} />
      <Bars
        title={`Length of the edges, ${unit}`}
        bins={lengths}
        label={({ from }) => String(Number(from.toPrecision(1)))}
      />
    </Panel>
  );
}

/** Bins that begin alike as one, from the least to the greatest, with none left out between. */
function summed(lists: readonly (readonly Bin[])[]): Bin[] {
  const bins = new Map<number, Bin>();
  for (const bin of lists.flat()) {
    bins.set(bin.from, { ...bin, count: bin.count + (bins.get(bin.from)?.count ?? 0) });
  }
  return [...bins.values()].sort((a, b) => a.from - b.from);
}

function LayerProof({ layer, view, proof, unit }: Entry & { unit: string }) {
  const { counts, closed, findings, shells, size, volume, area } = proof;
  const sound = isSound(proof);
  return (
    <Panel
      title={layer.name}
      aside={
        <span className={sound ? 'text-sm text-tide' : 'text-ember text-sm'}>
          {sound ? 'closed, no crossing faces' : closed ? 'closed, not sound' : 'open'}
        </span>
      }
    >
      <OpenNote among={[layer]} />
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-sm">
        <Figure name="mesh">
          {countOf(counts.points, 'point')}, {countOf(counts.faces, 'face')}, {countOf(shells, 'shell')}
        </Figure>
        <Figure name="size">
          {size.map(formatNumber).join(' × ')} {unit}
        </Figure>
        <Figure name="area, volume">
          {formatNumber(area)} {unit}², {closed ? `${formatNumber(volume)} ${unit}³` : 'no volume: it is open'}
        </Figure>
        {view.width && (
          <>
            <Figure name={view.width.thin.length > 1 ? 'thin places' : 'thinnest stroke'}>
              {view.width.thin.map(({ halfWidth, at: [x, y] }, i) => (
                <span key={`${x} ${y}`}>
                  {i > 0 && ', '}
                  <TextButton onClick={() => screen.pointAt([x, y, layer.base + heightOf(layer.build)], layer.id)}>
                    {formatNumber(2 * halfWidth)}
                  </TextButton>
                </span>
              ))}{' '}
              {unit}
            </Figure>
            <Figure name="safe reach">
              <TextButton
                onClick={() =>
                  screen.pointAt([view.width!.at[0], view.width!.at[1], layer.base + heightOf(layer.build)], layer.id)
                }
              >
                {`${formatNumber(view.width.safeReach)} ${unit}`}
              </TextButton>
            </Figure>
          </>
        )}
        <Figure name="edge">{EDGE_PATH_WORDS[view.edgePath]}</Figure>
      </dl>
      {findings.length > 0 && (
        <ul className="mt-2 text-sm">
          {findings.map(({ fault, count }) => (
            <FindingRow key={fault} layer={layer} fault={fault} count={count} />
          ))}
        </ul>
      )}
    </Panel>
  );
}

function Figure({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-quiet">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

/** Every click goes on to the next place. */
function FindingRow({ layer, fault, count }: { layer: Layer; fault: Fault; count: number }) {
  const [next, setNext] = useState(0);
  const tone = fault === 'sliver' ? 'text-quiet' : 'text-ember';
  const words = FAULT_WORDS[fault][count === 1 ? 0 : 1];
  return (
    <li>
      <button
        type="button"
        className={`underline decoration-dotted underline-offset-4 ${tone}`}
        title={`Show ${count > 1 ? 'the next place' : 'the place'}`}
        onClick={() => {
          showFault(layer, fault, next);
          setNext(next + 1);
        }}
      >
        {formatCount(count)} {words}
        {fault === 'sliver' ? `, sharper than ${SLIVER_DEG}°` : ''}
      </button>
    </li>
  );
}

// ProofStrip.tsx — the strip that is always true: what was measured on the meshes that are shown.
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Totals } from '../../core/index.ts';
import { formatCount, formatNumber } from '../format.ts';
import { type Narrowest, narrowestOf, placeOf, thinPlacesOf } from '../stations/build/narrowest.ts';
import { faultPlaces, showFault } from '../stations/proof/faults.ts';
import { cancelBuild, useBuild } from '../store/build.ts';
import { useDocument } from '../store/project.ts';
import { screen } from '../store/screen.ts';
import { ThinPlaces } from './ThinPlaces.tsx';

export function ProofStrip() {
  const document = useDocument();
  const { unit, layers } = document;
  const { view, proven, totals, before, slow, progress, failure } = useBuild();
  const shown = layers.filter((layer) => layer.shown);
  const measured = view?.layers.filter((entry) => entry.meshKey !== '') ?? [];
  const isFresh = proven === document && measured.length > 0;
  const narrowest = narrowestOf(shown, view);
  const thin = thinPlacesOf(shown, view);
  const refused = view?.layers.find((entry) => entry.error);
  const faulty = shown.find((layer) => faultPlaces(layer).length > 0);

  return (
    <section
      aria-label="Proof"
      data-fresh={isFresh}
      className="col-span-3 flex min-h-11 flex-wrap items-center gap-x-4 whitespace-nowrap border-rule border-t bg-sheet px-5 py-1 text-sm max-md:sticky max-md:bottom-0 max-md:z-30 max-md:col-span-1"
    >
      <Link
        to="proof"
        className="font-serif leading-6 underline decoration-rule underline-offset-4"
        title="The proof as a page"
      >
        Proof
      </Link>
      {failure ? (
        <span className="text-ember">{failure.message}</span>
      ) : refused?.error ? (
        <button type="button" className="text-left text-ember" onClick={() => screen.select([refused.id])}>
          {layers.find(({ id }) => id === refused.id)?.name}: {refused.error.message}
        </button>
      ) : shown.length === 0 ? (
        <span className="text-quiet">Nothing is built yet.</span>
      ) : (
        totals && (
          <>
            <span role="status">
              <Entry
                name=""
                onClick={faulty ? () => showFault(faulty) : undefined}
                tone={isSound(totals) ? 'tide' : 'ember'}
              >
                {verdict(totals)}
              </Entry>
            </span>
            <Count name="points" now={totals.counts.points} before={before?.counts.points} />
            <Count name="edges" now={totals.counts.edges} before={before?.counts.edges} />
            <Count name="faces" now={totals.counts.faces} before={before?.counts.faces} />
            {thin.length > 0 && <ThinPlaces places={thin} unit={unit} />}
            {narrowest && (
              <Entry name="safe reach" onClick={() => pointAtNarrowest(narrowest)}>
                {formatNumber(narrowest.safeReach)} {unit}
              </Entry>
            )}
            <Entry name={totals.closed ? 'volume' : 'volume of what is closed'}>
              {totals.closedParts > 0 ? `${formatNumber(totals.volume)} ${unit}³` : 'none'}
            </Entry>
            {view && <Entry name="built in">{Math.max(1, Math.round(view.ms))} ms</Entry>}
          </>
        )
      )}
      <span className="ml-auto text-quiet" role="status">
        {slow ? (
          <button type="button" className="text-tide underline" onClick={cancelBuild}>
            Building… {progress > 0 ? `${Math.round(100 * progress)} % ` : ''}stop
          </button>
        ) : isFresh || shown.length === 0 ? (
          ''
        ) : (
          'Checking…'
        )}
      </span>
    </section>
  );
}

function pointAtNarrowest(narrowest: Narrowest): void {
  screen.select([narrowest.of.id]);
  screen.pointAt(placeOf(narrowest), narrowest.of.id);
}

const isSound = ({ closed, faults: { inward, crossing, zero } }: Totals) => closed && inward + crossing + zero === 0;

function verdict({ closed, openParts, faults: { inward, crossing, zero } }: Totals): string {
  if (!closed) return openParts === 1 ? 'Open' : `${formatCount(openParts)} bodies open`;
  if (inward > 0) return 'Closed, inside out';
  if (crossing > 0) return `Closed, ${formatCount(crossing)} pairs of crossing faces`;
  if (zero > 0) return `Closed, ${formatCount(zero)} faces without area`;
  return 'Closed, no crossing faces';
}

function Count({ name, now, before }: { name: string; now: number; before: number | undefined }) {
  return (
    <Entry name={name}>
      {before !== undefined && before !== now && <span className="text-quiet">{formatCount(before)} → </span>}
      {formatCount(now)}
    </Entry>
  );
}

interface EntryProps {
  name: string;
  tone?: 'tide' | 'ember';
  onClick?: (() => void) | undefined;
  children: ReactNode;
}

function Entry({ name, tone, onClick, children }: EntryProps) {
  const colour = tone === 'ember' ? 'text-ember' : tone === 'tide' ? 'text-tide font-semibold' : '';
  const content = (
    <>
      {name && <span className="mr-1 text-quiet">{name} </span>}
      <span className={name ? `figure ${colour}` : colour} data-proof={name || 'verdict'}>
        {children}
      </span>
    </>
  );
  if (!onClick) return <span>{content}</span>;
  return (
    <button
      type="button"
      className="underline decoration-rule decoration-dotted underline-offset-4"
      onClick={onClick}
      title="Show the place"
    >
      {content}
    </button>
  );
}

// FindingList.tsx — what would trouble a build, each with its places and a mend that can be looked at before it is made.
import { CircleCheck, LocateFixed, Wrench } from 'lucide-react';
import type { EditAction, Finding, Source } from '../../../core/index.ts';
import { Note, Panel } from '../../controls/Panel.tsx';
import { act, actAll, outline, showPreview, useOutline } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { mendWord, wordsOf } from './words.ts';

export function FindingList({ source }: { source: Source }) {
  const findings = useOutline((state) => state.findings);
  const safe = findings?.filter((finding) => finding.isSafe && finding.mend) ?? [];
  return (
    <Panel
      title="Check"
      aside={
        safe.length > 1 && (
          <button
            type="button"
            className="rounded-edge text-sm text-tide underline-offset-2 hover:underline"
            onClick={() => void actAll(safe.map(({ mend }) => mend as EditAction))}
          >
            Mend all {safe.length} safe ones
          </button>
        )
      }
    >
      {findings === null && <p className="text-quiet">Looking…</p>}
      {findings?.length === 0 && (
        <p className="flex items-center gap-2">
          <CircleCheck size={16} className="text-tide" aria-hidden /> Nothing in the way of a build.
        </p>
      )}
      <ul aria-label="Findings">
        {findings?.map((finding) => (
          <FindingRow key={finding.kind} finding={finding} source={source} />
        ))}
      </ul>
      {findings?.some(({ kind }) => kind === 'pale') && (
        <Note>White shapes show on the grey or checkered backdrop.</Note>
      )}
    </Panel>
  );
}

function FindingRow({ finding, source }: { finding: Finding; source: Source }) {
  const unit = useDocumentPart((document) => document.unit);
  const pointed = useOutline((state) => (state.pointed?.kind === finding.kind ? state.pointed : null));
  const words = wordsOf(finding, source.scale, unit);
  const { kind, mend, places, shapes } = finding;
  // Each press points at the next place.
  const point = () => {
    const place = pointed ? (pointed.place + 1) % places.length : 0;
    outline.set({ pointed: { kind, place } });
    outline.choose(shapes);
  };
  return (
    <li className={`-mx-2 flex items-center gap-1 rounded-edge px-2 ${pointed ? 'bg-wash' : ''}`}>
      <button type="button" className="flex min-w-0 flex-1 items-baseline gap-2 py-1 text-left" onClick={point}>
        <LocateFixed size={14} className="shrink-0 self-center text-quiet" aria-hidden />
        <span>
          {words}
          {pointed && places.length > 1 && (
            <span className="text-quiet text-sm">
              {' '}
              · {pointed.place + 1} of {places.length}
            </span>
          )}
        </span>
      </button>
      {mend && (
        <button
          type="button"
          aria-label={`${mendWord(finding)}: ${words}`}
          title={finding.isSafe ? 'Safe: nothing that is meant changes' : 'Changes what is there; point to see how'}
          className="inline-flex items-center gap-1 rounded-edge px-1.5 py-0.5 text-sm text-tide hover:bg-sheet"
          onPointerEnter={() => void showPreview(mend)}
          onPointerLeave={() => void showPreview(null)}
          onFocus={() => void showPreview(mend)}
          onBlur={() => void showPreview(null)}
          onClick={() => void act(mend)}
        >
          <Wrench size={13} aria-hidden />
          {mendWord(finding)}
        </button>
      )}
    </li>
  );
}

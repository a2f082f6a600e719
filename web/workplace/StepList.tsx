// StepList.tsx — the steps of the work in a list that is opened from the header: gone back through, and forth again.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { History as HistoryIcon } from 'lucide-react';
import { tip } from '../controls/Tips.tsx';
import { goBack, useProject } from '../store/project.ts';
import { stepWords } from './step-words.ts';

export function StepList() {
  return (
    <Popover className="relative">
      <PopoverButton
        aria-label="Steps"
        {...tip('Steps')}
        className="inline-flex size-8 items-center justify-center rounded-edge hover:bg-wash"
      >
        <HistoryIcon size={17} strokeWidth={1.75} aria-hidden />
      </PopoverButton>
      <PopoverPanel className="absolute top-full right-0 z-40 mt-1.5 w-72 rounded-edge border border-rule bg-sheet py-2 shadow-lg">
        {({ close }) => <Steps onDone={close} />}
      </PopoverPanel>
    </Popover>
  );
}

function Steps({ onDone }: { onDone: () => void }) {
  const history = useProject((state) => state.history);
  if (!history) return null;
  const { past, present, future } = history;
  const documents = [...past, present, ...future];
  const now = past.length;
  const rows = documents.map((document, i) => ({
    place: i,
    words: i === 0 ? 'Before these steps' : stepWords(documents[i - 1]!, document),
  }));
  return (
    <>
      <h2 className="px-4 pb-1 font-serif text-base">Steps</h2>
      <ol aria-label="Steps, the newest first" className="max-h-80 overflow-y-auto">
        {rows.toReversed().map(({ place, words }) => (
          <li key={place}>
            <button
              type="button"
              aria-current={place === now ? 'step' : undefined}
              className={`flex w-full gap-2 px-4 py-1 text-left text-sm hover:bg-wash ${place > now ? 'text-quiet' : ''} ${place === now ? 'font-semibold text-tide' : ''}`}
              onClick={() => {
                goBack(now - place);
                onDone();
              }}
            >
              <span className="min-w-0 flex-1 truncate">{words}</span>
              {place === now && <span className="font-normal text-quiet">now</span>}
              {place === now + 1 && <span>undone</span>}
            </button>
          </li>
        ))}
      </ol>
      <p className="px-4 pt-1 text-quiet text-sm">
        Kept in this browser, the last fifty also from one visit to the next.
      </p>
    </>
  );
}

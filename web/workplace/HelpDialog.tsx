// HelpDialog.tsx — the keyboard, on `?`.
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { X } from 'lucide-react';
import { IconButton } from '../controls/IconButton.tsx';
import { STATIONS } from '../stations/index.ts';
import { CONTROL_KEYS, PAGE_KEYS } from './keys.ts';

export function HelpDialog({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const rows = [
    ...PAGE_KEYS.map(({ shown, does }) => [shown, does] as const),
    ...STATIONS.flatMap(({ title, keys }) =>
      keys.map(({ shown, does }) => [shown, `At ${title}: ${lowerFirst(does)}`] as const),
    ),
    ...CONTROL_KEYS,
    ['?', 'This list'] as const,
  ];
  return (
    <Dialog open={isOpen} onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-black/30" />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="w-full max-w-xl rounded-edge border border-rule bg-sheet p-6">
          <div className="mb-4 flex items-center justify-between">
            <DialogTitle className="font-serif text-xl">Keys</DialogTitle>
            <IconButton icon={X} label="Close" onClick={onClose} />
          </div>
          <p className="mb-3">
            What the stations do, and whole jobs step by step:{' '}
            <a href="/help" target="_blank" rel="noreferrer" className="text-tide underline">
              the guide
            </a>
            , in a tab of its own.
          </p>
          <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-1.5">
            {rows.map(([shown, does]) => (
              <div key={shown} className="contents">
                <dt className="figure text-tide">{shown}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

// ConflictDialog.tsx — someone else saved first: both versions are still there, and one is chosen.
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { resolveConflict, useProject } from '../store/project.ts';

export function ConflictDialog() {
  const conflict = useProject((state) => state.conflict);
  if (!conflict) return null;
  return (
    <Dialog open onClose={() => {}} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-black/30" />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="w-full max-w-lg rounded-edge border border-rule bg-sheet p-6">
          <DialogTitle className="font-serif text-xl">Changed in another window</DialogTitle>
          <p className="mt-3">
            This project was saved elsewhere as revision {conflict.revision} after you opened it here. Nothing is lost
            yet: choose which version goes on. The other one stays in the project’s history.
          </p>
          <div className="mt-5 flex justify-end gap-3">
            <button
              type="button"
              className="rounded-edge border border-rule px-3 py-1.5"
              onClick={() => resolveConflict('theirs')}
            >
              Go on with the other version
            </button>
            <button
              type="button"
              className="rounded-edge bg-tide px-3 py-1.5 text-sheet"
              onClick={() => resolveConflict('mine')}
            >
              Save mine over it
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

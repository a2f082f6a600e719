// DropTarget.tsx — files dropped on the work are brought in.
import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { bringIn, useImport } from '../store/import.ts';
import { cancelGeometry } from '../worker/client.ts';

export function DropTarget({ children }: { children: ReactNode }) {
  const { getRootProps, isDragActive } = useDropzone({
    onDrop: (files) => void bringIn(files),
    noClick: true,
    noKeyboard: true,
  });
  const busy = useImport((state) => state.busy);
  return (
    <div {...getRootProps()} className="relative min-h-0 min-w-0" data-drop>
      {children}
      {(isDragActive || busy) && (
        <div className="pointer-events-none absolute inset-0 z-20 grid place-items-center bg-tide/20">
          <p className="rounded-edge bg-sheet px-4 py-2 font-serif text-lg" role="status">
            {busy ? `Bringing in ${busy}… ` : 'Let go to bring it in'}
            {busy && (
              <button type="button" className="pointer-events-auto text-tide underline" onClick={cancelGeometry}>
                Stop
              </button>
            )}
          </p>
        </div>
      )}
    </div>
  );
}

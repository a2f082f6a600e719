// DropTarget.tsx — files dropped or pasted anywhere in the workplace are brought in.
import { type ReactNode, useEffect } from 'react';
import { useDropzone } from 'react-dropzone';
import { TextButton } from '../controls/TextButton.tsx';
import { isTextField } from '../controls/typing.ts';
import { copiedText, pasteShapes } from '../outline/clipboard.ts';
import { useBringIn } from '../stations/source/useBringIn.ts';
import { pastedFiles } from '../store/arrivals.ts';
import { decideHeld, useImport } from '../store/import.ts';
import { isOutlining, removeChosen } from '../store/outline.ts';
import { stopGeometry } from '../worker/client.ts';

export function DropTarget({ children }: { children: ReactNode }) {
  const bringIn = useBringIn();
  const { getRootProps, isDragActive } = useDropzone({
    onDrop: bringIn,
    noClick: true,
    noKeyboard: true,
  });
  const { busy, progress, held } = useImport();
  useEffect(() => {
    const paste = ({ clipboardData }: ClipboardEvent) => {
      if (isTextField()) return;
      if (isOutlining() && pasteShapes(clipboardData?.getData('text/plain') ?? '')) return;
      const files = pastedFiles(clipboardData);
      if (files.length > 0) bringIn(files);
    };
    const copy = (event: ClipboardEvent) => {
      const text = isTextField() || !isOutlining() || String(getSelection()) !== '' ? null : copiedText();
      if (text === null) return;
      event.clipboardData!.setData('text/plain', text);
      event.preventDefault();
      if (event.type === 'cut') removeChosen();
    };
    window.addEventListener('paste', paste);
    window.addEventListener('copy', copy);
    window.addEventListener('cut', copy);
    return () => {
      window.removeEventListener('paste', paste);
      window.removeEventListener('copy', copy);
      window.removeEventListener('cut', copy);
    };
  }, [bringIn]);
  return (
    <div {...getRootProps()} className="relative h-full" data-drop>
      {children}
      {held && (
        <div className="absolute inset-0 z-20 grid place-items-center bg-ink/30">
          <div
            className="max-w-sm rounded-edge bg-sheet p-5"
            role="alertdialog"
            aria-label={`${held.file} has many pieces`}
          >
            <h2 className="font-serif text-lg">{held.file}</h2>
            <p className="my-2">{held.message}</p>
            <p className="flex flex-wrap gap-x-4">
              <TextButton onClick={() => decideHeld('layers')}>Bring it in all the same</TextButton>
              {held.value.source.kind === 'picture' && (
                <TextButton onClick={() => decideHeld('underlay')}>Only draw over it</TextButton>
              )}
              <TextButton onClick={() => decideHeld(null)}>Leave it</TextButton>
            </p>
          </div>
        </div>
      )}
      {(isDragActive || busy) && (
        <div className="pointer-events-none absolute inset-0 z-20 grid place-items-center bg-tide/20">
          <p className="rounded-edge bg-sheet px-4 py-2 font-serif text-lg" role="status">
            {busy ? `Bringing in ${busy}… ${percent(progress)}` : 'Let go to bring it in'}
            {busy && (
              <button type="button" className="pointer-events-auto text-tide underline" onClick={stopGeometry}>
                Stop
              </button>
            )}
          </p>
        </div>
      )}
    </div>
  );
}

const percent = (share: number | null) => (share === null ? '' : `${Math.round(100 * share)} % `);

// SaveMark.tsx — whether the server has what is on the screen.
import { type SaveState, saveNow, useProject } from '../store/project.ts';

const WORDS: Record<SaveState, string> = {
  saved: 'Saved',
  unsaved: 'Unsaved',
  saving: 'Saving…',
  conflict: 'Changed elsewhere',
  failed: 'Not saved',
};

export function SaveMark() {
  const save = useProject((state) => state.save);
  const error = useProject((state) => state.saveError);
  const refusal = useProject((state) => state.refusal);
  return (
    <span role="status" className="mr-2 text-right text-sm" title={error ?? undefined}>
      {refusal ? (
        <span className="text-ember">{refusal}</span>
      ) : save === 'failed' ? (
        <button type="button" className="text-ember underline" onClick={() => void saveNow()}>
          {WORDS.failed}: try again
        </button>
      ) : (
        <span className={save === 'conflict' ? 'text-ember' : 'text-quiet'}>{WORDS[save]}</span>
      )}
    </span>
  );
}

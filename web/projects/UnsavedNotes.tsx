// UnsavedNotes.tsx — changes that were left behind and are not on the server yet, and what can be done about each.
import { type ReactNode, useEffect } from 'react';
import { Link } from 'react-router';
import { Note } from '../controls/Panel.tsx';
import { TextButton } from '../controls/TextButton.tsx';
import { forget, keepAsNew, sendLeft, useUnsaved } from '../store/unsaved.ts';

/** @param onSaved called whenever one of them has reached the server */
export function UnsavedNotes({ onSaved }: { onSaved: () => void }) {
  const left = useUnsaved((state) => state.left);
  useEffect(() => {
    void sendLeft();
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the caller's function is another one each time it is drawn
  useEffect(() => onSaved(), [left.length]);
  return left
    .filter(({ because }) => because !== 'sending')
    .map((unsaved) => {
      const { id, because, message, document } = unsaved;
      const ways: Record<typeof because, ReactNode> = {
        sending: null,
        unreachable: (
          <>
            {message} They are sent again by themselves.{' '}
            <TextButton onClick={() => void sendLeft()}>Try now</TextButton>
          </>
        ),
        conflict: (
          <>
            It was changed elsewhere meanwhile.{' '}
            <Link className="text-tide underline" to={`/projects/${id}/build`}>
              Open it and choose which version goes on
            </Link>
          </>
        ),
        deleted: (
          <>
            It was deleted elsewhere meanwhile.{' '}
            <TextButton onClick={() => void keepAsNew(unsaved)}>Keep it as a new project</TextButton>{' '}
            <TextButton onClick={() => void forget(id)}>Let it go</TextButton>
          </>
        ),
      };
      return (
        <Note key={id} tone="ember">
          Changes to “{document.name}” are not on the server yet. {ways[because]}
        </Note>
      );
    });
}

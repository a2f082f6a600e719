// OutlinePanel.tsx — outlines made ready for the build: checked, chosen, combined, mended, each step kept as an edit.
import { useEffect } from 'react';
import { Choice } from '../../controls/Choice.tsx';
import { Note, Panel } from '../../controls/Panel.tsx';
import { cancelEdit, outlined, outlineSource, useOutline, watchOutlines, workOn } from '../../store/outline.ts';
import { useDocument } from '../../store/project.ts';
import { useScreen } from '../../store/screen.ts';
import { ChosenPanel } from './ChosenPanel.tsx';
import { EditList } from './EditList.tsx';
import { FindingList } from './FindingList.tsx';
import { ShapeList } from './ShapeList.tsx';
import { ToolPanel } from './ToolPanel.tsx';

export function OutlinePanel() {
  const document = useDocument();
  // Which source it is hangs on these too.
  useScreen((state) => state.selected);
  const { busy, progress, said, failure } = useOutline();
  useEffect(watchOutlines, []);
  const source = outlineSource(document);
  if (!source) {
    return (
      <Panel title="Outline">
        <p className="text-quiet">There are no outlines yet. Bring something in at the Source station.</p>
      </Panel>
    );
  }
  return (
    <>
      <Panel title="Outline">
        {outlined(document).length > 1 ? (
          <p>
            Working on{' '}
            <Choice
              label="Source"
              value={source.id}
              options={outlined(document).map(({ id, name }) => [id, name] as const)}
              onChange={workOn}
            />
            .
          </p>
        ) : (
          !said && <p className="text-quiet text-sm">Alt-click keeps a shape out of the build, or takes it in again.</p>
        )}
        {busy && progress !== null && (
          <p className="mt-1 flex items-center gap-2 text-sm" role="status">
            <progress className="h-1.5 flex-1 accent-tide" value={progress} />
            <button type="button" className="text-tide hover:underline" onClick={cancelEdit}>
              Stop
            </button>
          </p>
        )}
        {said && <Note tone="tide">{said}.</Note>}
        {failure && <Note tone="ember">{failure}</Note>}
      </Panel>
      <FindingList source={source} />
      <ToolPanel source={source} />
      <ChosenPanel source={source} />
      <EditList source={source} />
      <ShapeList source={source} />
    </>
  );
}

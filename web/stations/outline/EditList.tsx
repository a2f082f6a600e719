// EditList.tsx — the edits of a source in their order: switched off and on, taken away, with what each of them did.
import { Eye, EyeOff, Trash2 } from 'lucide-react';
import type { Edit, Source } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { Note, Panel } from '../../controls/Panel.tsx';
import { dropEdit, switchEdit, useOutline } from '../../store/outline.ts';
import { nameOf } from './words.ts';

export function EditList({ source }: { source: Source }) {
  if (source.edits.length === 0) return null;
  return (
    <Panel title="Edits" aside={<span className="text-quiet text-sm">in order, first to last</span>}>
      <ol>
        {source.edits.map((edit) => (
          <EditRow key={edit.id} edit={edit} />
        ))}
      </ol>
    </Panel>
  );
}

function EditRow({ edit }: { edit: Edit }) {
  const outcome = useOutline((state) => state.view?.outcomes.find(({ id }) => id === edit.id));
  const name = nameOf(edit.action);
  const missing = outcome?.missing.length ?? 0;
  return (
    <li className="border-rule border-t py-1">
      <div className="flex items-center gap-1">
        <span className={`min-w-0 flex-1 ${edit.on ? '' : 'text-quiet line-through'}`}>
          {name}
          {outcome?.said && <span className="text-quiet text-sm"> · {outcome.said}</span>}
        </span>
        <IconButton
          icon={edit.on ? Eye : EyeOff}
          label={`${edit.on ? 'Switch off' : 'Switch on'}: ${name}`}
          pressed={edit.on}
          className="!size-7 !bg-transparent !text-quiet"
          onClick={() => void switchEdit(edit.id)}
        />
        <IconButton
          icon={Trash2}
          label={`Take away: ${name}`}
          className="!size-7 !text-quiet"
          onClick={() => void dropEdit(edit.id)}
        />
      </div>
      {missing > 0 && (
        <Note tone="ember">
          {missing} of its shapes {missing === 1 ? 'is' : 'are'} not there any more; the rest was done.
        </Note>
      )}
    </li>
  );
}

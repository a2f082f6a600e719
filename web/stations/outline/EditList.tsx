// EditList.tsx — the edits of a source in their order: switched off and on, taken away, with what each of them did.
import { Eye, EyeOff, Trash2 } from 'lucide-react';
import type { Edit, EditAction, Source } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { Note, Panel } from '../../controls/Panel.tsx';
import { Value } from '../../controls/Value.tsx';
import { changeEdit, dropEdit, switchEdit, useOutline } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { nameOf } from './words.ts';

export function EditList({ source }: { source: Source }) {
  if (source.edits.length === 0) return null;
  return (
    <Panel title="Edits" aside={<span className="text-quiet text-sm">in order, first to last</span>}>
      <ol>
        {source.edits.map((edit) => (
          <EditRow key={edit.id} edit={edit} source={source} />
        ))}
      </ol>
    </Panel>
  );
}

function EditRow({ edit, source }: { edit: Edit; source: Source }) {
  const outcome = useOutline((state) => state.view?.outcomes.find(({ id }) => id === edit.id));
  const name = nameOf(edit.action);
  const missing = outcome?.missing.length ?? 0;
  return (
    <li className="border-rule border-t py-1">
      <div className="flex items-center gap-1">
        <span className={`min-w-0 flex-1 ${edit.on ? '' : 'text-quiet line-through'}`}>
          {name}
          <EditNumber edit={edit} source={source} />
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

/** The length that an edit was made with, and the edit with another one; null where it has none. In user units of the source. */
function lengthOf(
  action: EditAction,
): { readonly value: number; readonly with: (length: number) => EditAction } | null {
  switch (action.do) {
    case 'grow':
      // Growing stays growing, and shrinking shrinking.
      return { value: Math.abs(action.by), with: (v) => ({ ...action, by: Math.sign(action.by || 1) * v }) };
    case 'close':
      return { value: action.gap, with: (gap) => ({ ...action, gap }) };
    case 'simplify':
      return { value: action.tolerance, with: (tolerance) => ({ ...action, tolerance }) };
    case 'outline':
      return action.stroke?.width === undefined
        ? null
        : { value: action.stroke.width, with: (width) => ({ ...action, stroke: { ...action.stroke, width } }) };
    case 'restyle':
      return action.stroke
        ? { value: action.stroke.width, with: (width) => ({ ...action, stroke: { ...action.stroke!, width } }) }
        : null;
    default:
      return null;
  }
}

function EditNumber({ edit, source }: { edit: Edit; source: Source }) {
  const unit = useDocumentPart((document) => document.unit);
  const length = lengthOf(edit.action);
  if (!length) return null;
  const value = Number((length.value * source.scale).toPrecision(8));
  return (
    <>
      {' '}
      <Value
        label={`${nameOf(edit.action)}: by how much`}
        value={value}
        unit={unit}
        min={1e-9}
        step={Number((value / 10).toPrecision(1))}
        onChange={(v, gesture) => void changeEdit(edit.id, length.with(v / source.scale), gesture)}
      />
    </>
  );
}

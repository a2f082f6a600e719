// PrepareSteps.tsx — the steps a picture goes through before it is traced: ordered by dragging, switched off, re-opened.
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { GripVertical, Plus, Trash2 } from 'lucide-react';
import type { PictureSource, Step, StepAction } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { changePicture } from '../../store/picture.ts';
import { sourceView, useSourceView } from '../../store/source-view.ts';
import { ACTION_WORDS, hasArea, startAction } from './actions.ts';
import { StepSentence } from './StepSentence.tsx';

export function PrepareSteps({ source }: { source: PictureSource }) {
  const steps = source.prepare;
  const set = (prepare: Step[], gesture: string | null = null) => changePicture(source.id, { prepare }, gesture);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const place = (id: unknown) => steps.findIndex((step) => step.id === id);
    set(arrayMove(steps, place(active.id), place(over.id)));
  };
  const add = (kind: StepAction['do']) => {
    const step: Step = { id: crypto.randomUUID(), on: true, action: startAction(kind, source) };
    set([...steps, step]);
    sourceView.set({ openStep: null });
    sourceView.toggleStep(step.id, hasArea(step.action));
  };
  return (
    <>
      {steps.length === 0 && <p className="text-quiet text-sm">The picture is traced as it came.</p>}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={steps.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol aria-label="Steps of the preparation">
            {steps.map((step) => (
              <StepRow
                key={step.id}
                source={source}
                step={step}
                onChange={(next, gesture) =>
                  set(
                    steps.map((other) => (other.id === step.id ? next : other)),
                    gesture,
                  )
                }
                onRemove={() => set(steps.filter((other) => other.id !== step.id))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Menu>
        <MenuButton className="mt-2 inline-flex items-center gap-1 rounded-edge border border-rule px-2 py-0.5 text-sm hover:bg-wash">
          <Plus size={14} aria-hidden /> Add a step
        </MenuButton>
        <MenuItems
          anchor={{ to: 'bottom start', gap: 4 }}
          className="z-30 w-64 rounded-edge border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
        >
          {ACTION_WORDS.map(([kind, words]) => (
            <MenuItem key={kind}>
              <button
                type="button"
                className="block w-full px-3 py-1 text-left data-[focus]:bg-wash"
                onClick={() => add(kind)}
              >
                {words}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
    </>
  );
}

interface StepRowProps {
  source: PictureSource;
  step: Step;
  onChange: (step: Step, gesture?: string | null) => void;
  onRemove: () => void;
}

function StepRow({ source, step, onChange, onRemove }: StepRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.id });
  const isOpen = useSourceView((state) => state.openStep === step.id);
  const words = ACTION_WORDS.find(([kind]) => kind === step.action.do)![1];
  return (
    <li
      ref={setNodeRef}
      className="border-rule border-t bg-paper"
      style={{ transform: CSS.Transform.toString(transform), transition }}
    >
      <div className="flex items-center gap-1">
        <button
          type="button"
          className="grid size-6 shrink-0 cursor-grab place-items-center text-quiet"
          aria-label={`Move ${words}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={14} aria-hidden />
        </button>
        <label className="grid size-6 shrink-0 place-items-center">
          <input
            type="checkbox"
            className="accent-tide"
            aria-label={`${words}: on`}
            checked={step.on}
            onChange={() => onChange({ ...step, on: !step.on })}
          />
        </label>
        <button
          type="button"
          aria-expanded={isOpen}
          className={`min-w-0 flex-1 truncate py-1 text-left ${step.on ? '' : 'text-quiet line-through'} ${isOpen ? 'text-tide' : ''}`}
          onClick={() => sourceView.toggleStep(step.id, hasArea(step.action))}
        >
          {words}
        </button>
        <IconButton
          icon={Trash2}
          label={`Remove ${words}`}
          onClick={() => {
            sourceView.set({ openStep: null, tool: null });
            onRemove();
          }}
        />
      </div>
      {isOpen && (
        <div className="pb-2 pl-7">
          <StepSentence
            source={source}
            step={step}
            onChange={(action, gesture) => onChange({ ...step, action }, gesture)}
          />
        </div>
      )}
    </li>
  );
}

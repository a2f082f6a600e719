// ShapeList.tsx — every shape by layer: chosen, kept out of the build, dragged into another layer or one of its own.
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { Eye, EyeOff, GripVertical } from 'lucide-react';
import type { Layer, OutlineShape, Source } from '../../../core/index.ts';
import { Note, Panel } from '../../controls/Panel.tsx';
import { moveTo, outline, toggleShape, useOutline } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { useScreen } from '../../store/screen.ts';

/** Lists longer than this are cut; the view still holds every shape. */
const LISTED = 60;
/** Where a shape is dropped to get a layer of its own. */
const NEW_LAYER = 'new layer';

export function ShapeList({ source }: { source: Source }) {
  const layers = useDocumentPart((document) => document.layers);
  const shapes = useOutline((state) => state.view?.shapes);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  const byId = new Map(shapes?.map((shape) => [shape.id, shape]));
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const { chosen } = useOutline.getState();
    const dragged = String(active.id);
    // The chosen ones go together.
    const moved = chosen.includes(dragged) ? chosen : [dragged];
    moveTo(moved, over.id === NEW_LAYER ? null : String(over.id));
  };
  return (
    <Panel title="Shapes">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        {layers
          .toReversed()
          .map((layer) =>
            layer.source === source.id ? <LayerShapes key={layer.id} layer={layer} byId={byId} /> : null,
          )}
        <NewLayer />
      </DndContext>
    </Panel>
  );
}

function NewLayer() {
  const { setNodeRef, isOver, active } = useDroppable({ id: NEW_LAYER });
  if (!active) return null;
  return (
    <p
      ref={setNodeRef}
      className={`mt-1 border border-quiet border-dashed px-2 py-1 text-sm ${isOver ? 'bg-wash' : ''}`}
    >
      Drop here for a layer of its own
    </p>
  );
}

function LayerShapes({ layer, byId }: { layer: Layer; byId: ReadonlyMap<string, OutlineShape> }) {
  const { setNodeRef, isOver } = useDroppable({ id: layer.id });
  const isSelected = useScreen((state) => state.selected.includes(layer.id));
  const members = layer.members.flatMap((id) => byId.get(id) ?? []);
  const names = namesOf(members);
  return (
    <details
      ref={setNodeRef as (element: HTMLElement | null) => void}
      className={`border-rule border-t py-1 ${isOver ? 'bg-wash' : ''}`}
      open={isSelected || undefined}
    >
      <summary className="flex cursor-pointer items-center gap-2 py-0.5">
        <span
          aria-hidden
          className="size-3.5 shrink-0 border border-rule"
          style={{ background: layer.material.colour }}
        />
        <span className="min-w-0 flex-1 truncate">{layer.name}</span>
        <span className="text-quiet text-sm">{members.length}</span>
      </summary>
      {layer.ground && <Note>Recognised as the ground behind the drawing and switched off.</Note>}
      <ul className="text-sm">
        {members.slice(0, LISTED).map((shape) => (
          <ShapeRow key={shape.id} shape={shape} name={names.get(shape.id)!} layer={layer} />
        ))}
      </ul>
      {members.length > LISTED && <Note>…and {members.length - LISTED} more in the view.</Note>}
    </details>
  );
}

/** What shapes are called in a list: those of one name are counted. */
function namesOf(shapes: readonly OutlineShape[]): ReadonlyMap<string, string> {
  const counts = new Map<string, number>();
  for (const { name } of shapes) counts.set(name, (counts.get(name) ?? 0) + 1);
  const used = new Map<string, number>();
  return new Map(
    shapes.map(({ id, name }) => {
      used.set(name, (used.get(name) ?? 0) + 1);
      return [id, counts.get(name)! > 1 ? `${name} ${used.get(name)}` : name];
    }),
  );
}

function ShapeRow({ shape, name, layer }: { shape: OutlineShape; name: string; layer: Layer }) {
  const { setNodeRef, listeners, attributes, transform } = useDraggable({ id: shape.id });
  const isChosen = useOutline((state) => state.chosen.includes(shape.id));
  const isKept = layer.shown && !layer.skipped.includes(shape.id);
  const Icon = isKept ? Eye : EyeOff;
  return (
    <li
      ref={setNodeRef}
      className={`flex items-center gap-1 pl-3 ${isChosen ? 'bg-wash text-tide' : ''} ${isKept ? '' : 'text-quiet line-through'}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <button
        type="button"
        className="grid size-6 cursor-grab place-items-center text-quiet"
        aria-label={`Drag ${name} to another layer`}
        {...listeners}
        {...attributes}
      >
        <GripVertical size={13} aria-hidden />
      </button>
      <button
        type="button"
        aria-pressed={isChosen}
        className="min-w-0 flex-1 truncate py-0.5 text-left"
        onClick={(event) => (event.shiftKey ? outline.toggle(shape.id) : outline.choose([shape.id]))}
      >
        {name}
      </button>
      <button
        type="button"
        aria-label={`${isKept ? 'Keep out of the build' : 'Take into the build'}: ${name}`}
        disabled={!layer.shown}
        className="grid size-6 place-items-center rounded-edge hover:bg-wash"
        onClick={() => toggleShape(layer, shape.id)}
      >
        <Icon size={14} aria-hidden />
      </button>
    </li>
  );
}

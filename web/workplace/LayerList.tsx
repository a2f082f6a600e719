// LayerList.tsx — the stack by name, the highest first: layers and groups chosen, found, renamed, hidden, locked, left out of the
// build, and dragged to another place.
import {
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Search } from 'lucide-react';
import { type ComponentProps, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { actOf, type Key, pressedOf } from '../controls/keys.ts';
import { LAYER_KEYS } from '../stations/build/layer-keys.ts';
import { chooseNext, type DropPlace, dropRow, rowsOf, type StackRow } from '../store/layers.ts';
import { useDocument } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';
import { GroupRow, LayerRow } from './LayerRows.tsx';

const ROW_PIXELS = 32;
/** Up to so many rows are all there; of more, those that are seen and some around them. */
const ALL_THERE = 80;
const AROUND = 12;
/** Lists of so many layers can be searched. */
const SEARCHED = 12;
/** Pixels from which a press is a drag. */
const DRAG_PIXELS = 5;

export function LayerList() {
  const project = useDocument();
  const folded = useScreen((state) => state.folded);
  const [wanted, setWanted] = useState('');
  const rows = useMemo(() => rowsOf(project, folded, wanted), [project, folded, wanted]);
  const first = useFirst(rows);
  const box = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PIXELS,
    getItemKey: (i) => rows[i]!.id,
    useFlushSync: false,
    overscan: rows.length <= ALL_THERE ? rows.length : AROUND,
  });
  const focus = (id: string | null | undefined) => {
    const place = rows.findIndex((row) => row.id === id);
    if (place < 0) return;
    list.scrollToIndex(place);
    // The row may have to be made first.
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-layer="${id}"]`)?.focus());
  };
  const go = (by: 1 | -1, isRange: boolean) => focus(chooseNext(by, isRange));
  const keys = [...goKeys(go), ...LAYER_KEYS];
  const listRef = useHotkeys<HTMLUListElement>(
    pressedOf(keys),
    (event, pressed) => {
      // What is pressed here is meant for layers, whatever it means at the station.
      event.stopPropagation();
      actOf(keys)(event, pressed);
    },
    { preventDefault: true },
  );
  /** Whether the focus is here, or was on something of the list that is gone now. */
  const isHere = useRef(false);
  useEffect(() => {
    if (isHere.current && document.activeElement === document.body) focus(first);
  });
  const { drop, dragging } = useRowDrag(rows, box);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PIXELS } }));
  const seen = list.getVirtualItems();
  const tabStop = seen.some(({ key }) => key === first) ? first : seen[0]?.key;
  return (
    <>
      {project.layers.length >= SEARCHED && <SearchField value={wanted} onChange={setWanted} found={rows.length} />}
      <div ref={box} className="min-h-0 flex-1 overflow-y-auto border-rule border-t py-1">
        <DndContext sensors={sensors} {...dragging}>
          <Draggable
            ref={listRef}
            onFocus={() => {
              isHere.current = true;
            }}
            onBlur={({ target }) => {
              isHere.current = !target.isConnected;
            }}
            className="relative"
            style={{ height: list.getTotalSize() }}
            aria-label="Layers"
          >
            {seen.map(({ index, start }) => {
              const row = rows[index]!;
              const own = {
                depth: row.depth,
                isTabStop: row.id === tabStop,
                top: start,
                drop: drop?.row === row.id ? drop.side : null,
                place: index + 1,
                of: rows.length,
              };
              return row.layer ? (
                <LayerRow key={row.id} layer={row.layer} {...own} />
              ) : (
                <GroupRow key={row.id} group={row.group} layers={row.layers} isFolded={row.isFolded} {...own} />
              );
            })}
          </Draggable>
        </DndContext>
      </div>
    </>
  );
}

/** One thing to drag for all rows: which of them is dragged says where the press was. */
function Draggable({ ref, ...list }: ComponentProps<'ul'>) {
  const { setNodeRef, listeners } = useDraggable({ id: 'row' });
  const refs = (element: HTMLUListElement | null) => {
    setNodeRef(element);
    if (typeof ref === 'function') ref(element);
    else if (ref) ref.current = element;
  };
  return <ul ref={refs} {...listeners} {...list} />;
}

const rowAt = (target: EventTarget | null): string | undefined =>
  target instanceof Element ? target.closest<HTMLElement>('[data-layer]')?.dataset.layer : undefined;

/** The row that the tab key comes to: the highest that is chosen, else the highest. */
function useFirst(rows: readonly StackRow[]): string | undefined {
  return useScreen(({ selected, group }) => {
    if (group !== null && rows.some(({ id }) => id === group)) return group;
    const chosen = new Set(selected);
    return (rows.find(({ id }) => chosen.has(id)) ?? rows[0])?.id;
  });
}

const goKeys = (go: (by: 1 | -1, isRange: boolean) => void): readonly Key[] => [
  { keys: 'arrowup', shown: '↑', does: 'Choose the layer above', act: () => go(1, false) },
  { keys: 'arrowdown', shown: '↓', does: 'Choose the layer below', act: () => go(-1, false) },
  { keys: 'shift+arrowup', shown: 'Shift ↑', does: 'Choose the layer above as well', act: () => go(1, true) },
  { keys: 'shift+arrowdown', shown: 'Shift ↓', does: 'Choose the layer below as well', act: () => go(-1, true) },
  { keys: 'arrowleft', shown: '←', does: 'Fold the group', act: () => foldChosen(true) },
  { keys: 'arrowright', shown: '→', does: 'Unfold the group', act: () => foldChosen(false) },
];

function foldChosen(isFolded: boolean): void {
  const { group, folded } = useScreen.getState();
  if (group !== null && folded.includes(group) !== isFolded) screen.toggleFolded(group);
}

/** Where a row that is dragged would come to lie. @param box scrolls the rows */
function useRowDrag(rows: readonly StackRow[], box: RefObject<HTMLElement | null>) {
  const [drop, setDrop] = useState<DropPlace | null>(null);
  const end = () => setDrop(null);
  const dragging = {
    onDragMove: ({ activatorEvent, delta }: DragMoveEvent) => {
      if (!box.current || !(activatorEvent instanceof PointerEvent) || !rowAt(activatorEvent.target)) return;
      const { top } = box.current.getBoundingClientRect();
      setDrop(placeAt(rows, activatorEvent.clientY + delta.y - top + box.current.scrollTop - LIST_PADDING));
    },
    onDragEnd: ({ activatorEvent }: DragEndEvent) => {
      const row = rowAt(activatorEvent.target);
      if (drop && row) dropRow(row, drop);
      end();
    },
    onDragCancel: end,
  };
  return { drop, dragging };
}

/** Upper half of a row: above it; lower half: below. The middle of a group is in it. @param y pixels from the top of the first row */
function placeAt(rows: readonly StackRow[], y: number): DropPlace | null {
  const index = Math.min(rows.length - 1, Math.max(0, Math.floor(y / ROW_PIXELS)));
  const row = rows[index];
  if (!row) return null;
  const share = y / ROW_PIXELS - index;
  // Just below the name of an open group is in it.
  const isIn = row.group && share > IN_FROM && (share < IN_TO || !row.isFolded);
  return { row: row.id, side: isIn ? 'in' : share < HALF ? 'above' : 'below' };
}

const [IN_FROM, HALF, IN_TO] = [0.3, 0.5, 0.7];
const LIST_PADDING = 4;

function SearchField({ value, onChange, found }: { value: string; onChange: (text: string) => void; found: number }) {
  return (
    <label className="mx-4 mb-1 flex items-center gap-1.5 border-rule border-b text-quiet focus-within:border-tide">
      <Search size={14} aria-hidden />
      <input
        type="search"
        aria-label="Search the layers"
        placeholder="Search the layers"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="min-w-0 flex-1 bg-transparent py-1 text-ink"
      />
      {value.trim() !== '' && found === 0 && <span className="text-sm">none</span>}
    </label>
  );
}

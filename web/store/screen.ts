// screen.ts — what is the screen's and not the document's: selection, how the view is shown, a place being pointed at.
import { create } from 'zustand';
import type { Point3 } from '../../core/index.ts';

export type Backdrop = 'light' | 'grey' | 'checkered';
export const DIRECTIONS = ['three-quarter', 'front', 'back', 'left', 'right', 'top', 'bottom'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** What can be done by hand to what is chosen, in the view. */
export type Handles = 'move' | 'turn' | 'size';

type Modifiers = Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>;

interface ScreenState {
  readonly selected: readonly string[];
  /** The group that was chosen as a whole: all of its layers are chosen. */
  readonly group: string | null;
  /** Groups of which the layers are not listed. */
  readonly folded: readonly string[];
  /** The layer that was chosen last by itself: ranges begin at it. */
  readonly anchor: string | null;
  /** Layers that are not shown, though they are built and leave in files. */
  readonly hidden: readonly string[];
  /** The layer whose name is being typed. */
  readonly renaming: string | null;
  /** Handles that stand at what is chosen. */
  readonly handles: Handles | null;
  /** Whether something is dragged by its handles. */
  readonly isHandling: boolean;
  /** Each change shows what is chosen turning once. */
  readonly spins: number;
  readonly backdrop: Backdrop;
  readonly wire: boolean;
  /** Whether a checkered picture shows where faces lie on pictures. */
  readonly checker: boolean;
  /** Whether everything is seen in one neutral look, whatever it is made of. */
  readonly plaster: boolean;
  /** Whether what the solids were made from is seen behind them. */
  readonly behind: boolean;
  /** Share of the view that shows the flat outlines, from the left. */
  readonly split: number;
  /** Each change asks the camera to look from `direction` and frame everything. */
  readonly look: { readonly direction: Direction; readonly count: number };
  /** A place to point at, in project units: where a layer was drawn, or in the world. */
  readonly place: { readonly at: Point3; readonly layer?: string | undefined } | null;
}

export const useScreen = create<ScreenState>(() => ({
  selected: [],
  group: null,
  folded: [],
  anchor: null,
  hidden: [],
  renaming: null,
  handles: null,
  isHandling: false,
  spins: 0,
  backdrop: 'grey',
  wire: false,
  checker: false,
  plaster: false,
  behind: false,
  split: 0,
  look: { direction: 'three-quarter', count: 0 },
  place: null,
}));

const { setState: set, getState: get } = useScreen;

export const screen = {
  select: (ids: readonly string[]) => set({ selected: ids, group: null, anchor: ids[0] ?? null }),
  /** @param ids its layers */
  selectGroup: (group: string, ids: readonly string[]) => set({ selected: ids, group, anchor: ids[0] ?? null }),
  toggleFolded(group: string): void {
    const { folded } = get();
    set({ folded: folded.includes(group) ? folded.filter((other) => other !== group) : [...folded, group] });
  },
  toggleSelected(id: string): void {
    const { selected } = get();
    set({
      group: null,
      selected: selected.includes(id) ? selected.filter((other) => other !== id) : [...selected, id],
      anchor: id,
    });
  },
  /** A layer clicked on: alone, or as one more, or one less. */
  click: (id: string, { shiftKey, ctrlKey, metaKey }: Modifiers) =>
    shiftKey || ctrlKey || metaKey ? screen.toggleSelected(id) : screen.select([id]),
  /** From the one chosen last to this one. @param order of the list that is seen */
  selectTo(id: string, order: readonly string[]): void {
    const from = order.indexOf(get().anchor ?? id);
    const to = order.indexOf(id);
    if (from < 0) screen.select([id]);
    else set({ group: null, selected: order.slice(Math.min(from, to), Math.max(from, to) + 1) });
  },
  toggleHidden(ids: readonly string[]): void {
    const { hidden } = get();
    const isAny = ids.some((id) => !hidden.includes(id));
    const others = hidden.filter((id) => !ids.includes(id));
    set({ hidden: isAny ? [...others, ...ids] : others });
  },
  rename: (id: string | null) => set({ renaming: id }),
  /** Of a project that is left nothing stays. */
  leave: () => set({ selected: [], group: null, folded: [], anchor: null, hidden: [], renaming: null, place: null }),
  toggleHandles: (handles: Handles) => set({ handles: get().handles === handles ? null : handles }),
  setHandling: (isHandling: boolean) => set({ isHandling }),
  spin: () => set({ spins: get().spins + 1 }),
  setBackdrop: (backdrop: Backdrop) => set({ backdrop }),
  toggleWire: () => set({ wire: !get().wire }),
  toggleBehind: () => set({ behind: !get().behind }),
  togglePlaster: () => set({ plaster: !get().plaster }),
  toggleChecker: () => set({ checker: !get().checker }),
  setSplit: (split: number) => set({ split: Math.min(1, Math.max(0, split)) }),
  /** Both halves, seen straight from the front so that they line up. */
  divide(): void {
    set({ split: 0.5 });
    screen.lookFrom('front');
  },
  lookFrom: (direction: Direction) => set({ look: { direction, count: get().look.count + 1 } }),
  /** @param layer the one that the place is of, where that may stand elsewhere than it was drawn */
  pointAt: (at: Point3 | null, layer?: string) => set({ place: at && { at, layer } }),
};

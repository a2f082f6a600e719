// screen.ts — what is the screen's and not the document's: selection, how the view is shown, a place being pointed at.
import { create } from 'zustand';
import type { Point3 } from '../../core/index.ts';

export type Ground = 'light' | 'grey' | 'checkered';
export const DIRECTIONS = ['three-quarter', 'front', 'back', 'left', 'right', 'top', 'below'] as const;
export type Direction = (typeof DIRECTIONS)[number];

interface ScreenState {
  readonly selected: readonly string[];
  readonly ground: Ground;
  readonly wire: boolean;
  /** Whether a checkered picture shows where faces lie on pictures. */
  readonly checker: boolean;
  /** Share of the view that shows the flat outlines, from the left. */
  readonly split: number;
  /** Each change asks the camera to look from `direction` and frame everything. */
  readonly look: { readonly direction: Direction; readonly count: number };
  /** A place to point at, in project units. */
  readonly place: Point3 | null;
}

export const useScreen = create<ScreenState>(() => ({
  selected: [],
  ground: 'grey',
  wire: false,
  checker: false,
  split: 0,
  look: { direction: 'three-quarter', count: 0 },
  place: null,
}));

const { setState: set, getState: get } = useScreen;

export const screen = {
  select: (ids: readonly string[]) => set({ selected: ids }),
  toggleSelected(id: string): void {
    const { selected } = get();
    set({ selected: selected.includes(id) ? selected.filter((other) => other !== id) : [...selected, id] });
  },
  setGround: (ground: Ground) => set({ ground }),
  toggleWire: () => set({ wire: !get().wire }),
  toggleChecker: () => set({ checker: !get().checker }),
  setSplit: (split: number) => set({ split: Math.min(1, Math.max(0, split)) }),
  /** Both halves, seen straight from the front so that they line up. */
  divide(): void {
    set({ split: 0.5 });
    screen.lookFrom('front');
  },
  lookFrom: (direction: Direction) => set({ look: { direction, count: get().look.count + 1 } }),
  pointAt: (place: Point3 | null) => set({ place }),
};

// panels.ts — how wide the panels beside the work are, and which are folded away; kept from one visit to the next.
import { create } from 'zustand';

export const PANELS = ['stack', 'station'] as const;
export type PanelName = (typeof PANELS)[number];

export interface PanelState {
  /** Pixels. */
  readonly width: number;
  readonly isFolded: boolean;
}

const KEY = 'outline-stack.panels';
const LEAST = 200;
const MOST = 560;
const START: Record<PanelName, PanelState> = {
  stack: { width: 264, isFolded: false },
  station: { width: 328, isFolded: false },
};

export const usePanels = create<Readonly<Record<PanelName, PanelState>>>(() => ({ ...START, ...kept() }));

function kept(): Partial<typeof START> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}');
  } catch {
    return {};
  }
}

function change(panel: PanelName, part: Partial<PanelState>): void {
  usePanels.setState((state) => ({ [panel]: { ...state[panel], ...part } }));
  localStorage.setItem(KEY, JSON.stringify(usePanels.getState()));
}

export const panels = {
  least: LEAST,
  most: MOST,
  resize: (panel: PanelName, width: number) =>
    change(panel, { width: Math.round(Math.min(MOST, Math.max(LEAST, width))), isFolded: false }),
  fold: (panel: PanelName, isFolded: boolean) => change(panel, { isFolded }),
};

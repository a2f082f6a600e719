// desks.ts — the desk that stations share which look at what is built.
import { FlatView } from '../scene/FlatView.tsx';
import type { Desk } from './kind.ts';

/** Flat and solid, with a divide that can be dragged. */
export const BOTH: Desk = { isDivided: true, flat: FlatView, tools: null };

// snapping.ts — what the pointer snaps to on the outline desk: the pieces of all shapes, fetched from the worker when a tool
// wants them.
import { useEffect, useState } from 'react';
import { heldTo, SnapField, type Snapped, type Source, type Spot } from '../../core/index.ts';
import { snapWishes, useDrawing } from '../store/drawing.ts';
import { type OutlineTool, useOutline } from '../store/outline.ts';
import { useProject } from '../store/project.ts';
import { geometry } from '../worker/client.ts';
import type { Place } from './choosing.ts';

/** Tools under which points snap. */
export const SNAPPING: readonly OutlineTool[] = ['draw', 'points', 'walls', 'measure'];

/** Screen pixels within which something is meant. */
export const SNAP = 7;
/** Directions that Shift holds a line to, in degrees. */
const HELD = 15;

export interface Hand {
  /** Point a line is drawn from; with Shift it is held to round angles. */
  readonly from?: Spot | null;
  readonly level?: readonly Spot[];
  /** Shape that is left out, because it is what is moved. */
  readonly except?: string;
}

export type Snap = (place: Place, event: { shiftKey: boolean; altKey: boolean }, hand?: Hand) => Snapped;

interface Loaded {
  readonly key: string;
  readonly field: SnapField;
}

/**
 * Snapping on the shapes of a source; Alt lets go of it.
 * @param pixel user units in a pixel of the screen
 * @param isWanted whether a tool is in hand that snaps
 */
export function useSnap(source: Source, pixel: number, isWanted: boolean): Snap {
  const key = useOutline((state) => state.view?.key);
  // Wishes are read when they are needed; this draws the view again when they change.
  useDrawing((state) => state.snaps);
  const [loaded, setLoaded] = useState<Loaded | null>(null);
  useEffect(() => {
    const project = useProject.getState().history?.present;
    if (!project || key === undefined || !isWanted) return;
    let isCurrent = true;
    void geometry((api) => api.snapParts(project, source.id)).then((outcome) => {
      if (!isCurrent || !outcome.ok) return;
      setLoaded({ key, field: new SnapField(outcome.value) });
    });
    return () => {
      isCurrent = false;
    };
  }, [key, source.id, isWanted]);
  return ({ x, y }, { shiftKey, altKey }, { from, level, except } = {}) => {
    if (shiftKey && from) return { at: heldTo([x, y], from, HELD), to: 'angle' };
    const isCurrent = loaded?.key === key;
    if (altKey || !isCurrent || !loaded) return { at: [x, y], to: null };
    const index = except === undefined ? -1 : indexOfShape(except);
    return loaded.field.snap([x, y], snapWishes(source), {
      reach: SNAP * pixel,
      from: from ?? null,
      level: level ?? [],
      except: index < 0 ? null : index,
    });
  };
}

const indexOfShape = (shape: string): number =>
  useOutline.getState().view?.shapes.findIndex(({ id }) => id === shape) ?? -1;

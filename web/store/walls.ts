// walls.ts — walls of a plan while they are worked on: found, drawn, moved, and their openings.
import { create } from 'zustand';
import {
  type EditAction,
  MM_PER_UNIT,
  moveNode,
  type Opening,
  type OpeningKind,
  type Plan,
  type Project,
  pieceOf,
  type Source,
  type Spot,
  type Wall,
  type WallLimits,
} from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import type { Outcome } from '../worker/outcome.ts';
import { act, changeEdit, inHand, outline, useOutline } from './outline.ts';
import { useDocument, useProject } from './project.ts';

/** In project units. */
interface Limits {
  readonly thinnest: number;
  readonly thickest: number;
  readonly widest: number;
}

interface WallsState {
  readonly limits: Limits | null;
  /** Of walls made along lines, in project units. */
  readonly thickness: number | null;
  /** Ids of a wall and of an opening. */
  readonly wall: string | null;
  readonly opening: string | null;
  /** What the next click puts into a wall. */
  readonly placing: OpeningKind | null;
  readonly busy: boolean;
}

const START: WallsState = {
  limits: null,
  thickness: null,
  wall: null,
  opening: null,
  placing: null,
  busy: false,
};
export const useWalls = create<WallsState>(() => START);
const { setState: set } = useWalls;

useProject.subscribe(({ id }, before) => {
  if (id !== before.id) set(START);
});

/** Real sizes in millimetres; common practice for dwellings. */
const USUAL = { thinnest: 80, thickest: 500, widest: 2500, thickness: 120 } as const;
const USUAL_OPENING: Record<OpeningKind, { width: number; sill: number; head: number }> = {
  door: { width: 900, sill: 0, head: 2100 },
  window: { width: 1200, sill: 900, head: 2100 },
};

const round = (v: number) => Number(v.toPrecision(6));
const inUnits = (mm: number, { unit }: Pick<Project, 'unit'>) => round(mm / MM_PER_UNIT[unit]);

export const wallLimits = (project: Project, wanted: Limits | null): Limits =>
  wanted ?? {
    thinnest: inUnits(USUAL.thinnest, project),
    thickest: inUnits(USUAL.thickest, project),
    widest: inUnits(USUAL.widest, project),
  };
export const wallThickness = (project: Project, wanted: number | null): number =>
  wanted ?? inUnits(USUAL.thickness, project);

/** Of walls that are drawn, in project units. */
export function useWallThickness(): number {
  const project = useDocument();
  const wanted = useWalls((state) => state.thickness);
  return wallThickness(project, wanted);
}

/** The edit that holds the walls of a source, and its walls; null where it has none. */
export function wallsOf({ edits }: Source): { edit: string; action: Extract<EditAction, { do: 'walls' }> } | null {
  for (const { id, on, action } of [...edits].reverse()) if (on && action.do === 'walls') return { edit: id, action };
  return null;
}

const NO_WALLS: readonly Wall[] = [];
export const listedWalls = (source: Source): readonly Wall[] => wallsOf(source)?.action.walls ?? NO_WALLS;

/** Walls of a plan in place of those there are. */
export function setWalls(source: Source, walls: readonly Wall[], gesture: string | null = null): void {
  const known = wallsOf(source);
  if (known) void changeEdit(known.edit, { ...known.action, walls: [...walls] }, gesture);
  else void act({ do: 'walls', after: [], walls: [...walls], colour: COLOUR }, gesture);
}

const COLOUR = '#4a5058';

const heightsOf = (kind: OpeningKind, project: Project, source: Source) => {
  const { sill, head } = USUAL_OPENING[kind];
  return { sill: inUnits(sill, project) / source.scale, head: inUnits(head, project) / source.scale };
};

/** A wall with all that ends where it does. @param reach within which ends are one */
export function movedWall(walls: readonly Wall[], { points }: Wall, [dx, dy]: Spot, reach: number): readonly Wall[] {
  return points.reduce<readonly Wall[]>((moved, [x, y]) => moveNode(moved, [x, y], [x + dx, y + dy], reach), walls);
}

/** A step of an arrow key, and how near ends are one, as shares of a wall's thickness. */
const STEP_SHARE = 0.1;
const SAME_SHARE = 0.01;

/** Moves the chosen wall, or the chosen opening along it. @param right and down in steps @returns whether there was one */
export function nudgeWall(right: number, down: number): boolean {
  const current = inHand();
  const { wall: chosen, opening: chosenOpening } = useWalls.getState();
  const walls = current ? listedWalls(current.source) : [];
  const wall = walls.find(({ id }) => id === chosen);
  if (!current || !wall || useOutline.getState().tool !== 'walls') return false;
  const step = STEP_SHARE * wall.thickness;
  const opening = wall.openings.find(({ id }) => id === chosenOpening);
  const piece = opening && pieceOf(wall, opening.piece);
  if (opening && piece) {
    const half = Math.min(opening.width, piece.length) / 2;
    const middle = opening.at * piece.length + (right - down) * step;
    const at = Math.min(piece.length - half, Math.max(half, middle)) / piece.length;
    setWalls(current.source, changedOpening(walls, opening.id, { at }));
  } else setWalls(current.source, movedWall(walls, wall, [right * step, down * step], SAME_SHARE * wall.thickness));
  return true;
}

export async function findPlanWalls(): Promise<void> {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const { thinnest, thickest, widest } = wallLimits(project, useWalls.getState().limits);
  const limits: WallLimits = {
    thinnest: thinnest / source.scale,
    thickest: thickest / source.scale,
    widest: widest / source.scale,
    door: heightsOf('door', project, source),
    window: heightsOf('window', project, source),
  };
  const chosen = useOutline.getState().chosen;
  await take(
    () => geometry((api) => api.findWalls(project, source.id, chosen, limits)),
    'No two parallel lines are that far apart; set the thickness of the walls, or the size of the plan first.',
  );
}

export async function wallsAlongChosen(): Promise<void> {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const thickness = wallThickness(project, useWalls.getState().thickness) / source.scale;
  const chosen = useOutline.getState().chosen;
  await take(() => geometry((api) => api.wallsAlong(project, source.id, chosen, thickness)), 'No line is chosen.');
}

async function take(ask: () => Promise<Outcome<Plan>>, nothing: string): Promise<void> {
  set({ busy: true });
  const outcome = await ask();
  set({ busy: false });
  const current = inHand();
  if (!outcome.ok || !current) {
    outline.set({ failure: outcome.ok ? null : outcome.error.message });
    return;
  }
  const { walls, replaced } = outcome.value;
  if (walls.length === 0) {
    outline.set({ failure: nothing });
    return;
  }
  outline.choose([]);
  await act({ do: 'walls', after: [...replaced], walls: [...walls], colour: COLOUR });
}

/** A number that no wall or opening has yet. */
export function freshId(walls: readonly Wall[], what: 'wall' | 'opening'): string {
  const taken = new Set(walls.flatMap(({ id, openings }) => [id, ...openings.map((opening) => opening.id)]));
  let n = walls.length + 1;
  while (taken.has(`${what}-${n}`)) n++;
  return `${what}-${n}`;
}

export const changedWall = (walls: readonly Wall[], id: string, change: (wall: Wall) => Wall): Wall[] =>
  walls.map((wall) => (wall.id === id ? change(wall) : wall));

export const changedOpening = (walls: readonly Wall[], id: string, change: Partial<Opening>): Wall[] =>
  walls.map((wall) => ({
    ...wall,
    openings: wall.openings.map((opening) => (opening.id === id ? { ...opening, ...change } : opening)),
  }));

/** An opening of its usual size put into a wall. @returns the walls with it, and its id */
export function withOpening(
  walls: readonly Wall[],
  kind: OpeningKind,
  place: { readonly wall: string; readonly piece: number; readonly at: number },
): { walls: Wall[]; id: string } | null {
  const current = inHand();
  if (!current) return null;
  const { project, source } = current;
  const id = freshId(walls, 'opening');
  const width = inUnits(USUAL_OPENING[kind].width, project) / source.scale;
  const opening: Opening = { id, kind, piece: place.piece, at: place.at, width, ...heightsOf(kind, project, source) };
  return {
    id,
    walls: changedWall(walls, place.wall, (wall) => ({ ...wall, openings: [...wall.openings, opening] })),
  };
}

/** Removes the chosen opening, or else the chosen wall. @returns whether there was one */
export function removeChosenWall(): boolean {
  const { wall, opening } = useWalls.getState();
  const source = useOutline.getState().tool === 'walls' ? inHand()?.source : undefined;
  if (!source || (wall === null && opening === null)) return false;
  const walls = listedWalls(source);
  set({ wall: null, opening: null });
  setWalls(
    source,
    opening === null
      ? walls.filter(({ id }) => id !== wall)
      : walls.map((each) => ({ ...each, openings: each.openings.filter(({ id }) => id !== opening) })),
  );
  return true;
}

export const walls = { set: (change: Partial<WallsState>) => set(change) };

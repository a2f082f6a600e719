// drawing.ts — the pen: what it draws, the line that is on its way, and what points under the hand snap to.
import { create } from 'zustand';
import {
  type Edit,
  linesOf,
  lineToContinue,
  type Path,
  type PathLine,
  parsePath,
  pathOfLines,
  printPath,
  roundStroke,
  type SnapWishes,
  type Source,
  type Spot,
  wallsAlong,
  withCorner,
  withPull,
} from '../../core/index.ts';
import { act, commitLines, DIGITS, inHand, useOutline, workOn } from './outline.ts';
import { useProject } from './project.ts';
import { freshId, listedWalls, setWalls, useWalls, wallThickness } from './walls.ts';

export const FIGURES = ['line', 'rectangle', 'ellipse', 'wall'] as const;
export type Figure = (typeof FIGURES)[number];

/** Lengths in project units. */
export interface Snaps extends Omit<SnapWishes, 'grid'> {
  readonly grid: number | null;
}

interface DrawingState {
  readonly figure: Figure;
  /** Whether what is closed is filled; if not, it is a line as wide as the pen. Open lines always are. */
  readonly isFilled: boolean;
  /** Of the pen, in project units; null for one that suits the source. */
  readonly width: number | null;
  readonly colour: string;
  readonly snaps: Snaps;
  /** The line on its way. */
  readonly line: PathLine;
  /** The open line of a shape that it goes on from: the shape, and the number of the line in it. */
  readonly continues: { readonly shape: string; readonly index: number } | null;
  /** What was measured last. */
  readonly measured: { readonly from: Spot; readonly to: Spot } | null;
}

const NO_LINE: PathLine = { points: [], isClosed: false };

export const useDrawing = create<DrawingState>(() => ({
  figure: 'line',
  isFilled: true,
  width: null,
  colour: '#2f6f60',
  snaps: { points: true, edges: true, alignment: true, grid: null, angle: null },
  line: NO_LINE,
  continues: null,
  measured: null,
}));
const { setState: set, getState: get } = useDrawing;

/** Ids given to shapes that were drawn here; the view knows them a moment later. */
const given = new Set<string>();

useProject.subscribe(({ id }, before) => {
  if (id === before.id) return;
  given.clear();
  set({ line: NO_LINE, continues: null, measured: null, width: null });
});
useOutline.subscribe(({ tool, source }, before) => {
  if (source !== before.source) set({ line: NO_LINE, continues: null, measured: null, width: null });
  // What was drawn so far is kept when another tool is taken up.
  else if (tool !== before.tool) finishLine();
});

/** Share of the sheet that a pen is wide at first. */
const PEN_SHARE = 0.02;

/** A round share of the longer side of what is worked on, in project units. */
export function shareOfSheet(source: Source, share: number): number {
  const sheet = useOutline.getState().view?.sheet;
  const size = sheet ? Math.max(sheet.width, sheet.height) * source.scale : 100;
  return Number((size * share).toPrecision(1));
}

export const penWidth = (source: Source, width = get().width): number => width ?? shareOfSheet(source, PEN_SHARE);

/** What is wished for, in user units of the source. */
export function snapWishes(source: Source): SnapWishes {
  const { grid, ...wishes } = get().snaps;
  return { ...wishes, grid: grid === null ? null : { width: grid / source.scale, through: source.origin } };
}

export const drawing = {
  set: (change: Partial<Omit<DrawingState, 'line' | 'continues'>>) => set(change),
  snap: (change: Partial<Snaps>) => set({ snaps: { ...get().snaps, ...change } }),

  /**
   * The pen put down at a place: a line begun, gone on with or closed.
   * @param reach within which an end is meant
   * @returns whether the line goes on and its new point can be pulled
   */
  press(source: Source, at: Spot, reach: number): boolean {
    const { line } = get();
    const [first] = line.points;
    const isEnd = (spot: Spot) => Math.hypot(spot[0] - at[0], spot[1] - at[1]) <= reach;
    if (!first) {
      set(begun(at, reach));
      return true;
    }
    if (line.points.length > 1 && isEnd(first.at)) {
      set({ line: { ...line, isClosed: true } });
      finishLine(source);
      return false;
    }
    // The same place twice ends the line.
    if (isEnd(line.points.at(-1)!.at)) {
      finishLine(source);
      return false;
    }
    set({ line: withCorner(line, at) });
    return true;
  },
  /** @param isBroken the handle behind the point stays as it is */
  pull: (out: Spot, isBroken: boolean) => set({ line: withPull(get().line, out, isBroken) }),
  /** A figure dragged out. */
  figure: (source: Source, path: Path) => void draw(source, path, true),
};

/** A new line, or one of a shape in view that ends there. */
function begun(at: Spot, reach: number): Pick<DrawingState, 'line' | 'continues'> {
  for (const shape of useOutline.getState().view?.shapes ?? []) {
    const found = shape.stroke && get().figure === 'line' ? lineToContinue(parsePath(shape.d).path, at, reach) : null;
    if (found) return { line: found.line, continues: { shape: shape.id, index: found.index } };
  }
  return { line: withCorner(NO_LINE, at), continues: null };
}

/** Ends the line that is on its way, and keeps it where it has a length. @returns whether there was one */
export function finishLine(source = inHand()?.source): boolean {
  const { line, continues } = get();
  if (line.points.length === 0) return false;
  set({ line: NO_LINE, continues: null });
  if (!source || line.points.length < 2) return true;
  const shape = continues && useOutline.getState().view?.shapes.find(({ id }) => id === continues.shape);
  if (shape) {
    const lines = linesOf(parsePath(shape.d).path).map((other, i) => (i === continues.index ? line : other));
    void commitLines(shape.id, lines);
  } else if (get().figure === 'wall') drawWall(source, line);
  else void draw(source, pathOfLines([line]), line.isClosed);
  return true;
}

/** Takes the last point back. @returns whether there was one */
export function takePointBack(): boolean {
  const { line } = get();
  if (line.points.length === 0) return false;
  set({ line: { ...line, points: line.points.slice(0, -1) } });
  return true;
}

function drawWall(source: Source, line: PathLine): void {
  const { present } = useProject.getState().history!;
  const thickness = wallThickness(present, useWalls.getState().thickness) / source.scale;
  const known = listedWalls(source);
  const [wall] = wallsAlong([pathOfLines([line])], thickness);
  if (wall) setWalls(source, [...known, { ...wall, id: freshId(known, 'wall') }]);
}

function draw(source: Source, path: Path, isClosed: boolean): Promise<void> {
  const { isFilled, colour, figure } = get();
  const taken = new Set([...idsDrawn(source.edits), ...given]);
  let n = taken.size + 1;
  while (taken.has(`drawn-${n}`)) n++;
  given.add(`drawn-${n}`);
  const pen = roundStroke(penWidth(source) / source.scale);
  const stroke = isClosed && isFilled ? null : { ...pen, dashes: [], join: figure === 'line' ? pen.join : 'mitre' };
  return act({
    do: 'draw',
    shapes: [{ id: `drawn-${n}`, name: `${figure} ${n}`, d: printPath(path, DIGITS), colour, stroke }],
  });
}

const idsDrawn = (edits: readonly Edit[]): string[] =>
  edits.flatMap(({ action }) => (action.do === 'draw' ? action.shapes.map(({ id }) => id) : []));

/** Ids of the shapes of a source that were drawn by hand, where the drawing is on. */
export const drawnShapes = ({ edits }: Source): string[] => idsDrawn(edits.filter(({ on }) => on));

/** Takes the pen up over a source. */
export function drawOn(source: string): void {
  workOn(source);
  useOutline.setState({ tool: 'draw' });
}

// outline.ts — the outlines of one source while they are worked on: what is chosen and hidden, what the check found, and
// edits on their way through the worker into the document.
import * as Comlink from 'comlink';
import { create } from 'zustand';
import type { Face, OutlineView, Preview } from '../../core/index.ts';
import {
  type Edit,
  type EditAction,
  type Finding,
  type FindingKind,
  type Layer,
  layersOfMarks,
  linesOf,
  type Matrix,
  moveMembers,
  movePoints,
  multiply,
  type Order,
  type PathLine,
  type Project,
  parsePath,
  pathOfLines,
  printPath,
  removePoints,
  type Sorting,
  type Source,
} from '../../core/index.ts';
import { geometry, stopGeometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';
import { useScreen } from './screen.ts';

export type ChooseBy = 'box' | 'lasso';
/** What a drag or a click in the view is for. */
export type OutlineTool = 'choose' | 'points' | 'split' | 'faces' | 'draw' | 'walls' | 'measure';

interface OutlineState {
  /** The source that is worked on; null takes that of the chosen layer, else the first. */
  readonly source: string | null;
  readonly view: OutlineView | null;
  readonly findings: readonly Finding[] | null;
  /** Ids of shapes. */
  readonly chosen: readonly string[];
  readonly hidden: readonly string[];
  /** Only these are shown; null for all. */
  readonly isolated: readonly string[] | null;
  readonly tool: OutlineTool;
  readonly chooseBy: ChooseBy;
  /** Faces between the chosen lines, and which of them are to be filled, while that is the tool. */
  readonly faces: readonly Face[];
  readonly picked: readonly number[];
  /** Chosen points of the first chosen shape, while points are the tool: line and number in it. */
  readonly points: readonly string[];
  /** Points whose handles move each by itself, by the same keys. */
  readonly free: readonly string[];
  /** How far layers are pulled apart to look between them, 0 to 1; nothing of it is kept. */
  readonly apart: number;
  /** The finding that is pointed at, and which of its places. */
  readonly pointed: { readonly kind: FindingKind; readonly place: number } | null;
  /** What an action would do, while it is pointed at. */
  readonly preview: Preview | null;
  readonly busy: boolean;
  /** Share done, once it takes long enough to say so. */
  readonly progress: number | null;
  /** What the last edit did, or why it could not. */
  readonly said: string | null;
  readonly failure: string | null;
}

const START: OutlineState = {
  source: null,
  view: null,
  findings: null,
  chosen: [],
  hidden: [],
  isolated: null,
  tool: 'choose',
  chooseBy: 'box',
  faces: [],
  picked: [],
  points: [],
  free: [],
  apart: 0,
  pointed: null,
  preview: null,
  busy: false,
  progress: null,
  said: null,
  failure: null,
};

export const useOutline = create<OutlineState>(() => START);
const { setState: set, getState: get } = useOutline;

const SLOW_MS = 200;
/** The check waits for a pause. */
const CHECK_DELAY_MS = 350;

/** The source that is worked on. */
export function outlineSource(project: Project, selected = useScreen.getState().selected): Source | null {
  const ofLayer = project.layers.find(({ id }) => selected.includes(id))?.source;
  const wanted = get().source ?? ofLayer;
  const sources = outlined(project);
  return sources.find(({ id }) => id === wanted) ?? sources[0] ?? null;
}

/** Meshes that were brought in have no outlines. */
export const outlined = ({ sources }: Project): Source[] => sources.filter(({ kind }) => kind !== 'mesh');

/** The open document and the source in it that is worked on; null where there is none. */
export function inHand(): { project: Project; source: Source } | null {
  const project = useProject.getState().history?.present;
  const source = project && outlineSource(project);
  return source ? { project, source } : null;
}

// --- the view and the check follow the document ---------------------------------------------------------------------

let isWatched = false;
/** Whether outlines are being worked on. */
export const isOutlining = (): boolean => isWatched;
let checkTimer: ReturnType<typeof setTimeout> | undefined;

/** While the station is open, what it shows follows the document. @returns the end of it */
export function watchOutlines(): () => void {
  isWatched = true;
  set({ view: null, findings: null });
  void refresh();
  const endOfDocument = useProject.subscribe(({ history }, before) => {
    if (history?.present !== before.history?.present) void refresh();
  });
  // Choosing a layer of another source turns to that.
  const endOfScreen = useScreen.subscribe(({ selected }, before) => {
    const project = useProject.getState().history?.present;
    const layer = project?.layers.find(({ id }) => selected.includes(id));
    if (selected === before.selected || !project || !layer) return;
    if (layer.source !== outlineSource(project, before.selected)?.id) workOn(layer.source);
  });
  return () => {
    isWatched = false;
    clearTimeout(checkTimer);
    endOfDocument();
    endOfScreen();
  };
}

useProject.subscribe(({ id }, before) => {
  if (id !== before.id) set(START);
});

let refreshing: Promise<void> | null = null;

/** Never two at a time; the newest document last. */
async function refresh(): Promise<void> {
  if (refreshing) return;
  for (let shown: Project | null = null; isWatched; ) {
    const project = useProject.getState().history?.present ?? null;
    if (!project || project === shown) break;
    refreshing = show(project);
    await refreshing;
    shown = project;
  }
  refreshing = null;
}

async function show(project: Project): Promise<void> {
  const source = outlineSource(project);
  if (!source) return;
  const outcome = await geometry((api) => api.outlineView(project, source.id, get().view?.key ?? null));
  if (!isWatched) return;
  if (!outcome.ok) set({ failure: outcome.error.message });
  else if (outcome.value) {
    const there = new Set(outcome.value.shapes.map(({ id }) => id));
    set({ view: outcome.value, chosen: get().chosen.filter((id) => there.has(id)), preview: null });
  }
  clearTimeout(checkTimer);
  checkTimer = setTimeout(() => void check(project, source.id), CHECK_DELAY_MS);
}

async function check(project: Project, source: string): Promise<void> {
  const outcome = await geometry((api) => api.check(project, source, quiet));
  if (!isWatched || useProject.getState().history?.present !== project) return;
  if (outcome.ok) set({ findings: outcome.value, pointed: null });
}

const quiet = Comlink.proxy(() => {});

export function workOn(source: string): void {
  set({ source, view: null, findings: null, chosen: [], hidden: [], isolated: null, pointed: null, preview: null });
  void refreshAgain();
}

async function refreshAgain(): Promise<void> {
  await refreshing;
  refreshing = null;
  const project = useProject.getState().history?.present;
  if (project) await show(project);
}

// --- edits ----------------------------------------------------------------------------------------------------------

/** Adds an edit to the source; one that only goes on with the last one takes its place. */
export function act(action: EditAction, gesture: string | null = null): Promise<void> {
  return changeEdits((edits) => {
    const last = edits.at(-1);
    const joint = last?.on ? joined(last.action, action) : null;
    return joint
      ? [...edits.slice(0, -1), { ...last!, action: joint }]
      : [...edits, { id: newEditId(edits), on: true, action }];
  }, gesture);
}

/** Two actions as one: the newer path of a shape, or all that was drawn in a row; null where they stay two. */
function joined(last: EditAction, next: EditAction): EditAction | null {
  if (last.do === 'path' && next.do === 'path' && last.shape === next.shape) return next;
  if (last.do === 'draw' && next.do === 'draw') return { ...next, shapes: [...last.shapes, ...next.shapes] };
  if (last.do === 'move' && next.do === 'move' && last.shapes.join() === next.shapes.join()) {
    return { ...next, matrix: [...multiply(next.matrix, last.matrix)] };
  }
  if (last.do === 'restyle' && next.do === 'restyle' && last.shapes.join() === next.shapes.join()) {
    return { ...last, ...next };
  }
  return null;
}

/** Another action for an edit that is there. */
export const changeEdit = (id: string, action: EditAction, gesture: string | null = null): Promise<void> =>
  changeEdits((edits) => edits.map((edit) => (edit.id === id ? { ...edit, action } : edit)), gesture);

/** Adds several, one after the other, as one change. */
export const actAll = (actions: readonly EditAction[]): Promise<void> =>
  changeEdits((edits) => {
    const all = [...edits];
    for (const action of actions) all.push({ id: newEditId(all), on: true, action });
    return all;
  });

export const switchEdit = (id: string): Promise<void> =>
  changeEdits((edits) => edits.map((edit) => (edit.id === id ? { ...edit, on: !edit.on } : edit)));

export const dropEdit = (id: string): Promise<void> => changeEdits((edits) => edits.filter((edit) => edit.id !== id));

function newEditId(edits: readonly Edit[]): string {
  const taken = new Set(edits.map(({ id }) => id));
  let n = edits.length + 1;
  while (taken.has(`edit-${n}`)) n++;
  return `edit-${n}`;
}

/** Actions that make shapes of nothing. */
const DRAWN: readonly string[] = ['draw', 'walls', 'faces'];

/** Edits wait for each other: each is made of what the one before left. */
let queue: Promise<void> = Promise.resolve();

function changeEdits(
  change: (edits: readonly Edit[]) => readonly Edit[],
  gesture: string | null = null,
): Promise<void> {
  queue = queue.then(() => edit(change, gesture));
  return queue;
}

async function edit(change: (edits: readonly Edit[]) => readonly Edit[], gesture: string | null): Promise<void> {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const edits = change(source.edits);
  const { selected } = useScreen.getState();
  // What is drawn goes by its colour, not into the layer that happens to be chosen.
  const isDrawn = DRAWN.includes(edits.at(-1)?.action.do ?? '');
  const target = isDrawn
    ? null
    : (project.layers.find(({ id, source: of }) => selected.includes(id) && of === source.id)?.id ?? null);
  const started = performance.now();
  const report = Comlink.proxy((share: number) => {
    if (performance.now() - started > SLOW_MS) set({ progress: share });
  });
  set({ busy: true, failure: null, preview: null });
  const outcome = await geometry((api) => api.edit(project, source.id, edits, target, report));
  set({ busy: false, progress: null });
  if (!outcome.ok) {
    set({ failure: outcome.error.message, said: null });
    return;
  }
  // Undone or changed meanwhile: what came out would overwrite that.
  if (useProject.getState().history?.present !== project) return;
  const { source: edited, layers, gone, outcomes } = outcome.value;
  const isNew = edits.length > source.edits.length;
  const last = outcomes.at(-1);
  // What changes nothing is no edit.
  if (isNew && last && !last.isDone) {
    set({ said: `Nothing was changed: ${last.said}.` });
    return;
  }
  dispatch({ do: 'change-source', source: edited, layers: [...layers], gone: [...gone] }, gesture);
  set({ said: isNew ? (last?.said ?? null) : null });
}

// --- placing --------------------------------------------------------------------------------------------------------

/** Moves, turns, scales or mirrors the chosen shapes; several in a row are one edit. */
export const place = (matrix: Matrix): Promise<void> =>
  act({ do: 'move', shapes: inOrder(get().chosen), matrix: [...matrix] });

/** Copies of the chosen shapes, which are chosen from then on. */
export async function copyChosen(matrix: Matrix): Promise<void> {
  const shapes = inOrder(get().chosen);
  if (shapes.length === 0) return;
  await act({ do: 'copy', shapes, matrix: [...matrix] });
  await chooseMadeBy((edit) => shapes.map((id) => `${id}/${edit}`));
}

/** Copies lie this share of the longest side of the sheet beside what they are of. */
export const BESIDE_SHARE = 0.02;

export function copyBeside(): Promise<void> {
  const { sheet } = get().view ?? {};
  const by = sheet ? BESIDE_SHARE * Math.max(sheet.width, sheet.height) : 0;
  return copyChosen([1, 0, 0, 1, by, by]);
}

export const reorder = (to: Order): Promise<void> => act({ do: 'order', shapes: inOrder(get().chosen), to });

/** Chooses what the last edit made, once it is shown. */
async function chooseMadeBy(ids: (edit: string) => string[]): Promise<void> {
  const edit = inHand()?.source.edits.at(-1)?.id;
  if (!edit) return;
  const made = ids(edit);
  await refreshAgain();
  const there = new Set(get().view?.shapes.map(({ id }) => id));
  outline.choose(made.filter((id) => there.has(id)));
}

/** From back to front. */
export function inOrder(ids: readonly string[]): string[] {
  const wanted = new Set(ids);
  return (get().view?.shapes ?? []).flatMap(({ id }) => (wanted.has(id) ? [id] : []));
}

/** A step of an arrow key, as a share of the longest side of the sheet. */
const NUDGE_SHARE = 1 / 1000;

/** @param right and down in steps @returns whether there was something to be moved */
export function nudge(right: number, down: number): boolean {
  const { chosen, tool, view, points } = get();
  if (!isWatched || !view) return false;
  const step = Number((NUDGE_SHARE * Math.max(view.sheet.width, view.sheet.height)).toPrecision(1));
  if (tool === 'points' && points.length > 0) {
    changePoints((line, which) => movePoints(line, which, right * step, down * step));
    return true;
  }
  if (chosen.length === 0 || tool !== 'choose') return false;
  void place([1, 0, 0, 1, right * step, down * step]);
  return true;
}

/** Takes up a tool; the same again puts it down. */
export async function takeTool(tool: OutlineTool): Promise<void> {
  const next = get().tool === tool ? 'choose' : tool;
  set({ tool: next, faces: [], picked: [], points: [], free: [], failure: null });
  const current = inHand();
  if (next !== 'faces' || !current) return;
  const { project, source } = current;
  const outcome = await geometry((api) => api.faces(project, source.id, get().chosen));
  if (get().tool !== 'faces') return;
  if (!outcome.ok) set({ failure: outcome.error.message });
  else if (outcome.value.length > 0) set({ faces: outcome.value });
  else set({ failure: 'The chosen lines enclose nothing; close their gaps first.', tool: 'choose' });
}

/** Puts the tool down, or else chooses nothing. */
export function putDown(): void {
  if (get().tool !== 'choose') void takeTool('choose');
  else set({ chosen: [], pointed: null });
}

/** What a chosen point is known by. */
export const pointKey = (line: number, index: number) => `${line}:${index}`;

/** Points by line, of keys. */
export function pointsByLine(keys: readonly string[]): Map<number, Set<number>> {
  const byLine = new Map<number, Set<number>>();
  for (const key of keys) {
    const [line, index] = key.split(':').map(Number) as [number, number];
    byLine.set(line, (byLine.get(line) ?? new Set()).add(index));
  }
  return byLine;
}

/** Another path for a shape, from its points. A shape without points is taken away. */
export function commitLines(shape: string, lines: readonly PathLine[]): Promise<void> {
  const d = printPath(pathOfLines(lines), DIGITS);
  return act(d === '' ? { do: 'remove', shapes: [shape] } : { do: 'path', shape, d });
}

/** Decimals of coordinates in the document. */
export const DIGITS = 6;

/** Changes the lines with chosen points; a line that is left without points goes. */
export function changePoints(change: (line: PathLine, which: ReadonlySet<number>) => PathLine): void {
  const { chosen, points, view } = get();
  const shape = view?.shapes.find(({ id }) => id === chosen[0]);
  if (!shape || points.length === 0) return;
  const byLine = pointsByLine(points);
  const lines = linesOf(parsePath(shape.d).path).map((line, i) => {
    const which = byLine.get(i);
    return which ? change(line, which) : line;
  });
  void commitLines(
    shape.id,
    lines.filter((line) => line.points.length > 0),
  );
}

/** Removes the chosen points, or else the chosen shapes, where outlines are being worked on. */
export function removeChosen(): void {
  const { chosen, tool } = get();
  if (!isWatched || chosen.length === 0) return;
  if (tool === 'points') {
    changePoints(removePoints);
    set({ points: [] });
  } else void act({ do: 'remove', shapes: [...chosen] });
}

/** Fills the faces that were picked. */
export async function fillPicked(colour: string, keepsLines: boolean): Promise<void> {
  const { faces, picked, chosen } = get();
  const places = picked.map((i): [number, number] => [...faces[i]!.place]);
  set({ tool: 'choose', faces: [], picked: [] });
  if (places.length > 0) await act({ do: 'faces', shapes: [...chosen], places, colour, keepsLines });
}

/** Bodies and small marks as two shapes, and two layers: the marks get one of their own. */
export async function separateMarks(shapes: readonly string[]): Promise<void> {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const limit = await geometry((api) => api.smallParts(project, source.id, shapes));
  if (!limit.ok || limit.value === null) {
    set({
      failure: limit.ok ? 'These shapes have no parts that are clearly smaller than the rest.' : limit.error.message,
    });
    return;
  }
  // One step to undo: the edit, and the layer that the marks get.
  const gesture = `separate ${performance.now()}`;
  await act({ do: 'separate', shapes: [...shapes], below: limit.value }, gesture);
  const after = useProject.getState().history?.present;
  const edited = after?.sources.find(({ id }) => id === source.id);
  const edit = edited?.edits.at(-1)?.id;
  if (!after || !edited || !edit) return;
  const layers = layersOfMarks(after, source.id, edit, () => crypto.randomUUID());
  if (layers.length > 0) dispatch({ do: 'change-source', source: edited, layers }, gesture);
}

/** Chooses whatever hangs together with what is chosen. */
export async function chooseConnected(): Promise<void> {
  const current = inHand();
  if (!current) return;
  const outcome = await geometry((api) => api.connected(current.project, current.source.id, get().chosen));
  if (outcome.ok) outline.choose(outcome.value);
  else set({ failure: outcome.error.message });
}

/** Sorts shapes into layers of their own, by colour or by nesting. */
export async function sortShapes(shapes: readonly string[], by: Sorting): Promise<void> {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const outcome = await geometry((api) => api.sortIntoLayers(project, source.id, shapes, by));
  if (!outcome.ok) set({ failure: outcome.error.message });
  else if (useProject.getState().history?.present === project) {
    const { layers, gone } = outcome.value;
    dispatch({ do: 'change-source', source, layers, gone });
  }
}

/** Moves shapes into another layer of their source; null makes one for them, built like the first one's. */
export function moveTo(shapes: readonly string[], target: string | null): void {
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const home = project.layers.find(({ members }) => members.includes(shapes[0]!));
  const id = target ?? crypto.randomUUID();
  const fresh =
    target === null && home
      ? { ...home, id, name: `${home.name} apart`.slice(0, 120), members: [], skipped: [] }
      : null;
  const layers = moveMembers(fresh ? { ...project, layers: [...project.layers, fresh] } : project, shapes, id);
  const gone = layers.filter(({ members }) => members.length === 0).map((layer) => layer.id);
  dispatch({ do: 'change-source', source, layers: layers.filter((layer) => !gone.includes(layer.id)), gone });
}

/** Stops an edit that takes too long; the outlines stay as they were. */
export const cancelEdit = stopGeometry;

let previews = 0;

/** Shows what an action would do; null shows nothing. */
export async function showPreview(action: EditAction | null): Promise<void> {
  const number = ++previews;
  if (!action) {
    set({ preview: null });
    return;
  }
  const current = inHand();
  if (!current) return;
  const { project, source } = current;
  const outcome = await geometry((api) => api.preview(project, source.id, action));
  if (number === previews && outcome.ok) set({ preview: outcome.value });
}

/** Keeps a shape out of the build, or takes it in again. */
export function toggleShape(layer: Layer, shape: string): void {
  const skipped = layer.skipped.includes(shape)
    ? layer.skipped.filter((id) => id !== shape)
    : [...layer.skipped, shape];
  dispatch({ do: 'change-layers', layers: [layer.id], change: { skipped } });
}

/** Shapes that are shown: neither hidden nor outside of what was isolated. */
export function isVisible(id: string, { hidden, isolated }: Pick<OutlineState, 'hidden' | 'isolated'>): boolean {
  return !hidden.includes(id) && (isolated === null || isolated.includes(id));
}

export const outline = {
  pick(face: number): void {
    const { picked } = get();
    set({ picked: picked.includes(face) ? picked.filter((other) => other !== face) : [...picked, face] });
  },
  set: (change: Partial<OutlineState>) => set(change),
  choose: (ids: readonly string[]) => set({ chosen: [...new Set(ids)], said: null }),
  add: (ids: readonly string[]) => set({ chosen: [...new Set([...get().chosen, ...ids])] }),
  toggle(id: string): void {
    const { chosen } = get();
    set({ chosen: chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id] });
  },
};

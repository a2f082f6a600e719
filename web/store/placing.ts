// placing.ts — where layers and groups stand: values that are set, and actions that set them. What is known of the things, such as
// their middles, comes from the last build.
import {
  type Axis,
  about,
  anglesOf,
  type BuildView,
  type Copies,
  groupsAbove,
  isMirroring,
  type Layer,
  MIRROR,
  type Middle,
  moved,
  type PlacedView,
  type Placement,
  type Point,
  type Project,
  product,
  type Rigid,
  rigidOf,
  shift,
  turnAbout,
  UNPLACED,
  undone,
  withoutShift,
} from '../../core/index.ts';
import { useBuild } from './build.ts';
import { dispatch, useProject } from './project.ts';

/** What is placed: the chosen group, else the chosen layers. */
export interface Thing {
  readonly id: string;
  readonly name: string;
  readonly placement: Placement;
}

export function chosenThings(project: Project, selected: readonly string[], group: string | null): Thing[] {
  const of = ({ id, name, placement = UNPLACED }: { id: string; name: string; placement?: Placement | undefined }) => ({
    id,
    name,
    placement,
  });
  const chosenGroup = project.groups?.find(({ id }) => id === group);
  if (chosenGroup) return [of(chosenGroup)];
  return project.layers.filter(({ id }) => selected.includes(id)).map(of);
}

const now = () => ({ project: useProject.getState().history?.present ?? null, view: useBuild.getState().view });

const middleIn = (placed: PlacedView, middle: Middle): Point =>
  typeof middle === 'string' ? placed.middles[middle] : middle;

/** The placement by which something stands at `rigid` in its group. */
function placementAt(before: Placement, rigid: Rigid, middle: Point): Placement {
  const isMirrored = isMirroring(rigid);
  const turning = withoutShift(isMirrored ? product(rigid, MIRROR) : rigid);
  const at = moved(rigid, middle);
  return {
    ...before,
    isMirrored,
    turn: anglesOf(turning).map(tidyAngle) as unknown as Placement['turn'],
    move: at.map((v, k) => tidyLength(v - middle[k]!)) as unknown as Placement['move'],
  };
}

/** Angles and lengths without the last digits of rounding. */
const tidyAngle = (v: number) => Math.round(v * 1e9) / 1e9 + 0;
const tidyLength = (v: number) => Number(v.toPrecision(12)) + 0;

const NOT_BUILT = 'It is still being built; try again in a moment.';

/**
 * Gives each of the things another placement.
 * @param to null where it hangs on what is not built yet
 * @param gesture of a drag, so that it undoes as one
 */
export function place(
  things: readonly Thing[],
  to: (thing: Thing, placed: PlacedView | undefined) => Placement | null,
  gesture: string | null = null,
): void {
  const { view } = now();
  const places = things.flatMap((thing) => {
    const placement = to(thing, view?.placed[thing.id]);
    return placement ? [{ id: thing.id, placement }] : [];
  });
  if (places.length > 0) dispatch({ do: 'place', places }, gesture);
  else useProject.setState({ refusal: NOT_BUILT });
}

export const unplace = (things: readonly Thing[]) =>
  dispatch({ do: 'place', places: things.map(({ id }) => ({ id, placement: null })) });

/** Where the things stand together, in the world: the first one's middle, or that of all their boxes. */
export function pivotOf(things: readonly Thing[], view: BuildView): Point | null {
  const [first, ...others] = things;
  if (!first || !view.placed[first.id]) return null;
  if (others.length === 0) {
    const { middle } = first.placement;
    return moved(view.placed[first.id]!.places[0]!, middleIn(view.placed[first.id]!, middle));
  }
  const boxes = things.flatMap(({ id }) => view.placed[id]?.box ?? []);
  if (boxes.length === 0) return null;
  const mid = (k: 0 | 1 | 2) =>
    (Math.min(...boxes.map(({ min }) => min[k])) + Math.max(...boxes.map(({ max }) => max[k]))) / 2;
  return [mid(0), mid(1), mid(2)];
}

/** Moves everything that is chosen by one move in the world. @param from where things stood when a drag began */
export function moveBy(
  things: readonly Thing[],
  move: Rigid,
  gesture: string | null = null,
  from: readonly Thing[] = things,
): void {
  place(
    things,
    (thing, placed) => {
      if (!placed) return null;
      const { outer } = placed;
      const { placement } = from.find(({ id }) => id === thing.id) ?? thing;
      const middle = middleIn(placed, placement.middle);
      const stood = product(outer, rigidOf(placement, middle));
      return placementAt(placement, product(undone(outer), product(move, stood)), middle);
    },
    gesture,
  );
}

/** Turns each thing about an axis through its own middle. */
export function turnEach(things: readonly Thing[], axis: Axis, degrees: number, by: 'own' | 'world'): void {
  place(things, ({ placement }, placed) => {
    if (!placed) return null;
    const middle = middleIn(placed, placement.middle);
    const stood = rigidOf(placement, middle);
    const turning = turnAbout(axis, degrees);
    const own = withoutShift(by === 'own' ? stood : undone(placed.outer));
    const axisTurn = product(own, product(turning, undone(own)));
    return placementAt(placement, product(about(moved(stood, middle), axisTurn), stood), middle);
  });
}

/** Another point to turn about; things stay where they are. */
export function setMiddle(things: readonly Thing[], middle: Middle): void {
  place(things, ({ placement }, placed) => {
    if (!placed) return null;
    const stood = rigidOf(placement, middleIn(placed, placement.middle));
    return { ...placementAt(placement, stood, middleIn(placed, middle)), middle };
  });
}

export const STANCES = ['upright', 'flat', 'front'] as const;
export type Stance = (typeof STANCES)[number];

/** Standing straight, whichever way it looks; lying on its back; looking to the front, however it is rolled. */
const STANCE_TURNS: Record<Stance, (turn: Placement['turn']) => Placement['turn']> = {
  upright: ([, y]) => [0, y, 0],
  flat: ([, , z]) => [-90, 0, z],
  front: ([, , z]) => [0, 0, z],
};

export function setStance(things: readonly Thing[], stance: Stance): void {
  place(things, ({ placement }) => ({ ...placement, turn: STANCE_TURNS[stance](placement.turn) }));
}

/**
 * Sets the lowest place of each thing on the floor: where the lowest of all others is, or of the things where there are no others.
 */
export function toFloor(things: readonly Thing[]): void {
  const floor = floorFor(things);
  shiftEach(
    boxesOf(things).map(({ thing, box }) => ({ thing, by: floor - box.min[1] })),
    1,
  );
}

/** Sinks each thing into the floor, by a length or by a share of how high it is. */
export function sink(things: readonly Thing[], by: { readonly share: number } | { readonly length: number }): void {
  const floor = floorFor(things);
  shiftEach(
    boxesOf(things).map(({ thing, box: { min, max } }) => {
      const depth = 'share' in by ? by.share * (max[1] - min[1]) : by.length;
      return { thing, by: floor - depth - min[1] };
    }),
    1,
  );
}

function floorFor(things: readonly Thing[]): number {
  const { project, view } = now();
  const own = new Set(things.map(({ id }) => id));
  const isOwn = (layer: Layer) =>
    own.has(layer.id) || groupsAbove(project?.groups ?? [], layer.group).some(({ id }) => own.has(id));
  const others = (project?.layers ?? []).flatMap((layer) => (isOwn(layer) ? [] : (view?.placed[layer.id]?.box ?? [])));
  const boxes = others.length > 0 ? others : boxesOf(things).map(({ box }) => box);
  return Math.min(...boxes.map(({ min }) => min[1]));
}

/** How far the middles of box and area are apart, and what share of the thing's size that is. */
export function middlesApart({ middles: { box, area }, box: around }: PlacedView): { apart: number; share: number } {
  const apart = Math.hypot(...box.map((v, k) => v - area[k]!));
  const size = around ? Math.hypot(...around.max.map((v, k) => v - around.min[k]!)) : 0;
  return { apart, share: size > 0 ? apart / size : 0 };
}

/** Makes each thing larger or smaller about its middle. @param lengths whether depths, edges and bases follow */
export function resize(
  things: readonly Thing[],
  factor: number,
  lengths: boolean,
  gesture: string | null = null,
): void {
  const { view } = now();
  if (!view || !(factor > 0) || factor === 1) return;
  const step = gesture ?? `size ${performance.now()}`;
  for (const { id, placement } of things) {
    const placed = view.placed[id];
    if (!placed) continue;
    const middle = middleIn(placed, placement.middle);
    const about = middle.map((v, k) => v + placement.move[k]!) as [number, number, number];
    dispatch({ do: 'resize', id, factor, about, lengths }, step);
  }
}

/** Copies to begin with: beside each other, or around the middle of the sheet. */
export function startCopies({ id }: Thing, along: Copies['along']): Copies {
  const box = now().view?.placed[id]?.box;
  const wide = box ? box.max[0] - box.min[0] : 10;
  if (along === 'line') return { along, count: 3, step: [Number((wide * 1.1).toPrecision(3)), 0, 0] };
  if (along === 'path') {
    const layers = now().project?.layers ?? [];
    const other = layers.find((layer) => layer.id !== id && layer.group !== id) ?? layers[0]!;
    return { along, count: 8, layer: other.id, isTurned: true };
  }
  return { along, count: 6, axis: 'z', centre: [0, 0, 0], span: 360, isTurned: true };
}

export type AlignTo = 'least' | 'middle' | 'most';

/** Puts the boxes of things in line, along one axis. */
export function align(things: readonly Thing[], axis: 0 | 1 | 2, to: AlignTo): void {
  const boxes = boxesOf(things);
  if (boxes.length < 2) return;
  const low = Math.min(...boxes.map(({ box }) => box.min[axis]));
  const high = Math.max(...boxes.map(({ box }) => box.max[axis]));
  shiftEach(
    boxes.map(({ thing, box }) => {
      const by =
        to === 'least'
          ? low - box.min[axis]
          : to === 'most'
            ? high - box.max[axis]
            : (low + high) / 2 - (box.min[axis] + box.max[axis]) / 2;
      return { thing, by };
    }),
    axis,
  );
}

/** Equal gaps between the boxes of three things and more: the outermost ones stay. @param gap null for what is there */
export function distribute(things: readonly Thing[], axis: 0 | 1 | 2, gap: number | null = null): void {
  const boxes = boxesOf(things).sort((a, b) => a.box.min[axis] + a.box.max[axis] - b.box.min[axis] - b.box.max[axis]);
  const [first] = boxes;
  const last = boxes.at(-1);
  if (!first || !last || boxes.length < 2) return;
  const lengths = boxes.map(({ box }) => box.max[axis] - box.min[axis]);
  const filled = lengths.reduce((sum, v) => sum + v, 0);
  const between = gap ?? (last.box.max[axis] - first.box.min[axis] - filled) / (boxes.length - 1);
  let at = first.box.min[axis];
  shiftEach(
    boxes.map(({ thing, box }, i) => {
      const by = at - box.min[axis];
      at += lengths[i]! + between;
      return { thing, by };
    }),
    axis,
  );
}

function boxesOf(things: readonly Thing[]) {
  const { view } = now();
  return things.flatMap((thing) => {
    const box = view?.placed[thing.id]?.box;
    return box ? [{ thing, box }] : [];
  });
}

function shiftEach(shifts: readonly { readonly thing: Thing; readonly by: number }[], axis: 0 | 1 | 2): void {
  const gesture = `shift ${performance.now()}`;
  for (const { thing, by } of shifts) {
    const at: [number, number, number] = [0, 0, 0];
    at[axis] = by;
    moveBy([thing], shift(at), gesture);
  }
}

/** A mirror image of each thing, left and right as it stands exchanged. */
export const mirror = (things: readonly Thing[]) =>
  place(things, ({ placement }) => ({ ...placement, isMirrored: !placement.isMirrored }));

/** Takes a group away; what is in it stays where it stands. */
export function groupTaken(id: string, gesture: string): void {
  const { project, view } = now();
  const group = project?.groups?.find((each) => each.id === id);
  if (!project || !group) return;
  const { placement } = group;
  if (!placement) {
    dispatch({ do: 'ungroup', group: id, places: [] }, gesture);
    return;
  }
  const members: { id: string; placement?: Placement | undefined }[] = [
    ...project.layers.filter((layer) => layer.group === id),
    ...project.groups!.filter(({ within }) => within === id),
  ];
  const outer = view?.placed[id];
  const places = members.flatMap(({ id: member, placement: own = UNPLACED }) => {
    const inner = view?.placed[member];
    if (!inner || !outer) return [];
    const middle = middleIn(inner, own.middle);
    const around = rigidOf(placement, middleIn(outer, placement.middle));
    return [{ id: member, placement: placementAt(own, product(around, rigidOf(own, middle)), middle) }];
  });
  if (places.length < members.length) useProject.setState({ refusal: NOT_BUILT });
  else dispatch({ do: 'ungroup', group: id, places }, gesture);
}

// snapping.ts — what is dragged in the view comes to what it is nearly in line with.
import { Quaternion, type Vector3 } from 'three';
import { type BuildView, groupsAbove } from '../../core/index.ts';
import { linesOf, type SnapLines } from '../controls/in-line.ts';
import type { Thing } from '../store/placing.ts';
import { useProject } from '../store/project.ts';

/** For each axis: sides and middles of boxes, and the sheet's middle. */
export function snapLines(things: readonly Thing[], view: BuildView): readonly [SnapLines, SnapLines, SnapLines] {
  const { layers, groups = [] } = useProject.getState().history!.present;
  const ids = new Set(things.map(({ id }) => id));
  const isOwn = (id: string, group: string | undefined) =>
    ids.has(id) || groupsAbove(groups, group).some((above) => ids.has(above.id));
  const boxes = things.flatMap(({ id }) => view.placed[id]?.box ?? []);
  const others = layers.flatMap(({ id, group }) => (isOwn(id, group) ? [] : (view.placed[id]?.box ?? [])));
  const lines = (axis: 0 | 1 | 2): SnapLines => {
    const low = Math.min(...boxes.map(({ min }) => min[axis]));
    const high = Math.max(...boxes.map(({ max }) => max[axis]));
    return {
      own: boxes.length > 0 ? linesOf(low, high) : [],
      others: [0, ...others.flatMap(({ min, max }) => linesOf(min[axis], max[axis]))],
    };
  };
  return [lines(0), lines(1), lines(2)];
}

const ROUND_DEG = 15;
const NEAR_DEG = 3;

/** A turn that is nearly one by a multiple of 15° becomes that. */
export function roundAngle(turn: Quaternion): void {
  const angle = 2 * Math.acos(Math.min(1, Math.abs(turn.w)));
  const degrees = (angle * 180) / Math.PI;
  const round = Math.round(degrees / ROUND_DEG) * ROUND_DEG;
  if (Math.abs(degrees - round) > NEAR_DEG || angle === 0) return;
  const sine = Math.sqrt(1 - turn.w * turn.w);
  const sign = turn.w < 0 ? -1 : 1;
  const axis = { x: (sign * turn.x) / sine, y: (sign * turn.y) / sine, z: (sign * turn.z) / sine } as Vector3;
  turn.copy(new Quaternion().setFromAxisAngle(axis, (round * Math.PI) / 180));
}

// bands.ts — the plan of walls: bands along their middle lines, corners filled where ends meet, openings cut out.
import { roundStroke } from '../drawing.ts';
import { combine, type Filled, outlineOf } from '../outline/combine.ts';
import { strokePaths } from '../outline/stroke.ts';
import type { Spot } from '../path/points.ts';
import type { Path, Segment } from '../path/types.ts';
import type { Opening, Wall } from './schema.ts';

/** Openings are cut a little deeper than their wall is thick. */
const THROUGH = 1.01;
/** Corners sharper than this, as a share of the thicker wall, are cut off. */
const MITRE_LIMIT = 10;
/** Ends nearer than this share of their thickness meet. */
const MEETS = 0.02;

/** What walls cover, less their openings. Free ends are cut square across. */
export function wallOutline(all: readonly Wall[]): Path {
  const bands = all.flatMap((wall) => strokePaths(middleLine(wall), penOf(wall), wall.thickness));
  const united: Filled = { path: outlineOf([...bands, ...corners(all)], 'nonzero'), fillRule: 'nonzero' };
  const gaps = all.flatMap((wall) =>
    wall.openings.flatMap((opening): Filled[] => {
      const path = openingOutline(wall, opening);
      return path ? [{ path, fillRule: 'nonzero' }] : [];
    }),
  );
  return gaps.length > 0 ? combine([united, ...gaps], 'subtract') : united.path;
}

function penOf({ thickness }: Wall) {
  return { ...roundStroke(thickness), join: 'mitre' as const, cap: 'butt' as const, mitreLimit: MITRE_LIMIT };
}

export function middleLine({ points, isClosed }: Wall): Path {
  const line: Segment[] = points.map(([x, y], i) => [i === 0 ? 'M' : 'L', x, y]);
  if (isClosed) line.push(['Z']);
  return line;
}

/** An end of a wall, and the unit direction in which its wall goes on from there. */
interface Arm {
  readonly at: Spot;
  readonly way: Spot;
  readonly half: number;
}

/** Where ends of walls meet, the wedges between their outer faces. */
function corners(all: readonly Wall[]): Path[] {
  const nodes: Arm[][] = [];
  for (const arm of all.flatMap(armsOf)) {
    const node = nodes.find(
      ([other]) =>
        Math.hypot(other!.at[0] - arm.at[0], other!.at[1] - arm.at[1]) <= 2 * MEETS * Math.max(arm.half, other!.half),
    );
    if (node) node.push(arm);
    else nodes.push([arm]);
  }
  return nodes.flatMap((node) => {
    if (node.length < 2) return [];
    const round = [...node].sort((a, b) => Math.atan2(a.way[1], a.way[0]) - Math.atan2(b.way[1], b.way[0]));
    return round.flatMap((arm, i) => wedge(arm, round[(i + 1) % round.length]!));
  });
}

function armsOf({ points, isClosed, thickness }: Wall): Arm[] {
  if (isClosed) return [];
  const arm = (at: Spot, towards: Spot): Arm[] => {
    const length = Math.hypot(towards[0] - at[0], towards[1] - at[1]);
    const way: Spot = [(towards[0] - at[0]) / length, (towards[1] - at[1]) / length];
    return length > 0 ? [{ at, way, half: thickness / 2 }] : [];
  };
  return [...arm(points[0]!, points[1]!), ...arm(points.at(-1)!, points.at(-2)!)];
}

/** What is missing between two neighbouring arms, from the left face of the first to the right face of the next. */
function wedge(a: Arm, b: Arm): Path[] {
  const turn = (Math.atan2(b.way[1], b.way[0]) - Math.atan2(a.way[1], a.way[0]) + 2 * Math.PI) % (2 * Math.PI);
  // Where they turn by less, their bands overlap there.
  if (turn < Math.PI + 1e-9) return [];
  const p: Spot = [a.at[0] - a.way[1] * a.half, a.at[1] + a.way[0] * a.half];
  const q: Spot = [b.at[0] + b.way[1] * b.half, b.at[1] - b.way[0] * b.half];
  const tip = meeting(p, a.way, q, b.way);
  const isNear = tip && Math.hypot(tip[0] - a.at[0], tip[1] - a.at[1]) <= MITRE_LIMIT * Math.max(a.half, b.half);
  return [[['M', ...a.at], ['L', ...p], ...(isNear ? [['L', ...tip] as const] : []), ['L', ...q], ['Z']]];
}

/** Where the line through p along u meets the one through q along v; null where they are parallel. */
export function meeting(p: Spot, u: Spot, q: Spot, v: Spot): Spot | null {
  const cross = u[0] * v[1] - u[1] * v[0];
  if (Math.abs(cross) < 1e-9) return null;
  const s = ((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / cross;
  return [p[0] + s * u[0], p[1] + s * u[1]];
}

/** The rectangle an opening takes out of its wall; null where the wall has no such piece. */
export function openingOutline(wall: Wall, opening: Opening): Path | null {
  const piece = pieceOf(wall, opening.piece);
  if (!piece) return null;
  const { start, way, length } = piece;
  const half = (THROUGH * wall.thickness) / 2;
  const corner = (along: number, across: number) =>
    [start[0] + way[0] * along - way[1] * across, start[1] + way[1] * along + way[0] * across] as const;
  const middle = opening.at * length;
  const [from, to] = [middle - opening.width / 2, middle + opening.width / 2];
  return [
    ['M', ...corner(from, -half)],
    ['L', ...corner(to, -half)],
    ['L', ...corner(to, half)],
    ['L', ...corner(from, half)],
    ['Z'],
  ];
}

export interface WallPiece {
  readonly start: Spot;
  readonly end: Spot;
  /** Unit direction. */
  readonly way: Spot;
  readonly length: number;
}

/** One straight piece of a wall's middle line; null where there is none or it has no length. */
export function pieceOf({ points, isClosed }: Pick<Wall, 'points' | 'isClosed'>, index: number): WallPiece | null {
  const start = points[index];
  const end = points[index + 1] ?? (isClosed && index === points.length - 1 ? points[0] : undefined);
  if (!start || !end) return null;
  const length = Math.hypot(end[0] - start[0], end[1] - start[1]);
  return length > 0 ? { start, end, way: [(end[0] - start[0]) / length, (end[1] - start[1]) / length], length } : null;
}

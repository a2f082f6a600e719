// biarc.ts — curves as circular arcs, which every cutting machine takes. Biarcs with both legs alike (Bolton 1975, "Biarc curves";
// the formulas as in Juckett, "Biarc interpolation"), halved until they are near enough.
import { at, type Cubic, directionAt, splitCubic } from './cubic.ts';

/** A line or an arc to a place. */
export interface ArcTo {
  readonly x: number;
  readonly y: number;
  /** Tangent of a quarter of the angle it turns, positive from +x towards +y; 0 for a line. */
  readonly bulge: number;
}

const MOST_HALVINGS = 12;
/** A curve is compared at so many places. */
const SAMPLES = 8;
/** Arcs that turn by less are lines. */
const FLAT = 1e-9;

/** @param tolerance largest distance between the curve and its arcs, in its units, > 0 */
export function arcsOf(cubic: Cubic, tolerance: number, depth = 0): ArcTo[] {
  const arcs = biarc(cubic);
  if (arcs && (depth === MOST_HALVINGS || isNear(cubic, arcs, tolerance))) return arcs;
  if (depth === MOST_HALVINGS) return [{ x: cubic[6], y: cubic[7], bulge: 0 }];
  return splitCubic(cubic, 0.5).flatMap((half) => arcsOf(half, tolerance, depth + 1));
}

/** Two arcs that leave and arrive as the curve does, and meet without a corner; null where the curve has no direction. */
function biarc(cubic: Cubic): ArcTo[] | null {
  const [t0, t1] = [directionAt(cubic, 0), directionAt(cubic, 1)];
  const [vx, vy] = [cubic[6] - cubic[0], cubic[7] - cubic[1]];
  if (!t0 || !t1 || Math.hypot(vx, vy) === 0) return null;
  const [tx, ty] = [t0[0] + t1[0], t0[1] + t1[1]];
  const along = vx * tx + vy * ty;
  const square = vx * vx + vy * vy;
  const turn = 2 * (1 - (t0[0] * t1[0] + t0[1] * t1[1]));
  const straight = 4 * (vx * t1[0] + vy * t1[1]);
  const leg = turn > 1e-12 ? (-along + Math.sqrt(along * along + turn * square)) / turn : square / straight;
  if (!(leg > 0) || !Number.isFinite(leg)) return null;
  const middle = [
    (cubic[0] + cubic[6] + leg * (t0[0] - t1[0])) / 2,
    (cubic[1] + cubic[7] + leg * (t0[1] - t1[1])) / 2,
  ] as const;
  const first = half(t0, [middle[0] - cubic[0], middle[1] - cubic[1]]);
  const second = half([cubic[6] - middle[0], cubic[7] - middle[1]], t1);
  return [
    { x: middle[0], y: middle[1], bulge: first },
    { x: cubic[6], y: cubic[7], bulge: second },
  ];
}

/** The bulge of an arc whose tangent and chord are those directions, in the order in which they turn. */
function half([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): number {
  const angle = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  return Math.abs(angle) < FLAT ? 0 : Math.tan(angle / 2);
}

function isNear(cubic: Cubic, arcs: readonly ArcTo[], tolerance: number): boolean {
  const from = [{ x: cubic[0], y: cubic[1] }, ...arcs.slice(0, -1)];
  for (let k = 1; k < SAMPLES; k++) {
    const [x, y] = [at(cubic, 0, k / SAMPLES), at(cubic, 1, k / SAMPLES)];
    const nearest = arcs.reduce((least, arc, i) => Math.min(least, distanceTo(x, y, from[i]!, arc)), Infinity);
    if (nearest > tolerance) return false;
  }
  return true;
}

/** From a place to the circle of an arc, or to its line. */
function distanceTo(px: number, py: number, a: { x: number; y: number }, { x, y, bulge }: ArcTo): number {
  const [dx, dy] = [x - a.x, y - a.y];
  const length = Math.hypot(dx, dy) || 1;
  if (bulge === 0) return Math.abs((px - a.x) * dy - (py - a.y) * dx) / length;
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(a.x + x) / 2 - off * dy, (a.y + y) / 2 + off * dx];
  return Math.abs(Math.hypot(px - cx, py - cy) - Math.hypot(a.x - cx, a.y - cy));
}

// form.ts — the form of a front that is not flat: a plane that slants, or a dome over the distance from its rim. Both move points
// along z alone and leave every place on the sheet, so that nothing that was apart can meet.
import { GeometryError } from '../base/errors.ts';
import { SIDES } from '../mesh/types.ts';
import { SegmentGrid } from '../outline/segment-grid.ts';

/** How a dome rises from its rim (0) to where the front is widest (1). */
export const DOMES = ['round', 'soft', 'straight'] as const;
export type Dome = (typeof DOMES)[number];

export type FrontForm =
  | { readonly is: 'flat' }
  /** Rises towards a direction of the sheet, counter-clockwise from its right; at `pivot` it is as high as it says. */
  | {
      readonly is: 'slanted';
      readonly degrees: number;
      readonly towardsDeg: number;
      readonly pivot: readonly [number, number];
    }
  /** Below 0 it sinks. */
  | { readonly is: 'crowned'; readonly height: number; readonly dome: Dome };

/** 0 … 1 to 0 … 1: a quarter of a circle, a parabola with its top in the middle, a straight line. */
export const DOME_CURVES: Record<Dome, (share: number) => number> = {
  round: (s) => Math.sqrt(Math.max(0, s * (2 - s))),
  soft: (s) => s * (2 - s),
  straight: (s) => s,
};

interface Faces {
  /** Flat x, y. */
  readonly points: Float64Array;
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  readonly sides: Uint8Array;
}

const FRONT = SIDES.indexOf('front');

/** How far each point of the front lies from the front's rim, the farthest at 1; 0 for all other points. */
export function crownShares({ points, starts, corners, sides }: Faces): Float64Array {
  const shares = new Float64Array(points.length / 2);
  const once = new Map<string, readonly [number, number]>();
  const inner = new Set<number>();
  for (let f = 0; f < sides.length; f++) {
    if (sides[f] !== FRONT) continue;
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from; c < to; c++) {
      const [a, b] = [corners[c]!, corners[c + 1 < to ? c + 1 : from]!];
      inner.add(a);
      // An edge between two faces of the front is run both ways.
      if (!once.delete(`${b} ${a}`)) once.set(`${a} ${b}`, [a, b]);
    }
  }
  const rim = [...once.values()];
  if (rim.length === 0) return shares;
  const segments = Float64Array.from(
    rim.flatMap(([a, b]) => [points[2 * a]!, points[2 * a + 1]!, points[2 * b]!, points[2 * b + 1]!]),
  );
  for (const [a, b] of rim) {
    inner.delete(a);
    inner.delete(b);
  }
  const grid = new SegmentGrid(segments);
  let farthest = 0;
  for (const point of inner) {
    const [x, y] = [points[2 * point]!, points[2 * point + 1]!];
    grid.nearest(x, y, Infinity);
    shares[point] = grid.distance;
    if (grid.distance > farthest) farthest = grid.distance;
  }
  return farthest > 0 ? shares.map((distance) => distance / farthest) : shares;
}

/** How much higher than a flat front a slanted one is. */
export function slantAt({
  degrees,
  towardsDeg,
  pivot,
}: Extract<FrontForm, { is: 'slanted' }>): (x: number, y: number) => number {
  const slope = Math.tan((degrees * Math.PI) / 180);
  const [dx, dy] = [Math.cos((towardsDeg * Math.PI) / 180) * slope, Math.sin((towardsDeg * Math.PI) / 180) * slope];
  return (x, y) => dx * (x - pivot[0]) + dy * (y - pivot[1]);
}

/**
 * @param lowest how far below a flat front the form comes
 * @param room what may go without front and back meeting
 * @throws {GeometryError} 'out-of-range'
 */
export function mustLeaveRoom(form: FrontForm, lowest: number, room: number): void {
  if (lowest < room) return;
  const tidy = (v: number) => Number(v.toPrecision(3));
  const message =
    form.is === 'slanted'
      ? `The front slants down to ${tidy(lowest)} below its middle, where only ${tidy(room)} of wall are: make it deeper, or the slant less than ${tidy((Math.atan((Math.tan((Math.abs(form.degrees) * Math.PI) / 180) * room) / lowest) * 180) / Math.PI)}°.`
      : `The front sinks by ${tidy(lowest)}, where only ${tidy(room)} are: make it deeper, or sink it less.`;
  throw new GeometryError('out-of-range', message);
}

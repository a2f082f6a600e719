// form.ts — the form of a front that is not flat: a plane that slants, or a dome over the distance from its rim. Both move points
// along z alone and leave every place on the sheet, so that nothing that was apart can meet.
import { GeometryError } from '../base/errors.ts';
import { triangleIndices } from '../mesh/triangles.ts';
import { type Flow, type Mesh, SIDES } from '../mesh/types.ts';
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

/** How faces follow outlines, before anything has a height. */
export type PlanFlow = Omit<Flow, 'across' | 'wall'>;

interface Faces {
  /** Flat x, y. */
  readonly points: Float64Array;
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  readonly sides: Uint8Array;
}

const FRONT = SIDES.indexOf('front');

/** Edges of the front that only one of its faces has, by what they run from and to. */
function rimOf({ starts, corners, sides }: Faces): (readonly [number, number])[] {
  const once = new Map<string, readonly [number, number]>();
  for (let f = 0; f < sides.length; f++) {
    if (sides[f] !== FRONT) continue;
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from; c < to; c++) {
      const [a, b] = [corners[c]!, corners[c + 1 < to ? c + 1 : from]!];
      // An edge between two faces is run both ways.
      if (!once.delete(`${b} ${a}`)) once.set(`${a} ${b}`, [a, b]);
    }
  }
  return [...once.values()];
}

/** How far each point of the front lies from the front's rim, the farthest at 1; 0 for all other points. */
export function crownShares(faces: Faces): Float64Array {
  const { points, starts, corners, sides } = faces;
  const shares = new Float64Array(points.length / 2);
  const rim = rimOf(faces);
  if (rim.length === 0) return shares;
  const inner = new Set<number>();
  for (let f = 0; f < sides.length; f++) {
    if (sides[f] === FRONT) for (let c = starts[f]!; c < starts[f + 1]!; c++) inner.add(corners[c]!);
  }
  for (const [a, b] of rim) {
    inner.delete(a);
    inner.delete(b);
  }
  const segments = rim.flatMap(([a, b]) => [points[2 * a]!, points[2 * a + 1]!, points[2 * b]!, points[2 * b + 1]!]);
  const grid = new SegmentGrid(Float64Array.from(segments));
  let farthest = 0;
  for (const point of inner) {
    grid.nearest(points[2 * point]!, points[2 * point + 1]!, Infinity);
    shares[point] = grid.distance;
    if (grid.distance > farthest) farthest = grid.distance;
  }
  return farthest > 0 ? shares.map((distance) => distance / farthest) : shares;
}

interface RowedFaces extends Faces {
  readonly rows: Float64Array;
  readonly levels: Uint16Array | null;
  readonly flow: PlanFlow;
}

/**
 * The faces with a point in the middle of every edge that runs through the front from rim to rim: where a stroke is narrower than
 * the faces are large, a dome would have nothing to rise with.
 */
export function withRidges<P extends RowedFaces>(plan: P): P {
  const { starts, corners, sides, flow } = plan;
  const rim = rimOf(plan);
  const isRim = new Set(rim.flat());
  const rimEdges = new Set(rim.map(([a, b]) => `${a} ${b}`));
  const points = [...plan.points];
  const rows = [...plan.rows];
  const levels = plan.levels && [...plan.levels];
  const middles = new Map<string, number>();
  const middleOf = (a: number, b: number): number | null => {
    if (!isRim.has(a) || !isRim.has(b) || rimEdges.has(`${a} ${b}`)) return null;
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const known = middles.get(key);
    if (known !== undefined) return known;
    const point = rows.push((rows[a]! + rows[b]!) / 2) - 1;
    points.push((points[2 * a]! + points[2 * b]!) / 2, (points[2 * a + 1]! + points[2 * b + 1]!) / 2);
    // Both are on the same piece of the front.
    levels?.push(levels[a]!);
    middles.set(key, point);
    return point;
  };
  const faces: { corners: readonly number[]; side: number; edge: number }[] = [];
  const triangles = triangleIndices(frontOnSheet(plan));
  for (let f = 0, t = 0; f < sides.length; f++) {
    const own = [...corners.subarray(starts[f]!, starts[f + 1]!)];
    const [side, edge] = [sides[f]!, flow.edges[f]!];
    const until = side === FRONT ? t + 3 * (own.length - 2) : t;
    // What is no triangle will not be plane, and is divided as it lies on the sheet, where the parts cannot overlap.
    const isWhole =
      side !== FRONT ||
      (isConvexQuad(own, plan.points) && own.every((a, k) => middleOf(a, own[(k + 1) % 4]!) === null));
    if (isWhole) faces.push({ corners: own, side, edge });
    else {
      for (let i = t; i < until; i += 3) {
        for (const each of dividedTriangle([...triangles.subarray(i, i + 3)], middleOf))
          faces.push({ corners: each, side, edge });
      }
    }
    t = until;
  }
  const ends = new Uint32Array(faces.length + 1);
  for (const [i, { corners: own }] of faces.entries()) ends[i + 1] = ends[i]! + own.length;
  return {
    ...plan,
    points: Float64Array.from(points),
    rows: Float64Array.from(rows),
    levels: levels && Uint16Array.from(levels),
    starts: ends,
    corners: Uint32Array.from(faces.flatMap(({ corners: own }) => own)),
    sides: Uint8Array.from(faces, ({ side }) => side),
    flow: { ...flow, edges: Int32Array.from(faces, ({ edge }) => edge) },
  };
}

/** The front alone, as it lies on the sheet. */
function frontOnSheet({ points, starts, corners, sides }: Faces): Mesh {
  const faces = Array.from(sides, (side, f) =>
    side === FRONT ? [...corners.subarray(starts[f]!, starts[f + 1]!)] : [],
  );
  const own = faces.filter(({ length }) => length > 0);
  const ends = new Uint32Array(own.length + 1);
  for (const [i, face] of own.entries()) ends[i + 1] = ends[i]! + face.length;
  const positions = new Float64Array((points.length / 2) * 3);
  for (let i = 0; i < points.length / 2; i++) positions.set([points[2 * i]!, points[2 * i + 1]!, 0], 3 * i);
  return { positions, starts: ends, corners: Uint32Array.from(own.flat()), sides: new Uint8Array(own.length) };
}

function isConvexQuad(face: readonly number[], points: Float64Array): boolean {
  if (face.length !== 4) return false;
  return face.every((b, k) => {
    const [a, c] = [face[(k + 3) % 4]!, face[(k + 1) % 4]!];
    const [ux, uy] = [points[2 * b]! - points[2 * a]!, points[2 * b + 1]! - points[2 * a + 1]!];
    const [vx, vy] = [points[2 * c]! - points[2 * b]!, points[2 * c + 1]! - points[2 * b + 1]!];
    return ux * vy - uy * vx > 0;
  });
}

/** A triangle as those that points on its edges divide it into. */
function dividedTriangle(face: readonly number[], middleOf: (a: number, b: number) => number | null): number[][] {
  const middles = face.map((a, k) => middleOf(a, face[(k + 1) % 3]!));
  const count = middles.filter((middle) => middle !== null).length;
  if (count === 0) return [[...face]];
  // Turned so that what is divided comes first.
  const first = count === 2 ? (middles.indexOf(null) + 1) % 3 : middles.findIndex((middle) => middle !== null);
  const [a, b, c] = [0, 1, 2].map((k) => face[(first + k) % 3]!) as [number, number, number];
  const [ab, bc, ca] = [0, 1, 2].map((k) => middles[(first + k) % 3]!) as [number, number, number];
  if (count === 1)
    return [
      [a, ab, c],
      [ab, b, c],
    ];
  if (count === 2)
    return [
      [a, ab, c],
      [ab, bc, c],
      [ab, b, bc],
    ];
  return [
    [a, ab, ca],
    [ab, b, bc],
    [bc, c, ca],
    [ab, bc, ca],
  ];
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

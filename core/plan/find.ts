// find.ts — walls found in a plan: pairs of parallel sides as far apart as a wall is thick become pieces of wall, pieces
// on one line become one wall, what is left open between them becomes its openings, and ends reach to the walls they meet.
import { pointInRings } from '../outline/apart.ts';
import { combine, type Filled } from '../outline/combine.ts';
import { SegmentGrid } from '../outline/segment-grid.ts';
import { flatten, polylines } from '../path/flatten.ts';
import type { Spot } from '../path/points.ts';
import type { Path } from '../path/types.ts';
import { meeting } from './bands.ts';
import type { Opening, Wall } from './schema.ts';
import { type Side, sidesOf } from './sides.ts';
import { drawnSwing } from './swing.ts';

export interface PlanParts {
  /** Filled shapes and loose lines among which walls are looked for. */
  readonly filled: readonly Filled[];
  readonly lines: readonly Path[];
  /** Lines and boundaries of all else, which tell windows from doors. */
  readonly others?: readonly Path[];
}

/** In user units. */
export interface WallLimits {
  /** Thickness of the thinnest and the thickest wall. */
  readonly thinnest: number;
  readonly thickest: number;
  /** Gaps in a wall up to this wide are openings; others part walls. */
  readonly widest: number;
  /** Heights above the floor that openings get. */
  readonly door: Pick<Opening, 'sill' | 'head'>;
  readonly window: Pick<Opening, 'sill' | 'head'>;
}

/** Sides are parallel up to this angle. */
const PARALLEL = (2 * Math.PI) / 180;
/** Walls that turn from one direction or its right angle by less than this are turned onto it. */
const SQUARE = (1.5 * Math.PI) / 180;
/** A side may bend by this share of the thinnest wall. */
const BEND = 0.12;
/** Limits are meant with this much to spare. */
const SPARE = 1.08;
/** A pair is a wall by itself from this length on, in thicknesses; a shorter one must go on from another. */
const SURE = 1.2;
/** Nothing shorter than this share of its thickness is a piece of wall. */
const LEAST = 0.15;
/** Pieces lie on one line when their middles are this near, in thicknesses, and are this much alike in thickness. */
const IN_LINE = 0.1;
const ALIKE = 1.3;
/** How much thicker a wall is than the strips inside it. */
const THICKER = 1.5;
/** A line inside a wall is one this near its middle, in thicknesses; one in a gap may lie as far off as the faces. */
const INSIDE = 0.36;
const IN_GAP = 0.55;
/** Gaps narrower than this, in thicknesses, come of the drawing, not of an opening. */
const SLIT = 0.5;
/** Share of a wall's thickness from its middle to its faces, with a little for corners that are rounded off. */
const MITRE = 0.6;
/** Thicknesses this much alike are one. */
const SAME = 1.12;

export function findWalls(parts: PlanParts, limits: WallLimits): Wall[] {
  const slack = BEND * limits.thinnest;
  const outlines = parts.filled.length > 0 ? combine(parts.filled, 'union') : [];
  const sides = [...sidesOf(outlines, true, slack), ...parts.lines.flatMap((path) => sidesOf(path, false, slack))];
  const bands = pairs(sides, limits);
  const others = [...sides, ...(parts.others ?? []).flatMap((path) => sidesOf(path, false, slack))];
  const axes = squared(withoutInner(axesOf(bands, limits)));
  const rings = flatten(outlines, slack);
  const isSolid = ([x, y]: Spot) => pointInRings(x, y, rings);
  const walls = axes.flatMap((axis) => stretchesOf(axis, axes, { others, isSolid }, limits));
  const found = joined(evenly(walls)).map(
    ({ from, to, thickness, openings }, i): Wall => ({
      id: `wall-${i + 1}`,
      points: [[...from], [...to]],
      isClosed: false,
      thickness,
      openings: openings.map((opening, k) => ({ ...opening, id: `opening-${i + 1}.${k + 1}` })),
    }),
  );
  return hung(found, [outlines, ...parts.lines, ...(parts.others ?? [])], slack);
}

/** Doors swing as the arcs go that are drawn beside them. */
function hung(walls: readonly Wall[], paths: readonly Path[], slack: number): Wall[] {
  const segments = Float64Array.from(
    paths.flatMap((path) =>
      polylines(path, slack).flatMap(({ points }) =>
        Array.from({ length: points.length / 2 - 1 }, (_, i) => [...points.subarray(2 * i, 2 * i + 4)]).flat(),
      ),
    ),
  );
  if (segments.length === 0) return [...walls];
  const lines = { grid: new SegmentGrid(segments), segments };
  return walls.map((wall) => ({
    ...wall,
    openings: wall.openings.map((opening) => {
      const swing = opening.kind === 'door' ? drawnSwing(wall, opening, lines) : null;
      return swing ? { ...opening, swing } : opening;
    }),
  }));
}

// --- pairs of sides -------------------------------------------------------------------------------------------------

/** Where two sides face each other, as its middle line. */
interface Band {
  readonly from: Spot;
  readonly to: Spot;
  readonly way: Spot;
  readonly length: number;
  readonly thickness: number;
}

interface Pair {
  readonly a: number;
  readonly b: number;
  readonly gap: number;
  /** On which side of a the other lies: 1 left. */
  readonly face: 1 | -1;
}

function pairs(sides: readonly Side[], { thinnest, thickest }: WallLimits): Band[] {
  if (sides.length < 2) return [];
  const far = thickest * SPARE;
  const grid = new SegmentGrid(Float64Array.from(sides.flatMap(({ from, to }) => [...from, ...to])));
  const found: Pair[] = [];
  for (const [a, side] of sides.entries()) {
    const [x0, x1] = [Math.min(side.from[0], side.to[0]) - far, Math.max(side.from[0], side.to[0]) + far];
    const [y0, y1] = [Math.min(side.from[1], side.to[1]) - far, Math.max(side.from[1], side.to[1]) + far];
    grid.box(x0, y0, x1, y1, (b) => {
      const other = sides[b]!;
      if (b <= a || Math.abs(cross(side.way, other.way)) > Math.sin(PARALLEL)) return;
      if (span(side, other) === null) return;
      const offset = across(side, middle(other));
      const gap = Math.abs(offset);
      const face = offset > 0 ? 1 : -1;
      // Thin strokes take their faces as well, so that no wall is seen across what they enclose.
      const least = side.isBoundary ? 0 : thinnest / SPARE;
      if (gap > least && gap <= far && hasMaterial(side, other, face)) found.push({ a, b, gap, face });
    });
  }
  // The nearest partner first; every stretch of a side has one wall on each of its faces at most.
  found.sort((p, q) => p.gap - q.gap || p.a - q.a || p.b - q.b);
  const used = new Map<string, [number, number][]>();
  return found.flatMap((pair) => bandsOf(pair, sides, used)).filter(({ thickness }) => thickness >= thinnest / SPARE);
}

/** Material lies between two sides: on the left of each that bounds any. */
function hasMaterial(a: Side, b: Side, face: 1 | -1): boolean {
  const isSameWay = dot(a.way, b.way) > 0;
  const faceOfB = isSameWay ? -face : face;
  return (!a.isBoundary || face === 1) && (!b.isBoundary || faceOfB === 1) && a.isBoundary === b.isBoundary;
}

function bandsOf({ a, b, gap, face }: Pair, sides: readonly Side[], used: Map<string, [number, number][]>): Band[] {
  const [p, q] = [sides[a]!, sides[b]!];
  const both = span(p, q);
  if (!both) return [];
  const ofB = dot(p.way, q.way) > 0 ? -face : face;
  // Stretches of b, measured along a, which is nearly the same.
  const alongA = (t: number) =>
    dot([q.from[0] + q.way[0] * t - p.from[0], q.from[1] + q.way[1] * t - p.from[1]], p.way);
  const takenByB = (used.get(`${b} ${ofB}`) ?? []).map(([s, t]): [number, number] => {
    const [u, v] = [alongA(s), alongA(t)];
    return [Math.min(u, v), Math.max(u, v)];
  });
  const free = without(without([both], used.get(`${a} ${face}`) ?? []), takenByB);
  return free.flatMap(([s, t]) => {
    if (t - s < LEAST * gap) return [];
    push(used, `${a} ${face}`, [s, t]);
    const alongB = (v: number) =>
      dot([p.from[0] + p.way[0] * v - q.from[0], p.from[1] + p.way[1] * v - q.from[1]], q.way);
    const [u, v] = [alongB(s), alongB(t)];
    push(used, `${b} ${ofB}`, [Math.min(u, v), Math.max(u, v)]);
    return [bandBetween(p, q, s, t)];
  });
}

function bandBetween(p: Side, q: Side, s: number, t: number): Band {
  const ends = [s, t].map((v): [Spot, number] => {
    const at: Spot = [p.from[0] + p.way[0] * v, p.from[1] + p.way[1] * v];
    const offset = across(q, at);
    // Halfway to the other side.
    return [[at[0] + (q.way[1] * offset) / 2, at[1] - (q.way[0] * offset) / 2], Math.abs(offset)];
  });
  const [[from, d0], [to, d1]] = ends as [[Spot, number], [Spot, number]];
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1e-300;
  const way: Spot = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  return { from, to, way, length, thickness: (d0 + d1) / 2 };
}

/** Where b lies beside a, as distances along a from its start; null where it lies nowhere beside it. */
function span(a: Side, b: Side): [number, number] | null {
  const [s, t] = [along(a, b.from), along(a, b.to)];
  const [from, to] = [Math.max(0, Math.min(s, t)), Math.min(a.length, Math.max(s, t))];
  return to > from ? [from, to] : null;
}

/** Intervals less others. */
function without(all: readonly [number, number][], less: readonly [number, number][]): [number, number][] {
  let left = [...all];
  for (const [s, t] of less) {
    left = left.flatMap(([from, to]): [number, number][] =>
      t <= from || s >= to
        ? [[from, to]]
        : [...(s > from ? [[from, s] as [number, number]] : []), ...(t < to ? [[t, to] as [number, number]] : [])],
    );
  }
  return left;
}

// --- lines that walls stand on --------------------------------------------------------------------------------------

/** A line with the stretches of it that are wall. */
interface Axis {
  at: Spot;
  way: Spot;
  thickness: number;
  /** From and to, along `way` from `at`. */
  stretches: [number, number][];
  length: number;
}

function axesOf(bands: readonly Band[], { widest }: WallLimits): Axis[] {
  const sure = bands.filter(({ length, thickness }) => length >= SURE * thickness).sort((a, b) => b.length - a.length);
  const short = bands.filter(({ length, thickness }) => length < SURE * thickness);
  let axes: { bands: Band[]; axis: Axis }[] = [];
  const homes = (band: Band) => axes.filter(({ axis }) => isOn(band, axis) && reachOf(band, axis) <= widest);
  for (const band of sure) {
    // It may be what lies between two lines that are one.
    const found = homes(band);
    const bands = [...found.flatMap((home) => home.bands), band];
    axes = [...axes.filter((home) => !found.includes(home)), { bands, axis: axisAlong(bands) }];
  }
  for (const band of short) {
    const [home] = homes(band);
    if (home) home.axis.stretches.push(stretchOn(band, home.axis));
  }
  return axes.map(({ axis }) => ({ ...axis, stretches: mergedStretches(axis.stretches, axis.thickness / 20) }));
}

const isOn = (band: Band, axis: Axis): boolean =>
  Math.abs(cross(band.way, axis.way)) <= Math.sin(2 * PARALLEL) &&
  areAlike(band.thickness, axis.thickness, ALIKE) &&
  [band.from, band.to].every(
    (end) => Math.abs(cross(axis.way, minus(end, axis.at))) <= IN_LINE * Math.min(band.thickness, axis.thickness),
  );

/** How far a band lies from the stretches of an axis that are known. */
function reachOf(band: Band, axis: Axis): number {
  const [s, t] = stretchOn(band, axis);
  return Math.min(...axis.stretches.map(([from, to]) => Math.max(0, from - t, s - to)));
}

function stretchOn(band: Band, { at, way }: Axis): [number, number] {
  const [s, t] = [dot(minus(band.from, at), way), dot(minus(band.to, at), way)];
  return [Math.min(s, t), Math.max(s, t)];
}

/** The line of bands: through their middle, by their lengths, in the direction from the first end to the last. */
function axisAlong(bands: readonly Band[]): Axis {
  const [lead] = bands as readonly [Band, ...Band[]];
  const weight = bands.reduce((sum, { length }) => sum + length, 0);
  const mean = (pick: (band: Band) => number) =>
    bands.reduce((sum, band) => sum + band.length * pick(band), 0) / weight;
  const at: Spot = [mean(({ from, to }) => (from[0] + to[0]) / 2), mean(({ from, to }) => (from[1] + to[1]) / 2)];
  // Least squares through the ends, each band by its length.
  let [xx, xy, yy] = [0, 0, 0];
  for (const { from, to, length } of bands) {
    for (const end of [from, to]) {
      const [dx, dy] = minus(end, at);
      xx += length * dx * dx;
      xy += length * dx * dy;
      yy += length * dy * dy;
    }
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const way: Spot = [Math.cos(angle), Math.sin(angle)];
  const turned: Spot = dot(way, lead.way) < 0 ? [-way[0], -way[1]] : way;
  const axis: Axis = { at, way: turned, thickness: mean(({ thickness }) => thickness), stretches: [], length: weight };
  axis.stretches = bands.map((band) => stretchOn(band, axis));
  return axis;
}

function mergedStretches(all: readonly [number, number][], slack: number): [number, number][] {
  const merged: [number, number][] = [];
  for (const [from, to] of [...all].sort((p, q) => p[0] - q[0])) {
    const last = merged.at(-1);
    if (last && from <= last[1] + slack) last[1] = Math.max(last[1], to);
    else merged.push([from, to]);
  }
  return merged;
}

/** Strips inside a thicker wall, between its faces and the glass of a window, are no walls. */
function withoutInner(axes: readonly Axis[]): Axis[] {
  return axes.flatMap((axis) => {
    const covers = axes.flatMap((other): [number, number][] => {
      const isThicker = other.thickness > THICKER * axis.thickness;
      if (!isThicker || Math.abs(cross(axis.way, other.way)) > Math.sin(2 * PARALLEL)) return [];
      if (Math.abs(cross(other.way, minus(axis.at, other.at))) > other.thickness / 2) return [];
      const ends = [other.stretches[0]![0], other.stretches.at(-1)![1]].map((s) =>
        dot(minus([other.at[0] + other.way[0] * s, other.at[1] + other.way[1] * s], axis.at), axis.way),
      );
      return [[Math.min(...ends), Math.max(...ends)]];
    });
    if (covers.length === 0) return [axis];
    const stretches = without(axis.stretches, covers).filter(([s, t]) => t - s >= axis.thickness);
    return stretches.length > 0 ? [{ ...axis, stretches }] : [];
  });
}

/** Lines that are nearly in the direction most walls have, or square to it, are turned onto it. */
function squared(axes: readonly Axis[]): Axis[] {
  // Four times the angle is the same for directions that are square to each other.
  let [x, y] = [0, 0];
  for (const { way, length } of axes) {
    const angle = 4 * Math.atan2(way[1], way[0]);
    x += length * Math.cos(angle);
    y += length * Math.sin(angle);
  }
  const main = Math.atan2(y, x) / 4;
  return axes.map((axis) => {
    const angle = Math.atan2(axis.way[1], axis.way[0]);
    const square = main + (Math.round((angle - main) / (Math.PI / 2)) * Math.PI) / 2;
    return Math.abs(angle - square) <= SQUARE ? { ...axis, way: [Math.cos(square), Math.sin(square)] } : axis;
  });
}

// --- walls along a line, and their openings -------------------------------------------------------------------------

interface Found {
  from: Spot;
  to: Spot;
  readonly way: Spot;
  thickness: number;
  openings: Omit<Opening, 'id'>[];
}

/** Where a gap is looked at: along it as a share of its length, across it in thicknesses. */
const PROBES = [0.1, 0.3, 0.5, 0.7, 0.9].flatMap((share) => [-0.25, 0, 0.25].map((off) => [share, off] as const));

interface Surroundings {
  /** All straight lines. */
  readonly others: readonly Side[];
  readonly isSolid: (at: Spot) => boolean;
}

/** Walls of one line: parted where it is open for too long, with openings where it is open for less. */
function stretchesOf(
  axis: Axis,
  axes: readonly Axis[],
  { others, isSolid }: Surroundings,
  limits: WallLimits,
): Found[] {
  const place = (s: number): Spot => [axis.at[0] + axis.way[0] * s, axis.at[1] + axis.way[1] * s];
  const beside = (s: number, off: number): Spot => {
    const [x, y] = place(s);
    return [x - axis.way[1] * off * axis.thickness, y + axis.way[0] * off * axis.thickness];
  };
  const crossings = crossingsOf(axis, axes);
  const inner = innerLines(axis, others, INSIDE);
  const glass = innerLines(axis, others, IN_GAP);
  // A side that is too rough to be seen leaves no opening where the wall is solid.
  const isOpen = ([s, t]: [number, number]) =>
    PROBES.filter(([share, off]) => isSolid(beside(s + share * (t - s), off))).length < 0.75 * PROBES.length;
  const solidEnd = (end: number, way: 1 | -1): number => {
    const step = axis.thickness / 4;
    const isWall = (s: number) =>
      [-0.3, 0, 0.3].every((off) => isSolid(beside(s, off))) && !crossings.some(([from, to]) => s > from && s < to);
    let s = end;
    while (Math.abs(s - end) < limits.widest && isWall(s + way * step)) s += way * step;
    return s;
  };
  const found: { from: number; to: number; gaps: [number, number][] }[] = [];
  for (const [from, to] of axis.stretches) {
    const last = found.at(-1);
    // What walls across it fill of the gap is not open.
    const gaps = last ? openIn([last.to, from], crossings, axis.thickness).filter(isOpen) : [];
    if (last && gaps.every(([s, t]) => t - s <= limits.widest)) {
      last.gaps.push(...gaps);
      last.to = to;
    } else found.push({ from, to, gaps: [] });
  }
  return found.map((wall) => {
    const { gaps } = wall;
    // Sides are lost near corners that are rounded off; the wall goes on as far as it is solid.
    const [from, to] = [solidEnd(wall.from, -1), solidEnd(wall.to, 1)];
    const length = to - from;
    // Lines drawn along the middle of a wall that goes on are windows too.
    const glazed = inner.filter(
      ([s, t]) => s >= from && t <= to && t - s <= limits.widest && t - s > 2 * axis.thickness && !areMet(gaps, s, t),
    );
    const openings = [
      ...gaps.map(([s, t]): [number, number, Opening['kind']] => [s, t, areMet(glass, s, t) ? 'window' : 'door']),
      ...mergedStretches(glazed, 0).map(([s, t]): [number, number, Opening['kind']] => [s, t, 'window']),
    ];
    return {
      from: place(from),
      to: place(to),
      way: axis.way,
      thickness: axis.thickness,
      openings: openings.map(([s, t, kind]) => ({
        kind,
        piece: 0,
        at: ((s + t) / 2 - from) / length,
        width: t - s,
        ...limits[kind],
      })),
    };
  });
}

/** What is open of a gap. Beside a wall across it a little is missing where the corner is rounded. */
function openIn(gap: [number, number], crossings: readonly [number, number][], thickness: number): [number, number][] {
  return without([gap], crossings).filter(([s, t]) => {
    const isBeside = s > gap[0] || t < gap[1];
    return t - s > (isBeside ? 1 : SLIT) * thickness;
  });
}

/** Whether most of the stretch from s to t is met by one of the intervals. */
const areMet = (intervals: readonly [number, number][], s: number, t: number): boolean =>
  intervals.some(([from, to]) => Math.min(to, t) - Math.max(from, s) > 0.6 * (t - s));

/** Stretches of a line that lie inside walls across it. */
function crossingsOf(axis: Axis, axes: readonly Axis[]): [number, number][] {
  return axes.flatMap((other): [number, number][] => {
    const sine = Math.abs(cross(axis.way, other.way));
    const at = sine > 0.3 ? meeting(axis.at, axis.way, other.at, other.way) : null;
    if (!at) return [];
    const along = dot(minus(at, other.at), other.way);
    const reach = axis.thickness;
    if (!other.stretches.some(([from, to]) => along >= from - reach && along <= to + reach)) return [];
    const middle = dot(minus(at, axis.at), axis.way);
    const half = (MITRE * other.thickness) / sine;
    return [[middle - half, middle + half]];
  });
}

/** Lines along an axis, no further from it than a share of its thickness. */
function innerLines(axis: Axis, others: readonly Side[], share: number): [number, number][] {
  return others.flatMap((side): [number, number][] => {
    if (Math.abs(cross(side.way, axis.way)) > Math.sin(2 * PARALLEL)) return [];
    const off = cross(axis.way, minus(middle(side), axis.at));
    if (Math.abs(off) > share * axis.thickness) return [];
    const [s, t] = [dot(minus(side.from, axis.at), axis.way), dot(minus(side.to, axis.at), axis.way)];
    return [[Math.min(s, t), Math.max(s, t)]];
  });
}

// --- walls with each other ------------------------------------------------------------------------------------------

/** Thicknesses that are nearly the same made the same. */
function evenly(walls: readonly Found[]): Found[] {
  const sorted = [...walls].sort((a, b) => a.thickness - b.thickness);
  const groups: Found[][] = [];
  for (const wall of sorted) {
    const group = groups.at(-1);
    if (group && areAlike(wall.thickness, group[0]!.thickness, SAME)) group.push(wall);
    else groups.push([wall]);
  }
  const even = new Map<Found, number>();
  for (const group of groups) {
    const weight = group.reduce((sum, wall) => sum + lengthOf(wall), 0);
    const mean = group.reduce((sum, wall) => sum + wall.thickness * lengthOf(wall), 0) / weight;
    for (const wall of group) even.set(wall, mean);
  }
  return walls.map((wall) => ({ ...wall, thickness: even.get(wall)! }));
}

const lengthOf = ({ from, to }: Found) => Math.hypot(to[0] - from[0], to[1] - from[1]);

/** Ends that stop at the face of another wall, or short of a corner with it, brought onto its middle line. */
function joined(walls: readonly Found[]): Found[] {
  return walls.map((wall) => {
    const [from, to] = (['from', 'to'] as const).map((end) => metBy(wall, end, walls) ?? wall[end]) as [Spot, Spot];
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
    // Openings stay where they are.
    const openings = wall.openings.map((opening) => {
      const old = opening.at * lengthOf(wall);
      const place: Spot = [wall.from[0] + wall.way[0] * old, wall.from[1] + wall.way[1] * old];
      return { ...opening, at: Math.min(1, Math.max(0, dot(minus(place, from), wall.way) / length)) };
    });
    return length > 0 ? { ...wall, from, to, openings } : wall;
  });
}

function metBy(wall: Found, end: 'from' | 'to', walls: readonly Found[]): Spot | null {
  let best: Spot | null = null;
  let least = Infinity;
  for (const other of walls) {
    const sine = Math.abs(cross(wall.way, other.way));
    const at = other !== wall && sine > 0.2 ? meeting(wall.from, wall.way, other.from, other.way) : null;
    if (!at) continue;
    const away = Math.hypot(at[0] - wall[end][0], at[1] - wall[end][1]);
    const reach = (MITRE * other.thickness + wall.thickness) / sine;
    const along = dot(minus(at, other.from), other.way);
    const spare = (MITRE * wall.thickness + other.thickness) / sine;
    if (away > reach || away >= least || along < -spare || along > lengthOf(other) + spare) continue;
    [least, best] = [away, at];
  }
  return best;
}

// --- planes ---------------------------------------------------------------------------------------------------------

const cross = (a: Spot, b: Spot) => a[0] * b[1] - a[1] * b[0];
const dot = (a: Spot, b: Spot) => a[0] * b[0] + a[1] * b[1];
const minus = (a: Spot, b: Spot): Spot => [a[0] - b[0], a[1] - b[1]];
const middle = ({ from, to }: Side): Spot => [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
const along = (side: Side, at: Spot) => dot(minus(at, side.from), side.way);
/** Positive on the left (y up). */
const across = (side: Side, at: Spot) => cross(side.way, minus(at, side.from));
const areAlike = (a: number, b: number, ratio: number) => Math.max(a, b) <= ratio * Math.min(a, b);

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

// stroke.ts — what a round pen covers along a path: a band for every stretch without sharp turns, a disc at its ends,
// united by the exact arrangement.
import { polylines } from '../path/flatten.ts';
import type { Path } from '../path/types.ts';
import { ringArea, ringsOf } from './measure.ts';
import { regionsOf } from './regions.ts';
import { reversed } from './reverse.ts';
import type { Region, Ring } from './types.ts';

/**
 * The regions of a stroke with round joins and ends.
 * @param path open or closed; a piece of no length is a dot
 * @param width in the path's units, > 0
 * @param tolerance largest distance between chord and curve
 */
export function strokeRegions(path: Path, width: number, tolerance: number): Region[] {
  const each = polylines(path, tolerance).map(({ points, isClosed }) =>
    regionsOf(penRings(corners(points, isClosed, SAME * tolerance), isClosed, width / 2, tolerance), 'nonzero'),
  );
  return each.length === 1 ? each[0]! : regionsOf(each.flatMap(ringsOf), 'nonzero');
}

/** Points nearer than this share of the tolerance are one. */
const SAME = 0.25;

type Place = readonly [x: number, y: number];

/** A line's points without those that lie within `gap` of the one before: their direction says nothing. */
function corners(points: Float64Array, isClosed: boolean, gap: number): Place[] {
  const kept: Place[] = [];
  const isNear = ([x, y]: Place, [u, v]: Place) => Math.hypot(x - u, y - v) <= gap;
  for (let i = 0; i < points.length; i += 2) {
    const place: Place = [points[i]!, points[i + 1]!];
    if (kept.length === 0 || !isNear(place, kept.at(-1)!)) kept.push(place);
  }
  while (isClosed && kept.length > 1 && isNear(kept[0]!, kept.at(-1)!)) kept.pop();
  return kept;
}

/** Bands along the stretches between sharp turns, and discs at those and at the ends. */
function penRings(places: readonly Place[], isClosed: boolean, radius: number, tolerance: number): Ring[] {
  const count = places.length;
  if (count < 2) return places.map((place) => disc(place, radius, tolerance));
  const isSharp = (i: number) => {
    const [n, m] = [
      side(places[(i + count - 1) % count]!, places[i]!, radius),
      side(places[i]!, places[(i + 1) % count]!, radius),
    ];
    // A mitre stands out over the arc by r · (1 / cos(turn / 2) − 1).
    const half = Math.sqrt(Math.max(0, (1 + (n[0] * m[0] + n[1] * m[1]) / (radius * radius)) / 2));
    return radius * (1 - half) > tolerance * half;
  };
  const stops = places.flatMap((_, i) => ((!isClosed && (i === 0 || i === count - 1)) || isSharp(i) ? [i] : []));
  if (stops.length === 0) return [edgeOf(places, true, radius), edgeOf([...places].reverse(), true, radius)];
  const discs = stops.map((i) => disc(places[i]!, radius, tolerance));
  const bands = stops.flatMap((from, k) => {
    const to = stops[k + 1] ?? (isClosed ? stops[0]! + count : null);
    if (to === null) return [];
    const run = Array.from({ length: to - from + 1 }, (_, i) => places[(from + i) % count]!);
    return [joined(edgeOf(run, false, radius), edgeOf([...run].reverse(), false, radius))];
  });
  return [...discs, ...bands].map(counterClockwise);
}

/** The left side of a line without sharp turns, mitred. */
function edgeOf(places: readonly Place[], isClosed: boolean, radius: number): Ring {
  const count = places.length;
  const edge = new Float64Array(2 * count);
  for (const [i, [x, y]] of places.entries()) {
    const before = i > 0 || isClosed ? places.at(i - 1)! : null;
    const behind = i + 1 < count || isClosed ? places[(i + 1) % count]! : null;
    const n = before ? side(before, [x, y], radius) : side([x, y], behind!, radius);
    const m = behind ? side([x, y], behind, radius) : n;
    const stretch = 1 / (1 + (n[0] * m[0] + n[1] * m[1]) / (radius * radius));
    edge[2 * i] = x + stretch * (n[0] + m[0]);
    edge[2 * i + 1] = y + stretch * (n[1] + m[1]);
  }
  return edge;
}

function joined(left: Ring, right: Ring): Ring {
  const ring = new Float64Array(left.length + right.length);
  ring.set(left);
  ring.set(right, left.length);
  return ring;
}

/** Offset of a chord's left side. */
function side([ax, ay]: Place, [bx, by]: Place, radius: number): Place {
  const length = Math.hypot(bx - ax, by - ay);
  return [(-(by - ay) / length) * radius, ((bx - ax) / length) * radius];
}

/** The fewest corners of a disc, and the most. */
const CORNERS = [8, 256] as const;

function disc([x, y]: Place, radius: number, tolerance: number): Ring {
  const share = Math.max(-1, 1 - tolerance / radius);
  const corners = Math.min(CORNERS[1], Math.max(CORNERS[0], Math.ceil(Math.PI / Math.acos(share))));
  const ring = new Float64Array(2 * corners);
  for (let i = 0; i < corners; i++) {
    const angle = (2 * Math.PI * i) / corners;
    ring[2 * i] = x + radius * Math.cos(angle);
    ring[2 * i + 1] = y + radius * Math.sin(angle);
  }
  return ring;
}

/** Parts that overlap must all wind one way to unite. */
function counterClockwise(ring: Ring): Ring {
  return ringArea(ring) >= 0 ? ring : reversed(ring);
}

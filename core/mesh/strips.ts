// strips.ts — the faces of a slab laid flat: front and back as they are seen, walls and edges unrolled, along the outline by its
// length from a seam and across by the length of the profile.
import { type Flow, faceCount, type Mesh, SIDES } from './types.ts';

const [, EDGE, WALL, BACK] = SIDES.map((_, i) => i) as [number, number, number, number];

/** Flat u, v for every corner, in project units, as `layUvs` says. */
export function flatUvs(mesh: Mesh, strips: Strips): Float64Array {
  const { positions, starts, corners } = mesh;
  const uvs = new Float64Array(2 * corners.length);
  for (let f = 0; f < faceCount(mesh); f++) {
    if (strips.has(f)) continue;
    const isBehind = strips.isBehind(f);
    for (let c = starts[f]!; c < starts[f + 1]!; c++) {
      const p = 3 * corners[c]!;
      uvs[2 * c] = isBehind ? -positions[p]! : positions[p]!;
      uvs[2 * c + 1] = positions[p + 1]!;
    }
  }
  strips.unroll(uvs);
  return uvs;
}

/** Walls and edges of all outlines, unrolled. */
export class Strips {
  private readonly mesh: Mesh;
  private readonly flow: Flow;
  /** Length of the outline from its seam to where each edge begins. */
  readonly along: Float64Array;
  readonly lengths: Float64Array;
  /** The same to where it ends: exactly where the next one begins, but for the last one. */
  private readonly ends: Float64Array;

  constructor(mesh: Mesh, flow: Flow) {
    this.mesh = mesh;
    this.flow = flow;
    const { next, points } = flow;
    this.lengths = Float64Array.from(next, (after, edge) =>
      Math.hypot(points[2 * after]! - points[2 * edge]!, points[2 * after + 1]! - points[2 * edge + 1]!),
    );
    this.along = new Float64Array(next.length);
    this.ends = new Float64Array(next.length);
    for (const ring of ringsOf(flow)) {
      let length = 0;
      for (const edge of ring) {
        this.along[edge] = length;
        length += this.lengths[edge]!;
        this.ends[edge] = length;
      }
    }
  }

  /** Whether a face is part of a strip. */
  has(face: number): boolean {
    const side = this.mesh.sides[face];
    return side === WALL || (side === EDGE && this.flow.edges[face]! >= 0);
  }

  /** Whether a face is seen from behind. */
  isBehind(face: number): boolean {
    const side = this.mesh.sides[face];
    return side === BACK || (side === EDGE && this.isOfBack(face));
  }

  private isOfBack(face: number): boolean {
    const { starts, corners } = this.mesh;
    for (let c = starts[face]!; c < starts[face + 1]!; c++) {
      const across = this.flow.across[corners[c]!]!;
      if (across < 0) return true;
      if (across > this.flow.wall) return false;
    }
    return false;
  }

  /** Writes u, v of every corner of its faces. */
  unroll(uvs: Float64Array): void {
    const { sides, starts, corners } = this.mesh;
    const { edges, across, next, points } = this.flow;
    // Faces that follow one edge, those of the back apart.
    const groups = new Map<number, number[]>();
    for (let f = 0; f < sides.length; f++) {
      if (!this.has(f)) continue;
      const key = 2 * edges[f]! + (sides[f] === EDGE && this.isOfBack(f) ? 1 : 0);
      const group = groups.get(key);
      if (group) group.push(f);
      else groups.set(key, [f]);
    }
    for (const [key, faces] of groups) {
      const edge = key >> 1;
      const [from, to] = [2 * edge, 2 * next[edge]!];
      const length = this.lengths[edge]! || 1;
      const [dx, dy] = [(points[to]! - points[from]!) / length, (points[to + 1]! - points[from + 1]!) / length];
      const place = (point: number) => {
        const [px, py] = [
          this.mesh.positions[3 * point]! - points[from]!,
          this.mesh.positions[3 * point + 1]! - points[from + 1]!,
        ];
        return [px * dx + py * dy, px * dy - py * dx] as const;
      };
      const polygons = faces.map((f) => Array.from(corners.subarray(starts[f], starts[f + 1]), place));
      const slices = new Slices(polygons);
      for (const [i, f] of faces.entries()) {
        const shares = slices.shares(polygons[i]!);
        for (let c = starts[f]!; c < starts[f + 1]!; c++) {
          const share = shares[c - starts[f]!]!;
          uvs[2 * c] = share === 1 ? this.ends[edge]! : this.along[edge]! + length * share;
          uvs[2 * c + 1] = across[corners[c]!]!;
        }
      }
    }
  }
}

type Place = readonly [along: number, off: number];

/** Places nearer than this to each other, as a share of what is compared, are one. */
const SAME = 1e-7;

/**
 * The faces along one outline edge, as seen square to it: how far to the right a place lies among all that is as far from the
 * edge, from 0 to 1, so that neighbours meet. Above the first place where the faces end in a ridge, what is as far from the
 * edge says nothing of neighbours; there places keep their distances, so that nothing folds over.
 */
class Slices {
  private readonly polygons: readonly (readonly Place[])[];
  private readonly slack: number;
  private readonly known = new Map<number, Place>();
  /** Up to where all faces reach from one neighbour to the other, and what 0 and 1 are from there on. */
  private readonly regular: number;
  private readonly frozen: Place;

  /** @param polygons on one side of the edge */
  constructor(polygons: Slices['polygons']) {
    this.polygons = polygons;
    this.slack = SAME * polygons.flat(2).reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    this.regular = this.firstEvent();
    this.frozen = this.regular < Infinity ? this.around(this.regular) : [0, 1];
  }

  /** Of each corner of a face. */
  shares(face: readonly Place[]): number[] {
    const isRegular = face.every(([, off]) => Math.abs(off) <= this.regular + this.slack);
    return face.map(([along, off]) => {
      const [least, most] = isRegular ? this.extent(off) : this.frozen;
      const room = most - least;
      if (!(room > this.slack)) return 0.5;
      const share = (along - least) / room;
      return share < SAME ? 0 : share > 1 - SAME ? 1 : share;
    });
  }

  /** The least distance from the edge at which some faces do not reach from one neighbour to the other. */
  private firstEvent(): number {
    let first = Infinity;
    const strips = new Map<string, { low: number; high: number; below: number; above: number }>();
    for (const polygon of this.polygons) {
      const offs = polygon.map(([, off]) => off);
      const [low, high] = [Math.min(...offs), Math.max(...offs)];
      if (high - low <= this.slack) continue;
      const isOn = (off: number, level: number) => Math.abs(off - level) <= this.slack;
      const nearest = Math.min(Math.abs(low), Math.abs(high));
      if (offs.some((off) => !isOn(off, low) && !isOn(off, high))) first = Math.min(first, nearest);
      const key = `${Math.round(low / this.slack / 4)} ${Math.round(high / this.slack / 4)}`;
      const strip = strips.get(key) ?? { low, high, below: 0, above: 0 };
      strips.set(key, strip);
      for (const [i, [x, y]] of polygon.entries()) {
        const [px, py] = polygon.at(i - 1)!;
        if (isOn(y, low) && isOn(py, low)) strip.below += Math.abs(x - px);
        if (isOn(y, high) && isOn(py, high)) strip.above += Math.abs(x - px);
      }
    }
    for (const { low, high, below, above } of strips.values()) {
      const isWhole = (off: number, length: number) => {
        const [least, most] = this.extent(off);
        return length > this.slack && Math.abs(most - least - length) <= 4 * this.slack;
      };
      if (!isWhole(low, below) || !isWhole(high, above)) first = Math.min(first, Math.abs(low), Math.abs(high));
    }
    return first;
  }

  /** What lies to the left and to the right at some distance from the edge, and everywhere beyond it. */
  private around(off: number): Place {
    const sign = this.polygons.some((polygon) => polygon.some(([, y]) => y > this.slack)) ? 1 : -1;
    let [least, most] = this.extent(sign * off);
    for (const [along, y] of this.polygons.flat()) {
      if (Math.abs(y) < off) continue;
      [least, most] = [Math.min(least, along), Math.max(most, along)];
    }
    return [least, most];
  }

  private extent(off: number): Place {
    const known = this.known.get(off);
    if (known) return known;
    let [least, most] = [Infinity, -Infinity];
    for (const polygon of this.polygons) {
      for (const [i, [x, y]] of polygon.entries()) {
        const [px, py] = polygon.at(i - 1)!;
        if (Math.abs(y - off) <= this.slack) [least, most] = [Math.min(least, x), Math.max(most, x)];
        else if (y > off !== py > off && Math.abs(py - off) > this.slack) {
          const at = x + ((off - y) / (py - y)) * (px - x);
          [least, most] = [Math.min(least, at), Math.max(most, at)];
        }
      }
    }
    this.known.set(off, [least, most]);
    return [least, most];
  }
}

/** The edges of each outline in order, from its seam. */
export function ringsOf({ next, points }: Flow): number[][] {
  const seen = new Uint8Array(next.length);
  const rings: number[][] = [];
  for (let first = 0; first < next.length; first++) {
    if (seen[first]) continue;
    const ring: number[] = [];
    for (let edge = first; !seen[edge]; edge = next[edge]!) {
      seen[edge] = 1;
      ring.push(edge);
    }
    const isLower = (a: number, b: number) =>
      points[2 * a + 1]! < points[2 * b + 1]! ||
      (points[2 * a + 1] === points[2 * b + 1] && points[2 * a]! < points[2 * b]!);
    const seam = ring.reduce((best, edge, i) => (isLower(edge, ring[best]!) ? i : best), 0);
    rings.push([...ring.slice(seam), ...ring.slice(0, seam)]);
  }
  return rings;
}

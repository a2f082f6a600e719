// crossings.ts — where a mesh runs through itself: a tree of boxes for the candidates, exact tests for the verdict.
import { orient2d, orient3d } from 'robust-predicates';
import { BoxTree } from './box-tree.ts';

/**
 * Pairs of triangles that pierce or overlap each other. Touching is not crossing: common points and edges do not count,
 * nor does a point that only rests on a face.
 * @param positions flat x, y, z
 * @param indices three point indices a triangle; equal positions must have equal indices
 * @returns flat pairs of triangle numbers, the smaller one first
 */
export function crossingsOf(positions: ArrayLike<number>, indices: Uint32Array): number[] {
  const tree = new BoxTree(positions, indices);
  const test = new PairTest(positions, indices);
  const pairs: number[] = [];
  tree.eachPair((s, t) => {
    if (test.cross(s, t)) pairs.push(Math.min(s, t), Math.max(s, t));
  });
  return pairs;
}

/** Share of what could be that a product of lengths must have to be told from rounding. */
const CLEARLY = 1e-9;

type Triple = readonly [number, number, number];

class PairTest {
  private readonly p: ArrayLike<number>;
  private readonly indices: Uint32Array;

  constructor(positions: ArrayLike<number>, indices: Uint32Array) {
    this.p = positions;
    this.indices = indices;
  }

  cross(s: number, t: number): boolean {
    const a = this.corners(s);
    const b = this.corners(t);
    const shared = Number(b.includes(a[0])) + Number(b.includes(a[1])) + Number(b.includes(a[2]));
    if (shared === 3) return true;
    if (shared === 2 && this.lieApart(a, b)) return false;
    // Most triangles lie in the level front and back; two in one plane need no plane of space to be looked at.
    if (this.isLevel(a) && this.isLevel(b))
      return this.p[3 * a[0] + 2] === this.p[3 * b[0] + 2] && this.overlapInPlane(a, b, shared);
    // Proper crossing needs each triangle to have corners strictly on both sides of the other's plane.
    const [low, high] = this.sides(a, b);
    if (low === 0 && high === 0) return this.overlapInPlane(a, b, shared);
    if (shared === 2 || low >= 0 || high <= 0) return false;
    const [lowest, highest] = this.sides(b, a);
    if (lowest >= 0 || highest <= 0) return false;
    return this.pierces(a, b) || this.pierces(b, a);
  }

  /** Whether two triangles with a common edge lie clearly on different sides of it: most neighbours do. */
  private lieApart(a: Triple, b: Triple): boolean {
    const { p } = this;
    const k = b.includes(a[0]) ? (b.includes(a[1]) ? 2 : 1) : 0;
    const [i, j, m] = [3 * a[(k + 1) % 3]!, 3 * a[(k + 2) % 3]!, 3 * a[k]!];
    const n = 3 * b.find((point) => !a.includes(point))!;
    const [ex, ey, ez] = [p[j]! - p[i]!, p[j + 1]! - p[i + 1]!, p[j + 2]! - p[i + 2]!];
    const [ux, uy, uz] = [p[m]! - p[i]!, p[m + 1]! - p[i + 1]!, p[m + 2]! - p[i + 2]!];
    const [vx, vy, vz] = [p[n]! - p[i]!, p[n + 1]! - p[i + 1]!, p[n + 2]! - p[i + 2]!];
    const [ee, eu, ev] = [ex * ex + ey * ey + ez * ez, ex * ux + ey * uy + ez * uz, ex * vx + ey * vy + ez * vz];
    const [uu, vv] = [ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz];
    // How far both lean the same way, across the edge; far more than rounding could make of it.
    return (ux * vx + uy * vy + uz * vz) * ee - eu * ev < -CLEARLY * Math.sqrt(uu * vv) * ee;
  }

  private isLevel([i, j, k]: Triple): boolean {
    const z = this.p[3 * i + 2];
    return this.p[3 * j + 2] === z && this.p[3 * k + 2] === z;
  }

  /** Lowest and highest of the sides of `plane` on which the corners of `t` lie. */
  private sides(plane: Triple, t: Triple): [number, number] {
    const p = plane.includes(t[0]) ? 0 : this.side(plane, t[0]);
    const q = plane.includes(t[1]) ? 0 : this.side(plane, t[1]);
    const r = plane.includes(t[2]) ? 0 : this.side(plane, t[2]);
    return [Math.min(p, q, r), Math.max(p, q, r)];
  }

  private corners(t: number): Triple {
    return [this.indices[3 * t]!, this.indices[3 * t + 1]!, this.indices[3 * t + 2]!];
  }

  /** Sign of the volume of a, b, c, d. */
  private volume(a: number, b: number, c: number, d: number): number {
    const { p } = this;
    const [i, j, k, l] = [3 * a, 3 * b, 3 * c, 3 * d];
    const [ax, ay, az, bx, by, bz] = [p[i]!, p[i + 1]!, p[i + 2]!, p[j]!, p[j + 1]!, p[j + 2]!];
    const [cx, cy, cz, dx, dy, dz] = [p[k]!, p[k + 1]!, p[k + 2]!, p[l]!, p[l + 1]!, p[l + 2]!];
    return Math.sign(orient3d(ax, ay, az, bx, by, bz, cx, cy, cz, dx, dy, dz));
  }

  private side([a, b, c]: Triple, point: number): number {
    return this.volume(a, b, c, point);
  }

  /** Whether an edge of `a` passes from one side of `b` to the other, through its inside or an edge, not a corner. */
  private pierces(a: Triple, b: Triple): boolean {
    for (let k = 0; k < 3; k++) {
      const from = a[k]!;
      const to = a[(k + 1) % 3]!;
      if (b.includes(from) || b.includes(to)) continue;
      if (this.side(b, from) * this.side(b, to) >= 0) continue;
      const turns = [0, 1, 2].map((m) => this.volume(from, to, b[m]!, b[(m + 1) % 3]!));
      const sum = turns[0]! + turns[1]! + turns[2]!;
      if (Math.abs(sum) >= 2 && turns.every((turn) => turn * sum >= 0)) return true;
    }
    return false;
  }

  /** Two triangles of one plane: seen along the axis in which they are largest. */
  private overlapInPlane(a: Triple, b: Triple, shared: number): boolean {
    const { p } = this;
    const [u, v] = this.flattest(a);
    const turn = (i: number, j: number, k: number) =>
      Math.sign(orient2d(p[3 * i + u]!, p[3 * i + v]!, p[3 * j + u]!, p[3 * j + v]!, p[3 * k + u]!, p[3 * k + v]!));
    const wind = (t: Triple): Triple => (turn(...t) < 0 ? [t[0], t[2], t[1]] : t);
    const [s, t] = [wind(a), wind(b)];
    if (shared === 2) {
      const rest = t.find((point) => !s.includes(point))!;
      const k = s.findIndex((point) => !t.includes(point));
      return turn(s[(k + 1) % 3]!, s[(k + 2) % 3]!, rest) > 0;
    }
    // Disjoint exactly when some edge has the whole other triangle on its outer side.
    const separates = (x: Triple, y: Triple) =>
      [0, 1, 2].some((k) => y.every((point) => turn(x[k]!, x[(k + 1) % 3]!, point) <= 0));
    return !separates(s, t) && !separates(t, s);
  }

  private flattest([a, b, c]: Triple): [number, number] {
    const { p } = this;
    const area = (u: number, v: number) =>
      Math.abs(
        (p[3 * b + u]! - p[3 * a + u]!) * (p[3 * c + v]! - p[3 * a + v]!) -
          (p[3 * b + v]! - p[3 * a + v]!) * (p[3 * c + u]! - p[3 * a + u]!),
      );
    const [xy, yz, zx] = [area(0, 1), area(1, 2), area(2, 0)];
    if (xy >= yz && xy >= zx) return [0, 1];
    return yz >= zx ? [1, 2] : [2, 0];
  }
}

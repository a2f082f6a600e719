// triangles.ts — polygon faces as triangles, for formats and tests that know nothing else.
import { tryInside } from '../solid/triangulate.ts';
import { faceCount, type Mesh } from './types.ts';

export interface Triangles {
  /** Point indices, three a triangle. */
  readonly indices: Uint32Array;
  /** The face each triangle comes from. */
  readonly faces: Uint32Array;
}

/**
 * Quads are split along the shorter diagonal that lies inside them, the first one on a tie; larger faces as a fan around
 * their first corner where that lies inside, else by a Delaunay triangulation of what is seen along their normal.
 */
export function trianglesOf(mesh: Mesh): Triangles {
  const { starts, corners } = mesh;
  const faces = faceCount(mesh);
  const total = corners.length - 2 * faces;
  const indices = new Uint32Array(3 * total);
  const origin = new Uint32Array(total);
  const divider = new Divider(mesh);
  let t = 0;
  for (let f = 0; f < faces; f++) {
    divider.divide(starts[f]!, starts[f + 1]! - starts[f]!, (a, b, c) => {
      indices[3 * t] = a;
      indices[3 * t + 1] = b;
      indices[3 * t + 2] = c;
      origin[t++] = f;
    });
  }
  return { indices, faces: origin };
}

type Visit = (a: number, b: number, c: number) => void;

class Divider {
  private readonly p: Float64Array;
  private readonly corners: Uint32Array;
  /** Normal of the face at hand, as long as twice its area. */
  private x = 0;
  private y = 0;
  private z = 0;

  constructor({ positions, corners }: Mesh) {
    this.p = positions;
    this.corners = corners;
  }

  divide(from: number, size: number, visit: Visit): void {
    const { corners } = this;
    const [a, b, c, d] = [corners[from]!, corners[from + 1]!, corners[from + 2]!, corners[from + 3]!];
    if (size === 3) visit(a, b, c);
    else if (size === 4) {
      this.setNormal(from, size);
      const isOther = this.distance2(b, d) < this.distance2(a, c);
      // A corner that points inward leaves only the diagonal that ends in it.
      const isFirst = isOther
        ? !(this.turns(a, b, d) && this.turns(b, c, d))
        : this.turns(a, b, c) && this.turns(a, c, d);
      if (isFirst) {
        visit(a, b, c);
        visit(a, c, d);
      } else {
        visit(a, b, d);
        visit(b, c, d);
      }
    } else {
      this.setNormal(from, size);
      if (this.isFan(from, size))
        for (let k = 1; k + 1 < size; k++) visit(a, corners[from + k]!, corners[from + k + 1]!);
      else this.triangulate(from, size, visit);
    }
  }

  private isFan(from: number, size: number): boolean {
    const { corners } = this;
    for (let k = 1; k + 1 < size; k++) {
      if (!this.turns(corners[from]!, corners[from + k]!, corners[from + k + 1]!)) return false;
    }
    return true;
  }

  /** What cannot be seen whole along its normal is left a fan. */
  private triangulate(from: number, size: number, visit: Visit): void {
    const seen = this.seen(from, size);
    const edges = Uint32Array.from({ length: 2 * size }, (_, i) => (i % 2 ? ((i >> 1) + 1) % size : i >> 1));
    const inside = tryInside(seen, edges);
    const at = (k: number) => this.corners[from + k]!;
    if (inside && inside.corners.length === 3 * (size - 2)) {
      const [i] = [inside.corners];
      for (let k = 0; k < i.length; k += 3) visit(at(i[k]!), at(i[k + 1]!), at(i[k + 2]!));
    } else for (let k = 1; k + 1 < size; k++) visit(at(0), at(k), at(k + 1));
  }

  /** The corners as seen along the axis that is nearest to the normal, turning left. */
  private seen(from: number, size: number): Float64Array {
    const [ax, ay, az] = [Math.abs(this.x), Math.abs(this.y), Math.abs(this.z)];
    const [u, v, sign] = az >= ax && az >= ay ? [0, 1, this.z] : ax >= ay ? [1, 2, this.x] : [2, 0, this.y];
    const points = new Float64Array(2 * size);
    for (let k = 0; k < size; k++) {
      const at = 3 * this.corners[from + k]!;
      points[2 * k] = sign < 0 ? -this.p[at + u]! : this.p[at + u]!;
      points[2 * k + 1] = this.p[at + v]!;
    }
    return points;
  }

  /** Newell's method. */
  private setNormal(from: number, size: number): void {
    const { p, corners } = this;
    [this.x, this.y, this.z] = [0, 0, 0];
    for (let c = from, b = from + size - 1; c < from + size; b = c++) {
      const [i, j] = [3 * corners[b]!, 3 * corners[c]!];
      this.x += (p[i + 1]! - p[j + 1]!) * (p[i + 2]! + p[j + 2]!);
      this.y += (p[i + 2]! - p[j + 2]!) * (p[i]! + p[j]!);
      this.z += (p[i]! - p[j]!) * (p[i + 1]! + p[j + 1]!);
    }
  }

  /** Whether a triangle faces as the face does. */
  private turns(a: number, b: number, c: number): boolean {
    const { p } = this;
    const [i, j, k] = [3 * a, 3 * b, 3 * c];
    const [ux, uy, uz] = [p[j]! - p[i]!, p[j + 1]! - p[i + 1]!, p[j + 2]! - p[i + 2]!];
    const [vx, vy, vz] = [p[k]! - p[i]!, p[k + 1]! - p[i + 1]!, p[k + 2]! - p[i + 2]!];
    return (uy * vz - uz * vy) * this.x + (uz * vx - ux * vz) * this.y + (ux * vy - uy * vx) * this.z > 0;
  }

  private distance2(a: number, b: number): number {
    const { p } = this;
    return (p[3 * a]! - p[3 * b]!) ** 2 + (p[3 * a + 1]! - p[3 * b + 1]!) ** 2 + (p[3 * a + 2]! - p[3 * b + 2]!) ** 2;
  }
}

// triangles.ts — polygon faces as triangles, for formats and tests that know nothing else.
import { uints } from '../base/arrays.ts';
import { tryInside } from '../geometry/triangulate.ts';
import { faceCount, type Mesh } from './types.ts';

export interface Triangles {
  /** Point indices, three a triangle. */
  readonly indices: Uint32Array;
  /** The face each triangle comes from. */
  readonly faces: Uint32Array;
}

/** Faces as triangles, divided as {@link triangleCorners} says. */
export function trianglesOf(mesh: Mesh): Triangles {
  const indices = triangleIndices(mesh);
  const faces = new Uint32Array(indices.length / 3);
  for (let f = 0, t = 0; f < faceCount(mesh); f++) {
    const next = t + mesh.starts[f + 1]! - mesh.starts[f]! - 2;
    faces.fill(f, t, next);
    t = next;
  }
  return { indices, faces };
}

/** Point indices, three a triangle, divided as {@link triangleCorners} says. */
export const triangleIndices = (mesh: Mesh): Uint32Array =>
  triangleCorners(mesh).map((corner) => mesh.corners[corner]!);

/**
 * Three corners of the mesh a triangle, face after face. Quads are split along the shorter diagonal that lies inside them, the
 * first one on a tie; larger faces as a fan around their first corner where that lies inside, else by a Delaunay triangulation
 * of what is seen along their normal.
 */
export function triangleCorners(mesh: Mesh): Uint32Array {
  const { starts, corners } = mesh;
  const faces = faceCount(mesh);
  const result = new Uint32Array(3 * (corners.length - 2 * faces));
  const divider = new Divider(mesh);
  let at = 0;
  const push = (a: number, b: number, c: number) => {
    result[at++] = a;
    result[at++] = b;
    result[at++] = c;
  };
  for (let f = 0; f < faces; f++) divider.divide(starts[f]!, starts[f + 1]! - starts[f]!, push);
  return result;
}

/** Told of corners of the mesh. */
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
    const [a, b, c, d] = [from, from + 1, from + 2, from + 3];
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
      if (this.isFan(from, size)) for (let k = 1; k + 1 < size; k++) visit(from, from + k, from + k + 1);
      else this.triangulate(from, size, visit);
    }
  }

  private isFan(from: number, size: number): boolean {
    for (let k = 1; k + 1 < size; k++) if (!this.turns(from, from + k, from + k + 1)) return false;
    return true;
  }

  /** What cannot be seen whole along its normal is left a fan. */
  private triangulate(from: number, size: number, visit: Visit): void {
    const seen = this.seen(from, size);
    const edges = uints(2 * size, (i) => (i % 2 ? ((i >> 1) + 1) % size : i >> 1));
    const inside = tryInside(seen, edges);
    if (inside?.corners.length === 3 * (size - 2)) {
      const found = inside.corners;
      for (let k = 0; k < found.length; k += 3) visit(from + found[k]!, from + found[k + 1]!, from + found[k + 2]!);
    } else for (let k = 1; k + 1 < size; k++) visit(from, from + k, from + k + 1);
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
    this.x = 0;
    this.y = 0;
    this.z = 0;
    for (let c = from, b = from + size - 1; c < from + size; b = c++) {
      const [i, j] = [3 * corners[b]!, 3 * corners[c]!];
      this.x += (p[i + 1]! - p[j + 1]!) * (p[i + 2]! + p[j + 2]!);
      this.y += (p[i + 2]! - p[j + 2]!) * (p[i]! + p[j]!);
      this.z += (p[i]! - p[j]!) * (p[i + 1]! + p[j + 1]!);
    }
  }

  /** Whether the triangle of three corners faces as the face does. */
  private turns(a: number, b: number, c: number): boolean {
    const { p, corners } = this;
    const [i, j, k] = [3 * corners[a]!, 3 * corners[b]!, 3 * corners[c]!];
    const [ux, uy, uz] = [p[j]! - p[i]!, p[j + 1]! - p[i + 1]!, p[j + 2]! - p[i + 2]!];
    const [vx, vy, vz] = [p[k]! - p[i]!, p[k + 1]! - p[i + 1]!, p[k + 2]! - p[i + 2]!];
    return (uy * vz - uz * vy) * this.x + (uz * vx - ux * vz) * this.y + (ux * vy - uy * vx) * this.z > 0;
  }

  private distance2(a: number, b: number): number {
    const { p, corners } = this;
    const [i, j] = [3 * corners[a]!, 3 * corners[b]!];
    return (p[i]! - p[j]!) ** 2 + (p[i + 1]! - p[j + 1]!) ** 2 + (p[i + 2]! - p[j + 2]!) ** 2;
  }
}

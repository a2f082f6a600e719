// normals.ts — a mesh as triangles with a normal at every corner: hard between sides and across creases, smooth elsewhere.
import { trianglesOf } from './triangles.ts';
import { type Flow, faceCount, type Mesh } from './types.ts';

/** Faces of one side that meet at less than this are shaded as one surface: above the 30° of a round edge in 3 steps. */
export const CREASE_DEG = 40;

/** Triangles with split vertices, as graphics formats want them. Arrays are fresh and may be transferred. */
export interface ShadedMesh {
  readonly positions: Float32Array;
  /** Unit normals, one a vertex. */
  readonly normals: Float32Array;
  readonly indices: Uint32Array;
}

/** Points once for every distinct normal they carry. */
export interface SplitVertices {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** vertexOfCorner[corner of the mesh] → vertex */
  readonly vertexOfCorner: Uint32Array;
}

export function shade(mesh: Mesh, creaseDeg = CREASE_DEG): ShadedMesh {
  const { positions, normals, vertexOfCorner } = splitVertices(mesh, creaseDeg);
  return { positions, normals, indices: triangleCorners(mesh, vertexOfCorner) };
}

/** Normals are means of face normals weighted by the corner's angle (Thürmer & Wüthrich 1998), over one smooth fan. */
export function splitVertices(mesh: Mesh, creaseDeg = CREASE_DEG): SplitVertices {
  const { starts, corners, sides, positions } = mesh;
  const faces = faceCount(mesh);
  const faceNormals = faceNormalsOf(mesh);
  const weights = cornerAngles(mesh);
  const faceOf = new Uint32Array(corners.length);
  for (let f = 0; f < faces; f++) faceOf.fill(f, starts[f], starts[f + 1]);
  const around = cornersByPoint(mesh);
  const crease = (creaseDeg * Math.PI) / 180;
  const limit = Math.cos(crease) - 1e-9;
  const isCurve = curveTest(mesh.flow, crease);

  const vertexOfCorner = new Uint32Array(corners.length);
  const outPositions: number[] = [];
  const outNormals: number[] = [];
  for (let p = 0; p + 1 < around.starts.length; p++) {
    const here = around.ids.subarray(around.starts[p], around.starts[p + 1]);
    const firstVertex = outPositions.length / 3;
    for (const corner of here) {
      const f = faceOf[corner]!;
      let [x, y, z] = [0, 0, 0];
      for (const other of here) {
        const g = faceOf[other]!;
        if (sides[g] !== sides[f]) continue;
        if (g !== f && (dot(faceNormals, f, g) < limit || !isCurve(f, g))) continue;
        x += weights[other]! * faceNormals[3 * g]!;
        y += weights[other]! * faceNormals[3 * g + 1]!;
        z += weights[other]! * faceNormals[3 * g + 2]!;
      }
      const length = Math.hypot(x, y, z) || 1;
      vertexOfCorner[corner] = vertexFor(x / length, y / length, z / length, p, firstVertex);
    }
  }

  // Equal normals at one point share a vertex.
  function vertexFor(x: number, y: number, z: number, point: number, from: number): number {
    for (let v = from; v < outPositions.length / 3; v++) {
      const same = outNormals[3 * v]! * x + outNormals[3 * v + 1]! * y + outNormals[3 * v + 2]! * z;
      if (same > 1 - 1e-10) return v;
    }
    outPositions.push(positions[3 * point]!, positions[3 * point + 1]!, positions[3 * point + 2]!);
    outNormals.push(x, y, z);
    return outPositions.length / 3 - 1;
  }

  return { positions: Float32Array.from(outPositions), normals: Float32Array.from(outNormals), vertexOfCorner };
}

/**
 * Whether two faces lie along one curve of an outline: no corner between them, and no ridge, where an outline meets itself
 * from the other side. Faces that follow no outline always may.
 */
function curveTest(flow: Flow | undefined, crease: number): (f: number, g: number) => boolean {
  if (!flow) return () => true;
  const { edges, next, turns } = flow;
  const run = new Int32Array(next.length).fill(-1);
  /** How far each edge has turned since its run began. */
  const turned = new Float64Array(next.length);
  const isCorner = (edge: number) => Math.abs(turns[edge]!) > crease + 1e-9;
  const follow = (first: number) => {
    let edge = first;
    do {
      const after = next[edge]!;
      if (run[after]! >= 0) break;
      run[after] = isCorner(edge) ? after : run[edge]!;
      turned[after] = isCorner(edge) ? 0 : turned[edge]! + turns[edge]!;
      edge = after;
    } while (edge !== first);
  };
  // Runs begin at corners; an outline without any is one run, which also closes.
  for (let edge = 0; edge < next.length; edge++) {
    if (!isCorner(edge) || run[next[edge]!]! >= 0) continue;
    run[next[edge]!] = next[edge]!;
    follow(next[edge]!);
  }
  for (let edge = 0; edge < next.length; edge++) {
    if (run[edge]! >= 0) continue;
    run[edge] = edge;
    follow(edge);
  }
  return (f, g) => {
    const [a, b] = [edges[f]!, edges[g]!];
    if (a === b || a < 0 || b < 0) return true;
    if (run[a] !== run[b]) return false;
    // A run that closes has turned once around where it began.
    const apart = Math.abs(turned[a]! - turned[b]!) % (2 * Math.PI);
    return Math.min(apart, 2 * Math.PI - apart) <= crease + 1e-9;
  };
}

/** Unit normal of each face (Newell's method, so polygons need not be exactly flat); zero for a face without area. */
export function faceNormalsOf({ positions: p, starts, corners }: Mesh): Float64Array {
  const normals = new Float64Array(3 * (starts.length - 1));
  for (let f = 0; f + 1 < starts.length; f++) {
    let [x, y, z] = [0, 0, 0];
    for (let c = starts[f]!, last = starts[f + 1]! - 1, b = last; c <= last; b = c++) {
      const [i, j] = [3 * corners[b]!, 3 * corners[c]!];
      x += (p[i + 1]! - p[j + 1]!) * (p[i + 2]! + p[j + 2]!);
      y += (p[i + 2]! - p[j + 2]!) * (p[i]! + p[j]!);
      z += (p[i]! - p[j]!) * (p[i + 1]! + p[j + 1]!);
    }
    const length = Math.hypot(x, y, z) || 1;
    normals.set([x / length, y / length, z / length], 3 * f);
  }
  return normals;
}

const dot = (n: Float64Array, f: number, g: number) =>
  n[3 * f]! * n[3 * g]! + n[3 * f + 1]! * n[3 * g + 1]! + n[3 * f + 2]! * n[3 * g + 2]!;

function cornerAngles({ positions: p, starts, corners }: Mesh): Float64Array {
  const angles = new Float64Array(corners.length);
  for (let f = 0; f + 1 < starts.length; f++) {
    const [from, to] = [starts[f]!, starts[f + 1]!];
    for (let c = from; c < to; c++) {
      const at = 3 * corners[c]!;
      const a = 3 * corners[c > from ? c - 1 : to - 1]!;
      const b = 3 * corners[c + 1 < to ? c + 1 : from]!;
      const u = [p[a]! - p[at]!, p[a + 1]! - p[at + 1]!, p[a + 2]! - p[at + 2]!] as const;
      const v = [p[b]! - p[at]!, p[b + 1]! - p[at + 1]!, p[b + 2]! - p[at + 2]!] as const;
      const cos = (u[0] * v[0] + u[1] * v[1] + u[2] * v[2]) / (Math.hypot(...u) * Math.hypot(...v) || 1);
      angles[c] = Math.acos(Math.min(1, Math.max(-1, cos)));
    }
  }
  return angles;
}

/** Corner ids grouped by point: those of point p are ids[starts[p]] … ids[starts[p + 1] − 1]. */
function cornersByPoint({ positions, corners }: Mesh): { starts: Uint32Array; ids: Uint32Array } {
  const starts = new Uint32Array(positions.length / 3 + 1);
  for (const point of corners) starts[point + 1]!++;
  for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
  const fill = starts.slice();
  const ids = new Uint32Array(corners.length);
  for (let c = 0; c < corners.length; c++) ids[fill[corners[c]!]!++] = c;
  return { starts, ids };
}

/** Triangle indices into split vertices, divided exactly as `trianglesOf` divides faces. */
function triangleCorners(mesh: Mesh, vertexOfCorner: Uint32Array): Uint32Array {
  const { indices, faces } = trianglesOf(mesh);
  return indices.map((point, i) => {
    const face = faces[Math.floor(i / 3)]!;
    let corner = mesh.starts[face]!;
    while (mesh.corners[corner] !== point) corner++;
    return vertexOfCorner[corner]!;
  });
}

// normals.ts — a mesh as triangles with a normal at every corner: hard between sides and across creases, smooth elsewhere.
import { Curves } from './curves.ts';
import { trianglesOf } from './triangles.ts';
import { faceCount, type Mesh, SIDES } from './types.ts';

/** What an edge may run into without a line between them. */
export const BLENDS = ['none', 'wall', 'front', 'both'] as const;

export interface Shading {
  /** Faces of one side that meet at less than this are shaded as one surface, degrees. */
  readonly crease: number;
  /** Where an edge is smooth into its neighbour, it takes the neighbour's normals, which stays as flat as it is. */
  readonly blend: (typeof BLENDS)[number];
}

/** 40° is above the 30° of a round edge in 3 steps. */
export const SHADING: Shading = { crease: 40, blend: 'none' };

/** Triangles with split vertices, as graphics formats want them. Arrays are fresh and may be transferred. */
export interface ShadedMesh {
  readonly positions: Float32Array;
  /** Unit normals, one a vertex. */
  readonly normals: Float32Array;
  /** Flat u, v, one pair a vertex; null where none were asked for. */
  readonly uvs: Float32Array | null;
  readonly indices: Uint32Array;
}

/** Points once for every distinct normal and place on pictures that they carry. */
export interface SplitVertices extends Omit<ShadedMesh, 'indices'> {
  /** vertexOfCorner[corner of the mesh] → vertex */
  readonly vertexOfCorner: Uint32Array;
}

/** @param uvs flat u, v, one pair a corner of the mesh; null for none */
export function shade(mesh: Mesh, shading: Shading = SHADING, uvs: Float32Array | null = null): ShadedMesh {
  const { vertexOfCorner, ...vertices } = splitVertices(mesh, shading, uvs);
  return { ...vertices, indices: triangleCorners(mesh, vertexOfCorner) };
}

/**
 * Normals are means of face normals weighted by the corner's angle (Thürmer & Wüthrich 1998), over one smooth fan. Faces along
 * a curve are first turned to where the curve runs at the corner, so that chords leave no facets and lines stay flat.
 */
export function splitVertices(
  mesh: Mesh,
  { crease, blend }: Shading = SHADING,
  uvs: Float32Array | null = null,
): SplitVertices {
  const { corners, sides, positions, flow } = mesh;
  const faceNormals = faceNormalsOf(mesh);
  const weights = cornerAngles(mesh);
  const faceOf = new Uint32Array(corners.length);
  for (let f = 0; f < faceCount(mesh); f++) faceOf.fill(f, mesh.starts[f], mesh.starts[f + 1]);
  const around = cornersByPoint(mesh);
  const radians = (crease * Math.PI) / 180;
  const limit = Math.cos(radians) - 1e-9;
  const curves = flow ? new Curves(flow, radians) : null;

  const vertexOfCorner = new Uint32Array(corners.length);
  const outPositions: number[] = [];
  const outNormals: number[] = [];
  const outUvs: number[] = [];
  for (let p = 0; p + 1 < around.starts.length; p++) {
    const here = around.ids.subarray(around.starts[p], around.starts[p + 1]);
    const faces = Array.from(here, (corner) => faceOf[corner]!);
    const turned = faces.map((f) => turnedNormal(faceNormals, f, curves?.bendAt(f, p, faces, mesh) ?? 0));
    const firstVertex = outPositions.length / 3;
    for (const [i, corner] of here.entries()) {
      const normal = overFan(i);
      vertexOfCorner[corner] = vertexFor(blended(i, normal), corner, p, firstVertex);
    }

    /** The mean over the faces that are smooth into face i. */
    function overFan(i: number): Direction {
      let [x, y, z] = [0, 0, 0];
      for (const [k, g] of faces.entries()) {
        if (sides[g] !== sides[faces[i]!]) continue;
        if (k !== i && (dot(turned[i]!, turned[k]!) < limit || !(curves?.areAlong(faces[i]!, g) ?? true))) continue;
        const weight = weights[here[k]!]!;
        x += weight * turned[k]![0];
        y += weight * turned[k]![1];
        z += weight * turned[k]![2];
      }
      return unit(x, y, z);
    }

    /** The normal of the side that an edge runs into here, where it is to. */
    function blended(i: number, normal: Direction): Direction {
      if (sides[faces[i]!] !== EDGE || blend === 'none') return normal;
      const front = faces.findIndex((f) => sides[f] === FRONT || sides[f] === BACK);
      if (front >= 0 && blend !== 'wall') return turned[front]!;
      const wall = faces.findIndex((f) => sides[f] === WALL && (curves?.areAlong(faces[i]!, f) ?? true));
      return wall >= 0 && blend !== 'front' ? overFan(wall) : normal;
    }
  }

  // Equal normals at one point share a vertex, if they lie on one place of a picture.
  function vertexFor([x, y, z]: Direction, corner: number, point: number, from: number): number {
    const [u, v] = uvs ? [uvs[2 * corner]!, uvs[2 * corner + 1]!] : [0, 0];
    for (let k = from; k < outPositions.length / 3; k++) {
      const same = outNormals[3 * k]! * x + outNormals[3 * k + 1]! * y + outNormals[3 * k + 2]! * z;
      if (same > 1 - 1e-10 && (!uvs || (outUvs[2 * k] === u && outUvs[2 * k + 1] === v))) return k;
    }
    outPositions.push(positions[3 * point]!, positions[3 * point + 1]!, positions[3 * point + 2]!);
    outNormals.push(x, y, z);
    if (uvs) outUvs.push(u, v);
    return outPositions.length / 3 - 1;
  }

  return {
    positions: Float32Array.from(outPositions),
    normals: Float32Array.from(outNormals),
    uvs: uvs && Float32Array.from(outUvs),
    vertexOfCorner,
  };
}

type Direction = readonly [x: number, y: number, z: number];

const [FRONT, EDGE, WALL, BACK] = SIDES.map((_, i) => i) as [number, number, number, number];

const unit = (x: number, y: number, z: number): Direction => {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
};

const dot = (a: Direction, b: Direction) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** The normal of a face, turned left about the upright axis. */
function turnedNormal(normals: Float64Array, face: number, angle: number): Direction {
  const [x, y, z] = [normals[3 * face]!, normals[3 * face + 1]!, normals[3 * face + 2]!];
  if (angle === 0) return [x, y, z];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos * x - sin * y, sin * x + cos * y, z];
}

/** Unit normal of each face (Newell's method, so polygons need not be exactly flat); zero for a face without area. */
export function faceNormalsOf({ positions: p, starts, corners }: Mesh): Float64Array {
  const normals = new Float64Array(3 * (starts.length - 1));
  for (let f = 0; f + 1 < starts.length; f++) {
    let [x, y, z] = [0, 0, 0];
    let isLevel = true;
    for (let c = starts[f]!, last = starts[f + 1]! - 1, b = last; c <= last; b = c++) {
      const [i, j] = [3 * corners[b]!, 3 * corners[c]!];
      x += (p[i + 1]! - p[j + 1]!) * (p[i + 2]! + p[j + 2]!);
      y += (p[i + 2]! - p[j + 2]!) * (p[i]! + p[j]!);
      z += (p[i]! - p[j]!) * (p[i + 1]! + p[j + 1]!);
      isLevel &&= p[i + 2] === p[j + 2];
    }
    // What is level stays so exactly: a flat front must not shimmer.
    if (isLevel) [x, y] = [0, 0];
    const length = Math.hypot(x, y, z) || 1;
    normals.set([x / length, y / length, z / length], 3 * f);
  }
  return normals;
}

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

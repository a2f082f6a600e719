// proof.ts — the checks on a mesh and their results. Points are compared as float32, which is how files hold them.
import { crossingsOf } from './crossings.ts';
import { topologyOf } from './topology.ts';
import { trianglesOf } from './triangles.ts';
import { faceCount, type Mesh } from './types.ts';
import { weldExact } from './weld.ts';

export type Point3 = readonly [x: number, y: number, z: number];

export interface MeshCounts {
  readonly points: number;
  readonly edges: number;
  readonly faces: number;
  readonly triangles: number;
}

export interface Proof {
  readonly counts: MeshCounts;
  /** Every directed edge has exactly one opposite. */
  readonly closed: boolean;
  readonly openEdges: number;
  readonly crowdedEdges: number;
  readonly flippedEdges: number;
  /** Triangles without area. */
  readonly zeroFaces: number;
  /** Pairs of triangles that run through each other; null when not looked for. */
  readonly crossings: number | null;
  readonly shells: number;
  /** Cubic project units; positive when faces point outward. */
  readonly volume: number;
  /** Square project units. */
  readonly area: number;
  /** Extent along x, y and z. */
  readonly size: Point3;
  /** Smallest corner of the bounding box. */
  readonly min: Point3;
  /** Up to {@link MAX_PLACES} places of what is wrong, worst kind first. */
  readonly places: readonly Point3[];
}

const MAX_PLACES = 32;
/** A triangle is without area below this share of the squared size: 1e-6 of the size high on a base of 1e-6. */
const ZERO_AREA = 1e-12;

export interface ProofOptions {
  /** Look for self-crossings too: the slowest check by far. */
  readonly crossings?: boolean;
}

/** @returns all zeros and `closed: false` for a mesh without faces */
export function proofOf(mesh: Mesh, { crossings: wanted = true }: ProofOptions = {}): Proof {
  const { positions } = mesh;
  const { indices } = trianglesOf(mesh);
  const { remap } = weldExact(positions);
  const welded = indices.map((point) => remap[point]!);
  const { min, size } = boxOf(positions, mesh.corners);
  const longest = Math.max(...size);
  const topology = topologyOf(mesh);
  let volume = 0;
  let area = 0;
  let zeroFaces = 0;
  const places: Point3[] = topology.places.map((point) => pointAt(positions, point));
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    const u = difference(positions, b, a);
    const v = difference(positions, c, a);
    const cross = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
    const own = Math.hypot(...cross) / 2;
    area += own;
    // Measured from the box's corner, so that a mesh far from the origin loses no digits.
    volume +=
      ((positions[a]! - min[0]) * cross[0] +
        (positions[a + 1]! - min[1]) * cross[1] +
        (positions[a + 2]! - min[2]) * cross[2]) /
      6;
    if (!(own > ZERO_AREA * longest * longest)) {
      zeroFaces++;
      if (places.length < MAX_PLACES) places.push(pointAt(positions, indices[t]!));
    }
  }
  const pairs = wanted ? crossingsOf(firstPositions(positions, remap), welded) : null;
  for (const triangle of pairs ?? [])
    if (places.length < MAX_PLACES) places.push(pointAt(positions, indices[3 * triangle]!));
  return {
    counts: { points: topology.points, edges: topology.edges, faces: faceCount(mesh), triangles: indices.length / 3 },
    closed: topology.closed,
    openEdges: topology.open,
    crowdedEdges: topology.crowded,
    flippedEdges: topology.flipped,
    zeroFaces,
    crossings: pairs && pairs.length / 2,
    shells: topology.shells,
    volume,
    area,
    size,
    min,
    places,
  };
}

/** Whether nothing at all is wrong. */
export function isSound(proof: Proof): boolean {
  return proof.closed && proof.zeroFaces === 0 && !proof.crossings && proof.volume > 0;
}

/** Exactly one position a welded point, indexed as `remap` says. */
function firstPositions(positions: Float64Array, remap: Uint32Array): Float64Array {
  const result = new Float64Array(positions.length);
  for (let i = remap.length - 1; i >= 0; i--) result.set(positions.subarray(3 * i, 3 * i + 3), 3 * remap[i]!);
  return result;
}

const difference = (p: Float64Array, i: number, j: number) =>
  [p[i]! - p[j]!, p[i + 1]! - p[j + 1]!, p[i + 2]! - p[j + 2]!] as const;

const pointAt = (p: Float64Array, point: number): Point3 => [p[3 * point]!, p[3 * point + 1]!, p[3 * point + 2]!];

/** Over the points that faces use. */
function boxOf(p: Float64Array, corners: Uint32Array): { min: Point3; size: Point3 } {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (const point of corners) {
    for (let k = 0; k < 3; k++) {
      min[k] = Math.min(min[k]!, p[3 * point + k]!);
      max[k] = Math.max(max[k]!, p[3 * point + k]!);
    }
  }
  if (corners.length === 0) return { min: [0, 0, 0], size: [0, 0, 0] };
  return { min: min as unknown as Point3, size: max.map((v, k) => v - min[k]!) as unknown as Point3 };
}

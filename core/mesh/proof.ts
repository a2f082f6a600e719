// proof.ts — the checks on a mesh and their results. Points are compared as float32, which is how files hold them.
import { ZERO_AREA } from '../geometry/tolerances.ts';
import { crossingsOf } from './crossings.ts';
import { EDGE_FAULTS, MOST_PLACES, topologyOf } from './topology.ts';
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

/** What is found in a mesh, worst first. All but slivers keep it from being sound. */
export const FAULTS = ['open', 'crowded', 'flipped', 'inward', 'crossing', 'zero', 'sliver'] as const;
export type Fault = (typeof FAULTS)[number];

/** What faults are called, one and many. */
export const FAULT_WORDS: Record<Fault, readonly [one: string, many: string]> = {
  open: ['open edge', 'open edges'],
  crowded: ['edge with more than two faces', 'edges with more than two faces'],
  flipped: ['edge whose faces run the same way', 'edges whose faces run the same way'],
  inward: ['shell that faces inward', 'shells that face inward'],
  crossing: ['pair of crossing faces', 'pairs of crossing faces'],
  zero: ['face without area', 'faces without area'],
  sliver: ['sliver', 'slivers'],
};

export interface FoundFault {
  readonly fault: Fault;
  /** Edges, triangles, or pairs of triangles that run through each other; of `inward` shells. */
  readonly count: number;
  /** Where the first {@link MOST_PLACES} are. */
  readonly places: readonly Point3[];
}

/** How many of something lie between two values. */
export interface Bin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
}

export interface Proof {
  readonly counts: MeshCounts;
  /** Every directed edge has exactly one opposite. */
  readonly closed: boolean;
  /** What was found, worst first; only what was. */
  readonly findings: readonly FoundFault[];
  /** Whether self-crossings were looked for. */
  readonly crossingsSought: boolean;
  readonly shells: number;
  /** Cubic project units; positive when faces point outward, 0 for what is open: it holds nothing. */
  readonly volume: number;
  /** Square project units. */
  readonly area: number;
  /** Extent along x, y and z. */
  readonly size: Point3;
  /** Smallest corner of the bounding box. */
  readonly min: Point3;
  /** Triangles by their smallest angle in degrees, in steps of 5 up to 60. */
  readonly angles: readonly Bin[];
  /** Edges of faces by their length, in steps of 1, 2 and 5. */
  readonly lengths: readonly Bin[];
}

/** A sliver's smallest angle is below this, degrees. */
export const SLIVER_DEG = 1;
const ANGLE_STEP_DEG = 5;

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
  const found = new Faults();
  for (const fault of EDGE_FAULTS) {
    const places = topology.places[fault].map(([a, b]) => middle(positions, [a, b]));
    found.add(fault, topology[fault], places);
  }
  let volume = 0;
  let area = 0;
  const angles = new Array<number>(60 / ANGLE_STEP_DEG).fill(0);
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [indices[t]!, indices[t + 1]!, indices[t + 2]!] as const;
    const [a, b, c] = [3 * corners[0], 3 * corners[1], 3 * corners[2]];
    const u = difference(positions, b, a);
    const v = difference(positions, c, a);
    const cross = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
    const double = Math.hypot(...cross);
    area += double / 2;
    // Measured from the box's corner, so that a mesh far from the origin loses no digits.
    volume +=
      ((positions[a]! - min[0]) * cross[0] +
        (positions[a + 1]! - min[1]) * cross[1] +
        (positions[a + 2]! - min[2]) * cross[2]) /
      6;
    const angle = smallestAngle(Math.hypot(...u), Math.hypot(...v), Math.hypot(...difference(positions, c, b)), double);
    angles[Math.min(angles.length - 1, Math.floor(angle / ANGLE_STEP_DEG + 1e-9))]!++;
    const isZero = !(double / 2 > ZERO_AREA * longest * longest);
    if (isZero || angle < SLIVER_DEG) found.addOne(isZero ? 'zero' : 'sliver', () => middle(positions, corners));
  }
  if (volume < 0 && topology.closed) found.add('inward', topology.shells, [middle(positions, [indices[0]!])]);
  const pairs = wanted ? crossingsOf(firstPositions(positions, remap), welded) : [];
  const crossing = (k: number) => middle(positions, Array.from(indices.subarray(3 * pairs[k]!, 3 * pairs[k]! + 3)));
  for (let k = 0; k < pairs.length; k += 2) found.addOne('crossing', () => crossing(k));
  return {
    counts: { points: topology.points, edges: topology.edges, faces: faceCount(mesh), triangles: indices.length / 3 },
    closed: topology.closed,
    findings: found.all(),
    crossingsSought: wanted,
    shells: topology.shells,
    volume: topology.closed ? volume : 0,
    area,
    size,
    min,
    angles: angles.map((count, i) => ({ from: ANGLE_STEP_DEG * i, to: ANGLE_STEP_DEG * (i + 1), count })),
    lengths: lengthsOf(mesh),
  };
}

/** Counts of what is wrong, and the first places. */
class Faults {
  private readonly counts = new Map<Fault, { count: number; places: Point3[] }>();

  add(fault: Fault, count: number, places: readonly Point3[]): void {
    if (count > 0) this.counts.set(fault, { count, places: [...places] });
  }

  addOne(fault: Fault, place: () => Point3): void {
    const known = this.counts.get(fault) ?? { count: 0, places: [] };
    known.count++;
    if (known.places.length < MOST_PLACES) known.places.push(place());
    this.counts.set(fault, known);
  }

  all(): FoundFault[] {
    return FAULTS.flatMap((fault) => {
      const known = this.counts.get(fault);
      return known ? [{ fault, ...known }] : [];
    });
  }
}

/** How often a fault was found. */
export function countOf({ findings }: Pick<Proof, 'findings'>, fault: Fault): number {
  return findings.find((finding) => finding.fault === fault)?.count ?? 0;
}

/** In degrees, of a triangle with these sides and twice this area: the one across from the shortest side. */
function smallestAngle(a: number, b: number, c: number, double: number): number {
  const [short = 0, ...others] = [a, b, c].sort((p, q) => p - q);
  const [m, n] = others as [number, number];
  return (Math.atan2(double, m * m + n * n - (short * short + m * m + n * n) / 2) * 180) / Math.PI;
}

/** Each face has its own edges, so that nearly all are counted twice. */
function lengthsOf({ positions, starts, corners }: Mesh): Bin[] {
  const counts = new Map<number, number>();
  for (let f = 0; f + 1 < starts.length; f++) {
    for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
      const [from, to] = [corners[before]!, corners[c]!];
      const length = Math.hypot(...difference(positions, 3 * to, 3 * from));
      if (length > 0) counts.set(stepOf(length), (counts.get(stepOf(length)) ?? 0) + 1);
    }
  }
  if (counts.size === 0) return [];
  const [first, last] = [Math.min(...counts.keys()), Math.max(...counts.keys())];
  return Array.from({ length: last - first + 1 }, (_, i) => ({
    from: roundStep(first + i),
    to: roundStep(first + i + 1),
    count: Math.ceil((counts.get(first + i) ?? 0) / 2),
  }));
}

/** The last step that is no more than a length. */
function stepOf(length: number): number {
  const decade = Math.floor(Math.log10(length) + 1e-12);
  const first = (length / 10 ** decade) * (1 + 1e-9);
  return 3 * decade + (first < 2 ? 0 : first < 5 ? 1 : 2);
}

/** 1, 2, 5, 10 … as steps 0, 1, 2, 3 …, which are nearly equal on a logarithmic scale. */
function roundStep(step: number): number {
  const decade = Math.floor(step / 3);
  return [1, 2, 5][step - 3 * decade]! * 10 ** decade;
}

/** Whether nothing at all is wrong. */
export function isSound(proof: Proof): boolean {
  return proof.closed && proof.volume > 0 && proof.findings.every(({ fault }) => fault === 'sliver');
}

/** Exactly one position a welded point, indexed as `remap` says. */
function firstPositions(positions: Float64Array, remap: Uint32Array): Float64Array {
  const result = new Float64Array(positions.length);
  for (let i = remap.length - 1; i >= 0; i--) result.set(positions.subarray(3 * i, 3 * i + 3), 3 * remap[i]!);
  return result;
}

const difference = (p: Float64Array, i: number, j: number) =>
  [p[i]! - p[j]!, p[i + 1]! - p[j + 1]!, p[i + 2]! - p[j + 2]!] as const;

/** The mean of some points. */
function middle(p: Float64Array, points: readonly number[]): Point3 {
  const mean = (axis: number) => points.reduce((sum, point) => sum + p[3 * point + axis]!, 0) / points.length;
  return [mean(0), mean(1), mean(2)];
}

/** Over the points that faces use. */
function boxOf(p: Float64Array, corners: Uint32Array): { min: Point3; size: Point3 } {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const point of corners) {
    for (let k = 0; k < 3; k++) {
      min[k] = Math.min(min[k]!, p[3 * point + k]!);
      max[k] = Math.max(max[k]!, p[3 * point + k]!);
    }
  }
  if (corners.length === 0) return { min: [0, 0, 0], size: [0, 0, 0] };
  return { min, size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]] };
}

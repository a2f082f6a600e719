// topology.ts — how faces hang together: every directed edge of a closed mesh has exactly one opposite.
import { DisjointSets } from '../base/disjoint-sets.ts';
import { faceCount, type Mesh } from './types.ts';
import { weldExact } from './weld.ts';

export interface Topology {
  /** Points after exact welding. */
  readonly points: number;
  /** Undirected edges. */
  readonly edges: number;
  /** Edges with one face. */
  readonly open: number;
  /** Edges with more than two faces. */
  readonly crowded: number;
  /** Edges whose two faces run the same way. */
  readonly flipped: number;
  /** Connected pieces. */
  readonly shells: number;
  readonly closed: boolean;
  /** The two points of each of the first faulty edges, by what is wrong with them. */
  readonly places: Readonly<Record<EdgeFault, readonly (readonly [number, number])[]>>;
}

export const EDGE_FAULTS = ['open', 'crowded', 'flipped'] as const;
export type EdgeFault = (typeof EDGE_FAULTS)[number];

/** Most places that are named of each kind of fault. */
export const MOST_PLACES = 32;

export function topologyOf(mesh: Mesh): Topology {
  const { remap, count } = weldExact(mesh.positions);
  const faces = faceCount(mesh);
  const pieces = new DisjointSets(count);
  // One number an edge: the two points in order, and in the lowest bit the direction it was met in.
  const keys = new Float64Array(mesh.corners.length);
  for (let f = 0, k = 0; f < faces; f++) {
    const end = mesh.starts[f + 1]!;
    for (let c = mesh.starts[f]!; c < end; c++) {
      const a = remap[mesh.corners[c]!]!;
      const b = remap[mesh.corners[c + 1 < end ? c + 1 : mesh.starts[f]!]!]!;
      keys[k++] = 2 * (Math.min(a, b) * count + Math.max(a, b)) + (a < b ? 0 : 1);
      pieces.join(a, b);
    }
  }
  keys.sort();
  const places: Record<EdgeFault, [number, number][]> = { open: [], crowded: [], flipped: [] };
  const faults = { open: 0, crowded: 0, flipped: 0 };
  let edges = 0;
  for (let i = 0; i < keys.length; ) {
    const edge = Math.floor(keys[i]! / 2);
    let j = i;
    let against = 0;
    while (j < keys.length && Math.floor(keys[j]! / 2) === edge) against += keys[j++]! % 2;
    edges++;
    const uses = j - i;
    const fault = uses === 1 ? 'open' : uses > 2 ? 'crowded' : against !== 1 ? 'flipped' : null;
    if (fault) {
      faults[fault]++;
      if (places[fault].length < MOST_PLACES) places[fault].push([Math.floor(edge / count), edge % count]);
    }
    i = j;
  }
  let shells = 0;
  const used = new Uint8Array(count);
  for (const corner of mesh.corners) used[remap[corner]!] = 1;
  for (let i = 0; i < count; i++) if (used[i] && pieces.find(i) === i) shells++;
  const closed = faults.open + faults.crowded + faults.flipped === 0 && faces > 0;
  const original = (welded: number) => remap.indexOf(welded);
  for (const fault of EDGE_FAULTS) places[fault] = places[fault].map(([a, b]) => [original(a), original(b)]);
  return { points: count, edges, ...faults, shells, closed, places };
}

// topology.ts — how faces hang together: every directed edge of a closed mesh has exactly one opposite.
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
  /** A point on each of the first faulty edges. */
  readonly places: readonly number[];
}

const MAX_PLACES = 32;

export function topologyOf(mesh: Mesh): Topology {
  const { remap, count } = weldExact(mesh.positions);
  const faces = faceCount(mesh);
  const parent = Uint32Array.from({ length: count }, (_, i) => i);
  const find = (i: number) => {
    let root = i;
    while (parent[root] !== root) {
      parent[root] = parent[parent[root]!]!;
      root = parent[root]!;
    }
    return root;
  };
  // One number an edge: the two points in order, and in the lowest bit the direction it was met in.
  const keys = new Float64Array(mesh.corners.length);
  for (let f = 0, k = 0; f < faces; f++) {
    const end = mesh.starts[f + 1]!;
    for (let c = mesh.starts[f]!; c < end; c++) {
      const a = remap[mesh.corners[c]!]!;
      const b = remap[mesh.corners[c + 1 < end ? c + 1 : mesh.starts[f]!]!]!;
      keys[k++] = 2 * (Math.min(a, b) * count + Math.max(a, b)) + (a < b ? 0 : 1);
      const [x, y] = [find(a), find(b)];
      if (x !== y) parent[Math.max(x, y)] = Math.min(x, y);
    }
  }
  keys.sort();
  const places: number[] = [];
  let [edges, open, crowded, flipped] = [0, 0, 0, 0];
  for (let i = 0; i < keys.length; ) {
    const edge = Math.floor(keys[i]! / 2);
    let j = i;
    let against = 0;
    while (j < keys.length && Math.floor(keys[j]! / 2) === edge) against += keys[j++]! % 2;
    edges++;
    const uses = j - i;
    if (uses === 1) open++;
    else if (uses > 2) crowded++;
    else if (against !== 1) flipped++;
    if ((uses !== 2 || against !== 1) && places.length < MAX_PLACES) places.push(Math.floor(edge / count));
    i = j;
  }
  let shells = 0;
  const used = new Uint8Array(count);
  for (const corner of mesh.corners) used[remap[corner]!] = 1;
  for (let i = 0; i < count; i++) if (used[i] && find(i) === i) shells++;
  const closed = open + crowded + flipped === 0 && faces > 0;
  const original = (welded: number) => remap.indexOf(welded);
  return { points: count, edges, open, crowded, flipped, shells, closed, places: places.map(original) };
}

// pack.ts — all faces side by side in one square, each in a place of its own: to bake on. Pieces are cut where outlines let them be,
// and keep their size among each other.
import potpack from 'potpack';
import { DisjointSets } from '../base/disjoint-sets.ts';
import { flatUvs, ringsOf, Strips } from './strips.ts';
import { type Flow, faceCount, type Mesh } from './types.ts';

/** Room around each chart of a layout of one mesh, as a share of the square's side: 4 pixels of 1024. */
const MARGIN = 4 / 1024;

interface Chart {
  readonly faces: number[];
  readonly min: [u: number, v: number];
  readonly max: [u: number, v: number];
}

/** A mesh whose faces are laid flat, in charts that do not overlap themselves. */
interface Laid {
  readonly mesh: Mesh;
  readonly flat: Float64Array;
  readonly charts: readonly Chart[];
}

/** Everything side by side, and the side of the square in project units. */
export interface Packing {
  /** By mesh: flat u, v within 0 to 1 for every corner, v upward. */
  readonly uvs: readonly Float32Array[];
  /** By mesh: the chart of each face, counted through all meshes. */
  readonly charts: readonly Uint32Array[];
  readonly side: number;
}

/** @param flat as {@link flatUvs} has it */
export function packed(mesh: Mesh, flat: Float64Array, strips: Strips): Float32Array {
  const charts = chartsOf(mesh, flat, strips, Math.sqrt(flatArea(mesh, flat)) || 1);
  const area = charts.reduce((sum, { min, max }) => sum + (max[0] - min[0]) * (max[1] - min[1]), 0);
  return arranged([{ mesh, flat, charts }], MARGIN * Math.sqrt(area)).uvs[0]!;
}

/**
 * Several meshes on one square, all at one scale.
 * @param margin room around each chart, as a share of the side of the square
 */
export function packTogether(meshes: readonly Mesh[], margin: number): Packing {
  const flats = meshes.map((mesh) => {
    const strips = mesh.flow ? new Strips(mesh, mesh.flow) : null;
    return { mesh, strips, ...(strips ? { flat: flatUvs(mesh, strips), owners: null } : facing(mesh)) };
  });
  const side = Math.sqrt(flats.reduce((sum, { mesh, flat }) => sum + flatArea(mesh, flat), 0)) || 1;
  const laid = flats.map(({ mesh, strips, flat, owners }) => {
    const charts = strips ? chartsOf(mesh, flat, strips, side / 2) : chartsByOwner(mesh, flat, owners!);
    return { mesh, flat, charts };
  });
  // Margins need room themselves: the square grows until each is as wide as was asked for.
  let packing = arranged(laid, margin * side);
  for (let room = margin * packing.side, tries = 0; tries < TRIES; tries++, room = 1.02 * margin * packing.side) {
    packing = arranged(laid, room);
    if (room >= margin * packing.side) break;
  }
  return packing;
}

const TRIES = 12;

/** @param margin in project units */
function arranged(laid: readonly Laid[], margin: number): Packing {
  const boxes = laid.flatMap(({ charts }, of) =>
    charts.map((chart) => ({
      of,
      chart,
      w: chart.max[0] - chart.min[0] + 2 * margin,
      h: chart.max[1] - chart.min[1] + 2 * margin,
      x: 0,
      y: 0,
    })),
  );
  const { w, h } = potpack(boxes);
  const side = Math.max(w, h) || 1;
  const uvs = laid.map(({ flat }) => new Float32Array(flat.length));
  const numbers = laid.map(({ mesh }) => new Uint32Array(faceCount(mesh)));
  for (const [i, { of, chart, x, y }] of boxes.entries()) {
    const { mesh, flat } = laid[of]!;
    const result = uvs[of]!;
    for (const f of chart.faces) {
      numbers[of]![f] = i;
      for (let c = mesh.starts[f]!; c < mesh.starts[f + 1]!; c++) {
        result[2 * c] = (x + margin + flat[2 * c]! - chart.min[0]) / side;
        result[2 * c + 1] = (y + margin + flat[2 * c + 1]! - chart.min[1]) / side;
      }
    }
  }
  return { uvs, charts: numbers, side };
}

/** Flat pieces that hang together, and strips in lengths that pack well. */
function chartsOf(mesh: Mesh, flat: Float64Array, strips: Strips, longest: number): Chart[] {
  const { starts, corners, positions } = mesh;
  const flow = mesh.flow!;
  const owner = new Array<string>(faceCount(mesh));
  const sets = new DisjointSets(2 * (positions.length / 3));
  // A point of the rim may be part of a flat piece before and of one behind.
  const nodeOf = (f: number, corner: number) => 2 * corners[corner]! + (strips.isBehind(f) ? 1 : 0);
  for (let f = 0; f < owner.length; f++) {
    if (strips.has(f)) continue;
    for (let c = starts[f]! + 1; c < starts[f + 1]!; c++) sets.join(nodeOf(f, starts[f]!), nodeOf(f, c));
  }
  for (let f = 0; f < owner.length; f++) {
    if (!strips.has(f)) owner[f] = `flat ${sets.find(nodeOf(f, starts[f]!))}`;
  }
  const pieceOf = piecesOf(flow, strips, longest);
  for (let f = 0; f < owner.length; f++) if (strips.has(f)) owner[f] = `strip ${pieceOf[flow.edges[f]!]}`;
  return chartsByOwner(mesh, flat, owner);
}

/** Faces that have the same owner, with their box. */
function chartsByOwner({ starts }: Mesh, flat: Float64Array, owners: readonly string[]): Chart[] {
  const charts = new Map<string, Chart>();
  for (const [f, key] of owners.entries()) {
    const chart = charts.get(key) ?? { faces: [], min: [Infinity, Infinity], max: [-Infinity, -Infinity] };
    charts.set(key, chart);
    chart.faces.push(f);
    for (let c = starts[f]!; c < starts[f + 1]!; c++) {
      for (const k of [0, 1] as const) {
        chart.min[k] = Math.min(chart.min[k], flat[2 * c + k]!);
        chart.max[k] = Math.max(chart.max[k], flat[2 * c + k]!);
      }
    }
  }
  return [...charts.values()];
}

/** Faces of a mesh without outlines, seen along the axis that they face most; those that hang together and face alike are one. */
function facing(mesh: Mesh): { flat: Float64Array; owners: string[] } {
  const { positions: p, starts, corners } = mesh;
  const flat = new Float64Array(2 * corners.length);
  const ways = new Uint8Array(faceCount(mesh));
  const sets = new DisjointSets(6 * (p.length / 3));
  for (let f = 0; f < ways.length; f++) {
    const normal = [0, 0, 0];
    for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
      const [a, b] = [3 * corners[before]!, 3 * corners[c]!];
      for (const k of [0, 1, 2]) {
        const [m, n] = [(k + 1) % 3, (k + 2) % 3];
        normal[k]! += p[a + m]! * p[b + n]! - p[a + n]! * p[b + m]!;
      }
    }
    const axis = [0, 1, 2].reduce((most, k) => (Math.abs(normal[k]!) > Math.abs(normal[most]!) ? k : most), 2);
    const sign = normal[axis]! < 0 ? -1 : 1;
    const [right, up] = [axis === 0 ? 1 : 0, axis === 2 ? 1 : 2];
    // Seen from in front of them, so that what is baked on them is no mirror image.
    const turns = axis === 1 ? -sign : sign;
    ways[f] = 2 * axis + (sign < 0 ? 1 : 0);
    for (let c = starts[f]!; c < starts[f + 1]!; c++) {
      flat[2 * c] = turns * p[3 * corners[c]! + right]!;
      flat[2 * c + 1] = p[3 * corners[c]! + up]!;
      sets.join(6 * corners[starts[f]!]! + ways[f]!, 6 * corners[c]! + ways[f]!);
    }
  }
  const owners = Array.from(ways, (way, f) => `${sets.find(6 * corners[starts[f]!]! + way)}`);
  return { flat, owners };
}

/** What faces cover, laid flat. */
function flatArea({ starts }: Mesh, flat: Float64Array): number {
  let area = 0;
  for (let f = 0; f + 1 < starts.length; f++) {
    for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
      area += (flat[2 * before]! * flat[2 * c + 1]! - flat[2 * c]! * flat[2 * before + 1]!) / 2;
    }
  }
  return area;
}

/** Numbers of the pieces that outlines are cut into, by edge: none much longer than `most`, cut at the ends of edges. */
function piecesOf(flow: Flow, strips: Strips, most: number): Uint32Array {
  const pieces = new Uint32Array(flow.next.length);
  let piece = 0;
  for (const ring of ringsOf(flow)) {
    const total = ring.reduce((sum, edge) => sum + strips.lengths[edge]!, 0);
    const part = total / Math.max(1, Math.ceil(total / most));
    let [first, done] = [0, 0];
    for (const edge of ring) {
      const end = strips.along[edge]! + strips.lengths[edge]!;
      if (done > first && end - first > part * (1 + 1e-9)) {
        piece++;
        first = strips.along[edge]!;
      }
      pieces[edge] = piece;
      done = end;
    }
    piece++;
  }
  return pieces;
}

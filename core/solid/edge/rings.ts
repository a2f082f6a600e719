// rings.ts — strips from offset rings, the way that always closes: rows are rings from the clipping library, and the bands
// between them are triangulated, heights by ring.
import { Triangulation } from '../../geometry/triangulate.ts';
import { ringsOf } from '../../outline/measure.ts';
import { insetRegions } from '../../outline/offset.ts';
import type { Region } from '../../outline/types.ts';
import type { StripDrawing } from './drawing.ts';

/** @param levels distances from the outline, rising, > 0; at least one */
export function ringDrawing(rim: Region, levels: readonly number[]): StripDrawing {
  const points: number[] = [];
  const rows: number[] = [];
  const edges: number[] = [];
  const add = (regions: readonly Region[], row: number) => {
    for (const ring of ringsOf(regions)) {
      const [first, n] = [rows.length, ring.length / 2];
      for (let i = 0; i < n; i++) {
        points.push(ring[2 * i]!, ring[2 * i + 1]!);
        rows.push(row);
        edges.push(first + i, first + ((i + 1) % n));
      }
    }
  };
  add([rim], 0);
  for (const [k, level] of levels.entries()) {
    const inner = insetRegions([rim], level, (level - (levels[k - 1] ?? 0)) / 4);
    if (inner.length === 0) break;
    add(inner, k + 1);
  }
  const rowOf = Uint16Array.from(rows);
  const triangulation = new Triangulation(Float64Array.from(points), Uint32Array.from(edges));
  const bands = bandsOf(triangulation, rowOf);
  slopeLedges(triangulation, bands, rowOf);
  const strips = bands.filter((band) => band >= 0 && band < levels.length);
  const corners = triangulation.corners.filter((_, e) => {
    const band = bands[Math.floor(e / 3)]!;
    return band >= 0 && band < levels.length;
  });
  return {
    points: triangulation.points,
    times: Float64Array.from(rows, (row) => (row === 0 ? 0 : levels[row - 1]!)),
    levels: Int16Array.from(rows),
    starts: Uint32Array.from({ length: strips.length + 1 }, (_, i) => 3 * i),
    corners,
    edges: new Int32Array(strips.length).fill(-1),
    strips: Uint16Array.from(strips),
    front: Uint32Array.from(edges.filter((_, i) => rows[edges[i - (i % 2)]!] === levels.length)),
  };
}

/** The highest row whose ring encloses each triangle; −1 outside the rim. */
function bandsOf({ corners, twins, fixed, triangleCount }: Triangulation, rows: Uint16Array): Int32Array {
  const UNKNOWN = -2;
  const bands = new Int32Array(triangleCount).fill(UNKNOWN);
  const stack: number[] = [];
  for (let e = 0; e < corners.length; e++) {
    if (!fixed[e] || bands[Math.floor(e / 3)] !== UNKNOWN) continue;
    bands[Math.floor(e / 3)] = rows[corners[e]!]! - (fixed[e] === 1 ? 0 : 1);
    stack.push(Math.floor(e / 3));
  }
  while (stack.length > 0) {
    const t = stack.pop()!;
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const neighbour = Math.floor(twins[e]! / 3);
      if (fixed[e] || neighbour < 0 || bands[neighbour] !== UNKNOWN) continue;
      bands[neighbour] = bands[t]!;
      stack.push(neighbour);
    }
  }
  return bands;
}

/** Turns edges between two points of one row, inside a band, so that faces climb from row to row instead of lying flat. */
function slopeLedges(triangulation: Triangulation, bands: Int32Array, rows: Uint16Array): void {
  const { corners, twins, fixed } = triangulation;
  const end = (e: number) => corners[e - (e % 3) + ((e + 1) % 3)]!;
  const apex = (e: number) => corners[e - (e % 3) + ((e + 2) % 3)]!;
  let changed = true;
  // Each flip turns a flat edge into a climbing one, so their number falls and the loop ends.
  while (changed) {
    changed = false;
    for (let e = 0; e < corners.length; e++) {
      const twin = twins[e]!;
      if (twin < e || fixed[e] || bands[Math.floor(e / 3)]! < 0) continue;
      if (rows[corners[e]!] !== rows[end(e)] || rows[apex(e)] === rows[apex(twin)]) continue;
      if (!triangulation.isFlippable(e)) continue;
      triangulation.flip(e);
      changed = true;
    }
  }
}

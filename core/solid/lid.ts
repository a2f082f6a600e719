// lid.ts — one side of a slab seen in plan: the strips of its edge and the flat face inside them. Two ways lead there.
// *Strips*: while no part of the edge is used up, every row is the outline with each line moved inward and corners
// mitred, so rows correspond point for point and the strips are quads. (This is the straight skeleton's wavefront before
// its first event: Aichholzer, Aurenhammer, Alberts, Gärtner 1995.) *Rings*: where the edge reaches further than that,
// rows are offset rings from the clipping library and the bands between them are triangulated, heights by ring.
// Either way all rows lie in one plane drawing without crossings, so the lid cannot fold over whatever the heights are.

import { isNested, ringsAreApart } from '../outline/apart.ts';
import { ringsOf } from '../outline/measure.ts';
import { insetRegions } from '../outline/offset.ts';
import type { Region, Ring } from '../outline/types.ts';
import { latticeInside, subdivide } from './lattice.ts';
import { Triangulation } from './triangulate.ts';

/** Which of the two ways built the edge; `none` where there is no edge. */
export type EdgePath = 'skeleton' | 'rings' | 'none';

/** A lid in plan. The first points are the rim, in the order of the region's rings. */
export interface Lid {
  /** Flat x, y. */
  readonly points: Float64Array;
  /** Row of each point: 0 on the rim, highest on the front. */
  readonly rows: Uint16Array;
  /** Faces of three or four corners, counter-clockwise in plan; face i is corners[starts[i]] … corners[starts[i + 1] − 1]. */
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  /** 1 where the face belongs to the edge, 0 on the front. */
  readonly onEdge: Uint8Array;
  readonly path: EdgePath;
}

export interface LidOptions {
  /** Distance of each row from the outline, rising from 0; only [0] for no edge. */
  readonly insets: readonly number[];
  /** Target edge length of the front's triangles; null for as few as possible. */
  readonly cell: number | null;
}

/** Corners that would run more than this many insets ahead are left to the rings, which cut them square. */
const MITRE_LIMIT = 5;
/** Rows keep this share of the first inset clear of each other where they come close. */
const CLEAR = 0.02;

/** @param rim a region whose points all stay in the mesh: what the walls hang on */
export function buildLid(rim: Region, { insets, cell }: LidOptions): Lid {
  if (insets.length === 1) return frontOnly(rim, cell);
  return stripLid(rim, insets, cell) ?? ringLid(rim, insets, cell);
}

function frontOnly(rim: Region, cell: number | null): Lid {
  const plan = new Plan();
  plan.addRings(ringsOf([rim]), 0);
  return plan.triangulated('none', [rim], cell, 0);
}

// --- strips ---------------------------------------------------------------------------------------------------------

function stripLid(rim: Region, insets: readonly number[], cell: number | null): Lid | null {
  const rings = ringsOf([rim]);
  const last = insets.length - 1;
  const reach = insets[last]!;
  const directions: Float64Array[] = [];
  for (const ring of rings) {
    const direction = mitres(ring);
    if (!direction || !keepsEdges(ring, direction, reach)) return null;
    directions.push(direction);
  }
  const moved = (inset: number) => rings.map((ring, r) => ring.map((v, i) => v + inset * directions[r]![i]!));
  const front = moved(reach);
  if (!isNested(front) || !ringsAreApart(front, CLEAR * reach)) return null;

  const plan = new Plan();
  for (const [row, inset] of insets.entries()) {
    plan.addRings(row === 0 ? rings : row === last ? front : moved(inset), row);
  }
  const perRow = rings.reduce((sum, ring) => sum + ring.length / 2, 0);
  for (let row = 0; row < last; row++) {
    let first = row * perRow;
    for (const ring of rings) {
      const n = ring.length / 2;
      for (let i = 0; i < n; i++) {
        const j = (i + 1) % n;
        plan.addFace([first + i, first + j, first + j + perRow, first + i + perRow], true);
      }
      first += n;
    }
  }
  const [outer, ...holes] = front as [Ring, ...Ring[]];
  return plan.triangulated('skeleton', [{ outer, holes }], cell, last);
}

/** How far each corner moves per unit of inset, flat x, y; null where a corner would run ahead too far. */
function mitres(ring: Ring): Float64Array | null {
  const n = ring.length;
  const result = new Float64Array(n);
  for (let i = 0; i < n; i += 2) {
    const [px, py] = [ring[(i + n - 2) % n]!, ring[(i + n - 1) % n]!];
    const [x, y] = [ring[i]!, ring[i + 1]!];
    const [qx, qy] = [ring[(i + 2) % n]!, ring[(i + 3) % n]!];
    const before = Math.hypot(x - px, y - py);
    const behind = Math.hypot(qx - x, qy - y);
    // Normals that point inside: the inside is on the left.
    const [mx, my] = [-(y - py) / before, (x - px) / before];
    const [nx, ny] = [-(qy - y) / behind, (qx - x) / behind];
    const both = 1 + mx * nx + my * ny;
    if (!(2 < both * MITRE_LIMIT * MITRE_LIMIT)) return null;
    result[i] = (mx + nx) / both;
    result[i + 1] = (my + ny) / both;
  }
  return result;
}

/** Whether every edge still runs its own way after the inset; lengths change linearly, so the end decides. */
function keepsEdges(ring: Ring, direction: Float64Array, reach: number): boolean {
  const n = ring.length;
  for (let i = 0; i < n; i += 2) {
    const j = (i + 2) % n;
    const dx = ring[j]! - ring[i]!;
    const dy = ring[j + 1]! - ring[i + 1]!;
    const length = Math.hypot(dx, dy);
    const shrink = ((direction[j]! - direction[i]!) * dx + (direction[j + 1]! - direction[i + 1]!) * dy) / length;
    if (!(length + reach * shrink > Math.min(0.05 * length, CLEAR * reach))) return false;
  }
  return true;
}

// --- rings ----------------------------------------------------------------------------------------------------------

function ringLid(rim: Region, insets: readonly number[], cell: number | null): Lid {
  const plan = new Plan();
  plan.addRings(ringsOf([rim]), 0);
  let inner: Region[] = [rim];
  let row = 0;
  while (row + 1 < insets.length) {
    const gap = (insets[row + 1]! - insets[row]!) / 4;
    const next = insetRegions([rim], insets[row + 1]!, gap);
    if (next.length === 0) break;
    row++;
    const isFront = row === insets.length - 1;
    inner = isFront && cell ? next.map((region) => subdivide(region, cell)) : next;
    plan.addRings(ringsOf(inner), row);
  }
  return plan.triangulated('rings', inner, cell, row);
}

// --- the plane drawing ----------------------------------------------------------------------------------------------

/** Collects points, fixed edges and faces, and closes the drawing with a triangulation. */
class Plan {
  private readonly points: number[] = [];
  private readonly rows: number[] = [];
  /** Fixed edges, pairs of points, the inside of their row on the left. */
  private readonly edges: number[] = [];
  private readonly starts: number[] = [0];
  private readonly corners: number[] = [];
  private readonly onEdge: number[] = [];

  addRings(rings: readonly Ring[], row: number): void {
    for (const ring of rings) {
      const first = this.rows.length;
      const n = ring.length / 2;
      for (let i = 0; i < n; i++) {
        this.addPoint(ring[2 * i]!, ring[2 * i + 1]!, row);
        this.edges.push(first + i, first + ((i + 1) % n));
      }
    }
  }

  private addPoint(x: number, y: number, row: number): void {
    this.points.push(x, y);
    this.rows.push(row);
  }

  addFace(corners: readonly number[], onEdge: boolean): void {
    this.corners.push(...corners);
    this.starts.push(this.corners.length);
    this.onEdge.push(onEdge ? 1 : 0);
  }

  /** Fills what no face covers yet: everything between row 0 (or the last row, after strips) and the front. */
  triangulated(path: EdgePath, front: readonly Region[], cell: number | null, frontRow: number): Lid {
    if (cell) for (const [x, y] of latticeInside(front, cell)) this.addPoint(x, y, frontRow);
    // Strips have covered all rows but the last; its points and edges are the only ones left to triangulate.
    const skipped = path === 'skeleton' ? this.rows.indexOf(frontRow) : 0;
    const points = Float64Array.from(this.points.slice(2 * skipped));
    const edges = Uint32Array.from(this.edges.slice(2 * skipped), (i) => i - skipped);
    const rows = Uint16Array.from(this.rows.slice(skipped));
    const triangulation = new Triangulation(points, edges);
    const { corners } = triangulation;
    const bands = bandsOf(triangulation, edges, rows);
    if (path === 'rings') slopeLedges(triangulation, bands, rows);
    for (let t = 0; t < triangulation.triangleCount; t++) {
      if (bands[t]! < 0) continue;
      const face = [corners[3 * t]! + skipped, corners[3 * t + 1]! + skipped, corners[3 * t + 2]! + skipped];
      this.addFace(face, path !== 'none' && bands[t]! < frontRow);
    }
    return {
      points: Float64Array.from(this.points),
      rows: Uint16Array.from(this.rows),
      starts: Uint32Array.from(this.starts),
      corners: Uint32Array.from(this.corners),
      onEdge: Uint8Array.from(this.onEdge),
      path,
    };
  }
}

/** The highest row whose ring encloses each triangle; −1 outside the rim. */
function bandsOf(
  { corners, twins, fixed, triangleCount }: Triangulation,
  edges: Uint32Array,
  rows: Uint16Array,
): Int32Array {
  const UNKNOWN = -2;
  const bands = new Int32Array(triangleCount).fill(UNKNOWN);
  const forward = new Set<number>();
  for (let i = 0; i < edges.length; i += 2) forward.add(edges[i]! * rows.length + edges[i + 1]!);
  const stack: number[] = [];
  for (let e = 0; e < corners.length; e++) {
    if (!fixed[e] || bands[Math.floor(e / 3)] !== UNKNOWN) continue;
    const from = corners[e]!;
    const to = corners[e - (e % 3) + ((e + 1) % 3)]!;
    const band = rows[from]! - (forward.has(from * rows.length + to) ? 0 : 1);
    bands[Math.floor(e / 3)] = band < rows[0]! ? -1 : band;
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

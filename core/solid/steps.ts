// steps.ts — a front whose pieces stand at heights of their own, with walls between: one closed body. Pieces lie clear of the rim and
// of each other, so that every wall hangs on two copies of the same ring, one on either height.
import { regionsOf } from '../outline/regions.ts';
import type { Region, Ring } from '../outline/types.ts';
import { edgesOf, linkedRings } from './edge/lines.ts';
import { type FrontFaces, meshFront } from './front/front.ts';
import { type FrontPiece, piecesOn } from './front/pieces.ts';
import type { FlatMesh, FlatOutline } from './front/types.ts';
import type { Lid } from './lid.ts';
import { subdivide } from './rim.ts';

/** What a face of a stepped lid belongs to. */
export const ON = { front: 0, edge: 1, wall: 2 } as const;

export interface SteppedLid extends Lid {
  /** For each point, its height among {@link heights}. */
  readonly levels: Uint16Array;
  /** What adds up to each height: numbers of steps; none for the front itself. */
  readonly heights: readonly (readonly number[])[];
  /** The rings of the pieces, whose edges the walls between follow; they are counted on from those of the rim. */
  readonly inner: FlatOutline;
}

/** Splitting rings brings about new splits, fewer each time. */
const MAX_ROUNDS = 24;

/** A part of the front at one height: rings around it, and the pieces on it. */
interface Area {
  /** Of the rim of the whole front, or of the piece. */
  rings: Ring[];
  readonly level: number;
  readonly on: readonly Area[];
}

/**
 * @param lid with a front that is flat
 * @param outline how many of its points, the first ones, are those of the outline
 * @param steps outlines, list by list; what of them does not lie on the front is left out
 * @returns null where nothing of them does
 */
export function stepped(
  lid: Lid,
  outline: number,
  steps: readonly (readonly Region[])[],
  faces: FrontFaces,
  extent: number,
): SteppedLid | null {
  const rim = frontEdges(lid);
  if (!rim) return null;
  const rings = ringsAlong(rim);
  const flat = regionsOf(
    rings.map((ring) => placesOf(lid, ring)),
    'positive',
  );
  if (flat.length === 0) return null;
  const pieces = piecesOn(flat, steps, extent);
  if (pieces.length === 0) return null;
  const heights: number[][] = [[]];
  const areaOf = ({ region, step, on }: FrontPiece, above: readonly number[]): Area => {
    const level = heights.push([...above, step]) - 1;
    const { outer, holes } = faces.kind === 'fewest' ? region : subdivide(region, () => faces.cell);
    return { rings: [outer, ...holes], level, on: on.map((piece) => areaOf(piece, heights[level]!)) };
  };
  const root: Area = {
    rings: rings.map((ring) => placesOf(lid, ring)),
    level: 0,
    on: pieces.map((piece) => areaOf(piece, [])),
  };
  return new Steps(lid, outline, rings.flat(), meshed(root, faces), heights).lid;
}

/** Edges of the front that only one of its faces has, with it on their left: from → to. Null where rings meet in a point. */
function frontEdges({ starts, corners, onEdge, rows }: Lid): Map<number, number> | null {
  const edges = new Map<number, number>();
  const seen = new Set<number>();
  const count = rows.length;
  const each = (visit: (a: number, b: number) => void) => {
    for (let f = 0; f < onEdge.length; f++) {
      if (onEdge[f] !== ON.front) continue;
      for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
        visit(corners[before]!, corners[c]!);
      }
    }
  };
  each((a, b) => seen.add(a * count + b));
  let found = 0;
  each((a, b) => {
    if (seen.has(b * count + a)) return;
    edges.set(a, b);
    found++;
  });
  return edges.size === found ? edges : null;
}

/** Point numbers of each ring. */
function ringsAlong(edges: ReadonlyMap<number, number>): number[][] {
  const left = new Map(edges);
  const rings: number[][] = [];
  for (const first of edges.keys()) {
    const ring: number[] = [];
    for (let at: number | undefined = first; at !== undefined && left.has(at); ) {
      ring.push(at);
      const next: number = left.get(at)!;
      left.delete(at);
      at = next;
    }
    if (ring.length > 0) rings.push(ring);
  }
  return rings;
}

const placesOf = ({ points }: Lid, ring: readonly number[]): Ring =>
  Float64Array.from(ring.flatMap((point) => [points[2 * point]!, points[2 * point + 1]!]));

/** An area divided into faces: points of its own rings, then of the rings of those on it, then new ones. */
interface Meshed {
  readonly area: Area;
  readonly outline: FlatOutline;
  readonly mesh: FlatMesh;
  readonly on: readonly Meshed[];
}

/** Divides all areas so that both sides of each ring have the same points. */
function meshed(root: Area, faces: FrontFaces): Meshed {
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const made = meshedOnce(root, faces);
    const splits = new Map<Ring, Map<number, number[]>>();
    collect(made, splits);
    // The rim belongs to the edge, or to the wall, which know nothing of new points.
    if (root.rings.some((ring) => splits.has(ring))) break;
    if (splits.size === 0) return made;
    divide(root, splits);
  }
  return meshedOnce(root, { ...faces, kind: 'fewest' });
}

function meshedOnce(area: Area, faces: FrontFaces): Meshed {
  const inner = area.on.flatMap(({ rings }) => rings);
  const { points, next } = linkedRings([...area.rings, ...inner]);
  const own = area.rings.reduce((sum, ring) => sum + ring.length / 2, 0);
  const edges = edgesOf(next);
  // What is on it lies on the other side of its rings.
  for (let e = 2 * own; e < edges.length; e += 2) [edges[e], edges[e + 1]] = [edges[e + 1]!, edges[e]!];
  const outline = { points, edges };
  return { area, outline, mesh: meshFront(outline, faces), on: area.on.map((each) => meshedOnce(each, faces)) };
}

/** New points along each ring, by the edge that they are on, in its direction. */
function collect({ area, outline, mesh, on }: Meshed, splits: Map<Ring, Map<number, number[]>>): void {
  const rings = [...area.rings, ...area.on.flatMap((each) => each.rings)];
  const isOwn = (ring: number) => ring < area.rings.length;
  let first = 0;
  for (const [r, ring] of rings.entries()) {
    for (let e = 0; e < ring.length / 2; e++) {
      const points = mesh.splits.get(first + e);
      if (!points) continue;
      const places = points.flatMap((point) => {
        const at = 2 * point - outline.points.length;
        return [[mesh.added[at]!, mesh.added[at + 1]!]];
      });
      const known = splits.get(ring) ?? new Map<number, number[]>();
      splits.set(ring, known);
      // Both sides may have asked; one answer is enough for this round.
      if (!known.has(e)) known.set(e, (isOwn(r) ? places : places.toReversed()).flat());
    }
    first += ring.length / 2;
  }
  for (const each of on) collect(each, splits);
}

function divide(area: Area, splits: ReadonlyMap<Ring, ReadonlyMap<number, number[]>>): void {
  area.rings = area.rings.map((ring) => {
    const own = splits.get(ring);
    if (!own) return ring;
    const places: number[] = [];
    for (let e = 0; e < ring.length / 2; e++) places.push(ring[2 * e]!, ring[2 * e + 1]!, ...(own.get(e) ?? []));
    return Float64Array.from(places);
  });
  for (const each of area.on) divide(each, splits);
}

/** Writes the edge of a lid and the areas of its front into a new one. */
class Steps {
  readonly lid: SteppedLid;
  private readonly points: number[] = [];
  private readonly rows: number[] = [];
  private readonly levels: number[] = [];
  private readonly starts: number[] = [0];
  private readonly corners: number[] = [];
  private readonly on: number[] = [];
  private readonly edges: number[] = [];
  private readonly innerPoints: number[] = [];
  private readonly innerEdges: number[] = [];
  private readonly row: number;
  /** Points of the outline, and as many edges. */
  private readonly outer: number;

  /** @param rim points of the lid along the front's rim, ring after ring */
  constructor(
    lid: Lid,
    outline: number,
    rim: readonly number[],
    root: Meshed,
    heights: readonly (readonly number[])[],
  ) {
    this.row = lid.rows[rim[0]!]!;
    this.outer = outline;
    const places = this.keepEdge(lid, rim);
    this.area(
      root,
      rim.map((point) => places[point]!),
    );
    this.lid = {
      points: Float64Array.from(this.points),
      rows: Float64Array.from(this.rows),
      levels: Uint16Array.from(this.levels),
      heights,
      starts: Uint32Array.from(this.starts),
      corners: Uint32Array.from(this.corners),
      onEdge: Uint8Array.from(this.on),
      edges: Int32Array.from(this.edges),
      inner: { points: Float64Array.from(this.innerPoints), edges: Uint32Array.from(this.innerEdges) },
      path: lid.path,
      isUnheld: lid.isUnheld,
    };
  }

  /** Points and faces of the edge, and the points along the rims. @returns their new numbers */
  private keepEdge(lid: Lid, rim: readonly number[]): Int32Array {
    const places = new Int32Array(lid.rows.length).fill(-1);
    const keep = new Set<number>(rim);
    for (let point = 0; point < this.outer; point++) keep.add(point);
    for (let f = 0; f < lid.onEdge.length; f++) {
      if (lid.onEdge[f] === ON.front) continue;
      for (let c = lid.starts[f]!; c < lid.starts[f + 1]!; c++) keep.add(lid.corners[c]!);
    }
    // In the order they had: the outline's come first.
    for (let point = 0; point < lid.rows.length; point++) {
      if (keep.has(point))
        places[point] = this.point(lid.points[2 * point]!, lid.points[2 * point + 1]!, lid.rows[point]!, 0);
    }
    for (let f = 0; f < lid.onEdge.length; f++) {
      if (lid.onEdge[f] === ON.front) continue;
      const own = lid.corners.subarray(lid.starts[f], lid.starts[f + 1]);
      this.face(
        Array.from(own, (point) => places[point]!),
        lid.onEdge[f]!,
        lid.edges[f]!,
      );
    }
    return places;
  }

  /** @param own numbers of the points of its own rings */
  private area({ area, outline, mesh, on }: Meshed, own: readonly number[]): void {
    const numbers = [...own];
    for (let i = own.length; i < outline.points.length / 2; i++) {
      numbers.push(this.point(outline.points[2 * i]!, outline.points[2 * i + 1]!, this.row, area.level));
    }
    for (let i = 0; i < mesh.added.length; i += 2) {
      numbers.push(this.point(mesh.added[i]!, mesh.added[i + 1]!, this.row, area.level));
    }
    for (let f = 0; f + 1 < mesh.starts.length; f++) {
      const corners = mesh.corners.subarray(mesh.starts[f], mesh.starts[f + 1]);
      this.face(
        Array.from(corners, (corner) => numbers[corner]!),
        ON.front,
        -1,
      );
    }
    let first = own.length;
    for (const inner of on) {
      const count = inner.area.rings.reduce((sum, ring) => sum + ring.length / 2, 0);
      this.piece(inner, numbers.slice(first, first + count));
      first += count;
    }
  }

  /** A piece, and the walls between it and what it is on. @param below the points of its rings there */
  private piece(piece: Meshed, below: readonly number[]): void {
    const { area } = piece;
    const { points, next } = linkedRings(area.rings);
    const above = below.map((_, i) => this.point(points[2 * i]!, points[2 * i + 1]!, this.row, area.level));
    const first = this.innerPoints.length / 2;
    for (const v of points) this.innerPoints.push(v);
    for (let i = 0; i < next.length; i++) {
      const after = next[i]!;
      this.innerEdges.push(first + i, first + after);
      this.face([below[i]!, below[after]!, above[after]!, above[i]!], ON.wall, this.outer + first + i);
    }
    this.area(piece, above);
  }

  private point(x: number, y: number, row: number, level: number): number {
    this.points.push(x, y);
    this.levels.push(level);
    return this.rows.push(row) - 1;
  }

  private face(corners: readonly number[], on: number, edge: number): void {
    for (const corner of corners) this.corners.push(corner);
    this.starts.push(this.corners.length);
    this.on.push(on);
    this.edges.push(edge);
  }
}

// lid.ts — one side of a slab seen in plan: the strips of its edge and the flat front inside them. Two ways lead to strips.
// The *skeleton*: every outline edge sweeps inward and owns what it sweeps, cut at the profile's rows (edge/roof.ts).
// *Rings*, where that does not pass its own check: offset rings and triangulated bands (edge/rings.ts). Either way all rows
// lie in one plane drawing without crossings, so that the lid cannot fold over itself whatever the heights are.
import { listOf } from '../base/arrays.ts';
import { boundsOf, longestSide } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
import type { CornerStyle } from './edge/corners.ts';
import { divideFace } from './edge/divide.ts';
import type { StripDrawing } from './edge/drawing.ts';
import { flangeDrawing } from './edge/flange.ts';
import { heldDrawing } from './edge/hold.ts';
import { ringDrawing } from './edge/rings.ts';
import { roofOver } from './edge/roof.ts';
import { type FrontFaces, meshFront } from './front/front.ts';
import { outlineOf } from './rim.ts';

/** Which of the two ways built the edge; `none` where there is no edge. */
export type EdgePath = 'skeleton' | 'rings' | 'none';

/** A lid in plan. The first points are the rim, in the order of the regions' rings. */
export interface Lid {
  /** Flat x, y. */
  readonly points: Float64Array;
  /** Row of each point: 0 on the rim, highest on the front; not a whole number for a ridge that ends between two rows. */
  readonly rows: Float64Array;
  /** Triangles, convex quads and fans around their first corner, counter-clockwise in plan, or clockwise below a flange; those between two rows at one distance are upright. */
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  /** 1 where the face belongs to the edge, 0 on the front. */
  readonly onEdge: Uint8Array;
  /** The outline edge that each face follows, by the rim point it leaves; −1 on the front, and where nobody knows. */
  readonly edges: Int32Array;
  readonly path: EdgePath;
  /** Whether the edge was to be held back, and could not be. */
  readonly isUnheld: boolean;
}

export interface LidOptions {
  /** Distance of each row from the outline, from 0 on, never falling; only [0] for no edge. */
  readonly insets: readonly number[];
  readonly faces: FrontFaces;
  /** Whether the edge keeps within the local half-width, so that the front never disappears. */
  readonly isHeld: boolean;
  /** Of corners that point inward; held edges mitre them. */
  readonly style: CornerStyle;
  /** Longest side of all that is built together. */
  readonly extent: number;
}

/** @param rim a region whose points all stay in the mesh: what the walls hang on */
export function buildLid(rim: Region, { insets, faces, isHeld, style, extent }: LidOptions): Lid {
  const levels = [...new Set(insets)];
  if (levels.length === 1) return flatLid(rim, faces, insets.length - 1);
  const reaches = levels.slice(1);
  const held = isHeld ? heldDrawing(rim, reaches, extent) : null;
  const drawing = held ?? roofOver(rim, reaches, extent, style);
  const builder = new LidBuilder(drawing ?? ringDrawing(rim, reaches), insets, [rim]);
  return builder.lid(faces, drawing ? 'skeleton' : 'rings', isHeld && !held);
}

/** One lid over all regions, which reaches beyond them; null where it cannot be made. */
export function buildFlange(rims: readonly Region[], { insets, faces, style, extent }: LidOptions): Lid | null {
  const levels = [...new Set(insets)].slice(1);
  const over = (size: number) => flangeDrawing(rims, levels, size, style);
  let drawing = over(extent);
  // Sharp corners run ahead: what is too small to be seen is a share of what becomes of it.
  const size = drawing ? longestSide(boundsOf([drawing.points])!) : 0;
  if (size > extent) drawing = over(size);
  return drawing && new LidBuilder(drawing, insets, rims, true).lid(faces, 'skeleton');
}

/** Lids over regions as one over all of them. */
export function joinLids(rims: readonly Region[], lids: readonly Lid[]): Lid {
  const points: number[] = [];
  const rows: number[] = [];
  const places = lids.map(({ rows: own }) => new Uint32Array(own.length));
  const firsts: number[] = [];
  const add = (l: number, from: number, to: number) => {
    const lid = lids[l]!;
    for (let i = from; i < to; i++) {
      points.push(lid.points[2 * i]!, lid.points[2 * i + 1]!);
      places[l]![i] = rows.push(lid.rows[i]!) - 1;
    }
  };
  // All points of rims come first.
  const sizes = rims.map((rim) => outlineOf([rim]).points.length / 2);
  for (const [l, size] of sizes.entries()) {
    firsts.push(rows.length);
    add(l, 0, size);
  }
  for (const [l, size] of sizes.entries()) add(l, size, lids[l]!.rows.length);
  const starts = [0];
  const corners: number[] = [];
  const onEdge: number[] = [];
  const edges: number[] = [];
  for (const [l, lid] of lids.entries()) {
    for (let f = 0; f + 1 < lid.starts.length; f++) {
      for (let c = lid.starts[f]!; c < lid.starts[f + 1]!; c++) corners.push(places[l]![lid.corners[c]!]!);
      starts.push(corners.length);
      onEdge.push(lid.onEdge[f]!);
      edges.push(lid.edges[f]! < 0 ? -1 : firsts[l]! + lid.edges[f]!);
    }
  }
  const paths = lids.map(({ path }) => path);
  return {
    points: Float64Array.from(points),
    rows: Float64Array.from(rows),
    starts: Uint32Array.from(starts),
    corners: Uint32Array.from(corners),
    onEdge: Uint8Array.from(onEdge),
    edges: Int32Array.from(edges),
    path: paths.includes('rings') ? 'rings' : (paths[0] ?? 'none'),
    isUnheld: lids.some(({ isUnheld }) => isUnheld),
  };
}

/** A front that reaches to the rim, all in one row. */
function flatLid(rim: Region, faces: FrontFaces, row: number): Lid {
  const outline = outlineOf([rim]);
  const wanted = meshFront(outline, faces);
  // Walls know nothing of points that the rim does not have.
  const { added, starts, corners } = wanted.splits.size > 0 ? meshFront(outline, { ...faces, kind: 'fewest' }) : wanted;
  const points = new Float64Array(outline.points.length + added.length);
  points.set(outline.points);
  points.set(added, outline.points.length);
  return {
    points,
    rows: new Float64Array(points.length / 2).fill(row),
    starts,
    corners,
    onEdge: new Uint8Array(starts.length - 1),
    edges: new Int32Array(starts.length - 1).fill(-1),
    path: 'none',
    isUnheld: false,
  };
}

/** Gives points their rows, raises what is upright, and closes the front. */
class LidBuilder {
  private readonly drawing: StripDrawing;
  private readonly rims: readonly Region[];
  private readonly isTurned: boolean;
  /** Distances at which strips begin and end, 0 first, and the lowest and highest row at each. */
  private readonly levels: readonly number[];
  private readonly lowest: readonly number[];
  private readonly highest: readonly number[];
  private readonly points: number[];
  private readonly rows: number[];
  private readonly starts: number[] = [0];
  private readonly corners: number[] = [];
  private readonly onEdge: number[] = [];
  private readonly edges: number[] = [];
  /** New points on the front's outline by the edge they lie on, as the faces below it have it: from · points + to. */
  private readonly splits = new Map<number, readonly number[]>();
  /** The points that stand above point p of a level: copies[p][0] one row up, and so on. */
  private readonly copies = new Map<number, readonly number[]>();

  /** @param isTurned whether strips lie below the front and face the other way */
  constructor(drawing: StripDrawing, insets: readonly number[], rims: readonly Region[], isTurned = false) {
    this.drawing = drawing;
    this.rims = rims;
    this.isTurned = isTurned;
    this.levels = [...new Set(insets)];
    this.lowest = this.levels.map((level) => insets.indexOf(level));
    this.highest = this.levels.map((level) => insets.lastIndexOf(level));
    this.points = listOf(drawing.points);
    this.rows = listOf(drawing.levels).map((level, i) => (level >= 0 ? this.lowest[level]! : this.rowBetween(i)));
  }

  lid(faces: FrontFaces, path: EdgePath, isUnheld = false): Lid {
    const { starts, corners, strips, edges, front, points, triangles } = this.drawing;
    const last = this.levels.length - 1;
    const flat = meshFront({ points, edges: front }, faces, triangles);
    const known = points.length / 2;
    for (let i = 0; i < flat.added.length; i += 2) this.point(flat.added[i]!, flat.added[i + 1]!, this.highest[last]!);
    for (const [edge, split] of flat.splits) {
      const [a, b] = [front[2 * edge]!, front[2 * edge + 1]!];
      if (this.isTurned) this.splits.set(a * known + b, split);
      else this.splits.set(b * known + a, split.toReversed());
    }
    const areWhole = this.splits.size === 0 || this.isUpright(last);
    for (let f = 0; f < strips.length; f++) {
      const [from, to] = [starts[f]!, starts[f + 1]!];
      if (areWhole) this.face(corners, from, to, strips[f]!, edges[f]!);
      else
        for (const part of this.withSplits(corners.subarray(from, to), faces.least))
          this.part(part, strips[f]!, edges[f]!);
    }
    const upright = [...this.levels.keys()].filter((level) => this.isUpright(level));
    const followed = upright.length > 0 ? this.edgesAlong() : new Map<number, number>();
    for (const level of upright) this.raise(level, followed);
    for (let f = 0; f + 1 < flat.starts.length; f++) {
      this.face(flat.corners, flat.starts[f]!, flat.starts[f + 1]!, last, null);
    }
    return {
      points: new Float64Array(this.points),
      rows: new Float64Array(this.rows),
      starts: new Uint32Array(this.starts),
      corners: new Uint32Array(this.corners),
      onEdge: new Uint8Array(this.onEdge),
      edges: new Int32Array(this.edges),
      path,
      isUnheld,
    };
  }

  /** Where on the way from row to row a point between levels lies. */
  private rowBetween(point: number): number {
    const time = this.drawing.times[point]!;
    const { levels, lowest, highest } = this;
    let above = 1;
    while (above + 1 < levels.length && levels[above]! <= time) above++;
    const share = (time - levels[above - 1]!) / (levels[above]! - levels[above - 1]!);
    const row = highest[above - 1]! + Math.min(1, Math.max(0, share));
    return Math.min(row, lowest[above]!);
  }

  private point(x: number, y: number, row: number): number {
    this.points.push(x, y);
    return this.rows.push(row) - 1;
  }

  /** The point as faces of a strip have it: at a level with upright faces, those above it stand higher. */
  private pointIn(point: number, strip: number): number {
    // Points that were added are where they belong.
    const level = point < this.drawing.levels.length ? this.drawing.levels[point]! : -1;
    return level < 0 || strip < level || !this.isUpright(level) ? point : this.above(point, level).at(-1)!;
  }

  private above(point: number, level: number): readonly number[] {
    const rise = this.highest[level]! - this.lowest[level]!;
    if (rise === 0) return [];
    const known = this.copies.get(point);
    if (known) return known;
    const [x, y] = [this.points[2 * point]!, this.points[2 * point + 1]!];
    const made = Array.from({ length: rise }, (_, k) => this.point(x, y, this.lowest[level]! + k + 1));
    this.copies.set(point, made);
    return made;
  }

  private isUpright(level: number): boolean {
    return this.lowest[level]! < this.highest[level]!;
  }

  /** New points on the front's edge a → b, from b to a. */
  private splitsOf(a: number, b: number): readonly number[] {
    return this.splits.get(b * (this.drawing.points.length / 2) + a) ?? [];
  }

  /** A face below the front with the new points on its edges. */
  private withSplits(face: Uint32Array, least = 0): readonly ArrayLike<number>[] {
    if (this.splits.size === 0) return [face];
    const corners: number[] = [];
    for (const [i, a] of face.entries()) corners.push(a, ...this.splitsOf(face[(i + 1) % face.length]!, a));
    return corners.length === face.length ? [face] : (divideFace(this.points, corners, least) ?? [face]);
  }

  /** A face of which all corners are given. @param edge as {@link face} has it */
  private part(corners: ArrayLike<number>, strip: number, edge: number): void {
    this.face(corners, 0, corners.length, strip, edge);
  }

  /**
   * A face from the list of corners at `from` up to `to`.
   * @param strip −1 for points that are where they belong
   * @param edge the outline edge it follows, −1 for none; null on the front
   */
  private face(corners: ArrayLike<number>, from: number, to: number, strip: number, edge: number | null): void {
    // Turned around, a face keeps its first corner: it may be a fan.
    const isTurned = this.isTurned && edge !== null;
    for (let c = from; c < to; c++) {
      this.corners.push(this.pointIn(corners[isTurned && c > from ? from + to - c : c]!, strip));
    }
    this.starts.push(this.corners.length);
    this.onEdge.push(edge === null ? 0 : 1);
    this.edges.push(edge ?? -1);
  }

  /** Upright faces along a level. @param followed as {@link edgesAlong} gives it */
  private raise(level: number, followed: ReadonlyMap<number, number>): void {
    this.eachLevelEdge(level, (a, b) => {
      const edge =
        followed.get(b * this.drawing.levels.length + a) ?? followed.get(a * this.drawing.levels.length + b) ?? -1;
      const [up, down] = [
        [a, ...this.above(a, level)],
        [b, ...this.above(b, level)],
      ] as const;
      for (let k = 1; k < up.length; k++) {
        const split = k + 1 === up.length && level > 0 && level + 1 === this.levels.length ? this.splitsOf(a, b) : [];
        const top = [down[k]!, ...split, up[k]!];
        if (split.length === 0) this.part([up[k - 1]!, down[k - 1]!, ...top], -1, edge);
        // Upright faces have no area in plan: a fan from below.
        else {
          this.part([up[k - 1]!, down[k - 1]!, top[0]!], -1, edge);
          for (let i = 1; i < top.length; i++) this.part([up[k - 1]!, top[i - 1]!, top[i]!], -1, edge);
        }
      }
    });
  }

  /** The outline edge of the face that has each edge: from · points + to. */
  private edgesAlong(): Map<number, number> {
    const { starts, corners, edges, levels } = this.drawing;
    const found = new Map<number, number>();
    for (const [f, edge] of edges.entries()) {
      for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
        found.set(corners[before]! * levels.length + corners[c]!, edge);
      }
    }
    return found;
  }

  /** Edges along a level, what lies above it on their left. */
  private eachLevelEdge(level: number, visit: (from: number, to: number) => void): void {
    const { starts, corners, strips, front, levels } = this.drawing;
    if (level === 0 || level === this.levels.length - 1) {
      const edges = level === 0 ? outlineOf(this.rims).edges : front;
      // What lies outside the rim, or inside a flange's front, is above on their right.
      for (let i = 0; i < edges.length; i += 2) {
        if (this.isTurned) visit(edges[i + 1]!, edges[i]!);
        else visit(edges[i]!, edges[i + 1]!);
      }
    } else {
      const below = new Set<number>();
      const count = levels.length;
      const along = (wanted: number, found: (a: number, b: number) => void) => {
        for (const [f, strip] of strips.entries()) {
          if (strip !== wanted) continue;
          for (let c = starts[f]!, before = starts[f + 1]! - 1; c < starts[f + 1]!; before = c++) {
            const [a, b] = [corners[before]!, corners[c]!];
            if (levels[a] === level && levels[b] === level) found(a, b);
          }
        }
      };
      along(level - 1, (a, b) => below.add(b * count + a));
      along(level, (a, b) => {
        if (below.has(a * count + b)) visit(a, b);
      });
    }
  }
}

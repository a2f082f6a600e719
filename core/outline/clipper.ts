// clipper.ts — the only door to the polygon-clipping library. Everything in here is on the integer grid.
import {
  Clipper64,
  FillRule as ClipperFillRule,
  ClipperOffset,
  ClipType,
  EndType,
  JoinType,
  type Path64,
  PathType,
  type PolyPath64,
  PolyTree64,
} from 'clipper2-ts';

export type { Path64 } from 'clipper2-ts';

/** A contour and its holes on the grid; the inside is on the left of both. */
export interface GridRegion {
  outer: Path64;
  holes: Path64[];
}

export type GridFill = 'nonzero' | 'evenodd' | 'positive';
const FILL: Record<GridFill, ClipperFillRule> = {
  nonzero: ClipperFillRule.NonZero,
  evenodd: ClipperFillRule.EvenOdd,
  positive: ClipperFillRule.Positive,
};

/** Mitres longer than this many offsets are cut square: 1/sin(θ/2) = 5 is a notch of 23°. */
const MITRE_LIMIT = 5;

/** The union of closed paths under one fill rule. */
export function unite(paths: readonly Path64[], fill: GridFill): GridRegion[] {
  return combine(ClipType.Union, paths, [], fill);
}

export function intersect(a: readonly Path64[], b: readonly Path64[]): GridRegion[] {
  return combine(ClipType.Intersection, a, b, 'nonzero');
}

/** Moves every edge by `delta` grid steps, outward when positive; corners are mitred. */
export function inflate(paths: readonly Path64[], delta: number): Path64[] {
  const offset = new ClipperOffset(MITRE_LIMIT, 0, false, false);
  offset.addPaths(paths as Path64[], JoinType.Miter, EndType.Polygon);
  const solution: Path64[] = [];
  offset.execute(delta, solution);
  return solution;
}

function combine(type: ClipType, subject: readonly Path64[], clip: readonly Path64[], fill: GridFill): GridRegion[] {
  const clipper = new Clipper64();
  clipper.preserveCollinear = false;
  clipper.addPaths(subject as Path64[], PathType.Subject);
  if (clip.length > 0) clipper.addPaths(clip as Path64[], PathType.Clip);
  const tree = new PolyTree64();
  clipper.execute(type, FILL[fill], tree);
  const regions: GridRegion[] = [];
  collect(tree, regions);
  return regions;
}

/** Contours and holes alternate down the tree; islands in holes are regions of their own. */
function collect(parent: PolyPath64, regions: GridRegion[]): void {
  for (let i = 0; i < parent.count; i++) {
    const contour = parent.child(i);
    const region: GridRegion = { outer: contour.poly ?? [], holes: [] };
    regions.push(region);
    for (let h = 0; h < contour.count; h++) {
      const hole = contour.child(h);
      region.holes.push(hole.poly ?? []);
      collect(hole, regions);
    }
  }
}

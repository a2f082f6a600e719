// drawing.ts — an edge seen in plan, however it came about: strips of faces between rising distances from the outline.

export interface StripDrawing {
  /** Flat x, y; the rim's points come first, in the order of the region's rings. */
  readonly points: Float64Array;
  /** Distance of each point from the outline. */
  readonly times: Float64Array;
  /** 0 for points of the rim, k for points of the k-th level, −1 for those between. */
  readonly levels: Int16Array;
  /** Triangles, convex quads and fans around their first corner, counter-clockwise: face i is corners[starts[i]] … corners[starts[i + 1] − 1]. */
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  /** The outline edge each face belongs to, by the rim point it leaves; −1 where nobody knows. */
  readonly edges: Int32Array;
  /** 0 for faces along the rim, one more above each level. */
  readonly strips: Uint16Array;
  /** Edges around what is left inside the last level, as pairs of points, with it on their left. */
  readonly front: Uint32Array;
  /** The same in triangles, Delaunay, where they are known. */
  readonly triangles?: Uint32Array;
}

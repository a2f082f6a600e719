// types.ts — the polygon mesh everything is built as. Values are never changed once made.

/** Which of its four sides a face of a slab belongs to; an imported mesh has only `front`. */
export const SIDES = ['front', 'edge', 'wall', 'back'] as const;
export type Side = (typeof SIDES)[number];

export interface Mesh {
  /** Flat x, y, z in project units: x right, y up, front towards +z. */
  readonly positions: Float64Array;
  /** Face i is corners[starts[i]] … corners[starts[i + 1] − 1], counter-clockwise seen from outside. */
  readonly starts: Uint32Array;
  /** Point indices. */
  readonly corners: Uint32Array;
  /** Index into {@link SIDES}, one a face. */
  readonly sides: Uint8Array;
  /** Where faces came from an outline: what tells a curve from a ridge. */
  readonly flow?: Flow;
  /** Edges that are shaded hard or soft whatever their angle, by their two points: the lesser times the number of points, plus the other. */
  readonly marked?: ReadonlyMap<number, 'hard' | 'soft'>;
}

/** How faces follow outlines. */
export interface Flow {
  /** The outline edge each face follows; −1 for faces that follow none. */
  readonly edges: Int32Array;
  /** Where each outline edge begins, flat x, y, and the edge that comes after it. */
  readonly points: Float64Array;
  readonly next: Uint32Array;
  /** Where each mesh point lies on the way up the back's edge (below 0), the wall and the front's edge, by length. */
  readonly across: Float64Array;
  /** How far across the wall ends and the front's edge begins. */
  readonly wall: number;
  /**
   * By how much the curve turns left from its chord at the beginning and at the end of each outline edge, two angles in
   * radians; absent where outlines are taken as the straight lines they are.
   */
  readonly bends?: Float64Array;
}

export const EMPTY_MESH: Mesh = {
  positions: new Float64Array(0),
  starts: new Uint32Array(1),
  corners: new Uint32Array(0),
  sides: new Uint8Array(0),
};

export const faceCount = (mesh: Mesh): number => mesh.starts.length - 1;

// normals.ts — a mesh as triangles with a normal at every corner: hard between sides and across creases, smooth elsewhere.
import { DisjointSets } from '../base/disjoint-sets.ts';
import { moved, type Rigid, withoutShift } from '../geometry/rigid.ts';
import { Curves } from './curves.ts';
import { edgeKey } from './marks.ts';
import { triangleCorners } from './triangles.ts';
import { faceCount, type Mesh, SIDES } from './types.ts';

/** What an edge may run into without a line between them. */
export const BLENDS = ['none', 'wall', 'front', 'both'] as const;

export interface Shading {
  /** Faces of one side that meet at less than this are shaded as one surface, degrees. */
  readonly crease: number;
  /** Where an edge is smooth into its neighbour, it takes the neighbour's normals, which stays as flat as it is. */
  readonly blend: (typeof BLENDS)[number];
}

/** 40° is above the 30° of a round edge in 3 steps. */
export const SHADING: Shading = { crease: 40, blend: 'none' };

/** Triangles with split vertices, as graphics formats want them. Arrays are fresh and may be transferred. */
export interface ShadedMesh {
  readonly positions: Float32Array;
  /** Unit normals, one a vertex. */
  readonly normals: Float32Array;
  /** Flat u, v, one pair a vertex; null where none were asked for. */
  readonly uvs: Float32Array | null;
  readonly indices: Uint32Array;
}

/** Points once for every distinct normal and place on pictures that they carry. */
export interface SplitVertices extends Omit<ShadedMesh, 'indices'> {
  /** vertexOfCorner[corner of the mesh] → vertex */
  readonly vertexOfCorner: Uint32Array;
}

/** @param uvs flat u, v, one pair a corner of the mesh; null for none */
export function shade(mesh: Mesh, shading: Shading = SHADING, uvs: Float32Array | null = null): ShadedMesh {
  const { vertexOfCorner, ...vertices } = splitVertices(mesh, shading, uvs);
  const indices = triangleCorners(mesh);
  for (let i = 0; i < indices.length; i++) indices[i] = vertexOfCorner[indices[i]!]!;
  return { ...vertices, indices };
}

/** Points and normals after a move. */
export function placedVertices({ positions, normals }: Pick<ShadedMesh, 'positions' | 'normals'>, place: Rigid) {
  const turning = withoutShift(place);
  const by = (move: Rigid, of: Float32Array) => {
    const result = new Float32Array(of.length);
    for (let i = 0; i < of.length; i += 3) result.set(moved(move, [of[i]!, of[i + 1]!, of[i + 2]!]), i);
    return result;
  };
  return { positions: by(place, positions), normals: by(turning, normals) };
}

/**
 * Normals are means of face normals weighted by the corner's angle (Thürmer & Wüthrich 1998), over one smooth fan. Faces along
 * a curve are first turned to where the curve runs at the corner, so that chords leave no facets and lines stay flat.
 */
export function splitVertices(mesh: Mesh, shading: Shading = SHADING, uvs: Float32Array | null = null): SplitVertices {
  const { corners, positions } = mesh;
  const normals = new CornerNormals(mesh, shading);
  const vertexOfCorner = new Uint32Array(corners.length);
  const around = cornersByPoint(mesh);
  // One vertex a corner at the most.
  const outPositions = new Float32Array(3 * corners.length);
  const outNormals = new Float32Array(3 * corners.length);
  const outUvs = new Float32Array(uvs ? 2 * corners.length : 0);
  let count = 0;
  for (let p = 0; p + 1 < around.starts.length; p++) {
    const [from, to] = [around.starts[p]!, around.starts[p + 1]!];
    normals.at(around.ids, from, to);
    const first = count;
    for (let i = from; i < to; i++) {
      const corner = around.ids[i]!;
      const x = normals.x[i - from]!;
      const y = normals.y[i - from]!;
      const z = normals.z[i - from]!;
      const u = uvs ? uvs[2 * corner]! : 0;
      const v = uvs ? uvs[2 * corner + 1]! : 0;
      // Equal normals at one point share a vertex, if they lie on one place of a picture.
      let vertex = first;
      for (; vertex < count; vertex++) {
        const same =
          outNormals[3 * vertex]! * x + outNormals[3 * vertex + 1]! * y + outNormals[3 * vertex + 2]! * z > SAME;
        if (same && (!uvs || (outUvs[2 * vertex] === u && outUvs[2 * vertex + 1] === v))) break;
      }
      vertexOfCorner[corner] = vertex;
      if (vertex < count) continue;
      for (let k = 0; k < 3; k++) outPositions[3 * vertex + k] = positions[3 * p + k]!;
      outNormals[3 * vertex] = x;
      outNormals[3 * vertex + 1] = y;
      outNormals[3 * vertex + 2] = z;
      if (uvs) {
        outUvs[2 * vertex] = u;
        outUvs[2 * vertex + 1] = v;
      }
      count++;
    }
  }
  return {
    positions: outPositions.slice(0, 3 * count),
    normals: outNormals.slice(0, 3 * count),
    uvs: uvs && outUvs.slice(0, 2 * count),
    vertexOfCorner,
  };
}

/** Cosine from which on two normals are one: those of float32 do not tell less than this apart. */
const SAME = 1 - 1e-7;

const [FRONT, EDGE, WALL, BACK] = SIDES.map((_, i) => i) as [number, number, number, number];

/** Faces at one point for which there is room at first. */
const ROOM = 64;
const BITS = 32;
const NONE = 0xffffffff;

/** An edge between faces i and k of those at a point. */
interface Link {
  readonly i: number;
  readonly k: number;
  readonly is: 'hard' | 'soft' | null;
}

const NO_LINKS: readonly Link[] = [];

const isBetween = ({ i, k }: Link, a: number, b: number) => (i === a && k === b) || (i === b && k === a);

/** The normals of the corners at one point after another. Everything is kept in flat arrays: this is where drags wait. */
class CornerNormals {
  /** Of the corners that {@link at} was called for last, in their order. */
  x = new Float64Array(ROOM);
  y = new Float64Array(ROOM);
  z = new Float64Array(ROOM);
  private readonly mesh: Mesh;
  private readonly blend: Shading['blend'];
  private readonly limit: number;
  private readonly curves: Curves | null;
  private readonly faceOf: Uint32Array;
  private readonly faceNormals: Float64Array;
  /** Of corners that were asked for; those of level faces hardly ever are. */
  private readonly angles: Float64Array;
  private faces = new Uint32Array(ROOM);
  /** Normals of the faces at the point, turned to where their curves run. */
  private turned = new Float64Array(3 * ROOM);
  /** Which of the faces are smooth into which: a row for each. */
  private smooth = new Uint8Array(ROOM * ROOM);
  /** Which of the faces are shaded as hand marks say, and run softly into one that lies level. */
  private isSoft = new Uint8Array(ROOM);
  /** Which of them have a hard edge at the point: they are as flat as they are, whatever curve they lie along. */
  private isHard = new Uint8Array(ROOM);
  /** The same rows as bits, where there are no more faces than bits. */
  private bits = new Int32Array(ROOM);
  /** The face whose normal each face has. */
  private like = new Uint32Array(ROOM);

  constructor(mesh: Mesh, { crease, blend }: Shading) {
    this.mesh = mesh;
    this.blend = blend;
    const radians = (crease * Math.PI) / 180;
    this.limit = Math.cos(radians) - 1e-9;
    this.curves = mesh.flow ? new Curves(mesh.flow, radians) : null;
    this.faceOf = new Uint32Array(mesh.corners.length);
    for (let f = 0; f < faceCount(mesh); f++) {
      for (let c = mesh.starts[f]!; c < mesh.starts[f + 1]!; c++) this.faceOf[c] = f;
    }
    this.faceNormals = faceNormalsOf(mesh);
    this.angles = new Float64Array(mesh.corners.length);
  }

  private makeRoom(count: number): void {
    if (count <= this.faces.length) return;
    this.faces = new Uint32Array(2 * count);
    [this.x, this.y, this.z] = [new Float64Array(2 * count), new Float64Array(2 * count), new Float64Array(2 * count)];
    this.turned = new Float64Array(6 * count);
    this.smooth = new Uint8Array(4 * count * count);
    [this.bits, this.like] = [new Int32Array(2 * count), new Uint32Array(2 * count)];
    [this.isSoft, this.isHard] = [new Uint8Array(2 * count), new Uint8Array(2 * count)];
  }

  /** @param ids ids[from] … ids[to − 1] are the corners at the point */
  at(ids: Uint32Array, from: number, to: number): void {
    const count = to - from;
    this.makeRoom(count);
    const { faces, turned, faceNormals: n, mesh, curves } = this;
    for (let i = 0; i < count; i++) faces[i] = this.faceOf[ids[from + i]!]!;
    const point = mesh.corners[ids[from]!]!;
    const links = mesh.marked ? this.marksAt(mesh.marked, point, ids, from, count) : NO_LINKS;
    for (let i = 0; i < count; i++) {
      const f = 3 * faces[i]!;
      let cos = 1;
      let sin = 0;
      if (this.isHard[i] === 0 && curves?.bend(faces[i]!, point, faces, count, mesh)) {
        cos = curves.cos;
        sin = curves.sin;
      }
      turned[3 * i] = cos * n[f]! - sin * n[f + 1]!;
      turned[3 * i + 1] = sin * n[f]! + cos * n[f + 1]!;
      turned[3 * i + 2] = n[f + 2]!;
    }
    this.findSmooth(count);
    if (links.length > 0) this.heed(links, count);
    for (let i = 0; i < count; i++) {
      if (this.isLevel(i) && this.isSoft[i] === 0) {
        // What is level and flat needs no mean.
        this.x[i] = 0;
        this.y[i] = 0;
        this.z[i] = turned[3 * i + 2]!;
        this.like[i] = NONE;
        continue;
      }
      const like = this.blendOf(i, count);
      this.like[i] = links.some((link) => link.is === 'hard' && isBetween(link, i, like)) ? i : like;
      const twin = this.twinOf(i, count);
      if (twin < 0) this.set(i, this.like[i]!, count, ids, from);
      else {
        this.x[i] = this.x[twin]!;
        this.y[i] = this.y[twin]!;
        this.z[i] = this.z[twin]!;
      }
    }
  }

  /** The edges between faces at a point, and what they are marked as; none where none is marked. */
  private marksAt(
    marked: NonNullable<Mesh['marked']>,
    point: number,
    ids: Uint32Array,
    from: number,
    count: number,
  ): readonly Link[] {
    const { starts, corners, positions } = this.mesh;
    this.isSoft.fill(0, 0, count);
    this.isHard.fill(0, 0, count);
    const points = positions.length / 3;
    const beside = (i: number, step: number) => {
      const face = this.faces[i]!;
      const [first, size] = [starts[face]!, starts[face + 1]! - starts[face]!];
      return corners[first + ((ids[from + i]! - first + step + size) % size)]!;
    };
    const links: Link[] = [];
    for (let i = 0; i < count; i++) {
      const next = beside(i, 1);
      const is = marked.get(edgeKey(point, next, points)) ?? null;
      for (let k = 0; k < count; k++) if (k !== i && beside(k, -1) === next) links.push({ i, k, is });
    }
    return links.some(({ is }) => is) ? links : NO_LINKS;
  }

  /** Has hard edges part what hangs together over no other way around the point, and soft ones join. */
  private heed(links: readonly Link[], count: number): void {
    const { smooth, bits, isSoft, isHard } = this;
    const groups = new DisjointSets(count);
    for (const { i, k, is } of links) {
      if (is === 'hard') isHard[i] = isHard[k] = 1;
      else if (is === 'soft' || smooth[i * count + k]) groups.join(i, k);
    }
    const soft = new Set(links.flatMap(({ i, is }) => (is === 'soft' ? [groups.find(i)] : [])));
    for (let i = 0; i < count; i++) {
      const group = groups.find(i);
      isSoft[i] = soft.has(group) ? 1 : 0;
      bits[i] = 0;
      for (let k = 0; k < count; k++) {
        const isOne = groups.find(k) === group && (isSoft[i] === 1 || smooth[i * count + k] === 1);
        smooth[i * count + k] = isOne ? 1 : 0;
        if (isOne) bits[i]! |= 1 << k;
      }
    }
  }

  /** A face before face i whose normal is the mean over the very same faces; −1 for none. */
  private twinOf(i: number, count: number): number {
    if (count > BITS) return -1;
    const { bits, like } = this;
    const own = bits[like[i]!]!;
    for (let k = 0; k < i; k++) if (like[k] !== NONE && bits[like[k]!] === own) return k;
    return -1;
  }

  private isLevel(i: number): boolean {
    const z = this.turned[3 * i + 2]!;
    const side = this.mesh.sides[this.faces[i]!];
    return (z === 1 || z === -1) && (side === FRONT || side === BACK);
  }

  /** Tells which faces of one side run into each other without a line between them. */
  private findSmooth(count: number): void {
    const { faces, turned, limit, curves, mesh, smooth, bits } = this;
    for (let i = 0; i < count; i++) bits[i] = 1 << i;
    for (let i = 0; i < count; i++) {
      smooth[i * count + i] = 1;
      const side = mesh.sides[faces[i]!];
      const x = turned[3 * i]!;
      const y = turned[3 * i + 1]!;
      const z = turned[3 * i + 2]!;
      for (let k = i + 1; k < count; k++) {
        let isSmooth = mesh.sides[faces[k]!] === side;
        if (isSmooth) {
          const dot = x * turned[3 * k]! + y * turned[3 * k + 1]! + z * turned[3 * k + 2]!;
          isSmooth = dot >= limit && (curves === null || curves.areAlong(faces[i]!, faces[k]!));
        }
        smooth[i * count + k] = smooth[k * count + i] = isSmooth ? 1 : 0;
        if (!isSmooth) continue;
        bits[i]! |= 1 << k;
        bits[k]! |= 1 << i;
      }
    }
  }

  /** Sets normal i to the mean over the faces that are smooth into face `like`. */
  private set(i: number, like: number, count: number, ids: Uint32Array, from: number): void {
    const { turned, smooth, angles, mesh, faces } = this;
    let x = 0;
    let y = 0;
    let z = 0;
    for (let k = 0; k < count; k++) {
      if (smooth[like * count + k] === 0) continue;
      const corner = ids[from + k]!;
      if (angles[corner] === 0) angles[corner] = cornerAngle(mesh, faces[k]!, corner);
      const weight = angles[corner]!;
      x += weight * turned[3 * k]!;
      y += weight * turned[3 * k + 1]!;
      z += weight * turned[3 * k + 2]!;
    }
    const length = Math.sqrt(x * x + y * y + z * z) || 1;
    this.x[i] = x / length;
    this.y[i] = y / length;
    this.z[i] = z / length;
  }

  /** The face whose normal face i has here: its own, or that of the side which an edge runs into. */
  private blendOf(i: number, count: number): number {
    const { sides } = this.mesh;
    const { faces, blend, curves } = this;
    if (blend === 'none' || sides[faces[i]!] !== EDGE) return i;
    const at = faces.subarray(0, count);
    if (blend !== 'wall') {
      const front = at.findIndex((f) => sides[f] === FRONT || sides[f] === BACK);
      if (front >= 0) return front;
    }
    if (blend === 'front') return i;
    const wall = at.findIndex((f) => sides[f] === WALL && (curves?.areAlong(faces[i]!, f) ?? true));
    return wall < 0 ? i : wall;
  }
}

/** Unit normal of each face (Newell's method, so polygons need not be exactly flat); zero for a face without area. */
export function faceNormalsOf({ positions: p, starts, corners }: Mesh): Float64Array {
  const normals = new Float64Array(3 * (starts.length - 1));
  for (let f = 0; f + 1 < starts.length; f++) {
    let [x, y, z] = [0, 0, 0];
    let isLevel = true;
    for (let c = starts[f]!, last = starts[f + 1]! - 1, b = last; c <= last; b = c++) {
      const [i, j] = [3 * corners[b]!, 3 * corners[c]!];
      x += (p[i + 1]! - p[j + 1]!) * (p[i + 2]! + p[j + 2]!);
      y += (p[i + 2]! - p[j + 2]!) * (p[i]! + p[j]!);
      z += (p[i]! - p[j]!) * (p[i + 1]! + p[j + 1]!);
      isLevel &&= p[i + 2] === p[j + 2];
    }
    // What is level stays so exactly: a flat front must not shimmer.
    if (isLevel) x = y = 0;
    const length = Math.sqrt(x * x + y * y + z * z) || 1;
    normals[3 * f] = x / length;
    normals[3 * f + 1] = y / length;
    normals[3 * f + 2] = z / length;
  }
  return normals;
}

/** Angle of a corner of face f. */
function cornerAngle({ positions: p, starts, corners }: Mesh, f: number, c: number): number {
  const from = starts[f]!;
  const to = starts[f + 1]!;
  const at = 3 * corners[c]!;
  const a = 3 * corners[c > from ? c - 1 : to - 1]!;
  const b = 3 * corners[c + 1 < to ? c + 1 : from]!;
  const ux = p[a]! - p[at]!;
  const uy = p[a + 1]! - p[at + 1]!;
  const uz = p[a + 2]! - p[at + 2]!;
  const vx = p[b]! - p[at]!;
  const vy = p[b + 1]! - p[at + 1]!;
  const vz = p[b + 2]! - p[at + 2]!;
  const lengths = Math.sqrt((ux * ux + uy * uy + uz * uz) * (vx * vx + vy * vy + vz * vz));
  const cos = (ux * vx + uy * vy + uz * vz) / (lengths || 1);
  return Math.acos(Math.min(1, Math.max(-1, cos)));
}

/** Corner ids grouped by point: those of point p are ids[starts[p]] … ids[starts[p + 1] − 1]. */
function cornersByPoint({ positions, corners }: Mesh): { starts: Uint32Array; ids: Uint32Array } {
  const starts = new Uint32Array(positions.length / 3 + 1);
  for (let c = 0; c < corners.length; c++) starts[corners[c]! + 1]!++;
  for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
  const fill = starts.slice();
  const ids = new Uint32Array(corners.length);
  for (let c = 0; c < corners.length; c++) ids[fill[corners[c]!]!++] = c;
  return { starts, ids };
}

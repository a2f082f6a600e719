// slab.ts — outlines extruded to a stated thickness with an edge on front and back. Built in two acts: the *plan* knows
// every point's place on the sheet and every face, the *raise* gives heights, so that a new depth costs one pass.
import { GeometryError, type Warning } from '../base/errors.ts';
import { ZERO_AREA } from '../geometry/tolerances.ts';
import { facesOf, meshOf } from '../mesh/tidy/faces.ts';
import type { Mesh } from '../mesh/types.ts';
import { SIDES } from '../mesh/types.ts';
import { boundsOf, longestSide } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
import type { CornerStyle } from './edge/corners.ts';
import { holdingRim } from './edge/hold.ts';
import { MITRED } from './edge/roof.ts';
import { crownShares, DOME_CURVES, type FrontForm, mustLeaveRoom, type PlanFlow, slantAt, withRidges } from './form.ts';
import type { FaceMesh, FrontFaces } from './front/front.ts';
import type { FlatOutline } from './front/types.ts';
import { buildFlange, buildLid, type EdgePath, joinLids, type Lid } from './lid.ts';
import { type Profile, type ProfileCurve, type ProfileRows, profileRows } from './profile.ts';
import { outlineOf, rimFor } from './rim.ts';
import { ON, type SteppedLid, stepped } from './steps.ts';

/** What becomes of an edge that reaches further than a stroke is wide: it ends in a ridge, or is held before it does. */
export const BEYOND = ['ridge', 'hold'] as const;

/** Where an edge goes from the outline: in, or out as a flange. */
export const WAYS = ['in', 'out'] as const;

/** Which of front and back are closed with faces. */
export const CAPPED = ['both', 'front', 'back', 'none'] as const;
export type Caps = (typeof CAPPED)[number];

/** One edge of a slab. Reach and rise in sheet units, ≥ 0; an edge with either at 0 is none. */
export interface SlabEdge extends CornerStyle {
  readonly profile: Profile | ProfileCurve;
  readonly way: (typeof WAYS)[number];
  /** How far in, or out. */
  readonly reach: number;
  /** How far down. */
  readonly rise: number;
  /** Strips of faces across it, ≥ 1. */
  readonly steps: number;
  readonly beyond: (typeof BEYOND)[number];
}

export interface SlabSpec {
  /** Total thickness, edges included, > 0. */
  readonly depth: number;
  readonly front: SlabEdge | null;
  readonly back: SlabEdge | null;
  /** How front and back are divided, and the target length of edges where they are. */
  readonly faces: FaceMesh;
  readonly cell: number;
  /** Strips of faces the wall is divided into, ≥ 1. */
  readonly wallRows: number;
  /** Flat where nothing is said. */
  readonly form?: FrontForm;
  /** Outlines on the front that stand out of it, or sink into it below 0; never by 0. */
  readonly steps?: readonly FrontStep[];
}

export interface FrontStep {
  readonly regions: readonly Region[];
  readonly by: number;
}

export interface SlabPlan {
  /** Flat x, y of every mesh point. */
  readonly points: Float64Array;
  /** Row r of the front as r, row r of the back as −1 − r; ridges may end between rows, and from 0 to −1 is the wall. */
  readonly rows: Float64Array;
  readonly starts: Uint32Array;
  readonly corners: Uint32Array;
  readonly sides: Uint8Array;
  readonly flow: PlanFlow;
  readonly edgePath: EdgePath;
  /** Outlines, and those whose edge had to be left to the rings. */
  readonly outlines: number;
  readonly ringOutlines: number;
  /** Outlines whose edge was to hold back, and ends in ridges after all. */
  readonly unheldOutlines: number;
  /** Whether an edge was to reach out, and could not be made. */
  readonly lostFlange: boolean;
  /** For each point, its height among {@link heights}; null for a front without steps. */
  readonly levels: Uint16Array | null;
  /** What adds up to each height: numbers of steps. */
  readonly heights: readonly (readonly number[])[];
  /** Steps of which nothing lies on the front. */
  readonly lostSteps: number;
  /** Of a front that is crowned: how far each point lies from its rim, the farthest at 1. */
  readonly crown: Float64Array | null;
}

/** Share of the depth that stays wall whatever the edges ask for: front and back must never meet in one sheet. */
const LEAST_WALL = 0.01;

const FRONT = SIDES.indexOf('front');
const EDGE = SIDES.indexOf('edge');
const WALL = SIDES.indexOf('wall');
const BACK = SIDES.indexOf('back');

/** By what a face of a lid is on; the flat is the front's or the back's. */
const SIDE_ON: Readonly<Record<number, number>> = { [ON.edge]: EDGE, [ON.wall]: WALL };

/** A reach below this share of the extent is below what float32 files and the sheet's grid can hold. */
const LEAST_REACH = 1e-6;

/**
 * The spec with edges that fit: no-edges removed, rises scaled down to the depth.
 * @param extent longest side of the outlines
 */
export function fitSpec(spec: SlabSpec, extent = 0): { spec: SlabSpec; warnings: Warning[] } {
  if (!(spec.depth > 0)) throw new GeometryError('out-of-range', `The depth is ${spec.depth}; it must be more than 0.`);
  const warnings: Warning[] = [];
  const present = (edge: SlabEdge | null) => {
    if (!edge || edge.reach === 0 || edge.rise === 0) return null;
    if (edge.reach >= LEAST_REACH * extent) return edge;
    const message = `An edge that reaches ${tidyNumber(edge.reach)} is too small for outlines ${tidyNumber(extent)} across; it was left out.`;
    warnings.push({ code: 'reach-too-small', message });
    return null;
  };
  let front = present(spec.front);
  let back = present(spec.back);
  const rises = (front?.rise ?? 0) + (back?.rise ?? 0);
  const most = spec.depth * (1 - LEAST_WALL);
  if (rises > most) {
    const scale = most / rises;
    front = front && { ...front, rise: front.rise * scale };
    back = back && { ...back, rise: back.rise * scale };
  }
  if (rises > spec.depth) {
    const message = `The edges rise ${tidyNumber(rises)} together, more than the depth of ${tidyNumber(spec.depth)}; they were lowered to fit.`;
    warnings.push({ code: 'rise-lowered', message });
  }
  return { spec: { ...spec, front, back }, warnings };
}

const tidyNumber = (v: number) => String(Number(v.toPrecision(4)));

/** What a plan depends on besides the outlines: equal keys, equal plans. */
export function planKey({ front, back, faces, cell, wallRows, form }: SlabSpec): string {
  const part = (edge: SlabEdge | null) =>
    edge ? [edge.profile, edge.way, edge.reach, edge.steps, edge.beyond, edge.corners, edge.mitreLimit] : null;
  return JSON.stringify([
    part(front),
    part(back),
    faces,
    faces === 'fewest' ? null : cell,
    wallRows,
    form?.is === 'crowned',
  ]);
}

/**
 * Plans the slabs of some regions.
 * @param regions disjoint regions as `regionsOf` gives them
 * @param spec as `fitSpec` returns it
 */
export function planSlab(regions: readonly Region[], spec: SlabSpec): SlabPlan {
  const parts: Part[] = [];
  const steps = (spec.steps ?? []).map(({ regions: own }) => own);
  let lostFlange = false;
  const box = boundsOf(regions.map(({ outer }) => outer));
  const outward = Math.max(...[spec.front, spec.back].map((edge) => (edge?.way === 'out' ? edge.reach : 0)));
  const extent = (box ? longestSide(box) : 0) + 2 * outward;
  const faces: FrontFaces = { kind: spec.faces, cell: spec.cell, least: 6 * ZERO_AREA * extent * extent };
  const optionsOf = (edge: SlabEdge | null) => ({
    insets: edge ? insetsOf(edge, extent) : [0],
    isFlange: edge?.way === 'out',
    isHeld: edge?.beyond === 'hold' && edge.way === 'in',
    style: edge ? { corners: edge.corners, mitreLimit: edge.mitreLimit } : MITRED,
    faces,
    extent,
  });
  const [front, back] = [optionsOf(spec.front), optionsOf(spec.back)];
  const areAlike = JSON.stringify(front) === JSON.stringify(back);
  const held = Math.max(...[front, back].map(({ isHeld, insets }) => (isHeld ? insets.at(-1)! : 0)));
  const rims = regions.map((region) => {
    const free = rimFor(region, faces, !spec.front || !spec.back);
    return held > 0 ? holdingRim(free, held, extent) : free;
  });
  if (rims.length > 0 && outward > 0) {
    const joinedOver = (side: typeof front) => {
      const lids = rims.map((rim) => buildLid(rim, side));
      return joinLids(rims, lids);
    };
    const over = (side: typeof front): Lid => {
      if (!side.isFlange) return joinedOver(side);
      const flange = buildFlange(rims, side);
      if (flange) return flange;
      // Without its edge the front lies where the edge would have ended.
      lostFlange = true;
      return joinedOver({ ...side, insets: side.insets.map(() => 0), faces: { ...faces, kind: 'fewest' } });
    };
    const lid = over(front);
    parts.push(partOf(rims, lid, areAlike ? lid : over(back)));
  } else {
    for (const rim of rims) {
      const lid = buildLid(rim, front);
      const raised = steps.length > 0 ? stepped(lid, outlineOf([rim]).points.length / 2, steps, faces, extent) : null;
      parts.push(partOf([rim], raised ?? lid, areAlike ? lid : buildLid(rim, back)));
    }
  }
  const plan = new PlanWriter(parts, spec.wallRows).plan(lostFlange, steps.length);
  if (spec.form?.is !== 'crowned') return plan;
  const ridged = withRidges(plan);
  return { ...ridged, crown: crownShares(ridged) };
}

/** Rows nearer to each other than this share of the extent are at one distance: faces between them would have no area. */
const LEAST_INSET = 5e-6;

/** The distance of each row of an edge from the outline. */
function insetsOf({ profile, steps, reach }: SlabEdge, extent: number): number[] {
  const insets: number[] = [];
  const { insets: shares } = profileRows(profile, steps);
  for (const share of shares) {
    const inset = share * reach;
    const before = insets.at(-1);
    insets.push(before !== undefined && inset - before < LEAST_INSET * extent ? before : inset);
  }
  return insets;
}

/** Heights for a plan: the finished mesh, standing from `base` to `base + depth`. */
export function raiseSlab(plan: SlabPlan, spec: SlabSpec, base = 0): Mesh {
  const [front, back] = [crossSection(spec.front), crossSection(spec.back)];
  const frontFoot = base + spec.depth - (spec.front?.rise ?? 0);
  const backFoot = base + (spec.back?.rise ?? 0);
  const wall = frontFoot - backFoot;
  const formed = riseOf(plan, spec.form, wall * (1 - LEAST_WALL));
  const lifts = liftsOf(plan, spec.steps ?? [], spec.depth * (1 - LEAST_WALL) - (spec.back?.rise ?? 0));
  const lift = (i: number) => (plan.levels ? lifts[plan.levels[i]!]! : 0);
  const positions = new Float64Array(plan.rows.length * 3);
  const across = new Float64Array(plan.rows.length);
  for (let i = 0; i < plan.rows.length; i++) {
    const row = plan.rows[i]!;
    positions[3 * i] = plan.points[2 * i]!;
    positions[3 * i + 1] = plan.points[2 * i + 1]!;
    if (row >= 0) {
      positions[3 * i + 2] = frontFoot + between(front.heights, row) + formed(i) + lift(i);
      across[i] = wall + between(front.lengths, row) + lift(i);
    } else if (row > -1) {
      // The wall follows as far up as it goes.
      positions[3 * i + 2] = frontFoot + row * wall + (1 + row) * formed(i);
      across[i] = wall + row * wall;
    } else {
      positions[3 * i + 2] = backFoot - between(back.heights, -1 - row);
      across[i] = -between(back.lengths, -1 - row);
    }
  }
  return {
    positions,
    starts: plan.starts,
    corners: plan.corners,
    sides: plan.sides,
    flow: { ...plan.flow, across, wall },
  };
}

/** How much higher each point stands than with a flat front. @param room below it @throws {GeometryError} 'out-of-range' */
function riseOf({ points, crown }: SlabPlan, form: FrontForm | undefined, room: number): (point: number) => number {
  if (form?.is === 'slanted') {
    const slant = slantAt(form);
    const at = (i: number) => slant(points[2 * i]!, points[2 * i + 1]!);
    let lowest = 0;
    for (let i = 0; i < points.length / 2; i++) lowest = Math.max(lowest, -at(i));
    mustLeaveRoom(form, lowest, room);
    return at;
  }
  if (form?.is === 'crowned' && crown) {
    mustLeaveRoom(form, -form.height, room);
    const dome = DOME_CURVES[form.dome];
    return (i) => form.height * dome(crown[i]!);
  }
  return () => 0;
}

/** By how much each height is above the front. @param room below it @throws {GeometryError} 'out-of-range' */
function liftsOf({ heights }: SlabPlan, steps: readonly FrontStep[], room: number): number[] {
  const lifts = heights.map((each) => each.reduce((sum, step) => sum + steps[step]!.by, 0));
  const lowest = -Math.min(0, ...lifts);
  if (lowest < room) return lifts;
  const [sunk, left] = [lowest, room].map((v) => Number(v.toPrecision(3)));
  const message = `A region of the front sinks by ${sunk}, where only ${left} are: make it deeper, or sink the region less.`;
  throw new GeometryError('out-of-range', message);
}

/** The mesh without the faces that close its front, its back, or both. */
export function withoutCaps(mesh: Mesh, caps: Caps): Mesh {
  if (caps === 'both') return mesh;
  const gone = new Set([
    ...(caps === 'front' ? [BACK] : []),
    ...(caps === 'back' ? [FRONT] : []),
    ...(caps === 'none' ? [FRONT, BACK] : []),
  ]);
  return meshOf(
    facesOf(mesh).filter(({ side }) => !gone.has(side)),
    mesh,
  );
}

/** How high each row of an edge lies above its foot, and how far from it along the profile. */
function crossSection(edge: SlabEdge | null): { heights: number[]; lengths: number[] } {
  if (!edge) return { heights: [0], lengths: [0] };
  const rows: ProfileRows = profileRows(edge.profile, edge.steps);
  const heights = rows.heights.map((height) => edge.rise * height);
  const lengths = [0];
  for (let k = 1; k < heights.length; k++) {
    const inset = edge.reach * (rows.insets[k]! - rows.insets[k - 1]!);
    lengths.push(lengths[k - 1]! + Math.hypot(inset, heights[k]! - heights[k - 1]!));
  }
  return { heights, lengths };
}

/** The value of a row, which may lie between two. */
function between(values: readonly number[], row: number): number {
  const k = Math.floor(row);
  return k === row ? values[k]! : values[k]! + (row - k) * (values[k + 1]! - values[k]!);
}

/** Regions whose lids are one, and the lids. */
interface Part {
  readonly rims: readonly Region[];
  readonly outline: FlatOutline;
  readonly front: Lid | SteppedLid;
  readonly back: Lid;
}

const innerOf = (lid: Lid | SteppedLid): FlatOutline | null => ('inner' in lid ? lid.inner : null);

const partOf = (rims: readonly Region[], front: Lid | SteppedLid, back: Lid): Part => ({
  rims,
  outline: outlineOf(rims),
  front,
  back,
});

/** Writes fronts, backs and walls of part after part into one plan. */
class PlanWriter {
  private readonly parts: readonly Part[];
  private readonly wallRows: number;
  private readonly points: Float64Array;
  private readonly rows: Float64Array;
  private readonly starts: Uint32Array;
  private readonly corners: Uint32Array;
  private readonly sides: Uint8Array;
  private readonly edges: Int32Array;
  private readonly begins: Float64Array;
  private readonly next: Uint32Array;
  private readonly levels: Uint16Array;
  private readonly heights: (readonly number[])[] = [[]];
  /** How many points, corners, faces and outline edges are written. */
  private point = 0;
  private corner = 0;
  private face = 0;
  private edge = 0;

  constructor(parts: readonly Part[], wallRows: number) {
    this.parts = parts;
    this.wallRows = wallRows;
    let [points, faces, corners, edges] = [0, 0, 0, 0];
    for (const { outline, front, back } of parts) {
      const rim = outline.points.length / 2;
      points += front.rows.length + back.rows.length + (wallRows - 1) * rim;
      faces += front.edges.length + back.edges.length + wallRows * rim;
      corners += front.corners.length + back.corners.length + 4 * wallRows * rim;
      edges += rim + (innerOf(front)?.points.length ?? 0) / 2;
    }
    this.points = new Float64Array(2 * points);
    this.rows = new Float64Array(points);
    this.levels = new Uint16Array(points);
    this.starts = new Uint32Array(faces + 1);
    this.corners = new Uint32Array(corners);
    this.sides = new Uint8Array(faces);
    this.edges = new Int32Array(faces);
    this.begins = new Float64Array(2 * edges);
    this.next = new Uint32Array(edges);
  }

  plan(lostFlange: boolean, steps: number): SlabPlan {
    for (const part of this.parts) this.write(part);
    const count = (is: (part: Part) => boolean) => this.parts.filter(is).length;
    const ringOutlines = count(({ front, back }) => front.path === 'rings' || back.path === 'rings');
    const edged = count(({ front, back }) => front.path !== 'none' || back.path !== 'none');
    return {
      points: this.points,
      rows: this.rows,
      starts: this.starts,
      corners: this.corners,
      sides: this.sides,
      flow: { edges: this.edges, points: this.begins, next: this.next },
      edgePath: edged === 0 ? 'none' : ringOutlines > 0 ? 'rings' : 'skeleton',
      outlines: this.parts.reduce((sum, { rims }) => sum + rims.length, 0),
      ringOutlines,
      unheldOutlines: count(({ front, back }) => front.isUnheld || back.isUnheld),
      lostFlange,
      levels: this.heights.length > 1 ? this.levels : null,
      heights: this.heights,
      lostSteps: steps - new Set(this.heights.flatMap((each) => each.slice(-1))).size,
      crown: null,
    };
  }

  private write({ outline, front, back }: Part): void {
    const frontAt = this.writePoints(front.points, front.rows);
    if ('levels' in front) this.writeLevels(front, frontAt);
    const backAt = this.writePoints(
      back.points,
      back.rows.map((row) => -1 - row),
    );
    this.writeLid(front, frontAt, FRONT, false);
    this.writeLid(back, backAt, BACK, true);
    this.writeWalls(outline, frontAt, backAt);
    const { points, edges } = outline;
    this.begins.set(points, 2 * this.edge);
    for (let e = 0; e < edges.length; e += 2) this.next[this.edge + edges[e]!] = this.edge + edges[e + 1]!;
    const inner = innerOf(front);
    const first = this.edge + edges.length / 2;
    if (inner) {
      this.begins.set(inner.points, 2 * first);
      for (let e = 0; e < inner.edges.length; e += 2) this.next[first + inner.edges[e]!] = first + inner.edges[e + 1]!;
    }
    this.edge = first + (inner?.points.length ?? 0) / 2;
  }

  private writeLevels({ levels, heights }: SteppedLid, first: number): void {
    const known = this.heights.length - 1;
    for (const [i, level] of levels.entries()) this.levels[first + i] = level === 0 ? 0 : known + level;
    this.heights.push(...heights.slice(1));
  }

  /** @returns the number of the first */
  private writePoints(points: Float64Array, rows: Float64Array): number {
    const first = this.point;
    this.points.set(points, 2 * first);
    this.rows.set(rows, first);
    this.point += rows.length;
    return first;
  }

  private writeLid(lid: Lid, first: number, flatSide: number, isTurned: boolean): void {
    for (let f = 0; f < lid.edges.length; f++) {
      const [from, to] = [lid.starts[f]!, lid.starts[f + 1]!];
      // Turned around, a face keeps its first corner: it may be a fan.
      for (let c = from; c < to; c++) {
        this.corners[this.corner++] = first + lid.corners[isTurned && c > from ? from + to - c : c]!;
      }
      this.closeFace(SIDE_ON[lid.onEdge[f]!] ?? flatSide, lid.edges[f]!);
    }
  }

  /** Quads from the back's rim to the front's, in rows: the points between lie in rows from 0 down to −1. */
  private writeWalls({ points, edges }: FlatOutline, frontAt: number, backAt: number): void {
    const levels = [backAt];
    for (let row = this.wallRows - 1; row > 0; row--) {
      levels.push(this.writePoints(points, new Float64Array(points.length / 2).fill(-row / this.wallRows)));
    }
    levels.push(frontAt);
    for (let e = 0; e < edges.length; e += 2) {
      for (let k = 1; k < levels.length; k++) {
        const [below, above] = [levels[k - 1]!, levels[k]!];
        this.corners[this.corner++] = below + edges[e]!;
        this.corners[this.corner++] = below + edges[e + 1]!;
        this.corners[this.corner++] = above + edges[e + 1]!;
        this.corners[this.corner++] = above + edges[e]!;
        this.closeFace(WALL, edges[e]!);
      }
    }
  }

  /** @param edge of the part, −1 for none */
  private closeFace(side: number, edge: number): void {
    this.sides[this.face] = side;
    this.edges[this.face] = edge < 0 ? -1 : this.edge + edge;
    this.starts[++this.face] = this.corner;
  }
}

// evaluate.ts — a project to outlines, meshes, proofs and parts. Every stage is a pure function of its inputs and is kept
// by their content, so a change recomputes only what lies behind it.

import { GeometryError, type Warning } from '../base/errors.ts';
import { hashOf } from '../base/hash.ts';
import { Memo } from '../base/memo.ts';
import { type Drawing, emptyDrawing, type Shape } from '../drawing.ts';
import { applyEdit, type Edited } from '../edits/apply.ts';
import type { OutlineGroup } from '../formats/outlines.ts';
import type { Part } from '../formats/part.ts';
import { readVector } from '../formats/vector.ts';
import type { LetterFont } from '../lettering/font.ts';
import { layLetters } from '../lettering/layout.ts';
import type { FontChoice } from '../lettering/settings.ts';
import { boxOfPoints, joinMeshes, placedMesh } from '../mesh/place.ts';
import { type Proof, proofOf } from '../mesh/proof.ts';
import { type Tidied, tidy } from '../mesh/tidy/tidy.ts';
import type { Mesh } from '../mesh/types.ts';
import { layUvs } from '../mesh/uv.ts';
import { movedShape } from '../outline/cover.ts';
import { boundsOf, longestSide, pointCount } from '../outline/measure.ts';
import { insetRegions } from '../outline/offset.ts';
import { overlapArea } from '../outline/overlap.ts';
import type { Region } from '../outline/types.ts';
import { narrowest, type Width } from '../outline/width.ts';
import { scaling } from '../path/matrix.ts';
import { prepare } from '../picture/prepare.ts';
import type { Picture, Prepared } from '../picture/types.ts';
import { bendsOf } from '../solid/bends.ts';
import type { EdgePath } from '../solid/lid.ts';
import type { Profile, ProfileCurve } from '../solid/profile.ts';
import {
  fitSpec,
  planKey,
  planSlab,
  raiseSlab,
  type SlabEdge,
  type SlabPlan,
  type SlabSpec,
  withoutCaps,
} from '../solid/slab.ts';
import { type Report, type Traced, trace } from '../trace/trace.ts';
import { membersOf, placedShapes, shapeBounds, shapeCurves, shapeRegions } from './outlines.ts';
import { named } from './pieces.ts';
import type { DrawnProfile, EdgeShape, Layer, MeshSource, PictureSource, Project, Source } from './schema.ts';

/** What the bytes of sources hold, by their hash. */
export interface SourceData {
  readonly text: (asset: string) => string;
  readonly picture: (asset: string) => Picture;
  /** The fonts of a choice, in the order in which they are asked for a letter. */
  readonly fonts: (choice: FontChoice) => readonly LetterFont[];
  readonly meshes: (asset: string) => readonly Part[];
}

export interface LayerOutlines {
  /** Equal keys, equal outlines. */
  readonly key: string;
  readonly regions: readonly Region[];
  readonly points: number;
  /** Members that the source no longer has. */
  readonly stranded: readonly string[];
}

export interface LayerBuild {
  /** Equal keys, equal meshes. */
  readonly key: string;
  /** Standing on height 0; the layer's base is a translation. */
  readonly mesh: Mesh;
  readonly edgePath: EdgePath;
  /** Outlines whose edge had to be left to the rings. */
  readonly ringOutlines: number;
  readonly warnings: readonly Warning[];
}

/** A layer's mesh as it leaves: tidied, without the caps that are left off, knowing its curves. */
export interface LayerMesh {
  /** Equal keys, equal meshes. */
  readonly key: string;
  readonly mesh: Mesh;
  /** With both caps: what is proven. */
  readonly whole: Mesh;
  /** What tidying changed; null where nothing was to be tidied. */
  readonly tidied: Tidied['changes'] | null;
}

export interface Overlap {
  readonly layers: readonly [id: string, id: string];
  /** Heights they share. */
  readonly from: number;
  readonly to: number;
  /** Which of their sides lie in one plane there, and would flicker. */
  readonly flush: readonly ('front' | 'back')[];
  /** Area they share in plan. */
  readonly area: number;
}

/** For an evaluator whose drawings are all handed to it by {@link Evaluator.adopt}. */
export const NO_DATA: SourceData = { text: notThere, picture: notThere, fonts: notThere, meshes: notThere };

function notThere(wanted: string | FontChoice): never {
  throw new Error(`The bytes of ${JSON.stringify(wanted)} were never handed over.`);
}

/** Shared plan area below this share of the smaller layer is rounding. */
const OVERLAP_SHARE = 1e-6;

export class Evaluator {
  private readonly data: SourceData;
  private readonly drawings = new Memo<Drawing>(16);
  private readonly edits = new Memo<Edited>(128);
  // Large ones: one that is worked on, and the one before.
  private readonly preparedPictures = new Memo<Prepared>(2);
  private readonly traces = new Memo<Traced>(8);
  private readonly outlineSets = new Memo<LayerOutlines>(256);
  private readonly widths = new Memo<Width | null>(256);
  private readonly plans = new Memo<SlabPlan>(128);
  private readonly meshes = new Memo<Mesh>(128);
  private readonly bends = new Memo<Float64Array>(128);
  private readonly finished = new Memo<LayerMesh>(128);
  private readonly proofs = new Memo<Proof>(256);
  private readonly extents = new Memo<readonly [number, number]>(64);
  private readonly areas = new Memo<number>(4096);

  constructor(data: SourceData) {
    this.data = data;
  }

  /** Uses a drawing that was read already, instead of asking for its text. */
  adopt(source: Source, drawing: Drawing): void {
    this.drawings.get(originKey(source), () => drawing);
  }

  /** The shapes of a source as its edits leave them. */
  drawing(source: Source): Drawing {
    return this.edited(source).drawing;
  }

  /** @param report is called while edits that are not known yet are made */
  edited(source: Source, report: Report = () => {}): Edited {
    const keys = editKeys(source);
    const edits = source.edits.filter(({ on }) => on);
    // Back to the last edit that is known, and on from there.
    let done = edits.length;
    while (done > 0 && !this.edits.has(keys[done]!)) done--;
    let result = this.edits.get(keys[done]!, () => ({ drawing: this.origin(source), outcomes: [] }));
    for (const [i, edit] of edits.slice(done).entries()) {
      const before = result;
      const share = (part: number) => report((i + part) / (edits.length - done));
      result = this.edits.get(keys[done + i + 1]!, () => applyEdit(before, edit, share));
    }
    return result;
  }

  /** The shapes of a source as they came. */
  origin(source: Source): Drawing {
    return this.drawings.get(originKey(source), () => {
      switch (source.kind) {
        case 'vector':
          return readVector(this.data.text(source.asset));
        case 'picture':
          return named(this.traced(source).drawing, source.pieces).drawing;
        case 'lettering':
          return layLetters(source.lettering, this.data.fonts(source.lettering.font));
        case 'drawing':
          return emptyDrawing(source.width, source.height);
        case 'mesh':
          return emptyDrawing(1, 1);
      }
    });
  }

  prepared({ asset, prepare: steps }: Pick<PictureSource, 'asset' | 'prepare'>, report?: Report): Prepared {
    const key = JSON.stringify([asset, steps.flatMap(({ on, action }) => (on ? [action] : []))]);
    return this.preparedPictures.get(key, () => prepare(this.data.picture(asset), steps, report));
  }

  isTraced(source: PictureSource): boolean {
    return this.traces.has(traceKey(source));
  }

  /** @param report is called only where there is something to wait for */
  traced(source: Pick<PictureSource, 'asset' | 'prepare' | 'trace'>, report: Report = () => {}): Traced {
    return this.traces.get(traceKey(source), () =>
      trace(
        this.prepared(source, (share) => report(share / 2)),
        source.trace,
        (share) => report(0.5 + share / 2),
      ),
    );
  }

  /** None for a layer of a mesh that was brought in. */
  outlines(project: Project, layer: Layer): LayerOutlines {
    const source = sourceOf(project, layer);
    const key = outlineKey(project, layer, source);
    return this.outlineSets.get(key, () => {
      if (source.kind === 'mesh') return { key, regions: [], points: 0, stranded: [] };
      const { shapes, stranded } = membersOf(layer, this.drawing(source));
      const regions = shapeRegions(shapes, source, project.tolerance);
      return { key, regions, points: pointCount(regions), stranded };
    });
  }

  /** What is left to be made of a layer before it can be built, for {@link makeLayer}; null for nothing. */
  pending(project: Project, layer: Layer): PendingLayer | null {
    const source = sourceOf(project, layer);
    if (source.kind === 'mesh') return null;
    const key = outlineKey(project, layer, source);
    const spec = specOf(layer, project.profiles);
    const known = this.outlineSets.has(key) ? this.outlines(project, layer) : null;
    if (known && this.plans.has(`${key}|${planKey(fitted(known.regions, spec).spec)}`)) return null;
    const { scale, origin } = source;
    const { shapes } = known ? { shapes: [] } : membersOf(layer, this.drawing(source));
    return { shapes, regions: known?.regions ?? null, source: { scale, origin }, tolerance: project.tolerance, spec };
  }

  /** Takes what {@link makeLayer} made of a pending layer. */
  adoptLayer(project: Project, layer: Layer, { regions, plan }: MadeLayer): void {
    const source = sourceOf(project, layer);
    const key = outlineKey(project, layer, source);
    this.outlineSets.get(key, () => {
      const { stranded } = membersOf(layer, this.drawing(source));
      return { key, regions, points: pointCount(regions), stranded };
    });
    const { spec } = fitted(regions, specOf(layer, project.profiles));
    this.plans.get(`${key}|${planKey(spec)}`, () => plan);
  }

  /** Width and height of a source in its own user units, shapes taken as ground left out. */
  extent(project: Project, source: Source): readonly [width: number, height: number] {
    const ground = project.layers
      .filter((layer) => layer.source === source.id && layer.ground)
      .flatMap((layer) => layer.members);
    return this.extents.get(JSON.stringify([drawingKey(source), ground]), () => {
      if (source.kind === 'mesh') {
        const { min, max } = boxOfPoints(this.data.meshes(source.asset).map(({ mesh }) => mesh.positions));
        return [max[0]! - min[0]!, max[1]! - min[1]!];
      }
      const { shapes, sheet } = this.drawing(source);
      const box = shapeBounds(
        shapes.filter((shape) => !ground.includes(shape.id)),
        sheet,
      );
      return box ? [box.maxX - box.minX, box.maxY - box.minY] : [0, 0];
    });
  }

  /** The narrowest place of a layer; null for a layer without outlines. */
  width(project: Project, layer: Layer): Width | null {
    const { key, regions } = this.outlines(project, layer);
    return this.widths.get(key, () => {
      const all = regions.map(narrowest);
      return all.length === 0
        ? null
        : all.reduce((least, width) => (width.safeReach < least.safeReach ? width : least));
    });
  }

  build(project: Project, layer: Layer): LayerBuild {
    const source = sourceOf(project, layer);
    if (source.kind === 'mesh') return this.buildPart(source, layer);
    const { key: ofOutlines, regions } = this.outlines(project, layer);
    const { spec, warnings } = fitted(regions, specOf(layer, project.profiles));
    const plan = this.plan(ofOutlines, regions, spec);
    const key = `${ofOutlines}|${planKey(spec)}|${spec.depth}|${spec.front?.rise ?? 0}|${spec.back?.rise ?? 0}`;
    const mesh = this.meshes.get(key, () => raiseSlab(plan, spec));
    const unheld = plan.unheldOutlines;
    if (unheld > 0) {
      const which = unheld === 1 ? 'One outline is' : `${unheld} outlines are`;
      warnings.push({
        code: 'not-held',
        message: `${which} too intricate for the edge to hold back; it ends in ridges there.`,
      });
    }
    if (plan.lostFlange) {
      const message = 'The outlines are too intricate for an edge that reaches out this far; it was left out.';
      warnings.push({ code: 'no-flange', message });
    }
    return { key, mesh, edgePath: plan.edgePath, ringOutlines: plan.ringOutlines, warnings };
  }

  private plan(ofOutlines: string, regions: readonly Region[], spec: SlabSpec): SlabPlan {
    return this.plans.get(`${ofOutlines}|${planKey(spec)}`, () => planSlab(regions, spec));
  }

  /** Parts of a mesh that was brought in, as deep as the layer is. */
  private buildPart(source: MeshSource, layer: Layer): LayerBuild {
    const known = this.data.meshes(source.asset);
    const wanted = layer.members.filter((member) => !layer.skipped.includes(member));
    const parts = wanted.flatMap((member) => known[Number(member)]?.mesh ?? []);
    const key = JSON.stringify([source.asset, source.scale, source.origin, wanted, layer.depth]);
    const mesh = this.meshes.get(key, () => placedMesh(joinMeshes(parts), source, layer.depth));
    const lost = wanted.length - parts.length;
    const warnings = lost > 0 ? [{ code: 'stranded', message: `${lost} parts are not in the file any more.` }] : [];
    return { key, mesh, edgePath: 'none', ringOutlines: 0, warnings };
  }

  mesh(project: Project, layer: Layer): LayerMesh {
    const { key: built, mesh } = this.build(project, layer);
    const key = JSON.stringify([built, layer.tidy, layer.caps]);
    return this.finished.get(key, () => {
      const flowing = mesh.flow ? { ...mesh, flow: { ...mesh.flow, bends: this.bendsOf(project, layer) } } : mesh;
      const { mesh: whole, changes: tidied } = layer.tidy
        ? tidy(flowing, layer.tidy)
        : { mesh: flowing, changes: null };
      return { key, mesh: withoutCaps(whole, layer.caps), whole, tidied };
    });
  }

  /** How far the curves of a layer turn from the edges of its mesh. */
  private bendsOf(project: Project, layer: Layer): Float64Array {
    const { key, regions } = this.outlines(project, layer);
    const { spec } = fitted(regions, specOf(layer, project.profiles));
    return this.bends.get(`${key}|${planKey(spec)}`, () => {
      const source = sourceOf(project, layer);
      const { shapes } = membersOf(layer, this.drawing(source));
      const curves = shapeCurves(shapes, source, project.tolerance);
      return bendsOf(this.plan(key, regions, spec).flow, curves, project.tolerance);
    });
  }

  /** Of the mesh on height 0, with both caps. */
  proof(project: Project, layer: Layer): Proof {
    const { key, whole } = this.mesh(project, layer);
    return this.proofs.get(key, () => proofOf(whole));
  }

  /** Whether the proof of a layer is known; otherwise it takes time. */
  isProven(project: Project, layer: Layer): boolean {
    return this.proofs.has(this.mesh(project, layer).key);
  }

  /** Takes the proof of a layer's mesh that was made elsewhere. */
  adoptProof(project: Project, layer: Layer, proof: Proof): void {
    this.proofs.get(this.mesh(project, layer).key, () => proof);
  }

  /** Pairs of shown layers that fill the same space. */
  overlaps(project: Project): Overlap[] {
    const shown = project.layers.filter((layer) => layer.shown);
    const found: Overlap[] = [];
    for (const [i, a] of shown.entries()) {
      for (const b of shown.slice(i + 1)) {
        const from = Math.max(a.base, b.base);
        const to = Math.min(a.base + a.depth, b.base + b.depth);
        if (to - from <= 1e-9 * Math.max(a.depth, b.depth)) continue;
        const area = this.planOverlap(project, a, b);
        if (area > 0) found.push({ layers: [a.id, b.id], from, to, flush: this.flush(project, a, b), area });
      }
    }
    return found;
  }

  /** The sides of two layers that overlap in plan whose flat parts lie in one plane and over each other. */
  private flush(project: Project, a: Layer, b: Layer): ('front' | 'back')[] {
    const same = (p: number, q: number) => Math.abs(p - q) <= 1e-6 * Math.max(a.depth, b.depth);
    const flatOf = (layer: Layer, side: 'front' | 'back') => {
      const { regions } = this.outlines(project, layer);
      const edge = specOf(layer, project.profiles)[side];
      return edge && edge.way === 'in' && edge.rise > 0 && edge.reach > 0
        ? insetRegions(regions, edge.reach, 0)
        : regions;
    };
    const sides: ('front' | 'back')[] = [];
    if (same(a.base + a.depth, b.base + b.depth)) sides.push('front');
    if (same(a.base, b.base)) sides.push('back');
    return sides.filter((side) => overlapArea(flatOf(a, side), flatOf(b, side), OVERLAP_SHARE) > 0);
  }

  private planOverlap(project: Project, a: Layer, b: Layer): number {
    const [p, q] = [this.outlines(project, a), this.outlines(project, b)];
    return this.areas.get(`${p.key}|${q.key}`, () => overlapArea(p.regions, q.regions, OVERLAP_SHARE));
  }

  /** The outlines of the shown layers as they go into a file, in project units, y down. */
  outlineGroups(project: Project, only?: readonly string[]): OutlineGroup[] {
    const wanted = project.layers.filter((layer) => layer.shown && (only?.includes(layer.id) ?? true));
    return wanted.flatMap((layer) => {
      const source = sourceOf(project, layer);
      const { shapes } = membersOf(layer, this.drawing(source));
      const { colour, opacity } = layer.material;
      const placed = placedShapes(shapes, source).map((shape) => movedShape(shape, scaling(1, -1)));
      const own = placed.map((shape) => ({ ...shape, colour, opacity }));
      return own.length > 0 ? [{ name: layer.name, colour, shapes: own }] : [];
    });
  }

  /** The shown layers as they go into a file, each at its base. Layers without outlines are left out. */
  parts(project: Project, only?: readonly string[]): Part[] {
    const wanted = project.layers.filter((layer) => layer.shown && (only?.includes(layer.id) ?? true));
    const parts = wanted.map((layer) => {
      const { mesh } = this.mesh(project, layer);
      return {
        name: layer.name,
        mesh: lifted(mesh, layer.base),
        material: layer.material,
        shading: layer.shading,
        uvs: layer.uv === 'none' ? null : layUvs(mesh, layer.uv),
      };
    });
    return parts.filter((part) => part.mesh.positions.length > 0);
  }
}

/** What a layer is made from, as plain data, so that another thread can make it. */
export interface PendingLayer {
  /** Empty where the regions are known. */
  readonly shapes: readonly Shape[];
  readonly regions: readonly Region[] | null;
  readonly source: Pick<Source, 'scale' | 'origin'>;
  readonly tolerance: number;
  readonly spec: SlabSpec;
}

export interface MadeLayer {
  readonly regions: readonly Region[];
  readonly plan: SlabPlan;
}

/** The slow part of building a layer. */
export function makeLayer({ shapes, regions: known, source, tolerance, spec }: PendingLayer): MadeLayer {
  const regions = known ?? shapeRegions(shapes, source, tolerance);
  return { regions, plan: planSlab(regions, fitted(regions, spec).spec) };
}

function fitted(regions: readonly Region[], spec: SlabSpec): ReturnType<typeof fitSpec> {
  const box = boundsOf(regions.map(({ outer }) => outer));
  return fitSpec(spec, box ? longestSide(box) : 0);
}

/** Equal keys, equal outlines. */
function outlineKey({ tolerance }: Project, { members, skipped }: Layer, source: Source): string {
  return JSON.stringify([drawingKey(source), source.scale, source.origin, tolerance, members, skipped]);
}

function traceKey({
  asset,
  prepare: steps,
  trace: settings,
}: Pick<PictureSource, 'asset' | 'prepare' | 'trace'>): string {
  return JSON.stringify([asset, steps.flatMap(({ on, action }) => (on ? [action] : [])), settings]);
}

/** Equal keys, equal drawings before any edit. */
function originKey(source: Source): string {
  switch (source.kind) {
    case 'vector':
    case 'mesh':
      return source.asset;
    case 'picture':
      return JSON.stringify([traceKey(source), source.pieces]);
    case 'lettering':
      return JSON.stringify(source.lettering);
    case 'drawing':
      return JSON.stringify([source.width, source.height]);
  }
}

/** Of sources that were asked for before; edits can be long, and every layer asks. */
const knownKeys = new WeakMap<Source, readonly string[]>();

/** Keys of the drawing before any edit, after the first that is on, after the second … */
function editKeys(source: Source): readonly string[] {
  const known = knownKeys.get(source);
  if (known) return known;
  const keys = [hashOf(originKey(source))];
  for (const edit of source.edits) if (edit.on) keys.push(hashOf(`${keys.at(-1)}${JSON.stringify(edit)}`));
  knownKeys.set(source, keys);
  return keys;
}

/** Equal keys, equal drawings. */
export function drawingKey(source: Source): string {
  return editKeys(source).at(-1)!;
}

/** @param profiles those that were drawn by hand */
export function specOf(
  { depth, edge, backEdge, faces, cell, wallRows }: Layer,
  profiles: readonly DrawnProfile[],
): SlabSpec {
  const { on, ...shape } = edge;
  const drawn = (each: EdgeShape): SlabEdge => ({ ...each, profile: profileOf(each.profile, profiles) });
  return {
    depth,
    front: on === 'front' || on === 'both' ? drawn(shape) : null,
    back: on === 'back' || on === 'both' ? drawn(backEdge ?? shape) : null,
    faces,
    cell,
    wallRows,
  };
}

/** What a profile is; a drawn one that nobody knows any more is a chamfer. */
export function profileOf(profile: EdgeShape['profile'], profiles: readonly DrawnProfile[]): Profile | ProfileCurve {
  if (typeof profile === 'string') return profile;
  return profiles.find(({ name }) => name === profile.drawn) ?? 'chamfer';
}

function sourceOf(project: Project, layer: Layer): Source {
  const source = project.sources.find((candidate) => candidate.id === layer.source);
  if (!source)
    throw new GeometryError('unknown-id', `The layer “${layer.name}” belongs to a source that is not in the project.`);
  return source;
}

function lifted(mesh: Mesh, base: number): Mesh {
  return base === 0 ? mesh : { ...mesh, positions: mesh.positions.map((v, i) => (i % 3 === 2 ? v + base : v)) };
}

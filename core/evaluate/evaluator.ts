// evaluator.ts — a project to outlines, meshes, proofs and parts: what depends on what, and the caches; nothing else. Every stage
// is a pure function of its inputs. Results are kept twice: by the content of what they depend on, as many as fit into some bytes,
// and for what is in the document now by the very objects it is made of, so that nothing that is shown is forgotten.
import { GeometryError, type Warning } from '../base/errors.ts';
import { hashOf } from '../base/hash.ts';
import { Budget, Memo } from '../base/memo.ts';
import { builderOf } from '../builds/builders.ts';
import { type Build, buildKind } from '../builds/index.ts';
import type { BuildInput, Built, Placed } from '../builds/kind.ts';
import type { DrawnProfile } from '../builds/slab/schema.ts';
import { type Arrival, arrive, type LayerWishes, type Origin } from '../document/arrive.ts';
import type { Resolved } from '../document/resolve.ts';
import { type Layer, uvLayoutOf } from '../document/schema.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { applyEdit, type Edited } from '../edits/apply.ts';
import type { OutlineGroup } from '../formats/format.ts';
import type { Part } from '../formats/part.ts';
import { withMarks } from '../mesh/joined.ts';
import type { Mark } from '../mesh/marks.ts';
import { boxOfPoints } from '../mesh/place.ts';
import { type Proof, proofOf } from '../mesh/proof.ts';
import { type Tidied, tidy } from '../mesh/tidy/tidy.ts';
import type { Mesh } from '../mesh/types.ts';
import { layUvs } from '../mesh/uv.ts';
import { movedShape } from '../outline/cover.ts';
import { boundsOf, longestSide, pointCount } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
import { narrowestOfAll, type Width } from '../outline/width.ts';
import { scaling } from '../path/matrix.ts';
import { longestWay, type Way } from '../path/way.ts';
import type { Picture, Prepared } from '../picture/types.ts';
import { fileKind, type Source, type SourceKindName, sourceKind } from '../sources/index.ts';
import type { NewFile, OpenedPicture, Report, SourceReader, Stages } from '../sources/kind.ts';
import { openerOf } from '../sources/openers.ts';
import { lookOf, prepared, traced } from '../sources/picture/open.ts';
import type { PictureSource } from '../sources/picture/picture.ts';
import { membersOf, placedShapes, shapeBounds, shapeCurves, shapeRegions, sizedFor } from '../sources/placing.ts';
import type { Look } from '../trace/look.ts';
import type { Traced } from '../trace/trace.ts';
import { Fillings, type Raised } from './fillings.ts';
import { drawingKey, editKeys, listKeys, membersKey } from './keys.ts';
import { type Filling, type Overlap, Overlaps } from './overlaps.ts';
import { Places, type Solid } from './places.ts';

export interface LayerOutlines {
  /** Equal keys, equal outlines. */
  readonly key: string;
  readonly regions: readonly Region[];
  /** Longest side. */
  readonly extent: number;
  readonly points: number;
  /** Members that the source no longer has. */
  readonly stranded: readonly string[];
}

export interface LayerBuild extends Built {
  /** Equal keys, equal meshes. */
  readonly key: string;
}

/** A layer's mesh as it leaves: tidied, without the faces that are left off, knowing its curves. */
export interface LayerMesh {
  /** Equal keys, equal meshes. */
  readonly key: string;
  readonly mesh: Mesh;
  /** What tidying changed; null where nothing was to be tidied. */
  readonly tidied: Tidied['changes'] | null;
  /** Marks whose edges it does not have. */
  readonly lostMarks: readonly Mark[];
}

export interface EvaluatorOptions {
  /** Of results that nothing in the document needs any more, and of what sources hold. */
  readonly bytes?: number;
  /** What sources hold that were not opened. */
  readonly content?: (source: Source) => unknown;
}

/** What a layer's results hang on besides itself, and those that are known. */
interface Known {
  readonly source: Source;
  /** The layers whose outlines it needs, and their sources. */
  readonly others: readonly (readonly [Layer, Source])[];
  readonly tolerance: number;
  readonly profiles: readonly DrawnProfile[];
  outlines?: LayerOutlines;
  width?: Width | null;
  way?: Way | null;
  built?: LayerBuild;
  mesh?: LayerMesh;
}

const BYTES = 512 * 2 ** 20;

export class Evaluator {
  private readonly budget: Budget;
  private readonly contents: Memo<unknown>;
  private readonly stages: Stages;
  private readonly edits: Memo<Edited>;
  private readonly outlineSets: Memo<LayerOutlines>;
  private readonly widths: Memo<Width | null>;
  private readonly plans: Memo<unknown>;
  private readonly builds: Memo<LayerBuild>;
  private readonly finished: Memo<LayerMesh>;
  private readonly proofs: Memo<Proof>;
  private readonly filling = new Fillings();
  private readonly overlapping = new Overlaps();
  private readonly known = new WeakMap<Layer, Known>();
  private readonly placed = new WeakMap<Resolved, Places>();
  private readonly editedSources = new WeakMap<Source, Edited>();
  private readonly foreign: EvaluatorOptions['content'];

  constructor({ bytes = BYTES, content }: EvaluatorOptions = {}) {
    this.budget = new Budget(bytes);
    this.foreign = content;
    this.contents = new Memo(this.budget);
    this.edits = new Memo(this.budget);
    this.outlineSets = new Memo(this.budget);
    this.widths = new Memo(this.budget);
    this.plans = new Memo(this.budget);
    this.builds = new Memo(this.budget);
    this.finished = new Memo(this.budget);
    this.proofs = new Memo(this.budget);
    const stages = new Memo<unknown>(this.budget);
    this.stages = {
      has: (stage, key) => stages.has(`${stage} ${key}`),
      get: <T>(stage: string, key: string, make: () => T) => stages.get(`${stage} ${key}`, make) as T,
    };
  }

  // --- sources ----------------------------------------------------------------------------------------------------------

  /** Fetches and decodes what a source is made from, unless its drawing is known, which is all that builds ask for. */
  async open(source: Source, reader: SourceReader): Promise<void> {
    if (sourceKind(source.kind).build !== 'part' && this.isDrawn(source)) return;
    if (!openerOf(source.kind).isDrawn(source, this.stages)) await this.openContent(source.kind, source, reader);
  }

  /** What a source, or what is to become one, is made from. */
  async openContent(name: SourceKindName, origin: unknown, reader: SourceReader, report?: Report): Promise<unknown> {
    const key = `${name} ${sourceKind(name).contentKey(origin)}`;
    if (this.contents.has(key)) return this.contents.get(key, never);
    const content = await openerOf(name).open(origin, reader, report);
    this.contents.set(key, content);
    return content;
  }

  private content(source: Source): unknown {
    const key = `${source.kind} ${sourceKind(source.kind).contentKey(source)}`;
    return this.contents.get(key, () => {
      const content = this.foreign?.(source);
      if (content === undefined) throw new NotOpen(source);
      return content;
    });
  }

  /** Reads a file, so that bringing it in takes no longer than arranging it. */
  async openFile(file: NewFile, reader: SourceReader, report?: Report): Promise<void> {
    const kind = fileKind(file.head);
    await this.openContent(kind.kind, kind.file.open(file), reader, report);
  }

  /** A file that becomes a source with layers. @param head its first bytes @throws {GeometryError} */
  async bringIn(file: NewFile, reader: SourceReader, wishes: LayerWishes, report?: Report): Promise<Arrival> {
    const kind = fileKind(file.head);
    const { id, name } = file;
    return this.begin(kind.kind, { id, name, ...(kind.file.open(file) as object) }, reader, wishes, report);
  }

  /** Something that becomes a source with layers: a file, or what is made here. @throws {GeometryError} */
  async begin(
    kind: SourceKindName,
    origin: Origin,
    reader: SourceReader,
    wishes: LayerWishes,
    report?: Report,
  ): Promise<Arrival> {
    const content = await this.openContent(kind, origin, reader, report);
    const arrived = arrive(kind, origin, content, this.stages, wishes, report);
    const { source, layers, outlines = [] } = arrived;
    for (const [i, layer] of layers.entries()) {
      const key = outlinesKey(layer, source, wishes.tolerance);
      // Shapes that are switched off for their number have none yet.
      if (outlines[i] && layer.shown) this.outlineSets.set(key, outlinesOf(key, outlines[i], []));
    }
    return arrived;
  }

  /** The shapes of a source as its edits leave them. */
  drawing(source: Source): Drawing {
    return this.edited(source).drawing;
  }

  /** @param report is called while edits that are not known yet are made */
  edited(source: Source, report: Report = () => {}): Edited {
    const known = this.editedSources.get(source);
    if (known) return known;
    const keys = editKeys.get(source);
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
    this.editedSources.set(source, result);
    return result;
  }

  /** Whether the shapes of a source are known. */
  isDrawn(source: Source): boolean {
    return this.edits.has(drawingKey(source));
  }

  /** Takes what {@link edited} gave for the same source on an earlier occasion. */
  adoptDrawing(source: Source, drawn: Edited): void {
    this.edits.set(drawingKey(source), drawn);
  }

  /** The shapes of a source as they came. */
  origin(source: Source): Drawing {
    return openerOf(source.kind).drawing(source, () => this.content(source), this.stages);
  }

  /** The pixels of a picture as it came, whether it is in the document or not. */
  async openPicture(source: Pick<PictureSource, 'asset' | 'name'>, reader: SourceReader): Promise<Picture> {
    return ((await this.openContent('picture', source, reader)) as OpenedPicture).picture;
  }

  prepared(source: PictureSource): Prepared {
    return prepared(source, () => this.pixels(source), this.stages);
  }

  look(source: PictureSource): Look {
    return lookOf(source, () => this.pixels(source), this.stages);
  }

  traced(source: PictureSource, report?: Report): Traced {
    return traced(source, () => this.pixels(source), this.stages, report);
  }

  private pixels(source: PictureSource) {
    return (this.content(source) as OpenedPicture).picture;
  }

  /** Parts of a mesh that was brought in, by their numbers; none of any other source. */
  meshParts(source: Source): readonly Part[] {
    return sourceKind(source.kind).build === 'part' ? openerOf(source.kind).parts(this.content(source)) : [];
  }

  /** Width and height of a source in its own user units, shapes taken as ground left out; of its sheet where it has no shapes. */
  extent(project: Resolved, source: Source): readonly [width: number, height: number] {
    const ground = project.layers
      .filter((layer) => layer.source === source.id && layer.ground)
      .flatMap((layer) => layer.members);
    const key = `${drawingKey(source)} ${listKeys.get(ground)}`;
    return this.stages.get('extent', key, () => {
      const parts = this.meshParts(source);
      if (parts.length > 0) {
        const { min, max } = boxOfPoints(parts.map(({ mesh }) => mesh.positions));
        return [max[0]! - min[0]!, max[1]! - min[1]!];
      }
      const { shapes, sheet } = this.drawing(source);
      const left = new Set(ground);
      const box = shapeBounds(
        shapes.filter((shape) => !left.has(shape.id)),
        sheet,
      );
      return box ? [box.maxX - box.minX, box.maxY - box.minY] : [sheet.width, sheet.height];
    });
  }

  // --- layers -----------------------------------------------------------------------------------------------------------

  /** What is known of a layer as long as it, its source and what else it hangs on are the very same. */
  private of(project: Resolved, layer: Layer): Known {
    const source = sourceOf(project, layer);
    const { tolerance, profiles } = project;
    const known = this.known.get(layer);
    const others = othersOf(project, layer);
    const areOthersSame =
      known?.others.length === others.length &&
      others.every(([other, of], i) => known.others[i]![0] === other && known.others[i]![1] === of);
    const isSame = known?.source === source && known.tolerance === tolerance && known.profiles === profiles;
    if (isSame && areOthersSame) return known;
    const fresh: Known = { source, others, tolerance, profiles };
    this.known.set(layer, fresh);
    return fresh;
  }

  /** The very same object as long as all that a layer hangs on is the very same: whatever is found of it may be kept by this. */
  identity(project: Resolved, layer: Layer): object {
    return this.of(project, layer);
  }

  /** None for a layer of a mesh that was brought in. */
  outlines(project: Resolved, layer: Layer): LayerOutlines {
    const known = this.of(project, layer);
    if (!known.outlines) {
      const { source, tolerance } = known;
      const key = outlinesKey(layer, source, tolerance);
      known.outlines = this.outlineSets.get(key, () => {
        const { shapes, stranded } = this.members(layer, source);
        return outlinesOf(key, shapeRegions(shapes, sizedFor(layer, source), tolerance), stranded);
      });
    }
    return known.outlines;
  }

  private members(layer: Layer, source: Source) {
    if (sourceKind(source.kind).build === 'part') return { shapes: [], stranded: [] };
    return membersOf(layer, this.drawing(source));
  }

  /** The narrowest place of a layer; null for a layer without outlines. */
  width(project: Resolved, layer: Layer): Width | null {
    const known = this.of(project, layer);
    if (known.width === undefined) {
      const { key, regions } = this.outlines(project, layer);
      known.width = this.widths.get(key, () => narrowestOfAll(regions, known.tolerance));
    }
    return known.width;
  }

  /** What is left to be made of a layer before it can be built, for {@link makeLayer}; null for nothing, or for little. */
  pending(project: Resolved, layer: Layer): PendingLayer | null {
    const { source, tolerance, profiles, built } = this.of(project, layer);
    if (built || buildKind(layer.build.kind).from !== 'outlines') return null;
    const key = outlinesKey(layer, source, tolerance);
    const outlines = this.outlineSets.has(key) ? this.outlines(project, layer) : null;
    const { scale, origin } = sizedFor(layer, source);
    const placement = { scale, origin };
    if (outlines && this.plans.has(this.planKey(project, layer, outlines))) return null;
    const { shapes } = outlines ? { shapes: [] } : this.members(layer, source);
    const others = this.others(project, layer);
    return { shapes, regions: outlines?.regions ?? null, placement, tolerance, profiles, others, build: layer.build };
  }

  /** Equal keys, equal layers {@link made}. */
  madeKey(project: Resolved, layer: Layer): string {
    const { source, tolerance, profiles } = this.of(project, layer);
    const own = `${outlinesKey(layer, source, tolerance)} ${hashOf(JSON.stringify([layer.build, profiles]))}`;
    return `${own}${this.othersKey(project, layer)}`;
  }

  /** What {@link makeLayer} would make of a layer; null where it is not known, or nothing is made so. */
  made(project: Resolved, layer: Layer): MadeLayer | null {
    const { outlines } = this.of(project, layer);
    if (!outlines || buildKind(layer.build.kind).from !== 'outlines') return null;
    const key = this.planKey(project, layer, outlines);
    return this.plans.has(key) ? { regions: outlines.regions, plan: this.plans.get(key, never) } : null;
  }

  /** Takes what {@link makeLayer} made of a pending layer. */
  adoptLayer(project: Resolved, layer: Layer, { regions, plan }: MadeLayer): void {
    const known = this.of(project, layer);
    const { source, tolerance } = known;
    const key = outlinesKey(layer, source, tolerance);
    known.outlines = this.outlineSets.get(key, () => outlinesOf(key, regions, this.members(layer, source).stranded));
    this.plans.set(this.planKey(project, layer, known.outlines), plan);
  }

  build(project: Resolved, layer: Layer): LayerBuild {
    const known = this.of(project, layer);
    known.built ??= this.builtOf(project, layer, known);
    return known.built;
  }

  private builtOf(project: Resolved, layer: Layer, { source }: Known): LayerBuild {
    const { build } = layer;
    const builder = builderOf(build.kind);
    const outlines = this.outlines(project, layer);
    const found = buildKind(build.kind).from === 'meshes' ? this.meshesOf(layer, source) : { meshes: [], warnings: [] };
    const input = { ...this.input(project, layer, outlines), meshes: found.meshes };
    const planKey = this.planKey(project, layer, outlines, input);
    const key = `${planKey} ${builder.raiseKey(build)}`;
    return this.builds.get(key, () => {
      const plan = this.plans.get(planKey, () => builder.plan(input, build));
      const built = builder.raise(plan, input, build);
      return { ...built, key, warnings: [...found.warnings, ...built.warnings] };
    });
  }

  /** What a layer is built from, without meshes. */
  private input(project: Resolved, layer: Layer, { regions, extent }: LayerOutlines): BuildInput {
    const { source, profiles } = this.of(project, layer);
    const others = this.others(project, layer);
    return { regions, extent, meshes: [], placement: sizedFor(layer, source), profiles, others };
  }

  private others(project: Resolved, layer: Layer): BuildInput['others'] {
    const { others } = this.of(project, layer);
    return new Map(others.map(([other]) => [other.id, this.outlines(project, other).regions]));
  }

  /** Equal keys, equal outlines of the layers that a layer needs. */
  private othersKey(project: Resolved, layer: Layer): string {
    const { others, tolerance } = this.of(project, layer);
    return others.map(([other, source]) => ` ${outlinesKey(other, source, tolerance)}`).join('');
  }

  private planKey(
    project: Resolved,
    layer: Layer,
    outlines: LayerOutlines,
    input = this.input(project, layer, outlines),
  ): string {
    const { build } = layer;
    const own = builderOf(build.kind).planKey(input, build);
    return `${outlines.key} ${build.kind} ${own}${this.othersKey(project, layer)}`;
  }

  /** Meshes of the parts that are members of a layer. */
  private meshesOf({ members, skipped }: Layer, source: Source): { meshes: Mesh[]; warnings: Warning[] } {
    const parts = this.meshParts(source);
    const wanted = members.filter((member) => !skipped.includes(member));
    const meshes = wanted.flatMap((member) => parts[Number(member)]?.mesh ?? []);
    const lost = wanted.length - meshes.length;
    const warnings = lost > 0 ? [{ code: 'stranded', message: `${lost} parts are not in the file any more.` }] : [];
    return { meshes, warnings };
  }

  mesh(project: Resolved, layer: Layer): LayerMesh {
    const known = this.of(project, layer);
    if (!known.mesh) {
      const { key: built, mesh } = this.build(project, layer);
      const marks = layer.marks ? hashOf(JSON.stringify(layer.marks)) : '';
      const key = `${built} ${JSON.stringify(layer.tidy)} ${builderOf(layer.build.kind).openedKey(layer.build)} ${marks}`;
      known.mesh = this.finished.get(key, () => this.finish(key, project, layer, mesh));
    }
    return known.mesh;
  }

  private finish(key: string, project: Resolved, layer: Layer, mesh: Mesh): LayerMesh {
    const bends = mesh.flow ? this.bendsOf(project, layer) : null;
    const flowing = mesh.flow && bends ? { ...mesh, flow: { ...mesh.flow, bends } } : mesh;
    const { mesh: whole, changes: tidied } = layer.tidy ? tidy(flowing, layer.tidy) : { mesh: flowing, changes: null };
    const { scale } = sizedFor(layer, sourceOf(project, layer));
    const opened = (of: Mesh) => builderOf(layer.build.kind).opened(of, layer.build);
    const { mesh: marked, lost } = withMarks(whole, layer.marks ?? [], scale, opened);
    return { key, mesh: marked, tidied, lostMarks: lost };
  }

  /** How far the curves of a layer turn from the edges of its mesh. */
  private bendsOf(project: Resolved, layer: Layer): Float64Array | null {
    const { source, tolerance } = this.of(project, layer);
    const outlines = this.outlines(project, layer);
    const builder = builderOf(layer.build.kind);
    const placed = sizedFor(layer, source);
    const input = this.input(project, layer, outlines);
    const planKey = this.planKey(project, layer, outlines, input);
    return this.stages.get('bends', planKey, () => {
      const plan = this.plans.get(planKey, () => builder.plan(input, layer.build));
      const curves = () => shapeCurves(this.members(layer, source).shapes, placed, tolerance);
      return builder.bends(plan, curves, tolerance);
    });
  }

  /** Of the mesh on height 0, with all its faces. */
  proof(project: Resolved, layer: Layer): Proof {
    const { key, mesh } = this.mesh(project, layer);
    return this.proofs.get(key, () => proofOf(mesh));
  }

  /** Whether the proof of a layer is known; otherwise it takes time. */
  isProven(project: Resolved, layer: Layer): boolean {
    return this.proofs.has(this.mesh(project, layer).key);
  }

  /** Takes the proof of a layer's mesh that was made elsewhere. */
  adoptProof(project: Resolved, layer: Layer, proof: Proof): void {
    this.proofs.set(this.mesh(project, layer).key, proof);
  }

  // --- all of a project ---------------------------------------------------------------------------------------------------

  /** Pairs of shown layers that fill the same space or lie on each other. */
  overlaps(project: Resolved): readonly Overlap[] {
    return this.overlapping.of(this.fillings(project));
  }

  /** The shown layers as they fill space, each copy by itself. */
  fillings(project: Resolved): Filling[] {
    return this.filling.of(shownLayers(project).map((layer) => this.raised(project, layer)));
  }

  /** Where everything stands. */
  places(project: Resolved): Places {
    const known = this.placed.get(project);
    if (known) return known;
    const places = new Places(
      project,
      (layer) => this.solid(project, layer),
      (layer) => this.way(project, layer),
    );
    this.placed.set(project, places);
    return places;
  }

  /** The longest outline or line that a layer was drawn with, on the sheet; null where it has none. */
  private way(project: Resolved, layer: Layer): Way | null {
    const known = this.of(project, layer);
    if (known.way === undefined) {
      const shapes = placedShapes(this.members(layer, known.source).shapes, sizedFor(layer, known.source));
      known.way = longestWay(shapes.map(({ path }) => path));
    }
    return known.way;
  }

  /** Null for a layer that is not built, or cannot be. */
  private solid(project: Resolved, layer: Layer): Solid | null {
    if (!layer.shown) return null;
    try {
      return { mesh: this.mesh(project, layer).mesh, regions: this.outlines(project, layer).regions };
    } catch (error) {
      if (error instanceof GeometryError) return null;
      throw error;
    }
  }

  private raised(project: Resolved, layer: Layer): Raised {
    const { regions } = this.outlines(project, layer);
    const input = this.input(project, layer, this.outlines(project, layer));
    return {
      layer,
      regions,
      flat: (side) => builderOf(layer.build.kind).flat(side, input, layer.build),
      places: this.places(project).of(layer),
    };
  }

  /** The outlines of the shown layers as they go into a file, in project units, y down. */
  outlineGroups(project: Resolved, only?: readonly string[]): OutlineGroup[] {
    return shownLayers(project, only).flatMap((layer) => {
      const { source } = this.of(project, layer);
      const { colour, opacity } = layer.material;
      const placed = placedShapes(this.members(layer, source).shapes, sizedFor(layer, source)).map((shape) =>
        movedShape(shape, scaling(1, -1)),
      );
      const own = placed.map((shape) => ({ ...shape, colour, opacity }));
      return own.length > 0 ? [{ name: layer.name, colour, shapes: own }] : [];
    });
  }

  /** The shown layers as they go into a file, each at its base and with its copies. Layers without outlines are left out. */
  parts(project: Resolved, only?: readonly string[]): Part[] {
    const places = this.places(project);
    return shownLayers(project, only).flatMap((layer) => {
      const { mesh } = this.mesh(project, layer);
      if (mesh.positions.length === 0) return [];
      const uv = uvLayoutOf(layer);
      const part = {
        mesh: lifted(mesh, layer.base),
        material: layer.material,
        sideMaterials: layer.sideMaterials,
        shading: layer.shading,
        uvs: uv === 'none' ? null : layUvs(mesh, uv),
      };
      const stands = places.stands(layer);
      if (!stands) return [{ name: layer.name, ...part }];
      return stands.map((stand, i) => ({ name: i === 0 ? layer.name : `${layer.name} ${i + 1}`, ...part, stand }));
    });
  }
}

/** Something was asked of a source before it was opened, or long after; opening it again helps. */
export class NotOpen extends Error {
  readonly source: Source;
  constructor(source: Source) {
    super(`The source “${source.name}” was not opened.`);
    this.source = source;
  }
}

/** What a layer is made from, as plain data, so that another thread can make it. */
export interface PendingLayer {
  /** Empty where the regions are known. */
  readonly shapes: readonly Shape[];
  readonly regions: readonly Region[] | null;
  readonly placement: Placed;
  readonly tolerance: number;
  readonly profiles: readonly DrawnProfile[];
  readonly others: BuildInput['others'];
  readonly build: Build;
}

export interface MadeLayer {
  readonly regions: readonly Region[];
  readonly plan: unknown;
}

/** The slow part of building a layer. */
export function makeLayer(pending: PendingLayer): MadeLayer {
  const { shapes, regions: known, placement, tolerance, profiles, others, build } = pending;
  const regions = known ?? shapeRegions(shapes, placement, tolerance);
  const input: BuildInput = { regions, extent: extentOf(regions), meshes: [], placement, profiles, others };
  return { regions, plan: builderOf(build.kind).plan(input, build) };
}

/** What a thread hands over with what it made. */
export const buffersOfMade = ({ build }: PendingLayer, { plan }: MadeLayer): ArrayBufferLike[] =>
  builderOf(build.kind).buffersOf(plan);

const never = (): never => {
  throw new Error('What was there is gone.');
};

const shownLayers = ({ layers }: Resolved, only?: readonly string[]) =>
  layers.filter((layer) => layer.shown && (only?.includes(layer.id) ?? true));

function outlinesOf(key: string, regions: readonly Region[], stranded: readonly string[]): LayerOutlines {
  return { key, regions, extent: extentOf(regions), points: pointCount(regions), stranded };
}

function extentOf(regions: readonly Region[]): number {
  const box = boundsOf(regions.map(({ outer }) => outer));
  return box ? longestSide(box) : 0;
}

const outlinesKey = (layer: Layer, source: Source, tolerance: number) => `${membersKey(layer, source)} ${tolerance}`;

const NONE: Known['others'] = [];

/** The layers whose outlines a layer needs, without those that are gone. */
function othersOf(project: Resolved, { id, build }: Layer): Known['others'] {
  const needed = buildKind(build.kind).needs(build);
  if (needed.length === 0) return NONE;
  return needed.flatMap((wanted): (readonly [Layer, Source])[] => {
    const other = wanted === id ? undefined : project.layers.find((each) => each.id === wanted);
    return other ? [[other, sourceOf(project, other)]] : [];
  });
}

/** @throws {GeometryError} 'unknown-id' */
export function sourceOf(project: Resolved, layer: Layer): Source {
  const source = project.sources.find((candidate) => candidate.id === layer.source);
  if (!source)
    throw new GeometryError('unknown-id', `The layer “${layer.name}” belongs to a source that is not in the project.`);
  return source;
}

function lifted(mesh: Mesh, base: number): Mesh {
  return base === 0 ? mesh : { ...mesh, positions: mesh.positions.map((v, i) => (i % 3 === 2 ? v + base : v)) };
}

// build.ts — a project as the page shows it: a view of each layer and each source, what overlaps, how large all of it is. A layer
// that is the very same as before is not looked at again.
import { GeometryError, type Warning } from '../base/errors.ts';
import { heightOf } from '../builds/index.ts';
import type { Resolved } from '../document/resolve.ts';
import { type Layer, picturesOn, uvLayoutOf } from '../document/schema.ts';
import type { LeftOut } from '../drawing.ts';
import { type Evaluator, NotOpen, sourceOf } from '../evaluate/evaluator.ts';
import { membersKey } from '../evaluate/keys.ts';
import type { Overlap } from '../evaluate/overlaps.ts';
import { boxAround, type Middles } from '../evaluate/places.ts';
import { type Rigid, STAY } from '../geometry/rigid.ts';
import { materialsOf, numberedSides } from '../materials/sides.ts';
import { highestOf } from '../mesh/place.ts';
import type { Tidied } from '../mesh/tidy/tidy.ts';
import { SIDES } from '../mesh/types.ts';
import { layUvs, type UvLayout } from '../mesh/uv.ts';
import { regionsArea, ringsLength, ringsOf } from '../outline/measure.ts';
import type { Width } from '../outline/width.ts';
import type { EdgePath } from '../solid/lid.ts';
import { type Source, sourceKind } from '../sources/index.ts';
import { membersOf } from '../sources/placing.ts';
import { type DrawnMesh, drawnMesh } from './meshes.ts';
import { type FlatShape, flatShapes, type ViewBox } from './sheet.ts';

/** What is shown of meshes besides their faces. */
export interface Overlays {
  /** A checkered picture where faces lie on pictures. */
  readonly checker: boolean;
  /** The edges of all faces. */
  readonly wire: boolean;
}

export interface Failure {
  readonly code: string;
  readonly message: string;
}

export interface LayerView {
  readonly id: string;
  /** Equal keys, equal meshes as they are drawn; '' for a layer that is not built. */
  readonly key: string;
  /** Equal keys, equal proofs. */
  readonly meshKey: string;
  /** Null when the caller has the mesh of this key already, or there is none. */
  readonly mesh: DrawnMesh | null;
  /** Equal keys, equal shapes. */
  readonly shapesKey: string;
  /** All members, skipped ones too; null when the caller has those of this key already. */
  readonly shapes: readonly FlatShape[] | null;
  readonly outlines: number;
  readonly points: number;
  /** Of its outlines; square and plain project units. */
  readonly area: number;
  readonly length: number;
  readonly width: Width | null;
  readonly edgePath: EdgePath;
  /** How far its front stands higher than its depth says: a dome, a slant, regions that stand out. */
  readonly over: number;
  /** What tidying changed, null where nothing was tidied. */
  readonly tidied: Tidied['changes'] | null;
  /** Outlines whose edge reaches further than their narrowest place allows. */
  readonly ringOutlines: number;
  readonly stranded: readonly string[];
  readonly warnings: readonly Warning[];
  readonly error: Failure | null;
}

/** Where a layer or a group stands. */
export interface PlacedView {
  /** Where each copy stands, the thing itself first. */
  readonly places: readonly Rigid[];
  /** Where the group that it is in stands. */
  readonly outer: Rigid;
  /** Points that it can be turned about, before its own placement. */
  readonly middles: Middles;
  /** Around all copies, in the world; null for what is not built. */
  readonly box: ViewBox | null;
}

export interface SourceView {
  readonly id: string;
  readonly leftOut: readonly LeftOut[];
  readonly warnings: readonly Warning[];
  readonly shapes: number;
  /** Width and height of its outlines, ground left out, in user units. */
  readonly extent: readonly [width: number, height: number];
}

export interface BuildView {
  readonly layers: readonly LayerView[];
  readonly sources: readonly SourceView[];
  /** Of each layer and each group, by its id. */
  readonly placed: Readonly<Record<string, PlacedView>>;
  readonly overlaps: readonly Overlap[];
  /** Of everything shown; null when nothing is. */
  readonly box: ViewBox | null;
}

/** All of a layer's view but what the caller may have. */
type Facts = Omit<LayerView, 'mesh' | 'shapes' | 'shapesKey' | 'key'>;

const NOT_BUILT = {
  meshKey: '',
  outlines: 0,
  points: 0,
  area: 0,
  length: 0,
  width: null,
  edgePath: 'none',
  over: 0,
  ringOutlines: 0,
  tidied: null,
  stranded: [],
  warnings: [],
  error: null,
} as const;

export class BuildViews {
  private readonly evaluator: Evaluator;
  /** By what the evaluator knows a layer by. */
  private readonly facts = new WeakMap<object, Facts>();
  /** Meshes for the view that comes next, by key. */
  private readonly prepared = new Map<string, DrawnMesh>();

  constructor(evaluator: Evaluator) {
    this.evaluator = evaluator;
  }

  /** @param known keys of meshes and shapes that the caller has */
  view(project: Resolved, known: ReadonlySet<string>, overlays: Overlays): BuildView {
    const layers = project.layers.map((layer) => this.layer(project, layer, known, overlays));
    // Left over where a build was stopped.
    this.prepared.clear();
    const sources = project.sources.map((source) => {
      const { leftOut, warnings, shapes } = this.evaluator.drawing(source);
      return {
        id: source.id,
        leftOut,
        warnings,
        shapes: shapes.length,
        extent: this.evaluator.extent(project, source),
      };
    });
    const sound = { ...project, layers: project.layers.filter((_, i) => !layers[i]!.error) };
    const placed = this.placed(sound);
    const box = boxAround(sound.layers.flatMap(({ id }) => placed[id]!.box ?? []));
    return { layers, sources, placed, overlaps: this.evaluator.overlaps(sound), box };
  }

  private layer(project: Resolved, layer: Layer, known: ReadonlySet<string>, overlays: Overlays): LayerView {
    const source = sourceOf(project, layer);
    const shapesKey = membersKey(layer, source);
    const shapes = known.has(shapesKey) ? null : flatShapes(this.evaluator, layer, source);
    const facts = this.factsOf(project, layer, source);
    if (!layer.shown || facts.error) return { ...facts, shapesKey, shapes, key: '', mesh: null };
    const key = drawnKey(facts, layer, overlays);
    if (known.has(key)) return { ...facts, shapesKey, shapes, key, mesh: null };
    const mesh = this.prepared.get(key) ?? this.drawn(project, layer, overlays);
    // What is handed over is nobody else's.
    this.prepared.delete(key);
    return { ...facts, shapesKey, shapes, key, mesh };
  }

  private drawn(project: Resolved, layer: Layer, overlays: Overlays): DrawnMesh {
    const { mesh } = this.evaluator.mesh(project, layer);
    const uv = layoutShown(layer, overlays);
    return drawnMesh(mesh, layer.shading, uv && layUvs(mesh, uv), overlays.wire, sectionsOf(layer));
  }

  /** Prepares what {@link view} will draw of a layer, while others are still being made. */
  prepare(project: Resolved, layer: Layer, known: ReadonlySet<string>, overlays: Overlays): void {
    const facts = this.factsOf(project, layer, sourceOf(project, layer));
    if (facts.error) return;
    const key = drawnKey(facts, layer, overlays);
    if (!known.has(key)) this.prepared.set(key, this.drawn(project, layer, overlays));
  }

  private factsOf(project: Resolved, layer: Layer, source: Source): Facts {
    const identity = this.evaluator.identity(project, layer);
    const known = this.facts.get(identity);
    if (known) return known;
    const facts = this.foundFacts(project, layer, source);
    this.facts.set(identity, facts);
    return facts;
  }

  private foundFacts(project: Resolved, layer: Layer, source: Source): Facts {
    const { evaluator } = this;
    const { id } = layer;
    if (!layer.shown) {
      // Nobody waits for outlines that are not built.
      const { shapes, stranded } = membersOf(layer, evaluator.drawing(source));
      const isPart = sourceKind(source.kind).build === 'part';
      return { ...NOT_BUILT, id, outlines: shapes.length, stranded: isPart ? [] : stranded };
    }
    try {
      const { regions, points, stranded } = evaluator.outlines(project, layer);
      const { edgePath, ringOutlines, warnings } = evaluator.build(project, layer);
      const { key: meshKey, mesh, tidied, lostMarks } = evaluator.mesh(project, layer);
      const width = evaluator.width(project, layer);
      const outlines = regions.length;
      const area = regionsArea(regions);
      const length = ringsLength(ringsOf(regions));
      return {
        id,
        meshKey,
        outlines,
        points,
        area,
        length,
        width,
        edgePath,
        over: Math.max(0, highestOf(mesh) - heightOf(layer.build)),
        ringOutlines,
        tidied,
        stranded,
        warnings: [...warnings, ...warningsOf(lostMarks.length)],
        error: null,
      };
    } catch (error) {
      if (error instanceof NotOpen) throw error;
      const code = error instanceof GeometryError ? error.code : 'unexpected';
      const message = error instanceof Error ? error.message : String(error);
      return { ...NOT_BUILT, id, error: { code, message } };
    }
  }

  private placed(project: Resolved): BuildView['placed'] {
    const places = this.evaluator.places(project);
    const things = [...project.layers, ...(project.groups ?? [])];
    return Object.fromEntries(
      things.map((thing): [string, PlacedView] => {
        const group = places.above(thing);
        const outer = group ? places.of(group)[0]! : STAY;
        return [thing.id, { places: places.of(thing), outer, middles: places.middles(thing), box: places.box(thing) }];
      }),
    );
  }
}

function warningsOf(lostMarks: number): Warning[] {
  if (lostMarks === 0) return [];
  const are =
    lostMarks === 1 ? 'One edge that was marked by hand is' : `${lostMarks} edges that were marked by hand are`;
  return [{ code: 'marks-lost', message: `${are} not on this mesh; the mark is kept.` }];
}

/** Equal keys, equal meshes as they are drawn. */
function drawnKey({ meshKey }: Facts, layer: Layer, overlays: Overlays): string {
  const { crease, blend } = layer.shading;
  return `${meshKey} ${crease} ${blend} ${layoutShown(layer, overlays)} ${overlays.wire} ${sectionsOf(layer).join('')}`;
}

/** By side, the number of the material it is made of. */
const sectionsOf = ({ material, sideMaterials }: Layer) =>
  sideMaterials ? numberedSides(materialsOf(material, sideMaterials), SIDES) : ALL_ONE;

const ALL_ONE = SIDES.map(() => 0);

/** How the faces of a layer lie on pictures; null where none is shown on it. */
function layoutShown(layer: Layer, { checker }: Overlays): UvLayout | null {
  const layout = uvLayoutOf(layer);
  return layout !== 'none' && (checker || picturesOn([layer]).length > 0) ? layout : null;
}

// evaluate.ts — a project to outlines, meshes, proofs and parts. Every stage is a pure function of its inputs and is kept
// by their content, so a change recomputes only what lies behind it.

import { type Drawing, emptyDrawing } from '../drawing.ts';
import { applyEdit, type Edited } from '../edits/apply.ts';
import { GeometryError, type Warning } from '../errors.ts';
import { hashOf } from '../hash.ts';
import type { OutlineGroup } from '../io/outlines.ts';
import type { Part } from '../io/part.ts';
import { readVector } from '../io/vector.ts';
import type { LetterFont } from '../lettering/font.ts';
import { layLetters } from '../lettering/layout.ts';
import type { FontChoice } from '../lettering/settings.ts';
import { Memo } from '../memo.ts';
import { type Proof, proofOf } from '../mesh/proof.ts';
import type { Mesh } from '../mesh/types.ts';
import { movedShape } from '../outline/cover.ts';
import { boundsOf, longestSide, pointCount } from '../outline/measure.ts';
import { overlapArea } from '../outline/overlap.ts';
import type { Region } from '../outline/types.ts';
import { narrowest, type Width } from '../outline/width.ts';
import { scaling } from '../path/matrix.ts';
import { prepare } from '../picture/prepare.ts';
import type { Picture, Prepared } from '../picture/types.ts';
import { fitSpec, planKey, planSlab, raiseSlab, type SlabPlan, type SlabSpec } from '../solid/slab.ts';
import { type Report, type Traced, trace } from '../trace/trace.ts';
import { membersOf, placedShapes, shapeBounds, shapeRegions } from './outlines.ts';
import { named } from './pieces.ts';
import type { Layer, PictureSource, Project, Source } from './schema.ts';

/** What the bytes of sources hold, by their hash. */
export interface SourceData {
  readonly text: (asset: string) => string;
  readonly picture: (asset: string) => Picture;
  /** The fonts of a choice, in the order in which they are asked for a letter. */
  readonly fonts: (choice: FontChoice) => readonly LetterFont[];
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
  readonly plan: SlabPlan;
  readonly warnings: readonly Warning[];
}

export interface Overlap {
  readonly layers: readonly [id: string, id: string];
  /** Heights they share. */
  readonly from: number;
  readonly to: number;
  /** Area they share in plan. */
  readonly area: number;
}

/** For an evaluator whose drawings are all handed to it by {@link Evaluator.adopt}. */
export const NO_DATA: SourceData = { text: notThere, picture: notThere, fonts: notThere };

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

  outlines(project: Project, layer: Layer): LayerOutlines {
    const source = sourceOf(project, layer);
    const key = JSON.stringify([
      drawingKey(source),
      source.scale,
      source.origin,
      project.tolerance,
      layer.members,
      layer.skipped,
    ]);
    return this.outlineSets.get(key, () => {
      const { shapes, stranded } = membersOf(layer, this.drawing(source));
      const regions = shapeRegions(shapes, source, project.tolerance);
      return { key, regions, points: pointCount(regions), stranded };
    });
  }

  /** Width and height of a source in its own user units, shapes taken as ground left out. */
  extent(project: Project, source: Source): readonly [width: number, height: number] {
    const ground = project.layers
      .filter((layer) => layer.source === source.id && layer.ground)
      .flatMap((layer) => layer.members);
    return this.extents.get(JSON.stringify([drawingKey(source), ground]), () => {
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
    const outlines = this.outlines(project, layer);
    const box = boundsOf(outlines.regions.map(({ outer }) => outer));
    const { spec, warnings } = fitSpec(specOf(layer), box ? longestSide(box) : 0);
    const ofPlan = `${outlines.key}|${planKey(spec)}`;
    const plan = this.plans.get(ofPlan, () => planSlab(outlines.regions, spec));
    const key = `${ofPlan}|${spec.depth}|${spec.front?.rise ?? 0}|${spec.back?.rise ?? 0}`;
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
    return { key, mesh, plan, warnings };
  }

  /** Of the mesh on height 0. */
  proof(project: Project, layer: Layer): Proof {
    const { key, mesh } = this.build(project, layer);
    return this.proofs.get(key, () => proofOf(mesh));
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
        if (area > 0) found.push({ layers: [a.id, b.id], from, to, area });
      }
    }
    return found;
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
    const parts = wanted.map((layer) => ({
      name: layer.name,
      mesh: lifted(this.build(project, layer).mesh, layer.base),
      material: layer.material,
    }));
    return parts.filter((part) => part.mesh.positions.length > 0);
  }
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

export function specOf({ depth, edge, backEdge, faces, cell, wallRows }: Layer): SlabSpec {
  const { on, ...shape } = edge;
  return {
    depth,
    front: on === 'front' || on === 'both' ? shape : null,
    back: on === 'back' || on === 'both' ? (backEdge ?? shape) : null,
    faces,
    cell,
    wallRows,
  };
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

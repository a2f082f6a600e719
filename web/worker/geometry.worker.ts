// geometry.worker.ts — evaluates projects away from the interface thread, and keeps what it made.
import * as Comlink from 'comlink';
import {
  type ArrangeOptions,
  arrange,
  arrangeMeshes,
  BUNDLED_FONTS,
  boxOfPoints,
  changeEdits,
  checkOutlines,
  connectedShapes,
  type Drawing,
  decodeVector,
  differenceOf,
  drawingKey,
  type Edit,
  type EditAction,
  type EditedSource,
  type Outcome as EditOutcome,
  Evaluator,
  type Finding,
  type FontChoice,
  faceCount,
  facesBetween,
  GeometryError,
  greyOf,
  histogramOf,
  type Layer,
  type LeftOut,
  type Lettering,
  layLetters,
  layUvs,
  lowResolution,
  type Mesh,
  type MeshSource,
  meanThickness,
  membersOf,
  middleLine,
  type Overlap,
  otsu,
  type Part,
  PICTURE_HEADER,
  type Picture,
  PictureReplySchema,
  type PictureSource,
  type Plan,
  type Point3,
  type Project,
  type Proof,
  partAreas,
  placedShapes,
  placeInside,
  placePicture,
  planOf,
  printPath,
  type Retraced,
  readMeshes,
  readVector,
  retrace,
  roughBounds,
  type Shading,
  type Shape,
  type SnapParts,
  type Sorting,
  type Source,
  type Stroke,
  shade,
  smallPartLimit,
  snapParts,
  sniffMesh,
  sortIntoLayers,
  startSettings,
  type Tidied,
  type Traced,
  type WallLimits,
  type Warning,
  type Width,
  wallsAlong,
} from '../../core/index.ts';
import { knownFonts, loadFonts } from './fonts.ts';
import { withHand } from './hands.ts';
import { attempt, attemptLater, type Failure, failed, type Outcome } from './outcome.ts';

/** What is shown of meshes besides their faces. */
export interface Overlays {
  /** A checkered picture where faces lie on pictures. */
  readonly checker: boolean;
  /** The edges of all faces. */
  readonly wire: boolean;
}

/** What three.js draws of one layer, standing on height 0. */
export interface DrawnMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Two a point; none unless the checker is shown. */
  readonly uvs: Float32Array;
  readonly indices: Uint32Array;
  /** Ends of the faces' edges; none unless they are shown. */
  readonly wire: Float32Array;
  /** Centre and radius of a ball around it. */
  readonly ball: readonly [x: number, y: number, z: number, radius: number];
}

export interface FlatShape {
  readonly id: string;
  readonly name: string;
  /** SVG path data on the sheet, y up. */
  readonly d: string;
  readonly fillRule: 'nonzero' | 'evenodd';
  /** On the sheet; null for a filled shape. */
  readonly stroke: Stroke | null;
  /** `#rrggbb` of the source. */
  readonly colour: string;
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
  readonly width: Width | null;
  readonly edgePath: 'skeleton' | 'rings' | 'none';
  /** What tidying changed, null where nothing was tidied. */
  readonly tidied: Tidied['changes'] | null;
  /** Outlines whose edge reaches further than their narrowest place allows. */
  readonly ringOutlines: number;
  readonly stranded: readonly string[];
  readonly warnings: readonly Warning[];
  readonly error: Failure | null;
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
  readonly overlaps: readonly Overlap[];
  /** Extent on the sheet and in height of everything shown; null when nothing is. */
  readonly box: { readonly min: Point3; readonly max: Point3 } | null;
  readonly ms: number;
}

export interface TraceStats {
  readonly pieces: number;
  readonly colours: readonly string[];
  /** Lines and curves, and the points between them. */
  readonly curves: number;
  readonly points: number;
  /** Pixels of the source. */
  readonly stray: number;
  readonly warnings: readonly Warning[];
}

export interface PictureView {
  /** As large as it is shown. */
  readonly bitmap: ImageBitmap;
  /** Every pixel, where `bitmap` has fewer. */
  readonly fine: ImageBitmap | null;
  /** In pixels of the prepared picture. */
  readonly width: number;
  readonly height: number;
  readonly frame: { readonly scale: number; readonly x: number; readonly y: number };
  /** Where a threshold parts it; null shows it as it is. */
  readonly level: number | null;
  /** Pixels of each of 256 greys, dark first. */
  readonly histogram: Uint32Array;
  /** The level that fits the histogram. */
  readonly automatic: number;
}

export interface DifferenceView {
  readonly bitmap: ImageBitmap;
  readonly width: number;
  readonly height: number;
  readonly frame: PictureView['frame'];
  /** Pixels that the outlines miss, and that they add; and all that either takes as drawn. */
  readonly missing: number;
  readonly added: number;
  readonly drawn: number;
}

/** A shape in user units of its source, y down. */
export interface OutlineShape {
  readonly id: string;
  readonly name: string;
  readonly d: string;
  readonly fillRule: 'nonzero' | 'evenodd';
  readonly stroke: Stroke | null;
  readonly colour: string;
  readonly box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };
  /** Of a stroke, or of a filled shape on average. */
  readonly thickness: number;
  /** Points between its lines and curves. */
  readonly points: number;
}

export interface OutlineView {
  /** Equal keys, equal shapes. */
  readonly key: string;
  readonly shapes: readonly OutlineShape[];
  readonly sheet: Drawing['sheet'];
  /** Of the edits that are on. */
  readonly outcomes: readonly EditOutcome[];
}

export interface Face {
  /** Path data, in user units. */
  readonly d: string;
  readonly place: readonly [x: number, y: number];
}

export interface Preview {
  readonly gone: readonly string[];
  readonly made: readonly OutlineShape[];
  readonly said: string;
}

export interface Import {
  readonly source: Source;
  readonly layers: readonly Layer[];
  readonly warnings: readonly Warning[];
  readonly leftOut: readonly LeftOut[];
  readonly size: number;
}

const texts = new Map<string, string>();
/** Pixels of the pictures used last; large, so only a few. */
const pictures = new Map<string, Picture>();
const MOST_PICTURES = 3;
/** Parts of mesh files, by their hash. */
const meshes = new Map<string, readonly Part[]>();
const evaluator = new Evaluator({
  text: (asset) => texts.get(asset)!,
  picture: (asset) => pictures.get(asset)!,
  fonts: knownFonts,
  meshes: (asset) => meshes.get(asset)!,
});
/** How many builds were asked for. */
let builds = 0;

const api = {
  /** Reads a file that was uploaded as `asset` and arranges it for `project`. */
  bringIn(bytes: Uint8Array, asset: string, name: string, project: Project, report: Report): Outcome<Import> {
    return attempt(() => {
      const text = decodeVector(bytes);
      const drawing = readVector(text, report);
      texts.set(asset, text);
      const id = crypto.randomUUID();
      const { placement, layers, warnings, size } = arrange(drawing, id, arrangeFor(project));
      const source: Source = { id, kind: 'vector', name, asset, edits: [], ...placement };
      return { source, layers, warnings: [...drawing.warnings, ...warnings], leftOut: drawing.leftOut, size };
    });
  },

  /** Reads a picture that was uploaded as `asset`, traces it with settings that suit it and arranges that for `project`. */
  async bringInPicture(asset: string, name: string, project: Project, report: Report): Promise<Outcome<Import>> {
    return attemptLater(async () => {
      const { picture, dpi } = await fetchPicture(asset, name);
      const settings = { id: crypto.randomUUID(), name, asset, prepare: [], trace: startSettings(picture) };
      const traced = evaluator.traced(settings, report);
      const nothing = traced.drawing.warnings.find(({ code }) => code === 'nothing');
      if (nothing) throw new GeometryError('nothing-to-build', nothing.message);
      const { width, height } = picture;
      const sized = { ...traced, drawing: { ...traced.drawing, mmPerUnit: dpi === null ? null : 25.4 / dpi } };
      const { source, layers, warnings, size } = placePicture(
        { ...settings, kind: 'picture', width, height },
        sized,
        arrangeFor(project),
      );
      const low = lowResolution(picture);
      const said = low ? [{ code: 'low-resolution', message: low }] : [];
      return { source, layers, warnings: [...said, ...traced.drawing.warnings, ...warnings], leftOut: [], size };
    });
  },

  /**
   * A picture traced with other settings, or from another file when `source.asset` is a new one.
   * @param report called while it goes on with the share done
   */
  async retrace(
    project: Project,
    source: PictureSource,
    report: Report,
  ): Promise<Outcome<Retraced & { readonly stats: TraceStats }>> {
    return attemptLater(async () => {
      const { picture } = await fetchPicture(source.asset, source.name);
      const sized = { ...source, width: picture.width, height: picture.height };
      const traced = evaluator.traced(sized, report);
      return { ...retrace(project, sized, traced, arrangeFor(project)), stats: statsOf(traced) };
    });
  },

  /** A picture as the steps up to `upTo` leave it, or as it came, to be drawn. */
  async pictureView(source: PictureSource, upTo: number): Promise<Outcome<PictureView>> {
    const outcome = await attemptLater(async () => {
      await fetchPicture(source.asset, source.name);
      const { picture, frame, level } = evaluator.prepared({ ...source, prepare: source.prepare.slice(0, upTo) });
      const isShared = level === null;
      const pixels = isShared ? picture.data : twoTones(picture, level);
      const { width, height } = picture;
      const whole = new ImageData(pixels as Uint8ClampedArray<ArrayBuffer>, width, height);
      const share = Math.min(1, SHOWN / Math.max(width, height));
      // Drawing tens of millions of pixels would hold the page up.
      const smaller = { resizeWidth: Math.ceil(share * width), resizeHeight: Math.ceil(share * height) };
      const bitmap = await createImageBitmap(whole, share < 1 ? { ...smaller, resizeQuality: 'high' } : {});
      const fine = share < 1 ? await createImageBitmap(whole) : null;
      const histogram = histogramOf(greyOf(picture, source.trace.ink));
      return { bitmap, fine, width, height, frame, level, histogram, automatic: otsu(histogram).level };
    });
    if (!outcome.ok) return outcome;
    const { bitmap, fine } = outcome.value;
    return Comlink.transfer(outcome, fine ? [bitmap, fine] : [bitmap]);
  },

  /** Where the prepared picture and the pieces that are kept, or some of them alone, disagree. */
  async difference(
    project: Project,
    source: PictureSource,
    only: readonly string[] | null,
  ): Promise<Outcome<DifferenceView>> {
    const outcome = await attemptLater(async () => {
      await fetchPicture(source.asset, source.name);
      const prepared = evaluator.prepared(source);
      const skipped = switchedOff(project, source);
      const wanted = only && new Set(only);
      const kept = evaluator.drawing(source).shapes.filter(({ id }) => wanted?.has(id) ?? !skipped.has(id));
      const { width, height, map, missing, added, drawn } = differenceOf(prepared, kept, source.trace);
      const pixels = new Uint8ClampedArray(4 * map.length);
      for (const [i, what] of map.entries()) if (what > 0) pixels.set(what === 1 ? MISSING : ADDED, 4 * i);
      const bitmap = await createImageBitmap(new ImageData(pixels, width, height));
      return { bitmap, width, height, frame: prepared.frame, missing, added, drawn };
    });
    return outcome.ok ? Comlink.transfer(outcome, [outcome.value.bitmap]) : outcome;
  },

  /** Parts of a mesh file that was uploaded as `asset`. */
  async bringInMesh(bytes: Uint8Array, asset: string, name: string, project: Project): Promise<Outcome<Import>> {
    return attemptLater(async () => {
      const format = sniffMesh(bytes)!;
      const parts = await readMeshes(bytes, format);
      meshes.set(asset, parts);
      const id = crypto.randomUUID();
      const { placement, layers, warnings, size } = arrangeMeshes(parts, id, format, arrangeFor(project));
      const source: Source = { id, kind: 'mesh', name, asset, format, edits: [], ...placement };
      return { source, layers, warnings, leftOut: [], size };
    });
  },

  /** A text set, in another font where its own does not have its letters, and arranged for `project`. */
  async bringInText(wanted: Lettering, project: Project): Promise<Outcome<Import>> {
    return attemptLater(async () => {
      const { lettering, drawing } = await setInFittingFont(wanted);
      const nothing = drawing.warnings.find(({ code }) => code === 'nothing');
      if (nothing) throw new GeometryError('nothing-to-build', nothing.message);
      const id = crypto.randomUUID();
      const { x, y, width, height } = drawing.sheet;
      const placement = { scale: 1, origin: [x + width / 2, y + height / 2] as [number, number] };
      const { layers, warnings, size } = arrange(drawing, id, { ...arrangeFor(project), placement });
      const name = textName(lettering.text);
      const source: Source = { id, kind: 'lettering', name, lettering, edits: [], ...placement };
      const named = layers.map((layer) => ({ ...layer, name: layers.length === 1 ? name : layer.name }));
      return { source, layers: named, warnings: [...drawing.warnings, ...warnings], leftOut: [], size };
    });
  },

  /** A text set otherwise, its edits made again, and its layers as they follow. */
  async reletter(project: Project, id: string, lettering: Lettering): Promise<Outcome<EditedSource>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      await loadFonts(lettering.font, fetchFont);
      if (source.kind !== 'lettering') throw new GeometryError('unknown-id', `“${source.name}” is not a text.`);
      const next: Source = { ...source, lettering, name: textName(lettering.text) };
      const [before, after] = [evaluator.drawing(source), evaluator.drawing(next)];
      const target = project.layers.find((layer) => layer.source === id)?.id ?? null;
      return changeEdits(project, next, next.edits, before, after, arrangeFor(project), target);
    });
  },

  /** The shapes of a source as its edits leave them; null when the caller has those of this key. */
  async outlineView(project: Project, id: string, known: string | null): Promise<Outcome<OutlineView | null>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const key = drawingKey(source);
      if (key === known) return null;
      const { drawing, outcomes } = evaluator.edited(source);
      return { key, shapes: drawing.shapes.map(outlineShape), sheet: drawing.sheet, outcomes };
    });
  },

  /** What points under the hand may snap to: all shapes by their numbers, and behind them the middle lines of walls. */
  async snapParts(project: Project, id: string): Promise<Outcome<SnapParts>> {
    const outcome = await attemptLater(async () => {
      const source = await readySource(project, id);
      const paths = evaluator.drawing(source).shapes.map(({ path }) => path);
      const walls = source.edits.flatMap(({ on, action }) => (on && action.do === 'walls' ? action.walls : []));
      return snapParts([...paths, ...walls.map(middleLine)]);
    });
    if (!outcome.ok) return outcome;
    const { pieces, starts, chords, owners, middles, index } = outcome.value;
    const arrays = [pieces, starts, chords, owners, middles, ...(index ? [index.starts, index.ids] : [])];
    return Comlink.transfer(
      outcome,
      arrays.map(({ buffer }) => buffer as ArrayBuffer),
    );
  },

  /** Walls among some shapes, or among all that are built where none are named. @param limits in user units */
  async findWalls(project: Project, id: string, among: readonly string[], limits: WallLimits): Promise<Outcome<Plan>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const { shapes } = evaluator.drawing(source);
      const off = switchedOff(project, source);
      const wanted = new Set(among);
      const isAmong = (shape: Shape) => (wanted.size > 0 ? wanted.has(shape.id) : !off.has(shape.id));
      return planOf(
        shapes.filter(isAmong),
        shapes.filter((shape) => !isAmong(shape)),
        limits,
      );
    });
  },

  /** Walls with the paths of some shapes as their middle lines. */
  async wallsAlong(project: Project, id: string, among: readonly string[], thickness: number): Promise<Outcome<Plan>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const wanted = new Set(among);
      const lines = evaluator.drawing(source).shapes.filter((shape) => wanted.has(shape.id));
      return {
        walls: wallsAlong(
          lines.map(({ path }) => path),
          thickness,
        ),
        replaced: lines.map((line) => line.id),
      };
    });
  },

  /** Ids of the shapes that hang together with some. */
  async connected(project: Project, id: string, from: readonly string[]): Promise<Outcome<readonly string[]>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      return connectedShapes(evaluator.drawing(source).shapes, from);
    });
  },

  /** Shapes sorted into layers of their own, by colour or by nesting. */
  async sortIntoLayers(
    project: Project,
    id: string,
    shapes: readonly string[],
    by: Sorting,
  ): Promise<Outcome<ReturnType<typeof sortIntoLayers>>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      return sortIntoLayers(project, source, evaluator.drawing(source), shapes, by, () => crypto.randomUUID());
    });
  },

  /** What would trouble a build of a source; shapes that are switched off trouble nobody. */
  async check(project: Project, id: string, report: Report): Promise<Outcome<readonly Finding[]>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      return checkOutlines(evaluator.drawing(source), switchedOff(project, source), report);
    });
  },

  /**
   * A source with other edits, and its layers as they follow.
   * @param target layer for shapes that come from no other; null to give them one of their own
   */
  async edit(
    project: Project,
    id: string,
    edits: readonly Edit[],
    target: string | null,
    report: Report,
  ): Promise<Outcome<EditedSource & { readonly outcomes: readonly EditOutcome[] }>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const before = evaluator.drawing(source);
      const { drawing: after, outcomes } = evaluator.edited({ ...source, edits: [...edits] }, report);
      return { ...changeEdits(project, source, edits, before, after, arrangeFor(project), target), outcomes };
    });
  },

  /** What an action would change: shapes that go, and those that come in their place. */
  async preview(project: Project, id: string, action: EditAction): Promise<Outcome<Preview>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const before = new Set(evaluator.drawing(source).shapes);
      const edit: Edit = { id: 'preview', on: true, action };
      const { drawing, outcomes } = evaluator.edited({ ...source, edits: [...source.edits, edit] });
      const after = new Set(drawing.shapes);
      return {
        gone: [...before].filter((shape) => !after.has(shape)).map(({ id: shape }) => shape),
        made: drawing.shapes.filter((shape) => !before.has(shape)).map(outlineShape),
        said: outcomes.at(-1)!.said,
      };
    });
  },

  /** Faces that shapes enclose together, each with a place inside it. */
  async faces(project: Project, id: string, shapes: readonly string[]): Promise<Outcome<readonly Face[]>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const wanted = new Set(shapes);
      const lines = evaluator.drawing(source).shapes.filter((shape) => wanted.has(shape.id));
      return facesBetween(lines.map(({ path }) => path)).flatMap((path) => {
        const place = placeInside(path);
        return place ? [{ d: printPath(path, DIGITS), place }] : [];
      });
    });
  },

  /** Where the parts of shapes fall into bodies and small marks; null where they do not. */
  async smallParts(project: Project, id: string, shapes: readonly string[]): Promise<Outcome<number | null>> {
    return attemptLater(async () => {
      const source = await readySource(project, id);
      const wanted = new Set(shapes);
      const drawing = evaluator.drawing(source);
      return smallPartLimit(drawing.shapes.flatMap((shape) => (wanted.has(shape.id) ? partAreas(shape) : [])));
    });
  },

  /** What the trace of a picture came to. */
  async traceStats(source: PictureSource): Promise<Outcome<TraceStats>> {
    return attemptLater(async () => {
      await fetchPicture(source.asset, source.name);
      return statsOf(evaluator.traced(source));
    });
  },

  /**
   * Evaluates everything that is shown.
   * @param known keys of meshes and shapes the caller already has
   * @param report called with the share done while layers are made
   */
  async build(
    project: Project,
    known: readonly string[],
    overlays: Overlays,
    report: Report,
  ): Promise<Outcome<BuildView>> {
    builds++;
    const outcome = await attemptLater(async () => {
      await fetchSources(project);
      const started = performance.now();
      await makeLayers(project, report);
      return buildView(project, new Set(known), overlays, started);
    });
    if (!outcome.ok) return outcome;
    const buffers = outcome.value.layers.flatMap(({ mesh }) =>
      mesh ? [mesh.positions.buffer, mesh.normals.buffer, mesh.uvs.buffer, mesh.indices.buffer, mesh.wire.buffer] : [],
    );
    // What is not shown is one empty array for all, and nothing can be handed over twice.
    return Comlink.transfer(outcome, [...new Set(buffers)] as ArrayBuffer[]);
  },

  /**
   * Proofs of the shown layers by mesh key; call it after `build` with the same project. A build that is asked for meanwhile
   * ends it.
   */
  async prove(project: Project): Promise<Outcome<Record<string, Proof>>> {
    const started = builds;
    const shown = project.layers.filter((layer) => layer.shown);
    return attemptLater(async () => {
      const proofs: Record<string, Proof> = {};
      await Promise.all(
        shown.map(async (layer) => {
          const { key, whole } = evaluator.mesh(project, layer);
          if (!evaluator.isProven(project, layer)) {
            const proof = await withHand((hand) => hand.prove(whole));
            if (builds !== started) throw new GeometryError('cancelled', 'Something newer was built.');
            if (!proof.ok) throw new Error(proof.error.message);
            evaluator.adoptProof(project, layer, proof.value);
          }
          proofs[key] = evaluator.proof(project, layer);
        }),
      );
      return proofs;
    });
  },
};
export type GeometryApi = typeof api;
Comlink.expose(api);

type Report = (share: number) => void;

/** A source, with everything fetched that the project is made from. */
async function readySource(project: Project, id: string): Promise<Source> {
  await fetchSources(project);
  const source = project.sources.find((known) => known.id === id);
  if (!source) throw new GeometryError('unknown-id', `There is no source ${id} in this project.`);
  return source;
}

function switchedOff(project: Project, source: Source): Set<string> {
  return new Set(
    project.layers.flatMap((layer) =>
      layer.source === source.id ? (layer.shown ? layer.skipped : layer.members) : [],
    ),
  );
}

/** A text as the name of its source: its first line. */
const textName = (text: string): string => text.trim().split('\n')[0]!.slice(0, 60) || 'Text';

/** The text in its font, or in the first bundled one that has all its letters. */
async function setInFittingFont(wanted: Lettering): Promise<{ lettering: Lettering; drawing: Drawing }> {
  const fonts: FontChoice[] = [wanted.font, ...BUNDLED_FONTS.map((name) => ({ from: 'bundle', name }) as const)];
  let first: { lettering: Lettering; drawing: Drawing } | null = null;
  for (const font of fonts) {
    await loadFonts(font, fetchFont);
    const lettering = { ...wanted, font };
    const drawing = layLetters(lettering, knownFonts(font));
    if (!drawing.warnings.some(({ code }) => code === 'missing-letters')) return { lettering, drawing };
    first ??= { lettering, drawing };
  }
  return first!;
}

/** Decimals of coordinates that go to the page and come back from it. */
const DIGITS = 6;

/** The box of nothing, which makes no other box larger. */
const NOWHERE = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };

function outlineShape({ id, name, path, fillRule, stroke, colour }: Shape): OutlineShape {
  const half = stroke ? stroke.width / 2 : 0;
  const { minX, minY, maxX, maxY } = roughBounds([path]) ?? NOWHERE;
  const points = path.filter(([letter]) => letter !== 'Z').length;
  return {
    id,
    name,
    d: printPath(path, DIGITS),
    fillRule,
    stroke: stroke ?? null,
    colour,
    box: { minX: minX - half, minY: minY - half, maxX: maxX + half, maxY: maxY + half },
    thickness: stroke?.width ?? meanThickness(path),
    points,
  };
}

/** Longest side of a picture as it is drawn on the page. */
const SHOWN = 2048;

/** Colours of the difference view: what the outlines miss, and what they add. */
const MISSING = [196, 60, 36, 255] as const;
const ADDED = [24, 120, 150, 255] as const;

function arrangeFor(project: Project): ArrangeOptions {
  return {
    unit: project.unit,
    tolerance: project.tolerance,
    fallbackSize: START_SIZE[project.unit],
    newId: () => crypto.randomUUID(),
    takenNames: project.layers.map((layer) => layer.name),
  };
}

function statsOf({ drawing, colours, curves, points, stray }: Traced): TraceStats {
  return { pieces: drawing.shapes.length, colours, curves, points, stray, warnings: drawing.warnings };
}

/** Black for ink, white for paper, as the threshold parts them. */
function twoTones(picture: Picture, level: number): Uint8ClampedArray {
  const { values } = greyOf(picture);
  const pixels = new Uint8ClampedArray(picture.data.length).fill(255);
  for (let i = 0; i < values.length; i++) if (values[i]! < level) pixels.fill(0, 4 * i, 4 * i + 3);
  return pixels;
}

/** A mark lands this large when it has no physical size: a hand's width. */
const START_SIZE = { mm: 100, cm: 10, m: 0.1, in: 4, ft: 0.25 } as const;

async function fetchSources(project: Project): Promise<void> {
  await Promise.all(
    project.sources.map(async (source) => {
      if (source.kind === 'picture') {
        // A trace that is known needs no pixels.
        if (!evaluator.isTraced(source)) await fetchPicture(source.asset, source.name);
      } else if (source.kind === 'lettering') {
        await loadFonts(source.lettering.font, fetchFont);
      } else if (source.kind === 'mesh' && !meshes.has(source.asset)) {
        const response = await fetchAsset(source.asset, source.name);
        meshes.set(source.asset, await readMeshes(new Uint8Array(await response.arrayBuffer()), source.format));
      } else if (source.kind === 'vector' && !texts.has(source.asset)) {
        const response = await fetchAsset(source.asset, source.name);
        texts.set(source.asset, decodeVector(new Uint8Array(await response.arrayBuffer())));
      }
    }),
  );
}

/** A font as the server unpacks it. */
async function fetchFont(asset: string, name: string): Promise<Uint8Array> {
  return new Uint8Array(await (await fetchAsset(asset, name, '/font')).arrayBuffer());
}

async function fetchAsset(asset: string, name: string, part = ''): Promise<Response> {
  const response = await fetch(`/api/assets/${asset}${part}`);
  if (response.ok) return response;
  const said = (await response.json().catch(() => null))?.error?.message;
  throw new GeometryError(
    'bad-file',
    response.status === 404 || !said
      ? `The bytes of “${name}” are not on the server any more; bring it in again.`
      : said,
  );
}

const densities = new Map<string, number | null>();

/** The pixels as the server decodes them, the same ones that the command line and exports see. */
async function fetchPicture(asset: string, name: string): Promise<{ picture: Picture; dpi: number | null }> {
  let picture = pictures.get(asset);
  if (!picture) {
    const response = await fetchAsset(asset, name, '/pixels');
    const { width, height, dpi } = PictureReplySchema.parse(JSON.parse(response.headers.get(PICTURE_HEADER)!));
    picture = { width, height, data: new Uint8ClampedArray(await response.arrayBuffer()) };
    densities.set(asset, dpi);
  }
  pictures.delete(asset);
  pictures.set(asset, picture);
  if (pictures.size > MOST_PICTURES) pictures.delete(pictures.keys().next().value!);
  return { picture, dpi: densities.get(asset) ?? null };
}

/**
 * Makes the layers that are not known yet, several at a time where there are several. A single one, which is what a drag
 * changes, is made here and spares being copied; what cannot be made says so when it is built.
 */
async function makeLayers(project: Project, report: Report): Promise<void> {
  const pending = project.layers.flatMap((layer) => {
    const job = layer.shown ? attempt(() => evaluator.pending(project, layer)) : null;
    return job?.ok && job.value ? [{ layer, job: job.value }] : [];
  });
  if (pending.length < 2) return;
  let done = 0;
  await Promise.all(
    pending.map(async ({ layer, job }) => {
      const made = await withHand((hand) => hand.layer(job));
      if (made.ok) evaluator.adoptLayer(project, layer, made.value);
      report(++done / pending.length);
    }),
  );
}

function buildView(project: Project, known: ReadonlySet<string>, overlays: Overlays, started: number): BuildView {
  const views = project.layers.map((layer) => layerView(project, layer, known, overlays));
  const sources = project.sources.map((source) => {
    const { leftOut, warnings, shapes } = evaluator.drawing(source);
    return { id: source.id, leftOut, warnings, shapes: shapes.length, extent: evaluator.extent(project, source) };
  });
  const sound = { ...project, layers: project.layers.filter((_, i) => !views[i]!.error) };
  return {
    layers: views,
    sources,
    overlaps: evaluator.overlaps(sound),
    box: boxOf(sound),
    ms: performance.now() - started,
  };
}

function layerView(project: Project, layer: Layer, known: ReadonlySet<string>, { checker, wire }: Overlays): LayerView {
  const source = project.sources.find((candidate) => candidate.id === layer.source)!;
  const shapesKey = JSON.stringify([drawingKey(source), source.scale, source.origin, layer.members]);
  const shapes = known.has(shapesKey) ? null : flatShapes(layer, source);
  const flat = { ...EMPTY_VIEW, id: layer.id, shapesKey, shapes };
  try {
    if (!layer.shown) {
      // Nobody waits for outlines that are not built.
      const isPart = source.kind === 'mesh';
      const { shapes: members, stranded } = membersOf(layer, evaluator.drawing(source));
      return { ...flat, outlines: members.length, stranded: isPart ? [] : stranded };
    }
    const { regions, points, stranded } = evaluator.outlines(project, layer);
    const { edgePath, ringOutlines, warnings } = evaluator.build(project, layer);
    const { key: meshKey, mesh, tidied } = evaluator.mesh(project, layer);
    const uv = checker && layer.uv !== 'none' ? layer.uv : null;
    const key = JSON.stringify([meshKey, layer.shading, uv, wire]);
    return {
      ...flat,
      key,
      meshKey,
      mesh: known.has(key) ? null : drawn(mesh, layer.shading, uv && layUvs(mesh, uv), wire),
      outlines: regions.length,
      points,
      width: evaluator.width(project, layer),
      edgePath,
      ringOutlines,
      tidied,
      stranded,
      warnings,
    };
  } catch (error) {
    return { ...flat, error: failed(error).error };
  }
}

const EMPTY_VIEW = {
  key: '',
  meshKey: '',
  mesh: null,
  outlines: 0,
  points: 0,
  width: null,
  edgePath: 'none',
  ringOutlines: 0,
  tidied: null,
  stranded: [],
  warnings: [],
  error: null,
} as const;

function flatShapes(layer: Layer, source: Source): FlatShape[] {
  if (source.kind === 'mesh') return [footprint(layer, source)];
  const { shapes } = membersOf({ ...layer, skipped: [] }, evaluator.drawing(source));
  return placedShapes(shapes, source).map(({ id, name, fillRule, stroke = null, colour, path }) => ({
    id,
    name,
    d: printPath(path),
    fillRule,
    stroke,
    colour,
  }));
}

/** A part of a mesh file lies on the sheet as the box around it. */
function footprint({ id, name, members, material }: Layer, { asset, scale, origin }: MeshSource): FlatShape {
  const parts = members.flatMap((member) => meshes.get(asset)?.[Number(member)] ?? []);
  const { min, max } = boxOfPoints(parts.map(({ mesh }) => mesh.positions));
  const x = (v: number) => scale * (v - origin[0]);
  const y = (v: number) => scale * (v + origin[1]);
  const d = `M${x(min[0]!)} ${y(min[1]!)}H${x(max[0]!)}V${y(max[1]!)}H${x(min[0]!)}Z`;
  return { id, name, d, fillRule: 'nonzero', stroke: null, colour: material.colour };
}

function drawn(mesh: Mesh, shading: Shading, places: Float32Array | null, hasWire: boolean): DrawnMesh {
  const { positions, normals, uvs, indices } = shade(mesh, shading, places);
  const { min, max } = boxOfPoints([positions]);
  const middle = min.map((v, k) => (v + max[k]!) / 2) as [number, number, number];
  const radius = Math.hypot(...max.map((v, k) => (v - min[k]!) / 2));
  const none = new Float32Array(0);
  return {
    positions,
    normals,
    uvs: uvs ?? none,
    indices,
    wire: hasWire ? wireOf(mesh) : none,
    ball: [...middle, radius],
  };
}

/** Every edge once: of the two faces at an edge, the one that runs it from the lower point draws it. */
function wireOf(mesh: Mesh): Float32Array {
  const ends: number[] = [];
  for (let f = 0; f < faceCount(mesh); f++) {
    const [from, to] = [mesh.starts[f]!, mesh.starts[f + 1]!];
    for (let c = from; c < to; c++) {
      const [a, b] = [mesh.corners[c]!, mesh.corners[c + 1 < to ? c + 1 : from]!];
      if (a < b)
        for (const p of [a, b])
          ends.push(mesh.positions[3 * p]!, mesh.positions[3 * p + 1]!, mesh.positions[3 * p + 2]!);
    }
  }
  return Float32Array.from(ends);
}

function boxOf(project: Project): BuildView['box'] {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (const layer of project.layers) {
    if (!layer.shown) continue;
    const { positions } = evaluator.mesh(project, layer).mesh;
    for (let i = 0; i < positions.length; i++) {
      const v = positions[i]! + (i % 3 === 2 ? layer.base : 0);
      min[i % 3] = Math.min(min[i % 3]!, v);
      max[i % 3] = Math.max(max[i % 3]!, v);
    }
  }
  return min[0]! <= max[0]! ? { min: min as unknown as Point3, max: max as unknown as Point3 } : null;
}

// arrange.ts — a drawing just brought in becomes layers: one a fill colour, in paint order, resting on each other like
// cut paper; the paper it was drawn on is recognised and left out.
import { converter } from 'culori';
import { GeometryError, type Warning } from '../base/errors.ts';
import { MM_PER_UNIT, type Unit } from '../base/units.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { roughBounds } from '../outline/corners.ts';
import { longestSide, regionsArea } from '../outline/measure.ts';
import { overlapArea } from '../outline/overlap.ts';
import type { Bounds, Region } from '../outline/types.ts';
import { narrowest } from '../outline/width.ts';
import { colourName, uniqueName } from './names.ts';
import { isHeavy, shapeBounds, shapeRegions } from './outlines.ts';
import { type Edge, type EdgeShape, type Layer, MESH_DEFAULTS, type Source } from './schema.ts';

export interface ArrangeOptions {
  readonly unit: Unit;
  readonly tolerance: number;
  /** Longest side of what is built, in project units; undefined: the drawing's own physical size, else `fallbackSize`. */
  readonly size?: number;
  /** Used for a drawing without physical size; undefined leaves one user unit as one project unit. */
  readonly fallbackSize?: number;
  /** Where the source lies already; overrides every size. */
  readonly placement?: Pick<Source, 'scale' | 'origin'>;
  readonly depth?: number;
  readonly edge?: Edge;
  readonly backEdge?: EdgeShape | null;
  /** Settings of the mesh, instead of {@link MESH_DEFAULTS}. */
  readonly mesh?: Partial<Pick<Layer, keyof typeof MESH_DEFAULTS>>;
  readonly cell?: number;
  /** Makes ids for the source and its layers; called with 'source' or 'layer'. */
  readonly newId: (kind: 'source' | 'layer') => string;
  /** Names that layers may not take. */
  readonly takenNames?: Iterable<string>;
}

export interface Arrangement {
  readonly placement: Pick<Source, 'scale' | 'origin'>;
  readonly layers: readonly Layer[];
  readonly warnings: readonly Warning[];
  /** Longest side of what is built, in project units. */
  readonly size: number;
}

/** A start depth that reads as a slab: this share of the longest side. */
const DEPTH_SHARE = 0.04;
/**
 * A start edge that shows and stays safe: this share of the depth, of the safe reach at most. One place as thin as a hair
 * does not take the edge away from all the rest: there it ends in a ridge.
 */
const EDGE_SHARE = 0.2;
const SAFE_SHARE = 0.8;
const LEAST_EDGE_SHARE = 0.02;
/** Paper: this light, this colourless (OKLab), and covering this much of the sheet. */
const PAPER = { lightness: 0.9, chroma: 0.05, cover: 0.97 } as const;

const toOklab = converter('oklab');

/** @throws {GeometryError} 'nothing-to-build' when no shape has area */
export function arrange(drawing: Drawing, sourceId: string, options: ArrangeOptions): Arrangement {
  const { unit, tolerance } = options;
  const ground = groundOf(drawing);
  const warnings: Warning[] = [];
  const [lowest] = ground;
  if (lowest) {
    const message = drawing.ground
      ? `The paper around the drawing, ${lowest.colour}, was switched off as ground.`
      : `The paper-coloured shape “${lowest.name}” covers the whole sheet; it was switched off as ground.`;
    warnings.push({ code: 'ground', message });
  }
  const kept = drawing.shapes.filter((shape) => !ground.has(shape));
  const bounds = shapeBounds(kept.length > 0 ? kept : drawing.shapes, drawing.sheet);
  if (!bounds || !(longestSide(bounds) > 0)) {
    throw new GeometryError(
      'nothing-to-build',
      'The drawing has no filled shape with an area and no stroke; there is nothing to build.',
    );
  }
  const longest = longestSide(bounds);
  const scale = options.placement?.scale ?? scaleFor(drawing, longest, options);
  const middle: [number, number] = [(bounds.minX + bounds.maxX) / 2, (bounds.minY + bounds.maxY) / 2];
  const placement = { scale, origin: options.placement?.origin ?? middle };
  const size = longest * scale;
  const depth = options.depth ?? roundFigure(size * DEPTH_SHARE);
  const names = new Set(options.takenNames ?? []);

  const placed: { layer: Layer; regions: Region[] }[] = [];
  const coarse = Math.max(tolerance, size / 2000);
  const regionsFor = (shape: Shape) => (isHeavy(shape) ? [] : shapeRegions([shape], placement, coarse));
  let heavy = 0;
  for (const { shapes, isGround } of byColour(drawing, ground, regionsFor)) {
    const lines = shapes.filter(isHeavy).reduce((sum, { path }) => sum + path.length, 0);
    heavy += lines;
    const regions = lines > 0 ? [] : shapeRegions(shapes, placement, tolerance);
    if (regions.length === 0 && lines === 0) {
      const message = `${shapes.length} shapes of ${shapes[0]!.colour} have no area and were left out.`;
      warnings.push({ code: 'no-area', message });
      continue;
    }
    const layer: Layer = {
      id: options.newId('layer'),
      name: uniqueName(isGround ? 'Ground' : layerName(shapes), names),
      source: sourceId,
      members: shapes.map((shape) => shape.id),
      skipped: [],
      shown: !isGround && lines === 0,
      ground: isGround,
      base: isGround ? 0 : restingHeight(regions, placed),
      depth,
      edge: options.edge ?? (lines > 0 ? NO_EDGE : startEdge(regions, depth)),
      backEdge: options.backEdge ?? null,
      ...MESH_DEFAULTS,
      ...options.mesh,
      cell: options.cell ?? roundFigure(size / 40),
      material: { colour: shapes[0]!.colour, opacity: round3(shapes[0]!.opacity), roughness: 0.6, metalness: 0 },
    };
    placed.push({ layer, regions });
  }
  if (heavy > 0) {
    const message = `Layers with more lines than can be built at once were switched off: choose the lines you need at the Outline station.`;
    warnings.push({ code: 'not-built', message });
  }
  if (placed.every(({ layer }) => layer.ground)) {
    throw new GeometryError(
      'nothing-to-build',
      'The drawing has no filled shape with an area and no stroke; there is nothing to build.',
    );
  }
  if (unit !== 'mm' && drawing.mmPerUnit === null) {
    warnings.push({ code: 'unit', message: `The drawing has no physical size; it was taken as ${unit}.` });
  }
  return { placement, layers: placed.map(({ layer }) => layer), warnings, size };
}

function scaleFor(drawing: Drawing, longest: number, { unit, size, fallbackSize }: ArrangeOptions): number {
  if (size !== undefined) return size / longest;
  if (drawing.mmPerUnit !== null) return drawing.mmPerUnit / MM_PER_UNIT[unit];
  return fallbackSize === undefined ? 1 : fallbackSize / longest;
}

/**
 * What the drawing says is its ground, else the lowest shape, when it is paper-coloured and covers the sheet; nothing where
 * that would be all there is.
 */
function groundOf({ shapes, sheet, ground }: Drawing): ReadonlySet<Shape> {
  const lowest = shapes[0];
  if (ground) {
    const known = shapes.filter((shape) => ground.includes(shape.id));
    return new Set(known.length < shapes.length ? known : []);
  }
  if (!lowest || shapes.length < 2) return new Set();
  const colour = toOklab(lowest.colour);
  if (!colour || colour.l < PAPER.lightness || Math.hypot(colour.a, colour.b) > PAPER.chroma) return new Set();
  const regions = shapeRegions([lowest], { scale: 1, origin: [0, 0] }, Math.max(sheet.width, sheet.height) / 1000);
  return new Set(regionsArea(regions) >= PAPER.cover * sheet.width * sheet.height ? [lowest] : []);
}

interface Group {
  readonly shapes: Shape[];
  readonly isGround: boolean;
  readonly key: string;
}

/**
 * Shapes of one colour go together, unless something of another colour lies between them: what was painted on top must
 * not end up beneath.
 */
function byColour(
  { shapes, areGroupsLayers = false }: Drawing,
  ground: ReadonlySet<Shape>,
  regionsFor: (shape: Shape) => Region[],
): Group[] {
  // Made when first compared: most drawings need few of them.
  const known = new Map<Shape, Region[]>();
  const regionsOnce = (shape: Shape) => {
    const regions = known.get(shape) ?? regionsFor(shape);
    known.set(shape, regions);
    return regions;
  };
  const boxes = new Map(shapes.map((shape) => [shape, boxOf(shape)]));
  const groups: Group[] = [];
  for (const shape of shapes) {
    const isGround = ground.has(shape);
    const key = isGround ? 'ground' : `${shape.colour} ${round3(shape.opacity)} ${areGroupsLayers ? shape.group : ''}`;
    const own = groups.findLastIndex((group) => group.key === key);
    const isOver = (other: Shape) =>
      doMeet(boxes.get(shape)!, boxes.get(other)!) &&
      overlapArea(regionsOnce(shape), regionsOnce(other), TOUCHING_SHARE) > 0;
    // Layers of a file say by themselves what belongs together.
    const isCovered = own >= 0 && !areGroupsLayers && groups.slice(own + 1).some((group) => group.shapes.some(isOver));
    if (own < 0 || isCovered) groups.push({ shapes: [shape], isGround, key });
    else groups[own]!.shapes.push(shape);
  }
  return groups;
}

function boxOf({ path, stroke }: Shape): Bounds {
  const half = stroke ? stroke.width * Math.max(0.5, stroke.mitreLimit / 2) : 0;
  const { minX, minY, maxX, maxY } = roughBounds([path]) ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  return { minX: minX - half, minY: minY - half, maxX: maxX + half, maxY: maxY + half };
}

const doMeet = (a: Bounds, b: Bounds) => a.minX < b.maxX && a.maxX > b.minX && a.minY < b.maxY && a.maxY > b.minY;

/** Sharing less than this of the smaller one is rounding where they touch. */
const TOUCHING_SHARE = 1e-4;

const GENERIC = /^(path|piece|rect|circle|ellipse|polygon|polyline|g|layer|shape|use|svg)?[-_ ]*\d*$/i;

/** A shape's own name where it is alone and has one, the group's where all stand in one, else the colour's. */
function layerName(shapes: readonly Shape[]): string {
  const [first, ...others] = shapes as [Shape, ...Shape[]];
  const group = others.every((shape) => shape.group === first.group) ? first.group : '';
  const own = (others.length === 0 && !GENERIC.test(first.name) ? first.name : group).replace(/[-_]+/g, ' ').trim();
  return own && !GENERIC.test(own)
    ? (own.charAt(0).toUpperCase() + own.slice(1)).slice(0, 80)
    : colourName(first.colour);
}

/** A layer rests on another from this share of the smaller one on. */
const RESTING_SHARE = 1e-6;

/** The top of whatever lies below these regions in plan. */
function restingHeight(regions: readonly Region[], below: readonly { layer: Layer; regions: Region[] }[]): number {
  return below
    .filter(({ layer }) => layer.shown)
    .filter((other) => overlapArea(regions, other.regions, RESTING_SHARE) > 0)
    .reduce((top, { layer }) => Math.max(top, layer.base + layer.depth), 0);
}

export const NO_EDGE: Edge = {
  profile: 'round',
  on: 'none',
  reach: 0,
  rise: 0,
  steps: 3,
  way: 'in',
  beyond: 'ridge',
  corners: 'mitred',
  mitreLimit: 5,
};

function startEdge(regions: readonly Region[], depth: number): Edge {
  const safe = regions.reduce((least, region) => Math.min(least, narrowest(region).safeReach), Infinity);
  const reach = roundFigure(Math.min(depth * EDGE_SHARE, Math.max(safe * SAFE_SHARE, depth * LEAST_EDGE_SHARE)));
  return { ...NO_EDGE, on: 'front', reach, rise: reach };
}

/** Curves are followed within this share of the longest side. */
const TOLERANCE_SHARE = 1e-4;

/** A tolerance that suits something of this size: nothing of it is seen, and no point is there for nothing. */
export const toleranceFor = (size: number): number => Math.max(1e-6, roundFigure(size * TOLERANCE_SHARE));

/** Rounded down to two figures, so that start values read well. */
export function roundFigure(v: number): number {
  const digit = 10 ** (Math.floor(Math.log10(v)) - 1);
  return Number((Math.floor(v / digit + 1e-9) * digit).toPrecision(2));
}

const round3 = (v: number) => Math.round(v * 1000) / 1000;

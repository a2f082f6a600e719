// arrange.ts — a drawing just brought in becomes layers: one a fill colour, in paint order, resting on each other like
// cut paper; the paper it was drawn on is recognised and left out.
import { converter } from 'culori';
import { GeometryError, type Warning } from '../base/errors.ts';
import { roundFigure } from '../base/figures.ts';
import { MM_PER_UNIT } from '../base/units.ts';
import type { Drawing, Shape } from '../drawing.ts';
import { roughBounds } from '../outline/corners.ts';
import { indexOf, levelsOf, meetingIn } from '../outline/levels.ts';
import { longestSide, regionsArea } from '../outline/measure.ts';
import { doOverlap, type Footprint, footprintOf } from '../outline/overlap.ts';
import type { Bounds, Region } from '../outline/types.ts';
import { narrowest } from '../outline/width.ts';
import { GENERIC, groupName, namedGroups } from './groups.ts';
import type { Arrangement, ArriveOptions, Proposal } from './kind.ts';
import { colourName } from './names.ts';
import { isHeavy, shapeBounds, shapeRegions } from './placing.ts';

/** A start depth that reads as a slab: this share of the longest side. */
const DEPTH_SHARE = 0.04;
/**
 * A start edge that shows and stays safe: this share of the depth, of the safe reach at most. One place that is next to nothing
 * does not take the edge away from all the rest: there it ends in a ridge.
 */
const EDGE_SHARE = 0.2;
const SAFE_SHARE = 0.8;
const LEAST_EDGE_SHARE = 0.02;
/** What lies on others has this share of the depth. */
const STEP_SHARE = 0.25;
/** A stack that is higher than this share of the longest side is a tower, and what lies on its lowest layers is made thinner still. */
const TALL_SHARE = 1 / 3;
/** Paper: this light, this colourless (OKLab), and covering this much of the sheet. */
const PAPER = { lightness: 0.9, chroma: 0.05, cover: 0.97 } as const;

const toOklab = converter('oklab');

const START_MATERIAL = { roughness: 0.6, metalness: 0 } as const;

/** @throws {GeometryError} 'nothing-to-build' when no shape has area */
export function arrange(drawing: Drawing, options: ArriveOptions): Arrangement {
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
  if (!bounds || !(longestSide(bounds) > 0)) throw nothingToBuild();
  const longest = longestSide(bounds);
  const scale = options.placement?.scale ?? scaleFor(drawing, longest, options);
  const middle: [number, number] = [(bounds.minX + bounds.maxX) / 2, (bounds.minY + bounds.maxY) / 2];
  const placement = { scale, origin: options.placement?.origin ?? middle };
  const size = longest * scale;

  const coarse = Math.max(tolerance, size / 2000);
  const regionsFor = (shape: Shape) => (isHeavy(shape) ? [] : shapeRegions([shape], placement, coarse));
  const groupsOf = options.keepsGroups ? namedGroups(drawing, ground) : () => [];
  const groups = byColour(drawing, ground, regionsFor, groupsOf).flatMap((group) => {
    const lines = group.shapes.filter(isHeavy).reduce((sum, { path }) => sum + path.length, 0);
    const regions = lines > 0 ? [] : shapeRegions(group.shapes, placement, tolerance);
    if (regions.length > 0 || lines > 0) return [{ ...group, lines, footprint: footprintOf(regions) }];
    const message = `${group.shapes.length} shapes of ${group.shapes[0]!.colour} have no area and were left out.`;
    warnings.push({ code: 'no-area', message });
    return [];
  });
  if (groups.some(({ lines }) => lines > 0)) {
    const message = `Layers with more lines than can be built at once were switched off: choose the lines you need at the Outline station.`;
    warnings.push({ code: 'not-built', message });
  }
  if (groups.every(({ isGround }) => isGround)) throw nothingToBuild();
  if (unit !== 'mm' && drawing.mmPerUnit === null) {
    warnings.push({ code: 'unit', message: `The drawing has no physical size; it was taken as ${unit}.` });
  }
  const isShown = groups.map(({ isGround, lines }) => !isGround && lines === 0);
  const levels = levelsOf(
    groups.map(({ footprint }) => footprint),
    isShown,
  );
  const depths = depthsOf(1 + levels.reduce((most, level) => Math.max(most, level), 0), size, options.depth);
  if (depths.isTower) {
    const message = `${groups.length} layers that lie one on the other would make a tower: each that lies on others is only ${depths.upper} ${unit} deep, so that the whole is a third as tall as it is wide.`;
    warnings.push({ code: 'tower', message });
  }
  const names = namesOf(groups, drawing, groupsOf);
  const proposals = groups.map(({ shapes, isGround, lines, footprint: { regions } }, i): Proposal => {
    const { colour, opacity } = shapes[0]!;
    const depth = levels[i]! > 0 ? depths.upper : depths.lowest;
    return {
      name: names[i]!,
      groups: isGround ? [] : groupsOf(shapes[0]!).map(groupName),
      members: shapes.map((shape) => shape.id),
      shown: isShown[i]!,
      ground: isGround,
      base: isGround ? 0 : baseOf(levels[i]!, depths),
      depth,
      reach: options.wantsReach === false || lines > 0 ? 0 : startReach(regions, depth, tolerance),
      material: { colour, opacity: round3(opacity), ...START_MATERIAL },
    };
  });
  const outlines = groups.map(({ footprint }) => footprint.regions);
  return { placement, proposals, outlines, warnings, size };
}

const nothingToBuild = () =>
  new GeometryError(
    'nothing-to-build',
    'The drawing has no filled shape with an area and no stroke; there is nothing to build.',
  );

function scaleFor(drawing: Drawing, longest: number, { unit, size, fallbackSize }: ArriveOptions): number {
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
 * Shapes of one colour, and of one group where groups are kept, go together, unless something of another colour lies between them: what was painted on top must
 * not end up beneath.
 */
function byColour(
  { shapes, areGroupsLayers = false }: Drawing,
  ground: ReadonlySet<Shape>,
  regionsFor: (shape: Shape) => Region[],
  groupsIn: (shape: Shape) => readonly string[],
): Group[] {
  // Made when first compared: most drawings need few of them.
  const known = new Map<number, Footprint>();
  const footprint = (i: number) => {
    const found = known.get(i) ?? footprintOf(regionsFor(shapes[i]!));
    known.set(i, found);
    return found;
  };
  const boxes = shapes.map(boxOf);
  const index = indexOf(boxes);
  const groups: Group[] = [];
  const newest = new Map<string, number>();
  const groupOf: number[] = [];
  for (const [i, shape] of shapes.entries()) {
    const isGround = ground.has(shape);
    const key = isGround
      ? 'ground'
      : `${shape.colour} ${round3(shape.opacity)} ${areGroupsLayers ? shape.group : JSON.stringify(groupsIn(shape))}`;
    const own = newest.get(key);
    // Layers of a file say by themselves what belongs together.
    const isCovered =
      own !== undefined &&
      !areGroupsLayers &&
      meetingIn(index, boxes, i)
        .filter((j) => j < i && groupOf[j]! > own)
        .some((j) => doOverlap(footprint(i), footprint(j), TOUCHING_SHARE));
    if (own === undefined || isCovered) {
      newest.set(key, groups.length);
      groupOf.push(groups.length);
      groups.push({ shapes: [shape], isGround, key });
    } else {
      groupOf.push(own);
      groups[own]!.shapes.push(shape);
    }
  }
  return groups;
}

function boxOf({ path, stroke }: Shape): Bounds {
  const half = stroke ? stroke.width * Math.max(0.5, stroke.mitreLimit / 2) : 0;
  const { minX, minY, maxX, maxY } = roughBounds([path]) ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  return { minX: minX - half, minY: minY - half, maxX: maxX + half, maxY: maxY + half };
}

/** Sharing less than this of the smaller one is rounding where they touch. */
const TOUCHING_SHARE = 1e-4;

/** Layers of a file keep their names; further colours on one are told apart by them. */
function namesOf(
  groups: readonly Group[],
  { areGroupsLayers }: Drawing,
  groupsIn: (shape: Shape) => readonly string[],
): string[] {
  const taken = new Set<string>();
  const chains = groups.map(({ shapes }) => JSON.stringify(groupsIn(shapes[0]!)));
  return groups.map(({ shapes, isGround }, i) => {
    if (isGround) return 'Ground';
    // What stands in a group that is kept is told apart by its colour.
    const isAlone = chains[i] === '[]' || chains.filter((chain) => chain === chains[i]).length === 1;
    const { group, colour } = shapes[0]!;
    const own = areGroupsLayers ? group.slice(0, 80).trim() : '';
    const name =
      own === ''
        ? layerName(shapes, isAlone)
        : taken.has(own)
          ? `${own.slice(0, 60)}, ${colourName(colour).toLowerCase()}`
          : own;
    taken.add(name);
    return name;
  });
}

/** A shape's own name where it is alone and has one, the group's where all stand in one, else the colour's. */
function layerName(shapes: readonly Shape[], isAlone: boolean): string {
  const [first, ...others] = shapes as [Shape, ...Shape[]];
  const group = isAlone && others.every((shape) => shape.group === first.group) ? first.group : '';
  const own = (others.length === 0 && !GENERIC.test(first.name) ? first.name : group).replace(/[-_]+/g, ' ').trim();
  return own && !GENERIC.test(own) ? groupName(own) : colourName(first.colour);
}

interface Depths {
  /** Of layers that lie on no other. */
  readonly lowest: number;
  /** Of layers that lie on others. */
  readonly upper: number;
  /** Whether usual depths would have made it taller than {@link TALL_SHARE}. */
  readonly isTower: boolean;
}

/**
 * One depth for all of a stack of so many layers where one was asked for; else thinner ones for what lies on others, and still thinner
 * ones where that would make a tower.
 */
function depthsOf(count: number, size: number, asked: number | undefined): Depths {
  if (asked !== undefined) return { lowest: asked, upper: asked, isTower: false };
  const lowest = roundFigure(size * DEPTH_SHARE);
  const step = roundFigure(STEP_SHARE * lowest);
  const room = TALL_SHARE * size - lowest;
  const isTower = (count - 1) * step > room;
  return { lowest, upper: isTower ? roundFigure(room / (count - 1)) : step, isTower };
}

/** The height of what lies on so many layers, added up as laying one on the other does. */
function baseOf(level: number, { lowest, upper }: Depths): number {
  let height = level > 0 ? lowest : 0;
  for (let k = 1; k < level; k++) height += upper;
  return height;
}

function startReach(regions: readonly Region[], depth: number, tolerance: number): number {
  const most = depth * EDGE_SHARE;
  // Of strokes that are wider than this, nobody asks how much.
  const safe = regions.reduce(
    (least, region) => Math.min(least, narrowest(region, least, tolerance).safeReach),
    most / SAFE_SHARE,
  );
  return roundFigure(Math.min(most, Math.max(safe * SAFE_SHARE, depth * LEAST_EDGE_SHARE)));
}

const round3 = (v: number) => Math.round(v * 1000) / 1000;

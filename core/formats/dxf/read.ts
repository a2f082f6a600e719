// read.ts — an ASCII DXF file, R12 to 2018, to shapes: closed outlines are filled, holes in them open; lines that stay
// open are strokes. Group codes as in the published DXF Reference. What cannot be honoured is named in `leftOut`.
import { GeometryError, type Warning } from '../../base/errors.ts';
import { type Box, type Drawing, type LeftOut, roundStroke, type Shape, type Stroke } from '../../drawing.ts';
import { cross, unit } from '../../geometry/vectors.ts';
import { isInside } from '../../outline/apart.ts';
import { roughSize } from '../../outline/corners.ts';
import { gapsBetween, joinEnds, looseEnds } from '../../outline/ends.ts';
import { boundsOf, longestSide, ringArea } from '../../outline/measure.ts';
import type { Bounds, Ring } from '../../outline/types.ts';
import { type Contour, contoursOf, linePiece, type Piece, pathOf } from '../../path/cubic.ts';
import { flatten, polylines } from '../../path/flatten.ts';
import { multiply, rotation, scaling, transformPath, translation } from '../../path/matrix.ts';
import { IDENTITY, type Matrix, type Path } from '../../path/types.ts';
import { recentred } from '../recentre.ts';
import { indexedColour, trueColour } from './colours.ts';
import { bulgePieces, ellipsePieces, type Point, splinePieces, throughPoints } from './curves.ts';
import { DXF_LIMITS, Fields, type Item, numberOf, readItems, type Tag } from './tags.ts';

/** Millimetres in a unit, by the header's $INSUNITS. */
const MM_OF_UNITS: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 2.54e-5,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};

/** Ends this share of the drawing's size apart are one point: files are written with six to sixteen digits. */
const SAME_PLACE = 1e-7;
/** A line without a width is drawn this share of the drawing's size wide, or of the middle one of all lines if that is less. */
const HAIRLINE = 1 / 400;
const HAIRLINE_OF_LINE = 1 / 4;
/** From so many lines on, those of one layer and colour are one shape. */
const MANY_LINES = 20_000;
/** Splines that are no cubics come this share of the drawing's size near. */
const SPLINE_SHARE = 1e-6;

interface DxfLayer {
  readonly colour: string;
  readonly isHidden: boolean;
}

interface Block {
  readonly base: Point;
  readonly items: readonly Item[];
}

/** What an entity receives from the inserts above it. */
interface Place {
  readonly matrix: Matrix;
  /** Of the insert, for entities on layer 0 and those coloured by their block. */
  readonly layer: string | null;
  readonly colour: string | null;
  readonly prefix: string;
  readonly depth: number;
}

interface Curve {
  readonly id: string;
  readonly name: string;
  readonly layer: string;
  readonly colour: string;
  readonly path: Path;
  /** 0 for a line without width. */
  readonly width: number;
  readonly isHatch: boolean;
}

/**
 * @param report is called with the share done; may throw to stop
 * @throws {GeometryError} 'bad-file' · 'too-large' · 'nothing-to-build' when there is no line in it
 */
export function readDxf(text: string, report: Report = () => {}): Drawing {
  const items = readItems(text, (share) => report(0.3 * share));
  return new DxfReader(items, (share) => report(0.3 + 0.7 * share)).drawing();
}

type Report = (share: number) => void;
/** Entities between two reports. */
const REPORTED = 5000;
/** Shares of the work after the items are read: entities walked through, and made into shapes. */
const WALKED = 0.4;

class DxfReader {
  private readonly layers = new Map<string, DxfLayer>();
  private readonly blocks = new Map<string, Block>();
  private readonly curves: Curve[] = [];
  private readonly leftOut = new Map<string, { count: number; where: string }>();
  private readonly warnings: Warning[] = [];
  private readonly taken = new Set<string>();
  private mmPerUnit: number | null = null;
  private entities: readonly Item[] = [];
  private instances = 0;
  private readonly report: Report;

  constructor(items: readonly Item[], report: Report) {
    this.report = report;
    for (const [name, section] of sectionsOf(items)) {
      if (name === 'HEADER') this.header(section);
      else if (name === 'TABLES') this.tables(section);
      else if (name === 'BLOCKS') this.blockSection(section);
      else if (name === 'ENTITIES') this.entities = section;
    }
  }

  drawing(): Drawing {
    const top: Place = { matrix: IDENTITY, layer: null, colour: null, prefix: '', depth: 0 };
    this.walk(this.entities, top);
    const leftOut = [...this.leftOut].map(([what, entry]): LeftOut => ({ what, ...entry }));
    if (this.curves.length === 0) throw nothing(leftOut);
    // The sheet has y down.
    const flipped = this.curves.map((curve) => ({ ...curve, path: transformPath(curve.path, scaling(1, -1)) }));
    const bounds = boundsOf(
      flipped.flatMap(({ path }) => polylines(path, 1e-2 * roughSize([path])).map(({ points }) => points)),
    );
    const { minX, minY, maxX, maxY } = bounds!;
    const sheet: Box = { x: minX, y: minY, width: maxX - minX, height: maxY - minY };
    const shapes = this.shapes(flipped, longestSide(bounds!) || 1);
    const { mmPerUnit, warnings } = this;
    return recentred({ shapes, sheet, mmPerUnit, leftOut, warnings, areGroupsLayers: true }, true);
  }

  // --- sections -----------------------------------------------------------------------------------------------------

  private header(items: readonly Item[]): void {
    const tags = items.flatMap((item) => item.tags);
    const after = (name: string) => tags[tags.findIndex(({ code, value }) => code === 9 && value === name) + 1];
    const units = tags.some(({ value }) => value === '$INSUNITS') ? numberOf(after('$INSUNITS')!.value) : 0;
    this.mmPerUnit = MM_OF_UNITS[units] ?? null;
  }

  private tables(items: readonly Item[]): void {
    for (const item of items) {
      if (item.type !== 'LAYER') continue;
      const fields = new Fields(item);
      const index = fields.number(62, 7);
      const colour = fields.has(420) ? trueColour(fields.number(420)) : indexedColour(Math.abs(index));
      this.layers.set(fields.text(2), { colour, isHidden: index < 0 || (fields.number(70) & 1) === 1 });
    }
  }

  private blockSection(items: readonly Item[]): void {
    let open: { name: string; base: Point; items: Item[] } | null = null;
    for (const item of items) {
      if (item.type === 'BLOCK') {
        const fields = new Fields(item);
        open = { name: fields.text(2), base: [fields.number(10), fields.number(20)], items: [] };
        this.blocks.set(open.name, open);
      } else if (item.type === 'ENDBLK') open = null;
      else open?.items.push(item);
    }
  }

  // --- entities -----------------------------------------------------------------------------------------------------

  private walk(items: readonly Item[], place: Place): void {
    for (let i = 0; i < items.length; i++) {
      const item = items[i]!;
      if (place.depth === 0 && i % REPORTED === 0) this.report((WALKED * i) / items.length);
      const fields = new Fields(item);
      // A polyline of the old kind is followed by its vertices.
      let vertices: readonly Item[] = [];
      if (item.type === 'POLYLINE') {
        let end = i + 1;
        while (items[end]?.type === 'VERTEX') end++;
        vertices = items.slice(i + 1, end);
        i = items[end]?.type === 'SEQEND' ? end : end - 1;
      }
      if (fields.number(67) === 1) this.leaveOut('entity in paper space', place, item);
      else if (fields.number(60) === 1) this.leaveOut('invisible entity', place, item);
      else this.entity(item, fields, vertices, place, i);
    }
  }

  private entity(item: Item, fields: Fields, vertices: readonly Item[], place: Place, index: number): void {
    const own = fields.text(8, '0');
    const layer = own === '0' && place.layer !== null ? place.layer : own;
    if (this.layers.get(layer)?.isHidden) {
      this.leaveOut(`entity on the switched-off layer “${layer}”`, place, item);
      return;
    }
    if (item.type === 'INSERT') {
      this.insert(fields, { ...place, layer, colour: this.colourOf(fields, layer, place) }, index);
      return;
    }
    const contours = this.contours(item, fields, vertices);
    if (!contours) {
      if (!SILENT.has(item.type)) this.leaveOut(NAMES[item.type] ?? item.type.toLowerCase(), place, item);
      return;
    }
    const drawn = contours.filter(({ pieces }) => pieces.length > 0);
    const path = transformPath(pathOf(drawn), multiply(place.matrix, FLAT.has(item.type) ? IDENTITY : axesOf(fields)));
    if (drawn.length === 0 || !isFinitePath(path)) {
      this.leaveOut(`${item.type.toLowerCase()} of no length or without coordinates`, place, item);
      return;
    }
    const id = this.unique(`${place.prefix}${fields.text(5) || `${item.type.toLowerCase()}${index}`}`);
    const colour = this.colourOf(fields, layer, place);
    const width =
      widthOf(item, fields) *
      Math.sqrt(Math.abs(place.matrix[0] * place.matrix[3] - place.matrix[1] * place.matrix[2]));
    const name = item.type.toLowerCase();
    this.curves.push({ id, name, layer, colour, path, width, isHatch: FILLED.has(item.type) });
  }

  private colourOf(fields: Fields, layer: string, place: Place): string {
    if (fields.has(420)) return trueColour(fields.number(420));
    const index = fields.number(62, 256);
    if (index === 0 && place.colour) return place.colour;
    return index >= 1 && index <= 255 ? indexedColour(index) : (this.layers.get(layer)?.colour ?? '#000000');
  }

  private insert(fields: Fields, place: Place, index: number): void {
    const name = fields.text(2);
    const block = this.blocks.get(name);
    if (!block || place.depth >= DXF_LIMITS.depth) {
      this.leaveOut(
        block ? `block “${name}” inside itself` : `insert of the missing block “${name}”`,
        place,
        fields.item,
      );
      return;
    }
    const [columns, rows] = [Math.max(1, fields.number(70, 1)), Math.max(1, fields.number(71, 1))];
    this.instances += columns * rows;
    if (!(this.instances <= DXF_LIMITS.instances)) {
      throw new GeometryError(
        'too-large',
        `The drawing inserts blocks more than ${DXF_LIMITS.instances} times; save a part of it.`,
      );
    }
    const [sx, sy] = [fields.number(41, 1), fields.number(42, 1)];
    const turn = rotation((fields.number(50) * Math.PI) / 180);
    const handle = fields.text(5) || `insert${index}`;
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        // Rows and columns of an array are turned with the insert, and not scaled.
        const cell = translation(column * fields.number(44), row * fields.number(45));
        const local = multiply(
          multiply(turn, cell),
          multiply(scaling(sx, sy), translation(-block.base[0], -block.base[1])),
        );
        const at = multiply(translation(fields.number(10), fields.number(20)), local);
        const prefix = `${place.prefix}${handle}${row + column > 0 ? `.${row}.${column}` : ''}>`;
        const matrix = multiply(place.matrix, multiply(axesOf(fields), at));
        this.walk(block.items, { ...place, matrix, prefix, depth: place.depth + 1 });
      }
    }
  }

  /** Null for what is not drawn. */
  private contours(item: Item, fields: Fields, vertices: readonly Item[]): Contour[] | null {
    const centre: Point = [fields.number(10), fields.number(20)];
    const degrees = (code: number, otherwise: number) => (fields.number(code, otherwise) * Math.PI) / 180;
    switch (item.type) {
      case 'LINE':
        return [open(bulgePieces(centre, [fields.number(11), fields.number(21)], 0))];
      case 'CIRCLE': {
        const major: Point = [fields.number(40), 0];
        return major[0] > 0 ? [closed(ellipsePieces({ centre, major, ratio: 1, start: 0, end: 2 * Math.PI }))] : [];
      }
      case 'ARC':
        return [
          open(
            ellipsePieces({
              centre,
              major: [fields.number(40), 0],
              ratio: 1,
              start: degrees(50, 0),
              end: degrees(51, 360),
            }),
          ),
        ];
      case 'ELLIPSE': {
        const [start, end] = [fields.number(41), fields.number(42, 2 * Math.PI)];
        const pieces = ellipsePieces({
          centre,
          major: [fields.number(11), fields.number(21)],
          ratio: fields.number(40, 1),
          start,
          end,
        });
        return [Math.abs(Math.abs(end - start) - 2 * Math.PI) < 1e-9 ? closed(pieces) : open(pieces)];
      }
      case 'LWPOLYLINE':
        return [polyline(bulgedVertices(item.tags), (fields.number(70) & 1) === 1)];
      case 'POLYLINE':
        return this.oldPolyline(fields, vertices);
      case 'SPLINE':
        return [this.spline(fields)];
      case 'HATCH':
        return hatchContours(item.tags);
      case 'SOLID':
      case 'TRACE': {
        // The third and fourth corners are crossed (DXF Reference, SOLID).
        const corners = [10, 11, 13, 12].flatMap((code) => (fields.has(code) ? fields.points(code) : []));
        return [
          polyline(
            corners.map((point) => ({ point, bulge: 0 })),
            true,
          ),
        ];
      }
      default:
        return null;
    }
  }

  private oldPolyline(fields: Fields, vertices: readonly Item[]): Contour[] | null {
    const flags = fields.number(70);
    // Meshes and faces in space.
    if (flags & (16 | 64)) return null;
    const points = vertices.map((vertex) => new Fields(vertex)).filter((vertex) => (vertex.number(70) & 16) === 0);
    const bulged = points.map((vertex) => ({
      point: [vertex.number(10), vertex.number(20)] as Point,
      bulge: vertex.number(42),
    }));
    return [polyline(bulged, (flags & 1) === 1)];
  }

  private spline(fields: Fields): Contour {
    const isClosed = (fields.number(70) & 1) === 1;
    const [points, through] = [fields.points(10), fields.points(11)];
    const spline = { degree: fields.number(71, 3), knots: fields.numbers(40), points, weights: fields.numbers(41) };
    const pieces = splinePieces(
      spline,
      SPLINE_SHARE * (longestSide(boundsOf([Float64Array.from(points.flat())]) ?? UNIT_BOX) || 1),
    );
    if (pieces.length > 0) return isClosed ? closed(pieces) : open(pieces);
    if (through.length > 1) {
      this.warn('spline', 'Splines that are given only by points on them were drawn smoothly through those.');
      return isClosed ? closed(throughPoints(through, true)) : open(throughPoints(through, false));
    }
    return open([]);
  }

  private warn(code: string, message: string): void {
    if (!this.warnings.some((warning) => warning.message === message)) this.warnings.push({ code, message });
  }

  private leaveOut(what: string, place: Place, item: Item): void {
    const entry = this.leftOut.get(what);
    if (entry) entry.count++;
    else this.leftOut.set(what, { count: 1, where: `${place.prefix}${new Fields(item).text(5) || item.type}` });
  }

  private unique(id: string): string {
    let name = id;
    for (let n = 2; this.taken.has(name); n++) name = `${id}~${n}`;
    this.taken.add(name);
    return name;
  }

  // --- shapes -------------------------------------------------------------------------------------------------------

  /** Lines whose ends meet are one; closed ones are filled, those directly inside them are holes. */
  private shapes(curves: readonly Curve[], size: number): Shape[] {
    const hatches = curves.filter(({ isHatch }) => isHatch).map((curve) => shapeOf(curve, curve.path));
    const shapes: Shape[] = [];
    let thin = 0;
    const hairline = Math.min(HAIRLINE * size, HAIRLINE_OF_LINE * middleLength(curves));
    const strokeOf = (width: number): Stroke => ({ ...roundStroke(width || hairline), join: 'mitre', cap: 'butt' });
    const isMany = curves.length > MANY_LINES;
    if (isMany) this.warn('merged', `Its ${curves.length} lines came in as one shape for each layer and colour.`);
    const groups = groupsOf(curves.filter(({ isHatch }) => !isHatch));
    for (const [g, group] of groups.entries()) {
      this.report(WALKED + ((1 - WALKED) * g) / groups.length);
      const paths = group.map(({ path }) => path);
      const joined = joinEnds(paths, gapsBetween(looseEnds(paths), SAME_PLACE * size));
      const loose: Contour[] = [];
      const outlines: { curve: Curve; contour: Contour }[] = [];
      for (const [i, path] of joined.entries()) {
        const curve = group[i]!;
        const contours = contoursOf(path);
        const lines = contours.filter(({ isClosed }) => !isClosed || curve.width > 0);
        for (const contour of contours) if (contour.isClosed && curve.width === 0) outlines.push({ curve, contour });
        if (lines.length === 0) continue;
        if (curve.width === 0) thin++;
        if (isMany) for (const contour of lines) loose.push(contour);
        else shapes.push({ ...shapeOf(curve, pathOf(lines)), stroke: strokeOf(curve.width) });
      }
      const [first] = group;
      if (first && loose.length > 0) {
        shapes.push({ ...shapeOf({ ...first, name: 'lines' }, pathOf(loose)), stroke: strokeOf(first.width) });
      }
      shapes.push(...nested(outlines));
    }
    if (thin > 0) {
      const width = Number(hairline.toPrecision(2));
      this.warn(
        'hairline',
        `${thin} open lines have no width and are drawn ${width} units wide; give them one, or fill faces.`,
      );
    }
    return [...hatches, ...shapes];
  }
}

const UNIT_BOX = { minX: 0, minY: 0, maxX: 1, maxY: 1 };

/** Entities whose coordinates are the world's, whatever their normal. */
const FLAT: ReadonlySet<string> = new Set(['LINE', 'ELLIPSE', 'SPLINE']);
const FILLED: ReadonlySet<string> = new Set(['HATCH', 'SOLID', 'TRACE']);
const SILENT: ReadonlySet<string> = new Set(['SEQEND', 'VERTEX', 'ATTRIB', 'ATTDEF', 'VIEWPORT']);
const NAMES: Readonly<Record<string, string>> = {
  TEXT: 'text',
  MTEXT: 'text',
  DIMENSION: 'dimension',
  POINT: 'point',
  POLYLINE: 'mesh in space',
  LEADER: 'leader',
  IMAGE: 'picture',
  '3DFACE': 'face in space',
};

function* sectionsOf(items: readonly Item[]): Generator<[name: string, items: Item[]]> {
  for (let i = 0; i < items.length; i++) {
    if (items[i]!.type !== 'SECTION') continue;
    const end = items.findIndex((item, k) => k > i && item.type === 'ENDSEC');
    const stop = end < 0 ? items.length : end;
    const head = items[i]!;
    const name = new Fields(head).text(2);
    // Variables of the header follow their section's name without a group code 0.
    yield [name, name === 'HEADER' ? [head] : items.slice(i + 1, stop)];
    i = stop;
  }
}

/** From the coordinates of an entity to the sheet: the arbitrary axis algorithm (DXF Reference, "Object Coordinate Systems"), seen from above. */
function axesOf(fields: Fields): Matrix {
  const [x, y, z] = [fields.number(210), fields.number(220), fields.number(230, 1)];
  const size = Math.hypot(x, y, z);
  if (!(size > 0) || (x === 0 && y === 0 && z > 0)) return IDENTITY;
  const n = [x / size, y / size, z / size] as const;
  const up = Math.abs(n[0]) < 1 / 64 && Math.abs(n[1]) < 1 / 64 ? ([0, 1, 0] as const) : ([0, 0, 1] as const);
  const ax = unit(cross(up, n));
  const ay = unit(cross(n, ax));
  return [ax[0], ax[1], ay[0], ay[1], 0, 0];
}

function widthOf({ type }: Item, fields: Fields): number {
  if (type === 'LWPOLYLINE') return Math.max(fields.number(43), fields.number(40), 0);
  return type === 'POLYLINE' ? Math.max(fields.number(40), 0) : 0;
}

interface BulgedPoint {
  readonly point: Point;
  readonly bulge: number;
}

/** Vertices of a light polyline: each begins with its x. */
function bulgedVertices(tags: readonly Tag[]): BulgedPoint[] {
  const vertices: { point: [number, number]; bulge: number }[] = [];
  for (const { code, value } of tags) {
    if (code === 10) vertices.push({ point: [numberOf(value), 0], bulge: 0 });
    const last = vertices.at(-1);
    if (code === 20 && last) last.point[1] = numberOf(value);
    if (code === 42 && last) last.bulge = numberOf(value);
  }
  return vertices;
}

function polyline(vertices: readonly BulgedPoint[], isClosed: boolean): Contour {
  const count = isClosed ? vertices.length : vertices.length - 1;
  const pieces = Array.from({ length: Math.max(0, count) }, (_, i) => {
    const [from, to] = [vertices[i]!, vertices[(i + 1) % vertices.length]!];
    return bulgePieces(from.point, to.point, from.bulge);
  }).flat();
  return isClosed ? closed(pieces) : open(pieces);
}

const startOf = (pieces: readonly Piece[]): Point => (pieces[0] ? [pieces[0].cubic[0], pieces[0].cubic[1]] : [0, 0]);
const open = (pieces: Piece[]): Contour => ({ start: startOf(pieces), pieces, isClosed: false });

function closed(pieces: Piece[]): Contour {
  const [start, last] = [startOf(pieces), pieces.at(-1)?.cubic];
  if (!last) return open([]);
  const isApart = last[6] !== start[0] || last[7] !== start[1];
  const gap = isApart ? Math.hypot(last[6] - start[0], last[7] - start[1]) : 0;
  const size = pieces.reduce(
    (most, { cubic }) => Math.max(most, Math.hypot(cubic[6] - start[0], cubic[7] - start[1])),
    gap,
  );
  // Rounding does not make a piece of its own.
  if (isApart && gap <= 1e-9 * size) {
    const [x0, y0, x1, y1, x2, y2] = last;
    const end = pieces.at(-1)!;
    const snapped: Piece = end.isLine
      ? linePiece(x0, y0, ...start)
      : { isLine: false, cubic: [x0, y0, x1, y1, x2, y2, start[0], start[1]] };
    return { start, pieces: [...pieces.slice(0, -1), snapped], isClosed: true };
  }
  return { start, pieces: isApart ? [...pieces, linePiece(last[6], last[7], ...start)] : pieces, isClosed: true };
}

/** Boundary paths of a hatch, read in order: group codes mean different things from edge to edge (DXF Reference, "HATCH" and "Boundary Path Data"). */
function hatchContours(tags: readonly Tag[]): Contour[] {
  let i = tags.findIndex(({ code }) => code === 91);
  const contours: Contour[] = [];
  const take = (code: number): number => {
    while (i < tags.length && tags[i]!.code !== code) i++;
    return numberOf(tags[i++]?.value ?? '');
  };
  /** A value that may be left out: only when it comes next. */
  const maybe = (code: number, otherwise: number): number => (tags[i]?.code === code ? take(code) : otherwise);
  const point = (code: number): Point => [take(code), take(code + 10)];
  if (i < 0) return [];
  const paths = take(91);
  for (let p = 0; p < paths && i < tags.length; p++) {
    if ((take(92) & 2) !== 0) {
      const hasBulge = take(72) === 1;
      const isClosed = take(73) !== 0;
      const vertices = Array.from({ length: Math.min(take(93), tags.length) }, (): BulgedPoint => {
        const place = point(10);
        return { point: place, bulge: hasBulge ? maybe(42, 0) : 0 };
      });
      contours.push({ ...polyline(vertices, isClosed || vertices.length > 2) });
      continue;
    }
    const pieces: Piece[] = [];
    const edges = Math.min(take(93), tags.length);
    for (let e = 0; e < edges; e++) pieces.push(...hatchEdge(take(72), take, maybe, point));
    contours.push(closed(pieces));
  }
  return contours;
}

type Take = (code: number) => number;

function hatchEdge(
  kind: number,
  take: Take,
  maybe: (code: number, otherwise: number) => number,
  point: (code: number) => Point,
): Piece[] {
  if (kind === 1) return bulgePieces(point(10), point(11), 0);
  if (kind === 2 || kind === 3) {
    const centre = point(10);
    const major: Point = kind === 3 ? point(11) : [take(40), 0];
    const ratio = kind === 3 ? take(40) : 1;
    const [start, end] = [(take(50) * Math.PI) / 180, (take(51) * Math.PI) / 180];
    const isLeft = take(73) !== 0;
    // Clockwise arcs are given by angles measured the other way.
    if (isLeft) return ellipsePieces({ centre, major, ratio, start, end });
    const pieces = ellipsePieces({ centre, major, ratio, start: -end, end: -start });
    return pieces
      .map(({ isLine, cubic: [a, b, c, d, e, f, g, h] }): Piece => ({ isLine, cubic: [g, h, e, f, c, d, a, b] }))
      .reverse();
  }
  const degree = take(94);
  const isRational = take(73) === 1;
  take(74);
  const [knotCount, pointCount] = [take(95), take(96)];
  const knots = Array.from({ length: knotCount }, () => take(40));
  const points: Point[] = [];
  const weights: number[] = [];
  for (let i = 0; i < pointCount; i++) {
    points.push(point(10));
    if (isRational) weights.push(maybe(42, 1));
  }
  return splinePieces({ degree, knots, points, weights }, 1e-6);
}

function isFinitePath(path: Path): boolean {
  return path.every((segment) => segment.slice(1).every((v) => Math.abs(v as number) <= 1e12));
}

const shapeOf = ({ id, name, layer, colour }: Curve, path: Path): Shape => ({
  id,
  name,
  group: layer,
  path,
  fillRule: 'evenodd',
  colour,
  opacity: 1,
});

/** The middle one of the lengths from end to end. */
function middleLength(curves: readonly Curve[]): number {
  const lengths = curves.flatMap(({ path, isHatch }) => (isHatch ? [] : [roughSize([path])])).sort((a, b) => a - b);
  return lengths[lengths.length >> 1] ?? 1;
}

/** Curves that may be one: of the same layer, colour and width. */
function groupsOf(curves: readonly Curve[]): Curve[][] {
  const groups = new Map<string, Curve[]>();
  for (const curve of curves) {
    const key = JSON.stringify([curve.layer, curve.colour, curve.width]);
    const group = groups.get(key);
    if (group) group.push(curve);
    else groups.set(key, [curve]);
  }
  return [...groups.values()];
}

/** Outlines with those that lie directly inside them as holes; what lies inside a hole is an outline again. */
function nested(outlines: readonly { curve: Curve; contour: Contour }[]): Shape[] {
  const rings = outlines.map(
    ({ contour }): Ring => flatten(pathOf([contour]), roughSize([pathOf([contour])]) / 500)[0] ?? new Float64Array(),
  );
  const order = rings.map((_, i) => i).filter((i) => rings[i]!.length > 0);
  const boxes = rings.map((ring) => boundsOf([ring]));
  order.sort((i, j) => Math.abs(ringArea(rings[j]!)) - Math.abs(ringArea(rings[i]!)));
  const parent = new Map<number, number>();
  const depth = new Map<number, number>();
  for (const [k, i] of order.entries()) {
    // The smallest of the larger ones round it.
    const around = order.slice(0, k).findLast((j) => isWithin(boxes[i]!, boxes[j]!) && isInside(rings[i]!, rings[j]!));
    if (around !== undefined) parent.set(i, around);
    depth.set(i, around === undefined ? 0 : depth.get(around)! + 1);
  }
  return order
    .filter((i) => depth.get(i)! % 2 === 0)
    .sort((i, j) => i - j)
    .map((i) => {
      const holes = order.filter((j) => parent.get(j) === i && depth.get(j)! % 2 === 1);
      return shapeOf(outlines[i]!.curve, pathOf([i, ...holes].map((j) => outlines[j]!.contour)));
    });
}

const isWithin = (a: Bounds, b: Bounds) => a.minX >= b.minX && a.maxX <= b.maxX && a.minY >= b.minY && a.maxY <= b.maxY;

function nothing(leftOut: readonly LeftOut[]): GeometryError {
  const reasons = leftOut.slice(0, 4).map(({ what, count }) => `${count} × ${what}`);
  const why = reasons.length > 0 ? ` It holds: ${reasons.join('; ')}.` : '';
  return new GeometryError('nothing-to-build', `The drawing has no lines or outlines to build from.${why}`);
}

// write.ts — shapes as an ASCII DXF file of release 2000 (AC1015): polylines where outlines are straight, splines of degree 3
// where they are curved (or polylines with arcs, or with lines alone), on layers with colours, in stated units. The sections and tables are the least that release asks for.
import type { Drawing, Shape } from '../../drawing.ts';
import { type ArcTo, arcsOf } from '../../path/biarc.ts';
import { type Contour, type Cubic, contoursOf } from '../../path/cubic.ts';
import { type Polyline, polylines } from '../../path/flatten.ts';
import type { CurveWishes } from '../format.ts';
import { nearestIndex } from './colours.ts';

export interface DxfGroup {
  /** Name of the layer. */
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly shapes: readonly Shape[];
}

export interface DxfDocument extends Pick<Drawing, 'mmPerUnit' | 'sheet'> {
  readonly groups: readonly DxfGroup[];
  readonly curves?: CurveWishes | undefined;
}

/** $INSUNITS of a unit, by its millimetres; 0 is none. */
const UNITS: readonly (readonly [mm: number, code: number])[] = [
  [1, 4],
  [10, 5],
  [1000, 6],
  [25.4, 1],
  [304.8, 2],
];

/** @returns text that `readDxf` reads back as the same outlines, y up as DXF has it */
export function writeDxf({ groups, mmPerUnit, sheet, curves = AS_THEY_ARE }: DxfDocument): string {
  const out = new Tags();
  const names = layerNames(groups);
  const units = UNITS.find(([mm]) => mmPerUnit !== null && Math.abs(mm / mmPerUnit - 1) < 1e-9)?.[1] ?? 0;
  header(out, units, sheet);
  tables(
    out,
    groups.map(({ colour }, i) => ({ name: names[i]!, index: nearestIndex(colour) })),
  );
  blocks(out);
  out.add(0, 'SECTION').add(2, 'ENTITIES');
  for (const [i, { shapes }] of groups.entries()) for (const shape of shapes) entities(out, shape, names[i]!, curves);
  out.add(0, 'ENDSEC');
  out.add(0, 'SECTION').add(2, 'OBJECTS');
  out.add(0, 'DICTIONARY').add(5, 'C').add(330, '0').add(100, 'AcDbDictionary').add(281, 1);
  out.add(3, 'ACAD_GROUP').add(350, 'D');
  out.add(0, 'DICTIONARY').add(5, 'D').add(330, 'C').add(100, 'AcDbDictionary').add(281, 1);
  out.add(0, 'ENDSEC').add(0, 'EOF');
  return out.text();
}

const AS_THEY_ARE: CurveWishes = { as: 'splines', tolerance: 1 };

/** Handles below this are those of tables and blocks. */
const FIRST_HANDLE = 0x100;

class Tags {
  private readonly lines: string[] = [];
  private handle = FIRST_HANDLE;

  add(code: number, value: string | number): this {
    this.lines.push(String(code).padStart(3), typeof value === 'number' ? number(value) : value);
    return this;
  }

  point(code: number, x: number, y: number): this {
    return this.add(code, real(x))
      .add(code + 10, real(y))
      .add(code + 20, '0.0');
  }

  next(): string {
    return (this.handle++).toString(16).toUpperCase();
  }

  text(): string {
    return `${this.lines.join('\r\n')}\r\n`;
  }
}

const number = (v: number): string => String(v);
/** Twelve digits, always with a point. */
const real = (v: number): string => {
  // Adding 0 turns -0 into 0.
  const text = String(Number(v.toPrecision(15)) + 0);
  return /^-?\d+$/.test(text) ? `${text}.0` : text;
};

/** Layer names may not hold these characters (DXF Reference, "LAYER"). */
function layerNames(groups: readonly DxfGroup[]): string[] {
  const taken = new Set<string>();
  return groups.map(({ name }) => {
    const plain =
      name
        .replace(/[<>/\\":;?*|=`,]/g, '-')
        .replace(/[^\x20-\x7e]/g, (c) => `\\U+${c.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`)
        .trim() || 'Layer';
    let unique = plain;
    for (let n = 2; taken.has(unique.toLowerCase()); n++) unique = `${plain} ${n}`;
    taken.add(unique.toLowerCase());
    return unique;
  });
}

function header(out: Tags, units: number, { x, y, width, height }: Drawing['sheet']): void {
  out.add(0, 'SECTION').add(2, 'HEADER');
  out.add(9, '$ACADVER').add(1, 'AC1015');
  out.add(9, '$HANDSEED').add(5, 'FFFFFF');
  out.add(9, '$INSUNITS').add(70, units);
  out.add(9, '$MEASUREMENT').add(70, units === 1 || units === 2 ? 0 : 1);
  out.add(9, '$EXTMIN').point(10, x, -(y + height));
  out.add(9, '$EXTMAX').point(10, x + width, -y);
  out.add(0, 'ENDSEC');
}

function tables(out: Tags, layers: readonly { name: string; index: number }[]): void {
  out.add(0, 'SECTION').add(2, 'TABLES');
  const table = (name: string, handle: string, count: number) => {
    out.add(0, 'TABLE').add(2, name).add(5, handle).add(330, '0').add(100, 'AcDbSymbolTable').add(70, count);
  };
  const record = (type: string, handle: string, owner: string, kind: string, name: string) => {
    out
      .add(0, type)
      .add(type === 'DIMSTYLE' ? 105 : 5, handle)
      .add(330, owner);
    out.add(100, 'AcDbSymbolTableRecord').add(100, kind).add(2, name).add(70, 0);
  };
  table('VPORT', '8', 0);
  out.add(0, 'ENDTAB');
  table('LTYPE', '5', 3);
  for (const [name, handle] of [
    ['ByBlock', '14'],
    ['ByLayer', '15'],
    ['Continuous', '16'],
  ] as const) {
    record('LTYPE', handle, '5', 'AcDbLinetypeTableRecord', name);
    out.add(3, '').add(72, 65).add(73, 0).add(40, '0.0');
  }
  out.add(0, 'ENDTAB');
  table('LAYER', '2', layers.length + 1);
  for (const { name, index } of [{ name: '0', index: 7 }, ...layers.filter((layer) => layer.name !== '0')]) {
    record('LAYER', out.next(), '2', 'AcDbLayerTableRecord', name);
    out.add(62, index).add(6, 'Continuous').add(370, -3).add(390, 'F');
  }
  out.add(0, 'ENDTAB');
  table('STYLE', '3', 1);
  record('STYLE', '11', '3', 'AcDbTextStyleTableRecord', 'Standard');
  out.add(40, '0.0').add(41, '1.0').add(50, '0.0').add(71, 0).add(42, '2.5').add(3, 'txt').add(4, '');
  out.add(0, 'ENDTAB');
  table('VIEW', '6', 0);
  out.add(0, 'ENDTAB');
  table('UCS', '7', 0);
  out.add(0, 'ENDTAB');
  table('APPID', '9', 1);
  record('APPID', '12', '9', 'AcDbRegAppTableRecord', 'ACAD');
  out.add(0, 'ENDTAB');
  out.add(0, 'TABLE').add(2, 'DIMSTYLE').add(5, 'A').add(330, '0').add(100, 'AcDbSymbolTable').add(70, 1);
  out.add(100, 'AcDbDimStyleTable').add(71, 0);
  record('DIMSTYLE', '27', 'A', 'AcDbDimStyleTableRecord', 'Standard');
  out.add(0, 'ENDTAB');
  table('BLOCK_RECORD', '1', 2);
  for (const [name, handle] of SPACES) {
    out.add(0, 'BLOCK_RECORD').add(5, handle).add(330, '1').add(100, 'AcDbSymbolTableRecord');
    out.add(100, 'AcDbBlockTableRecord').add(2, name).add(340, '0');
  }
  out.add(0, 'ENDTAB').add(0, 'ENDSEC');
}

const MODEL = '1F';
const SPACES = [
  ['*Model_Space', MODEL],
  ['*Paper_Space', '1B'],
] as const;

function blocks(out: Tags): void {
  out.add(0, 'SECTION').add(2, 'BLOCKS');
  for (const [name, owner] of SPACES) {
    out.add(0, 'BLOCK').add(5, out.next()).add(330, owner).add(100, 'AcDbEntity').add(8, '0');
    out.add(100, 'AcDbBlockBegin').add(2, name).add(70, 0).point(10, 0, 0).add(3, name).add(1, '');
    out.add(0, 'ENDBLK').add(5, out.next()).add(330, owner).add(100, 'AcDbEntity').add(8, '0').add(100, 'AcDbBlockEnd');
  }
  out.add(0, 'ENDSEC');
}

function entities(out: Tags, { path, stroke, colour }: Shape, layer: string, curves: CurveWishes): void {
  for (const contour of contoursOf(path)) {
    if (contour.pieces.length === 0) continue;
    const begin = (type: string) => {
      out.add(0, type).add(5, out.next()).add(330, MODEL).add(100, 'AcDbEntity').add(8, layer);
      out.add(62, nearestIndex(colour));
    };
    // A filled contour ends where it begins, whether it says so or not.
    const isClosed = contour.isClosed || stroke === undefined;
    if (curves.as !== 'splines' || contour.pieces.every(({ isLine }) => isLine)) {
      begin('LWPOLYLINE');
      polyline(out, legsOf(contour, curves), isClosed, stroke?.width ?? 0);
    } else {
      begin('SPLINE');
      spline(out, contour, isClosed);
    }
  }
}

/** The places of a contour from its start on, each with how the way to the next one bulges. */
function legsOf({ start, pieces }: Contour, { as, tolerance }: CurveWishes): Corner[] {
  const legs = pieces.flatMap(({ isLine, cubic }): ArcTo[] => {
    if (isLine) return [{ x: cubic[6], y: cubic[7], bulge: 0 }];
    return as === 'arcs' ? arcsOf(cubic, tolerance) : linesOf(cubic, tolerance);
  });
  const places = [{ x: start[0], y: start[1] }, ...legs];
  return places.map(({ x, y }, i) => ({ x, y, bulge: legs[i]?.bulge ?? 0 }));
}

interface Corner {
  readonly x: number;
  readonly y: number;
  /** Of the way to the next corner. */
  readonly bulge: number;
}

function linesOf([x0, y0, ...rest]: Cubic, tolerance: number): ArcTo[] {
  const [{ points }] = polylines([['M', x0, y0], ['C', ...rest] as const], tolerance) as [Polyline];
  return Array.from({ length: points.length / 2 - 1 }, (_, i) => ({
    x: points[2 * i + 2]!,
    y: points[2 * i + 3]!,
    bulge: 0,
  }));
}

function polyline(out: Tags, legs: readonly Corner[], isClosed: boolean, width: number): void {
  const [first, last] = [legs[0]!, legs.at(-1)!];
  const isRepeated = isClosed && last.x === first.x && last.y === first.y;
  const corners = isRepeated ? legs.slice(0, -1) : legs;
  out
    .add(100, 'AcDbPolyline')
    .add(90, corners.length)
    .add(70, isClosed ? 1 : 0)
    .add(43, real(width));
  for (const { x, y, bulge } of corners) {
    out.add(10, real(x)).add(20, real(-y));
    // The other way round, because y is.
    if (bulge !== 0) out.add(42, real(-bulge));
  }
}

/** Pieces as one spline: every knot between two pieces three times, which makes its control points theirs. */
function spline(out: Tags, { start, pieces }: Contour, isClosed: boolean): void {
  const last = pieces.at(-1)!.cubic;
  const isApart = isClosed && (last[6] !== start[0] || last[7] !== start[1]);
  const third = (a: number, b: number) => a + (b - a) / 3;
  const closing = isApart
    ? [third(last[6], start[0]), third(last[7], start[1]), third(start[0], last[6]), third(start[1], last[7]), ...start]
    : [];
  const points = [...start, ...pieces.flatMap(({ cubic }) => cubic.slice(2)), ...closing];
  const count = points.length / 2;
  const spans = (count - 1) / 3;
  const knots = Array.from({ length: spans + 1 }, (_, i) => Array(i === 0 || i === spans ? 4 : 3).fill(i)).flat();
  // 8: planar; 1: closed.
  out
    .add(100, 'AcDbSpline')
    .add(70, 8 + (isClosed ? 1 : 0))
    .add(71, 3);
  out.add(72, knots.length).add(73, count).add(74, 0);
  out.add(42, '0.0000001').add(43, '0.0000001');
  for (const knot of knots) out.add(40, real(knot));
  for (let i = 0; i < points.length; i += 2) out.point(10, points[i]!, -points[i + 1]!);
}

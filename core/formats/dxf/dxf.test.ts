// DXF by the group codes of the published DXF Reference; closed forms for its curves; another parser as a second reader.

import { describe, expect, it } from 'vitest';
import DxfParser from '../../../bench/sets/node_modules/dxf-parser/dist/index.js';
import type { Drawing, Shape } from '../../drawing.ts';
import { coverOf } from '../../outline/cover.ts';
import { boundsOf, regionsArea } from '../../outline/measure.ts';
import { flatten } from '../../path/flatten.ts';
import { parsePath } from '../../path/parse.ts';
import type { Path } from '../../path/types.ts';
import { filledShape, strokedShape } from '../../testing/drawings.ts';
import { readDxf } from './read.ts';
import { writeDxf } from './write.ts';

/** A file of entities, each written as “TYPE code value code value …”. */
const dxf = (entities: string[], { header = '', tables = '', blocks = [] as string[] } = {}): string => {
  const lines = (item: string) => {
    const [type, ...rest] = item.trim().split(/\s+/);
    return ['0', type!, ...rest].join('\n');
  };
  return [
    `0\nSECTION\n2\nHEADER\n${header}0\nENDSEC`,
    `0\nSECTION\n2\nTABLES\n${tables}0\nENDSEC`,
    `0\nSECTION\n2\nBLOCKS\n${blocks.map((block) => `${lines(block)}\n`).join('')}0\nENDSEC`,
    `0\nSECTION\n2\nENTITIES\n${entities.map((entity) => `${lines(entity)}\n`).join('')}0\nENDSEC\n0\nEOF\n`,
  ].join('\n');
};
const read = (...entities: string[]) => readDxf(dxf(entities));
const area = (shape: Shape) => regionsArea(coverOf(shape, 1e-5));
const only = (drawing: Drawing) => {
  expect(drawing.shapes).toHaveLength(1);
  return drawing.shapes[0]!;
};
const box = (shape: Shape) => {
  const { minX, minY, maxX, maxY } = boundsOf(flatten(shape.path, 1e-4))!;
  return [minX, minY, maxX, maxY].map((v) => Math.round(1000 * v) / 1000 + 0);
};

describe('curves', () => {
  it('a bulge is the tangent of a quarter of the arc’s angle', () => {
    // Two half circles: tan(180°/4) = 1.
    expect(area(only(read('LWPOLYLINE 90 2 70 1 10 0 20 0 42 1 10 4 20 0 42 1')))).toBeCloseTo(4 * Math.PI, 3);
    // A quarter circle on a chord of √2·r, positive to the left: the segment of r²(π/2 − 1)/2 beside its chord.
    const quarter = read(`LWPOLYLINE 90 2 70 1 10 2 20 0 42 ${Math.tan(Math.PI / 8)} 10 0 20 2 42 0`);
    expect(area(only(quarter))).toBeCloseTo((4 * (Math.PI / 2 - 1)) / 2, 4);
    // Past the half circle, and clockwise.
    const most = read(`LWPOLYLINE 90 2 70 1 10 2 20 0 42 ${-Math.tan((1.5 * Math.PI) / 4)} 10 0 20 2 42 0`);
    expect(area(only(most))).toBeCloseTo(4 * Math.PI - (4 * (Math.PI / 2 - 1)) / 2, 3);
  });

  it('circles and ellipses', () => {
    expect(area(only(read('CIRCLE 10 5 20 5 40 3')))).toBeCloseTo(9 * Math.PI, 3);
    expect(area(only(read('ELLIPSE 10 0 20 0 11 4 21 3 40 0.5 41 0 42 6.283185307179586')))).toBeCloseTo(
      12.5 * Math.PI,
      2,
    );
  });

  it('arcs run counter-clockwise from start to end, over 0° too', () => {
    const half = read('ARC 10 0 20 0 40 2 50 270 51 90', 'LINE 10 0 20 2 11 0 21 -2');
    expect(area(only(half))).toBeCloseTo(2 * Math.PI, 3);
    expect(box(only(half))[0]).toBe(0);
  });

  it('a rational spline of degree 2 is a circle (Piegl & Tiller 1997, §7.5)', () => {
    const w = Math.SQRT1_2;
    const corners = [
      [1, 0],
      [1, 1],
      [0, 1],
      [-1, 1],
      [-1, 0],
      [-1, -1],
      [0, -1],
      [1, -1],
      [1, 0],
    ];
    const knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4];
    const entity = `SPLINE 70 5 71 2 72 12 73 9 ${knots.map((k) => `40 ${k}`).join(' ')} ${corners
      .map((_, i) => `41 ${i % 2 ? w : 1}`)
      .join(' ')} ${corners.map(([x, y]) => `10 ${x} 20 ${y}`).join(' ')}`;
    expect(area(only(read(entity)))).toBeCloseTo(Math.PI, 4);
  });

  it('a cubic spline with single knots is exactly its pieces', () => {
    // Uniform cubic B-spline on a line: it runs straight from 1 to 3 (control points 0 … 4 at equal steps).
    const entity = `SPLINE 70 8 71 3 72 9 73 5 ${[0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => `40 ${k}`).join(' ')} ${[0, 1, 2, 3, 4].map((x) => `10 ${x} 20 ${2 * x}`).join(' ')}`;
    const { path } = only(read(entity));
    expect(path[0]!.slice(1)).toEqual([1, -2]);
    expect((path.at(-1)!.slice(-2) as number[]).map((v) => Math.round(v * 1e9) / 1e9)).toEqual([3, -6]);
  });

  it('a hatch has its boundary and its islands', () => {
    const hatch = `HATCH 10 0 20 0 30 0 2 SOLID 70 1 71 0 91 2
      92 3 72 0 73 1 93 4 10 0 20 0 10 10 20 0 10 10 20 10 10 0 20 10 97 0
      92 1 93 1 72 2 10 5 20 5 40 2 50 0 51 360 73 1 97 0
      75 0 76 1 98 1 10 1 20 1`;
    expect(area(only(read(hatch)))).toBeCloseTo(100 - 4 * Math.PI, 3);
  });

  it('polylines of the old kind, without their spline’s frame', () => {
    const old = [
      'POLYLINE 66 1 70 1 10 0 20 0',
      'VERTEX 10 0 20 0',
      'VERTEX 10 4 20 0 42 0',
      'VERTEX 10 99 20 99 70 16',
      'VERTEX 10 4 20 4',
      'VERTEX 10 0 20 4',
      'SEQEND',
    ];
    expect(area(only(read(...old)))).toBeCloseTo(16, 6);
  });

  it('solids have their last corners crossed', () => {
    expect(area(only(read('SOLID 10 0 20 0 11 3 21 0 12 0 22 2 13 3 23 2')))).toBeCloseTo(6, 6);
  });
});

describe('outlines', () => {
  it('are made of lines and arcs whose ends meet, in any order and direction', () => {
    const slot = [
      'LINE 10 0 20 0 11 6 21 0',
      'ARC 10 6 20 1 40 1 50 270 51 90',
      'LINE 10 0 20 2 11 6 21 2',
      'ARC 10 0 20 1 40 1 50 90 51 270',
    ];
    expect(area(only(read(...slot)))).toBeCloseTo(12 + Math.PI, 3);
  });

  it('have circles inside them as holes, and what lies in those as outlines again', () => {
    const drawing = read(
      'CIRCLE 10 0 20 0 40 10',
      'CIRCLE 10 0 20 0 40 6',
      'CIRCLE 10 0 20 0 40 2',
      'CIRCLE 10 30 20 0 40 1',
    );
    expect(drawing.shapes.map((shape) => Math.round(area(shape) / Math.PI))).toEqual([64, 4, 1]);
  });

  it('stay apart by layer, colour and width', () => {
    const { shapes } = read(
      'LINE 8 A 10 0 20 0 11 5 21 0',
      'LINE 8 B 10 5 20 0 11 5 21 5',
      'LWPOLYLINE 8 A 90 2 70 0 43 0.5 10 0 20 0 10 0 20 5',
    );
    expect(shapes.map(({ group, stroke }) => [group, stroke !== undefined])).toEqual([
      ['A', true],
      ['B', true],
      ['A', true],
    ]);
    expect(shapes[2]!.stroke!.width).toBe(0.5);
  });

  it('that stay open without a width are drawn thin, and that is said', () => {
    const { warnings } = read('LINE 10 0 20 0 11 100 21 0');
    expect(warnings.map(({ message }) => message)).toEqual([
      '1 open lines have no width and are drawn 0.25 units wide; give them one, or fill faces.',
    ]);
  });
});

describe('blocks', () => {
  const blocks = [
    'BLOCK 2 HOLE 10 1 20 1',
    'LWPOLYLINE 8 0 90 4 70 1 10 1 20 1 10 2 20 1 10 2 20 2 10 1 20 2',
    'ENDBLK',
  ];
  const inserted = (...entities: string[]) => readDxf(dxf(entities, { blocks }));

  it('are moved, turned, scaled and mirrored from their base point', () => {
    expect(box(only(inserted('INSERT 2 HOLE 10 10 20 5 41 2 42 3')))).toEqual([10, -8, 12, -5]);
    expect(box(only(inserted('INSERT 2 HOLE 10 0 20 0 50 90')))).toEqual([-1, -1, 0, 0]);
    expect(box(only(inserted('INSERT 2 HOLE 10 0 20 0 41 -1')))).toEqual([-1, -1, 0, 0]);
  });

  it('come in rows and columns, and take layer and colour from their insert', () => {
    const drawing = inserted('INSERT 8 Holes 62 1 2 HOLE 10 0 20 0 70 3 71 2 44 5 45 4');
    expect(drawing.shapes).toHaveLength(6);
    expect(new Set(drawing.shapes.map(({ group }) => group))).toEqual(new Set(['Holes']));
    expect(Math.max(...drawing.shapes.map((shape) => box(shape)[2]!))).toBe(11);
  });

  it('that are missing or hold themselves are named', () => {
    expect(() => inserted('INSERT 2 NOWHERE 10 0 20 0')).toThrow(/1 × insert of the missing block “NOWHERE”/);
    const loop = ['BLOCK 2 LOOP', 'INSERT 2 LOOP 10 1 20 0', 'CIRCLE 10 0 20 0 40 1', 'ENDBLK'];
    const { leftOut } = readDxf(dxf(['INSERT 2 LOOP'], { blocks: loop }));
    expect(leftOut.map(({ what }) => what)).toEqual(['block “LOOP” inside itself']);
  });
});

describe('layers, colours and units', () => {
  const layer = (name: string, colour: number, flags = 0) => `0\nLAYER\n2\n${name}\n70\n${flags}\n62\n${colour}\n`;

  it('colour by layer, by index and by 24 bits', () => {
    const tables = layer('Walls', 5);
    const { shapes } = readDxf(
      dxf(['CIRCLE 8 Walls 40 1', 'CIRCLE 8 Walls 62 3 10 5 40 1', 'CIRCLE 8 Walls 420 1193046 10 9 40 1'], { tables }),
    );
    expect(shapes.map(({ colour }) => colour)).toEqual(['#0000ff', '#00ff00', '#123456']);
  });

  it('leave out what is switched off, frozen, invisible or on paper, and say so', () => {
    const tables = layer('Off', -1) + layer('Frozen', 2, 1);
    const { shapes, leftOut } = readDxf(
      dxf(
        [
          'CIRCLE 40 1',
          'CIRCLE 8 Off 40 1',
          'CIRCLE 8 Frozen 40 1',
          'CIRCLE 60 1 40 1',
          'CIRCLE 67 1 40 1',
          'TEXT 1 Hi',
          'DIMENSION',
        ],
        { tables },
      ),
    );
    expect(shapes).toHaveLength(1);
    expect(leftOut.map(({ what }) => what)).toEqual([
      'entity on the switched-off layer “Off”',
      'entity on the switched-off layer “Frozen”',
      'invisible entity',
      'entity in paper space',
      'text',
      'dimension',
    ]);
  });

  it.each([
    [1, 25.4],
    [2, 304.8],
    [4, 1],
    [5, 10],
    [6, 1000],
    [0, null],
  ])('$INSUNITS %d', (code, mm) => {
    expect(readDxf(dxf(['CIRCLE 40 1'], { header: `9\n$INSUNITS\n70\n${code}\n` })).mmPerUnit).toBe(mm);
  });

  it('an extrusion of −z is seen from behind: x is mirrored (arbitrary axis algorithm)', () => {
    expect(box(only(read('CIRCLE 10 5 20 2 40 1 210 0 220 0 230 -1')))).toEqual([-6, -3, -4, -1]);
  });
});

describe('bad files', () => {
  it.each([
    ['AutoCAD Binary DXF\r\n\x1a\0', /binary DXF.*ASCII/],
    ['0\nSECTION\n2\nENTITIES\n0\nLINE\n10', /beyond line 7: the file ends/],
    ['0\nSECTION\n2\nENTITIES\n0\nLINE\nten\n5\n', /beyond line 8: “ten” is no group code/],
    [dxf([]), /no lines or outlines/],
    [dxf(['TEXT 1 Hi', 'LINE 10 1 20 1 11 1 21 1']), /1 × text; 1 × line of no length/],
    [dxf(['LINE 10 1e300 20 0 11 0 21 0', 'LINE 10 x 20 0 11 0 21 0']), /2 × line of no length or without coordinates/],
    [
      dxf(['CIRCLE 10 0 20 0 40 -1', 'LWPOLYLINE 90 0 70 1', 'SPLINE 71 3', 'HATCH 91 1 92 1 93 99 72 9']),
      /nothing|no lines/,
    ],
  ])('%#', (text, message) => {
    expect(() => readDxf(text)).toThrow(message);
  });

  it('coordinates of ten million are moved to the origin, and that is said', () => {
    const far = read(
      'LWPOLYLINE 90 4 70 1 10 10000000.125 20 20000000 10 10000002.125 20 20000000 10 10000002.125 20 20000002 10 10000000.125 20 20000002',
    );
    expect(area(only(far))).toBeCloseTo(4, 9);
    expect(far.warnings.map(({ code }) => code)).toEqual(['recentred']);
  });
});

describe('a drawing of very many lines', () => {
  const LINES = 20_001;
  const many = dxf(
    Array.from({ length: LINES }, (_, i) => {
      const [x, y] = [i % 200, Math.floor(i / 200)];
      return `LINE 8 L${i % 2} 10 ${x} 20 ${y} 11 ${x}.6 21 ${y}.3`;
    }),
  );

  it('is one shape a layer, told of while it is read', () => {
    const shares: number[] = [];
    const drawing = readDxf(many, (share) => shares.push(share));
    expect(drawing.shapes.map(({ group }) => group)).toEqual(['L0', 'L1']);
    expect(drawing.shapes.reduce((sum, { path }) => sum + path.length, 0)).toBe(2 * LINES);
    expect(drawing.warnings.map(({ code }) => code)).toEqual(['merged', 'hairline']);
    // A quarter of a line wide, not a four-hundredth of the sheet.
    expect(drawing.shapes[0]!.stroke!.width).toBeCloseTo(0.6 / 4, 9);
    expect(shares.length).toBeGreaterThan(8);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
  });

  it('stops when the report throws', () => {
    const stop = () => {
      throw new Error('enough');
    };
    expect(() => readDxf(many, stop)).toThrow('enough');
  });
});

describe('a drawing written and read again', () => {
  const shapes = [
    filledShape('plate', 'M0 0H40V30H0Z M5 5V25H35V5Z', '#ff0000'),
    filledShape('leaf', 'M60.1234567 3C71 4.5 72.25 19.75 61.3333333 30C50 20 50 10 60.1234567 3Z', '#0000ff'),
    strokedShape('line', 'M0 40L20 45L40 40', 1.5, '#00ff00'),
  ];
  const drawing = { sheet: { x: 0, y: 0, width: 80, height: 50 }, mmPerUnit: 25.4 };
  const groups = shapes.map((shape) => ({ name: `Layer ${shape.name}: ✓`, colour: shape.colour, shapes: [shape] }));
  const text = writeDxf({ ...drawing, groups });

  it('is the same geometry to a millionth, in the same unit, colours and layers', () => {
    const again = readDxf(text);
    expect(again.mmPerUnit).toBe(25.4);
    expect(again.shapes.map(({ colour }) => colour)).toEqual(shapes.map(({ colour }) => colour));
    expect(again.shapes[0]!.group).toBe('Layer plate- \\U+2713');
    const numbers = (path: Path) => path.flatMap((s) => s.slice(1) as number[]);
    // The hole and the leaf come back point for point.
    for (const [i, shape] of shapes.entries()) {
      const [before, after] = [new Set(numbers(shape.path)), numbers(again.shapes[i]!.path)];
      for (const v of after) expect(Math.min(...[...before].map((u) => Math.abs(u - v)))).toBeLessThan(1e-6);
      expect(area(again.shapes[i]!)).toBeCloseTo(
        area({ ...shape, ...(shape.stroke ? { stroke: again.shapes[i]!.stroke! } : {}) }),
        5,
      );
    }
    expect(again.shapes[2]!.stroke!.width).toBe(1.5);
  });

  it('stays the same from then on', () => {
    const once = readDxf(text);
    const rewritten = writeDxf({
      ...once,
      groups: once.shapes.map((shape) => ({ name: shape.group, colour: shape.colour, shapes: [shape] })),
    });
    const twice = readDxf(rewritten);
    expect(twice.shapes.map(({ path }) => path)).toEqual(once.shapes.map(({ path }) => path));
  });

  it('is what another parser reads', () => {
    const other = new DxfParser().parseSync(text)!;
    expect(other.header.$ACADVER).toBe('AC1015');
    expect(other.header.$INSUNITS).toBe(1);
    expect(other.entities.map(({ type }) => type)).toEqual(['LWPOLYLINE', 'LWPOLYLINE', 'SPLINE', 'LWPOLYLINE']);
    const [plate, , leaf, line] = other.entities as unknown as Record<string, unknown>[];
    expect(plate!.shape).toBe(true);
    expect((plate!.vertices as { x: number; y: number }[]).map(({ x, y }) => [x, y])).toEqual([
      [0, 0],
      [40, 0],
      [40, -30],
      [0, -30],
    ]);
    expect((leaf!.knotValues as number[]).length).toBe((leaf!.controlPoints as unknown[]).length + 4);
    expect(line!.width).toBe(1.5);
  });

  it('keeps curves of an SVG path through DXF', () => {
    const d = 'M0 0C0 5.5 4.5 10 10 10S20 5.5 20 0Z';
    const one = { ...filledShape('d', d), path: parsePath(d).path };
    const [shape] = readDxf(writeDxf({ ...drawing, groups: [{ name: 'a', colour: '#000000', shapes: [one] }] })).shapes;
    expect(shape!.path.filter(([letter]) => letter === 'C').length).toBe(3);
  });
});

describe('curves that cutters take', () => {
  const blob = filledShape('blob', 'M0 0C10 -14 30 -2 24 10C20 18 34 26 20 30C4 34 -8 12 0 0Z');
  const ring = filledShape('ring', 'M50 10A10 10 0 1 1 50 9.99Z');
  const sheet = { x: -10, y: -10, width: 80, height: 60 };
  const written = (as: 'splines' | 'arcs' | 'lines', tolerance = 0.01) =>
    writeDxf({
      groups: [{ name: 'cut', colour: '#000000', shapes: [blob, ring] }],
      sheet,
      mmPerUnit: 1,
      curves: { as, tolerance },
    });

  it('are polylines with bulges, or with lines alone, and no splines', () => {
    expect(written('splines')).toContain('SPLINE');
    const bulges = (as: 'arcs' | 'lines') => written(as).split('\r\n 42\r\n').length;
    expect(bulges('arcs')).toBeGreaterThan(bulges('lines') + 20);
    for (const as of ['arcs', 'lines'] as const) {
      expect(written(as)).not.toContain('SPLINE');
    }
  });

  it('hold the same areas within the tolerance along their length, by our reader and by another parser', () => {
    for (const as of ['arcs', 'lines'] as const) {
      const back = readDxf(written(as)).shapes;
      expect(Math.abs(area(back[0]!) - area(blob))).toBeLessThan(0.01 * 110);
      expect(Math.abs(area(back[1]!) - 100 * Math.PI)).toBeLessThan(0.01 * 63);
      const { entities } = new DxfParser().parseSync(written(as))!;
      expect(entities.map(({ type }) => type)).toEqual(['LWPOLYLINE', 'LWPOLYLINE']);
    }
  });

  it('take far fewer arcs than lines', () => {
    const corners = (as: 'arcs' | 'lines') =>
      [...written(as, 0.001).matchAll(/\r\n 90\r\n(\d+)/g)].reduce((sum, [, n]) => sum + Number(n), 0);
    expect(corners('arcs')).toBeLessThan(corners('lines') / 3);
  });
});

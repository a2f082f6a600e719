// outlines.ts — outlines to the bytes of a file, curves kept, layers as groups; and the read-back, as for meshes.
import type { Shape } from '../drawing.ts';
import { roughSize } from '../outline/corners.ts';
import { coverOf } from '../outline/cover.ts';
import { boundsOf, regionsArea, ringsOf } from '../outline/measure.ts';
import { regionsOf } from '../outline/regions.ts';
import { writeDxf } from './dxf/write.ts';
import { type ExportFile, type ReadBack, type ReadBackRow, row, textRow } from './export.ts';
import { writeSvg } from './svg/write.ts';
import { readVector } from './vector.ts';

export const OUTLINE_FORMATS = ['svg', 'dxf'] as const;
export type OutlineFormat = (typeof OUTLINE_FORMATS)[number];

/** One layer's outlines in project units, y down. */
export interface OutlineGroup {
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly shapes: readonly Shape[];
}

/** @param mmPerUnit millimetres in a project unit */
export function writeOutlines(groups: readonly OutlineGroup[], format: OutlineFormat, mmPerUnit: number): ExportFile {
  const bounds = boundsOf(groups.flatMap(({ shapes }) => ringsOf(shapes.flatMap((shape) => coverOf(shape, ROUGH)))));
  const { minX, minY, maxX, maxY } = bounds ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  const sheet = { x: minX, y: minY, width: maxX - minX, height: maxY - minY };
  const bytes = new TextEncoder().encode(
    format === 'svg' ? writeSvg({ groups, sheet, mmPerUnit }) : writeDxf({ groups, sheet, mmPerUnit }),
  );
  return { extension: format, mime: format === 'svg' ? 'image/svg+xml' : 'image/vnd.dxf', bytes };
}

/** Extremes of curves are kept by every flattening, so a coarse one gives bounds exactly. */
const ROUGH = 0.05;
/** Areas are compared by chords; both sides have the same ones up to rounding. */
const AREA_SHARE = 1e-4;
/** Coordinates are written to seven decimals of a unit. */
const LENGTH_SHARE = 1e-6;

/** Reads the file again and sets it beside the outlines it was made from. */
export function readBackOutlines(
  { bytes }: ExportFile,
  groups: readonly OutlineGroup[],
  format: OutlineFormat,
  mmPerUnit: number,
): ReadBack {
  const drawing = readVector(new TextDecoder().decode(bytes));
  // SVG's user unit is the CSS pixel, so lengths come back through their physical size.
  const scale = (drawing.mmPerUnit ?? mmPerUnit) / mmPerUnit;
  const [built, found] = [
    measured(
      groups.flatMap(({ shapes }) => shapes),
      1,
    ),
    measured(drawing.shapes, scale),
  ];
  const allowed = LENGTH_SHARE * Math.max(built.width, built.height);
  const rows: ReadBackRow[] = [
    row('outlines', built.contours, found.contours, 0),
    row('width', built.width, found.width, allowed),
    row('height', built.height, found.height, allowed),
    ...(format === 'svg' || groups.every(({ shapes }) => shapes.every(({ stroke }) => !stroke))
      ? [row('area', built.area, found.area, AREA_SHARE * built.area)]
      : []),
    row('layers', groups.length, new Set(drawing.shapes.map(({ group }) => group)).size, 0),
  ];
  if (format === 'svg') {
    const colours = (list: readonly Shape[]) => [...new Set(list.map(({ colour }) => colour))].join(' ');
    rows.push(textRow('colours', colours(groups.flatMap(({ shapes }) => shapes)), colours(drawing.shapes)));
  }
  return { rows, ok: rows.every((entry) => entry.same), bytes: bytes.length };
}

function measured(shapes: readonly Shape[], scale: number) {
  const size = roughSize(shapes.map(({ path }) => path));
  const regions = shapes.map((shape) => coverOf(shape, size / 5000));
  const bounds = boundsOf(regions.flatMap(ringsOf)) ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  return {
    contours: shapes.reduce((sum, { path }) => sum + path.filter(([letter]) => letter === 'M').length, 0),
    width: (bounds.maxX - bounds.minX) * scale,
    height: (bounds.maxY - bounds.minY) * scale,
    area: regionsArea(regionsOf(regions.flatMap(ringsOf), 'nonzero')) * scale * scale,
  };
}

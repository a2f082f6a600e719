// trace.ts — a prepared picture to a drawing of filled shapes or strokes, in pixels of its source.
import type { Warning } from '../base/errors.ts';
import { type Drawing, roundStroke, type Shape } from '../drawing.ts';
import { movedShape } from '../outline/cover.ts';
import type { Path } from '../path/types.ts';
import { hexOf } from '../picture/colour.ts';
import { greyOf, histogramOf } from '../picture/grey.ts';
import { otsu, setLevel } from '../picture/steps/threshold.ts';
import type { Grey, Prepared } from '../picture/types.ts';
import { traceCentrelines } from './centreline.ts';
import { traceFlats } from './flats.ts';
import { tracedInk } from './ink.ts';
import { piecesFrom } from './rings.ts';
import { type TraceSettings, UNDERLAY } from './settings.ts';

export interface Traced {
  readonly drawing: Drawing;
  /** What the picture's colours became, the lowest first, `#rrggbb`. */
  readonly colours: readonly string[];
  /** Lines and curves, and the points between them. */
  readonly curves: number;
  readonly points: number;
  /** Farthest that an edge of the picture lies from its curve, pixels of the source. */
  readonly stray: number;
}

/** What is traced in steps, for those who wait for it. @param share done, 0 … 1 */
export type Report = (share: number) => void;

/** More than this take long to build and are rarely wanted. */
const MANY = { pieces: 1000, curves: 6000 } as const;

export function trace(prepared: Prepared, settings: TraceSettings, report: Report = () => {}): Traced {
  const { picture, frame } = prepared;
  report(0);
  const found = foundIn(prepared, settings, report);
  report(1);
  const matrix = [frame.scale, 0, 0, frame.scale, frame.x, frame.y] as const;
  const shapes = found.shapes.map((shape): Shape => movedShape(shape, matrix));
  const warnings = [...found.warnings];
  if (shapes.length === 0 && settings.mode !== UNDERLAY) warnings.push(nothingIn(prepared, settings));
  if (shapes.length > MANY.pieces || found.curves > MANY.curves) {
    const message = `The trace has ${shapes.length} pieces of ${found.curves} lines and curves. Keep only larger ones (a higher Detail), soften the picture or take fewer colours before building them.`;
    warnings.push({ code: 'many', message });
  }
  return {
    drawing: {
      shapes,
      ground: found.ground,
      sheet: { x: frame.x, y: frame.y, width: picture.width * frame.scale, height: picture.height * frame.scale },
      mmPerUnit: null,
      leftOut: [],
      warnings,
    },
    colours: [...new Set(shapes.map(({ colour }) => colour))],
    curves: found.curves,
    points: shapes.reduce(
      (sum, { path }) => sum + path.filter(([letter]) => letter !== 'Z' && letter !== 'M').length,
      0,
    ),
    stray: found.stray * frame.scale,
  };
}

const NOTHING: Found = { shapes: [], ground: [], curves: 0, stray: 0, warnings: [] };

function foundIn(prepared: Prepared, settings: TraceSettings, report: Report): Found {
  if (settings.mode === UNDERLAY) return NOTHING;
  const isInk = settings.mode === 'ink' || settings.mode === 'centreline';
  return isInk ? inkShapes(prepared, settings, report) : flatShapes(prepared, settings, report);
}

interface Found {
  readonly shapes: readonly Shape[];
  readonly ground: readonly string[];
  readonly curves: number;
  readonly stray: number;
  readonly warnings: readonly Warning[];
}

/** Settings in pixels of the prepared picture. */
function inPixels({ frame }: Prepared, { detail, corner, smooth }: TraceSettings) {
  return {
    detail: detail / frame.scale ** 2,
    corner: (corner * Math.PI) / 180,
    smooth: smooth === null ? null : smooth / frame.scale,
  };
}

function inkShapes(prepared: Prepared, settings: TraceSettings, report: Report): Found {
  const grey = greyOf(prepared.picture, settings.ink);
  const level = levelOf(grey, prepared, settings);
  const limits = inPixels(prepared, settings);
  report(0.2);
  if (level === null) return NOTHING;
  const colour = inkColour(prepared, grey, level);
  if (settings.mode === 'centreline') {
    const strokes = traceCentrelines(grey, { level, ...limits });
    const shapes = strokes.map(({ path, width }, i) => ({ ...shapeOf(path, colour, i), stroke: roundStroke(width) }));
    return { shapes, ground: [], ...totals(strokes), warnings: [] };
  }
  const { outlines, dropped } = tracedInk(grey, {
    level,
    detail: limits.detail,
    cornerDeg: settings.corner,
    smooth: limits.smooth,
  });
  const shapes = piecesFrom(outlines).map(({ path }, i) => shapeOf(path, colour, i));
  const warnings: Warning[] = [];
  if (dropped > 0) {
    const message = `${dropped} ${dropped === 1 ? 'piece or hole' : 'pieces and holes'} under ${settings.detail} square pixels left out.`;
    warnings.push({ code: 'small', message });
  }
  return { shapes, ground: [], ...totals(outlines), warnings };
}

/** Null for a picture of one tone. */
function levelOf(grey: Grey, prepared: Prepared, { ink }: TraceSettings): number | null {
  const { between, level } = otsu(histogramOf(grey));
  // Two bins of 256 apart is what compression leaves of one tone.
  if (between < 1) return null;
  return setLevel(prepared, ink) ?? level;
}

/** The colour that ink has in its middle: each channel's median, which fringes do not move. */
function inkColour({ picture: { data } }: Prepared, { values }: Grey, level: number): string {
  const counts = [0, 1, 2].map(() => new Uint32Array(256));
  let total = 0;
  for (let i = 0; i < values.length; i++) {
    if (values[i]! >= level) continue;
    total++;
    for (let c = 0; c < 3; c++) counts[c]![data[4 * i + c]!]!++;
  }
  const middle = (bins: Uint32Array) => {
    let [bin, sum] = [0, bins[0]!];
    while (2 * sum < total) sum += bins[++bin]!;
    return bin;
  };
  return hexOf([middle(counts[0]!), middle(counts[1]!), middle(counts[2]!)]);
}

function flatShapes(prepared: Prepared, settings: TraceSettings, report: Report): Found {
  const { picture } = prepared;
  const isGrey = settings.mode === 'tones';
  const options = {
    ...inPixels(prepared, settings),
    isGrey,
    count: settings.count,
    picked: settings.picked,
    layering: settings.layering,
  };
  const { colours, network, seen, small } = traceFlats(picture, options, report);
  const warnings: Warning[] = [];
  // One colour all over is nothing to cut out.
  if (colours.length === 1 && colours[0]!.isGround) return { shapes: [], ground: [], curves: 0, stray: 0, warnings };
  const [one, many] = isGrey ? ['tone', 'tones'] : ['colour', 'colours'];
  if (seen - small > colours.length) {
    warnings.push({ code: 'merged', message: `${seen - small} ${many} merged into ${colours.length}.` });
  }
  if (small > 0) {
    const which = small === 1 ? `1 ${one} is` : `${small} ${many} are`;
    const message = `${which} only in pieces under ${settings.detail} square pixels and left out; a lower Detail keeps them.`;
    warnings.push({ code: 'small', message });
  }
  // What lies on others after what it lies on, and within a tier the larger first.
  const pieces = colours
    .flatMap(({ colour, pieces: own }) => own.map((piece) => ({ ...piece, colour })))
    .sort((a, b) => a.tier - b.tier || a.rank - b.rank || b.area - a.area);
  const shapes = pieces.map(({ path, colour }, i) => shapeOf(path, colour, i));
  const ground = shapes.filter((_, i) => pieces[i]!.isGround).map(({ id }) => id);
  return { shapes, ground, curves: network.pieces, stray: network.stray, warnings };
}

function shapeOf(path: Path, colour: string, index: number): Shape {
  return { id: `piece-${index}`, name: `Piece ${index}`, group: '', path, fillRule: 'evenodd', colour, opacity: 1 };
}

function totals(fits: readonly { readonly pieces: number; readonly stray: number }[]) {
  return {
    curves: fits.reduce((sum, { pieces }) => sum + pieces, 0),
    stray: fits.reduce((most, { stray }) => Math.max(most, stray), 0),
  };
}

function nothingIn({ picture }: Prepared, { detail }: TraceSettings): Warning {
  const { data } = picture;
  let [clear, differs] = [true, false];
  for (let p = 0; p < data.length; p += 4) {
    if (data[p + 3]! > 0) clear = false;
    for (let c = 0; c < 4; c++) if (Math.abs(data[p + c]! - data[c]!) > 2) differs = true;
  }
  const why = clear
    ? 'the picture is transparent all over'
    : differs
      ? `no piece is larger than ${detail} square pixels; keep smaller ones too (a lower Detail) or move the threshold`
      : 'the picture has one tone';
  return { code: 'nothing', message: `Nothing to trace: ${why}.` };
}

// trace-file.ts — one picture to one SVG of outlines, with its report.
import {
  GeometryError,
  groupsByLook,
  settingsFor,
  startFor,
  type TraceSettings,
  trace,
  unprepared,
  type Warning,
  writeSvg,
} from '../core/index.ts';
import { decodeAsset } from '../node/decode.ts';
import { Clock } from './clock.ts';
import { mustHaveShapes, readBytes, withPhysicalSize } from './read.ts';
import { writeBytes } from './write.ts';

export interface TraceTask {
  readonly kind: 'trace';
  readonly input: string;
  readonly output: string;
  /** What is left out follows from the picture. */
  readonly settings: Partial<TraceSettings>;
  /** Whether no step that would suit the picture is taken before. */
  readonly isAsItCame: boolean;
  /** Grey at which ink ends, 0 … 1, of the prepared picture; null finds it. */
  readonly level: number | null;
}

export interface TraceReport {
  readonly input: string;
  readonly output: string;
  readonly ok: boolean;
  readonly error?: { readonly code: string; readonly message: string };
  readonly mode: TraceSettings['mode'] | null;
  /** Lines and curves, and the points between them. */
  readonly counts: { readonly shapes: number; readonly curves: number; readonly points: number };
  readonly colours: readonly string[];
  /** Width and height of the picture, pixels. */
  readonly size: readonly [number, number];
  /** Farthest that an edge lies from its curve, pixels. */
  readonly stray: number;
  readonly warnings: readonly Warning[];
  readonly ms: Record<'read' | 'trace' | 'write' | 'total', number>;
}

/** Never throws: a failure is part of the report. */
export async function traceFile(task: TraceTask): Promise<TraceReport> {
  const clock = new Clock(['read', 'trace', 'write']);
  try {
    const decoded = await decodeAsset(readBytes(task.input));
    clock.lap('read');
    const { picture } = decoded;
    const start = task.isAsItCame
      ? { prepared: unprepared(picture), trace: settingsFor(picture), warnings: [] }
      : startFor(picture);
    const settings = { ...start.trace, ...task.settings };
    const { drawing, colours, curves, points, stray } = trace({ ...start.prepared, level: task.level }, settings);
    clock.lap('trace');
    const placed = withPhysicalSize(mustHaveShapes(drawing), decoded);
    writeBytes(task.output, writeSvg({ ...placed, groups: groupsByLook(placed.shapes) }, 4));
    clock.lap('write');
    return {
      input: task.input,
      output: task.output,
      ok: true,
      mode: settings.mode,
      counts: { shapes: drawing.shapes.length, curves, points },
      colours,
      size: [picture.width, picture.height],
      stray: Math.round(1000 * stray) / 1000,
      warnings: [...start.warnings, ...placed.warnings],
      ms: clock.times(),
    };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return failedTrace(task, code, error instanceof Error ? error.message : String(error), clock.times());
  }
}

const NO_TIME: TraceReport['ms'] = { read: 0, trace: 0, write: 0, total: 0 };

/** The report of a file that was not traced. */
export function failedTrace({ input, output }: TraceTask, code: string, message: string, ms = NO_TIME): TraceReport {
  return {
    input,
    output,
    ok: false,
    error: { code, message },
    mode: null,
    counts: { shapes: 0, curves: 0, points: 0 },
    colours: [],
    size: [0, 0],
    stray: 0,
    warnings: [],
    ms,
  };
}

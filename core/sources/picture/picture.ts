// picture.ts — pictures, prepared step by step and traced.
import { z } from 'zod';
import { GeometryError } from '../../base/errors.ts';
import { lowResolution, sniffPicture } from '../../picture/decode.ts';
import { prepare, StepSchema } from '../../picture/prepare.ts';
import { PICTURE_LIMITS, type Picture, type Prepared } from '../../picture/types.ts';
import { startSettings, TraceSchema } from '../../trace/settings.ts';
import { type Traced, trace } from '../../trace/trace.ts';
import { arrange } from '../arrange.ts';
import {
  AssetSchema,
  type OpenedPicture,
  type Report,
  SOURCE_BASE,
  SOURCE_LIMITS,
  type SourceKind,
  type Stages,
} from '../kind.ts';
import { named, PieceSchema } from './pieces.ts';

export const PictureSourceSchema = z.object({
  ...SOURCE_BASE,
  kind: z.literal('picture'),
  asset: AssetSchema,
  /** Of the picture as it came, upright, in pixels. */
  width: z.int().min(1).max(PICTURE_LIMITS.side),
  height: z.int().min(1).max(PICTURE_LIMITS.side),
  prepare: z.array(StepSchema).max(SOURCE_LIMITS.prepareSteps),
  trace: TraceSchema,
  pieces: z.array(PieceSchema).max(SOURCE_LIMITS.pieces),
});
export type PictureSource = z.infer<typeof PictureSourceSchema>;

/** `prepare` and `trace` may be given beforehand; what is not is made to suit the picture. */
type Origin = Pick<PictureSource, 'asset' | 'name'> & Partial<Pick<PictureSource, 'prepare' | 'trace'>>;

const MM_PER_INCH = 25.4;

export const picture = {
  kind: 'picture',
  schema: PictureSourceSchema,
  build: 'slab',
  file: {
    limit: () => PICTURE_LIMITS.bytes,
    plural: 'pictures',
    advice: 'Save it smaller first.',
    sniff: (head) => sniffPicture(head) !== null,
    open: ({ asset, name }) => ({ asset, name }),
  },
  assets: ({ asset }) => [asset],
  contentKey: ({ asset }) => asset,
  open: ({ asset, name }, reader) => reader.picture(asset, name),
  drawingKey: (source) => JSON.stringify([traceKey(source), source.pieces]),
  drawing: (source, content, stages, report) =>
    named(traced(source, () => content().picture, stages, report).drawing, source.pieces).drawing,
  isDrawn: (source, stages) => stages.has('trace', traceKey(source)),
  parts: () => [],
  arrive({ id, name, asset, prepare: steps = [], trace: wanted }, { picture: pixels, dpi }, stages, options, report) {
    const settings = { asset, prepare: steps, trace: wanted ?? startSettings(pixels) };
    const found = traced(settings, () => pixels, stages, report).drawing;
    const nothing = found.warnings.find(({ code }) => code === 'nothing');
    if (nothing) throw new GeometryError('nothing-to-build', nothing.message);
    const { drawing, pieces } = named({ ...found, mmPerUnit: dpi === null ? null : MM_PER_INCH / dpi }, []);
    const { placement, ...arranged } = arrange(drawing, options);
    const low = lowResolution(pixels);
    const { width, height } = pixels;
    return {
      ...arranged,
      source: { kind: 'picture', id, name, width, height, ...settings, ...placement, pieces: [...pieces], edits: [] },
      warnings: [...(low ? [{ code: 'low-resolution', message: low }] : []), ...found.warnings, ...arranged.warnings],
      leftOut: [],
    };
  },
} as const satisfies SourceKind<PictureSource, Origin, OpenedPicture>;

type Settings = Pick<PictureSource, 'asset' | 'prepare' | 'trace'>;

/** The picture as its steps leave it. */
export function prepared(
  { asset, prepare: steps }: Pick<Settings, 'asset' | 'prepare'>,
  pixels: () => Picture,
  stages: Stages,
  report?: Report,
): Prepared {
  return stages.get('prepared', JSON.stringify([asset, actionsOf(steps)]), () => prepare(pixels(), steps, report));
}

/** @param report is called only where there is something to wait for */
export function traced(settings: Settings, pixels: () => Picture, stages: Stages, report: Report = () => {}): Traced {
  return stages.get('trace', traceKey(settings), () =>
    trace(
      prepared(settings, pixels, stages, (share) => report(share / 2)),
      settings.trace,
      (share) => report(0.5 + share / 2),
    ),
  );
}

const traceKey = ({ asset, prepare: steps, trace: settings }: Settings) =>
  JSON.stringify([asset, actionsOf(steps), settings]);

const actionsOf = (steps: Settings['prepare']) => steps.flatMap(({ on, action }) => (on ? [action] : []));

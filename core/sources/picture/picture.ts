// picture.ts — pictures, prepared step by step and traced.
import { z } from 'zod';
import { AssetSchema } from '../../base/assets.ts';
import { sniffPicture } from '../../picture/decode.ts';
import { StepSchema } from '../../picture/prepare.ts';
import { PICTURE_LIMITS } from '../../picture/types.ts';
import { TraceSchema } from '../../trace/settings.ts';
import { SOURCE_BASE, SOURCE_LIMITS, type SourceKind } from '../kind.ts';
import { PieceSchema } from './pieces.ts';

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
export type Origin = Pick<PictureSource, 'asset' | 'name'> & Partial<Pick<PictureSource, 'prepare' | 'trace'>>;

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
  drawingKey: (source) => JSON.stringify([traceKey(source), source.pieces]),
} as const satisfies SourceKind<PictureSource, Origin>;

export type Settings = Pick<PictureSource, 'asset' | 'prepare' | 'trace'>;

/** Equal keys, equal traces. */
export const traceKey = ({ asset, prepare: steps, trace: settings }: Settings) =>
  JSON.stringify([asset, actionsOf(steps), settings]);

export const actionsOf = (steps: Settings['prepare']) => steps.flatMap(({ on, action }) => (on ? [action] : []));

// open.ts — pictures decoded, prepared step by step, and traced.
import { GeometryError } from '../../base/errors.ts';
import { lowResolution } from '../../picture/decode.ts';
import { prepare } from '../../picture/prepare.ts';
import type { Picture, Prepared } from '../../picture/types.ts';
import { startSettings } from '../../trace/settings.ts';
import { type Traced, trace } from '../../trace/trace.ts';
import { arrange } from '../arrange.ts';
import type { OpenedPicture, Opener, Report, Stages } from '../kind.ts';
import { actionsOf, type Origin, type PictureSource, type Settings, traceKey } from './picture.ts';
import { named } from './pieces.ts';

const MM_PER_INCH = 25.4;

export const pictureOpener = {
  kind: 'picture',
  open: ({ asset, name }, reader) => reader.picture(asset, name),
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
} as const satisfies Opener<PictureSource, Origin, OpenedPicture>;

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

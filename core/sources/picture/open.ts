// open.ts — pictures decoded, prepared step by step, and traced.
import { GeometryError } from '../../base/errors.ts';
import { lowResolution } from '../../picture/decode.ts';
import { prepare } from '../../picture/prepare.ts';
import type { Picture, Prepared } from '../../picture/types.ts';
import { type Look, lookAt } from '../../trace/look.ts';
import { settingsFor, startFor } from '../../trace/start.ts';
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
  arrive({ id, name, asset, prepare: steps, trace: wanted }, { picture: pixels, dpi }, stages, options, report) {
    // Steps that someone has chosen are all there are.
    const start = steps ? null : startFor(pixels);
    const chosen = start?.prepare ?? steps!;
    const { picture: ready } = stages.get('prepared', preparedKey({ asset, prepare: chosen }), () =>
      start ? start.prepared : prepare(pixels, chosen, report),
    );
    if (start) stages.get('look', asset, () => start.look);
    const settings = { asset, prepare: chosen, trace: wanted ?? start?.trace ?? settingsFor(ready) };
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
      warnings: [
        ...(low ? [{ code: 'low-resolution', message: low }] : []),
        ...(start?.warnings ?? []),
        ...found.warnings,
        ...arranged.warnings,
      ],
      leftOut: [],
    };
  },
} as const satisfies Opener<PictureSource, Origin, OpenedPicture>;

/** The picture as its steps leave it. */
export function prepared(
  settings: Pick<Settings, 'asset' | 'prepare'>,
  pixels: () => Picture,
  stages: Stages,
  report?: Report,
): Prepared {
  return stages.get('prepared', preparedKey(settings), () => prepare(pixels(), settings.prepare, report));
}

const preparedKey = ({ asset, prepare: steps }: Pick<Settings, 'asset' | 'prepare'>) =>
  JSON.stringify([asset, actionsOf(steps)]);

/** What the picture is like as it came. */
export const lookOf = ({ asset }: Pick<Settings, 'asset'>, pixels: () => Picture, stages: Stages): Look =>
  stages.get('look', asset, () => lookAt(pixels()));

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

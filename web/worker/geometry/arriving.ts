// arriving.ts — files and texts brought in, and sources whose settings changed, with the layers that follow.
import {
  type Arrival,
  BUNDLED_FONTS,
  changeEdits,
  type EditedSource,
  type FontChoice,
  GeometryError,
  type Lettering,
  layLetters,
  type PictureSource,
  type Project,
  type Retraced,
  retrace,
  type Source,
  type Traced,
  textName,
  type Warning,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { reader } from './reader.ts';
import { evaluator, heeding, type Report, wishesFor, withSource } from './state.ts';

export interface TraceStats {
  readonly pieces: number;
  readonly colours: readonly string[];
  /** Lines and curves, and the points between them. */
  readonly curves: number;
  readonly points: number;
  /** Pixels of the source. */
  readonly stray: number;
  readonly warnings: readonly Warning[];
}

function statsOf({ drawing, colours, curves, points, stray }: Traced): TraceStats {
  return { pieces: drawing.shapes.length, colours, curves, points, stray, warnings: drawing.warnings };
}

/** A source that is not in the document, or not yet, opened. */
async function opened<S extends Source>(source: S): Promise<S> {
  await evaluator.open(source, reader);
  return source;
}

export const arriving = {
  /** Reads a file that was uploaded as `asset` and arranges it for `project`. @param head its first bytes */
  bringIn(
    file: { readonly asset: string; readonly name: string; readonly head: Uint8Array },
    project: Project,
    report: Report,
  ): Promise<Outcome<Arrival>> {
    const named = { ...file, id: crypto.randomUUID(), name: file.name.trim().slice(0, 120) || 'File' };
    return attempt(() =>
      evaluator.bringIn(named, reader, { ...wishesFor(project), keepsGroups: true }, heeding(report)),
    );
  },

  /**
   * A picture traced with other settings, or from another file when `source.asset` is a new one.
   * @param report called while it goes on with the share done
   */
  retrace(
    project: Project,
    source: PictureSource,
    report: Report,
  ): Promise<Outcome<Retraced & { readonly stats: TraceStats }>> {
    return attempt(async () => {
      const { width, height } = await evaluator.openPicture(source, reader);
      const sized = await opened({ ...source, width, height });
      const traced = evaluator.traced(sized, heeding(report));
      return { ...retrace(project, sized, traced, wishesFor(project)), stats: statsOf(traced) };
    });
  },

  /** What the trace of a picture came to. */
  traceStats(source: PictureSource): Promise<Outcome<TraceStats>> {
    return attempt(async () => statsOf(evaluator.traced(await opened(source))));
  },

  /** A text set, in another font where its own does not have its letters, and arranged for `project`. */
  bringInText(wanted: Lettering, project: Project): Promise<Outcome<Arrival>> {
    return attempt(async () => {
      const lettering = await inFittingFont(wanted);
      const origin = { id: crypto.randomUUID(), name: textName(lettering.text), lettering };
      return evaluator.begin('lettering', origin, reader, wishesFor(project));
    });
  },

  /** A text set otherwise, its edits made again, and its layers as they follow. */
  reletter(project: Project, id: string, lettering: Lettering): Promise<Outcome<EditedSource>> {
    return attempt(() =>
      withSource(project, id, async (source) => {
        if (source.kind !== 'lettering') throw new GeometryError('unknown-id', `“${source.name}” is not a text.`);
        const next = await opened({ ...source, lettering, name: textName(lettering.text) });
        const [before, after] = [evaluator.drawing(source), evaluator.drawing(next)];
        const target = project.layers.find((layer) => layer.source === id)?.id ?? null;
        return changeEdits(project, next, next.edits, before, after, wishesFor(project), target);
      }),
    );
  },
};

/** The text in its font, or in the first bundled one that has all its letters. */
async function inFittingFont(wanted: Lettering): Promise<Lettering> {
  const fonts: FontChoice[] = [wanted.font, ...BUNDLED_FONTS.map((name) => ({ from: 'bundle', name }) as const)];
  for (const font of fonts) {
    const { warnings } = layLetters(wanted, await reader.fonts(font));
    if (!warnings.some(({ code }) => code === 'missing-letters')) return { ...wanted, font };
  }
  return wanted;
}

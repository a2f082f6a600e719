// DifferenceFigure.tsx — how far picture and outlines disagree, in words, in a corner of the view that shows where.
import type { PictureSource } from '../../core/index.ts';
import { formatCount, formatNumber } from '../format.ts';
import { useDifference } from '../store/picture-views.ts';
import { useDocument } from '../store/project.ts';
import { useSourceView } from '../store/source-view.ts';

interface DifferenceFigureProps {
  source: PictureSource;
  /** Ids of the shapes that are compared; all that are kept where it is left out. */
  only?: readonly string[] | null;
}

export function DifferenceFigure({ source, only = null }: DifferenceFigureProps) {
  const document = useDocument();
  const isShown = useSourceView((state) => state.difference);
  const view = useDifference(document, source, isShown, only);
  if (!view) return null;
  const share = (v: number) => `${formatNumber(Number(((100 * v) / Math.max(1, view.drawn)).toPrecision(3)))} %`;
  return (
    <p
      className="pointer-events-none absolute right-14 bottom-3 left-14 mx-auto w-fit rounded-edge border border-rule bg-sheet px-3 py-2 text-sm"
      data-difference
    >
      Picture and outlines disagree on <b className="figure">{share(view.missing + view.added)}</b> of what is drawn:{' '}
      <Key colour="#c43c24" /> <span className="figure">{formatCount(view.missing)} px</span> missing,{' '}
      <Key colour="#187896" /> <span className="figure">{formatCount(view.added)} px</span> added.
    </p>
  );
}

/** As it is marked in the view. */
const Key = ({ colour }: { colour: string }) => (
  <span aria-hidden className="inline-block size-3 border border-rule align-baseline" style={{ background: colour }} />
);

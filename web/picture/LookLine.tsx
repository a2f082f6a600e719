// LookLine.tsx — what a picture is like, in one line under it, with advice where it matters.
import type { PictureSource } from '../../core/index.ts';
import { countOf, formatCount, formatNumber } from '../format.ts';
import { usePictureLook } from '../store/picture-views.ts';
import type { PictureLook } from '../worker/geometry/pictures.ts';

export function LookLine({ source }: { source: PictureSource }) {
  const look = usePictureLook(source);
  if (!look) return null;
  return (
    <div
      className="pointer-events-none absolute right-14 bottom-3 left-14 mx-auto w-fit rounded-edge border border-rule bg-sheet px-3 py-1.5 text-center text-sm"
      data-look
    >
      <p>{lookWords(source, look)}</p>
      {look.advice && <p className="text-ember">{look.advice}</p>}
    </div>
  );
}

/** “1 024 × 768 px · 7 flat colours · edges 1.4 px wide · noise of 2.1 in 255 · blocks of JPEG · light falls off to 40 %” */
export function lookWords(
  { width, height }: Pick<PictureSource, 'width' | 'height'>,
  { colours, edge, noise, hasBlocks, shading }: Omit<PictureLook, 'advice'>,
): string {
  return [
    `${formatCount(width)} × ${formatCount(height)} px`,
    colours === 0 ? 'no flat colour' : countOf(colours, 'flat colour'),
    edge === null ? 'no edges' : `edges ${formatNumber(tenths(edge))} px wide`,
    tenths(noise) > 0 ? `noise of ${formatNumber(tenths(noise))} in 255` : 'no noise',
    ...(hasBlocks ? ['blocks of JPEG'] : []),
    ...(shading < 1 ? [`light falls off to ${Math.round(100 * shading)} %`] : []),
  ].join(' · ');
}

const tenths = (v: number) => Math.round(10 * v) / 10;

// Underlay.tsx — the picture that outlines were traced from, faded, beneath them; and over them where the two disagree.
import type { CSSProperties } from 'react';
import type { PictureSource } from '../../core/index.ts';
import { Bitmap } from '../picture/Bitmap.tsx';
import { DifferenceFigure } from '../picture/DifferenceFigure.tsx';
import { drawnShapes } from '../store/drawing.ts';
import { useOutline } from '../store/outline.ts';
import { useDifference, usePictureView } from '../store/picture-views.ts';
import { useDocument } from '../store/project.ts';
import { useSourceView } from '../store/source-view.ts';
import type { PictureView } from '../worker/geometry/pictures.ts';
import type { FlatEye } from './eye.ts';

interface UnderlayProps {
  source: PictureSource;
  frame: FlatEye['frame'];
  /** User units in a pixel of the screen. */
  pixel: number;
}

export function Underlay({ source, frame, pixel }: UnderlayProps) {
  const strength = useSourceView((state) => state.strength);
  const view = usePictureView(source, source.prepare.length);
  if (!view) return null;
  return (
    <Bitmap
      bitmap={view.bitmap}
      style={{ ...placed(view, frame, pixel), opacity: strength }}
      label="The picture beneath"
    />
  );
}

/** With the pen in hand it is the drawing alone that is compared. */
export function Overlay({ source, frame, pixel }: UnderlayProps) {
  const document = useDocument();
  const isWanted = useSourceView((state) => state.difference);
  const isPen = useOutline(({ tool }) => tool === 'draw');
  const drawn = drawnShapes(source);
  const only = isPen && drawn.length > 0 ? drawn : null;
  const view = useDifference(document, source, isWanted, only);
  if (!view) return null;
  return (
    <>
      <Bitmap bitmap={view.bitmap} style={placed(view, frame, pixel)} label="Where picture and outlines disagree" />
      <DifferenceFigure source={source} only={only} />
    </>
  );
}

function placed(
  { frame: of, width, height }: Pick<PictureView, 'frame' | 'width' | 'height'>,
  frame: FlatEye['frame'],
  pixel: number,
): CSSProperties {
  return {
    left: (of.x - frame.x) / pixel,
    top: (of.y - frame.y) / pixel,
    width: (width * of.scale) / pixel,
    height: (height * of.scale) / pixel,
  };
}

// AreaFrame.tsx — the rectangle of a step on the picture: dragged anew, moved, or pulled at its corners.
import { type PointerEvent, useRef } from 'react';
import type { PictureSource, Step } from '../../core/index.ts';
import { changePicture } from '../store/picture.ts';
import type { Place } from '../store/source-view.ts';

interface AreaFrameProps {
  source: PictureSource;
  step: Step;
  /** The picture that the step is applied to, in pixels of the source. */
  whole: { x: number; y: number; width: number; height: number };
  viewBox: string;
  /** Pixels of the source in one of the screen. */
  pixel: number;
  placeAt: (event: { clientX: number; clientY: number }) => Place;
}

/** Corners are taken from this many screen pixels away. */
const GRIP = 12;

export function AreaFrame({ source, step, whole, viewBox, pixel, placeAt }: AreaFrameProps) {
  const drag = useRef<{ fixed: Place; offset: Place | null; gesture: string } | null>(null);
  const { action } = step;
  if (action.do !== 'crop' && action.do !== 'part') return null;
  const { area } = action;
  const box = {
    x: whole.x + area.x * whole.width,
    y: whole.y + area.y * whole.height,
    width: area.width * whole.width,
    height: area.height * whole.height,
  };
  const corners = [0, 1, 2, 3].map((i) => ({
    x: box.x + (i === 1 || i === 2 ? box.width : 0),
    y: box.y + (i >= 2 ? box.height : 0),
  }));

  const begin = (event: PointerEvent<SVGSVGElement>) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = placeAt(event);
    const gesture = `area ${performance.now()}`;
    const near = corners.findIndex((corner) => Math.hypot(corner.x - at.x, corner.y - at.y) < GRIP * pixel);
    const isInside = at.x > box.x && at.y > box.y && at.x < box.x + box.width && at.y < box.y + box.height;
    if (near >= 0) drag.current = { fixed: corners[(near + 2) % 4]!, offset: null, gesture };
    else if (isInside) drag.current = { fixed: at, offset: { x: at.x - box.x, y: at.y - box.y }, gesture };
    else drag.current = { fixed: at, offset: null, gesture };
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const current = drag.current;
    if (!current) return;
    event.stopPropagation();
    const at = placeAt(event);
    const ratio = action.do === 'crop' ? action.ratio : null;
    const next = current.offset ? shifted(at, current.offset) : spanned(current.fixed, at, ratio);
    const share = (v: number, from: number, length: number) => Math.min(1, Math.max(0, (v - from) / length));
    const [x, y] = [share(next.x, whole.x, whole.width), share(next.y, whole.y, whole.height)];
    const wide = share(next.x + next.width, whole.x, whole.width) - x;
    const high = share(next.y + next.height, whole.y, whole.height) - y;
    if (wide < 0.005 || high < 0.005) return;
    const changed = { ...action, area: { x, y, width: wide, height: high } };
    const prepare = source.prepare.map((other) => (other.id === step.id ? { ...step, action: changed } : other));
    changePicture(source.id, { prepare }, current.gesture);
  };
  const shifted = (at: Place, offset: Place) => ({
    x: Math.min(whole.x + whole.width - box.width, Math.max(whole.x, at.x - offset.x)),
    y: Math.min(whole.y + whole.height - box.height, Math.max(whole.y, at.y - offset.y)),
    width: box.width,
    height: box.height,
  });

  const dark = `M${whole.x} ${whole.y}h${whole.width}v${whole.height}h${-whole.width}ZM${box.x} ${box.y}v${box.height}h${box.width}v${-box.height}Z`;
  return (
    <svg
      className="absolute inset-0 size-full"
      viewBox={viewBox}
      role="img"
      aria-label={action.do === 'crop' ? 'Frame of the crop' : 'Region of the part'}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={() => {
        drag.current = null;
      }}
    >
      <path d={dark} className="fill-ink/45" />
      <rect {...box} fill="transparent" className="cursor-move stroke-tide" strokeWidth={1.5 * pixel} />
      {corners.map(({ x, y }) => (
        <rect
          key={`${x} ${y}`}
          x={x - 4.5 * pixel}
          y={y - 4.5 * pixel}
          width={9 * pixel}
          height={9 * pixel}
          className="cursor-pointer fill-sheet stroke-tide"
          strokeWidth={1.5 * pixel}
        />
      ))}
    </svg>
  );
}

/** From a fixed corner to the pointer, in the given shape. */
function spanned(fixed: Place, at: Place, ratio: number | null) {
  let [width, height] = [Math.abs(at.x - fixed.x), Math.abs(at.y - fixed.y)];
  if (ratio !== null) [width, height] = [Math.max(width, height * ratio), Math.max(width / ratio, height)];
  return {
    x: at.x < fixed.x ? fixed.x - width : fixed.x,
    y: at.y < fixed.y ? fixed.y - height : fixed.y,
    width,
    height,
  };
}

// Loupe.tsx — the pixels under the pointer, eight times as large, with the trace over them.
import { useEffect, useRef } from 'react';
import type { Place } from '../store/source-view.ts';
import type { PictureView } from '../worker/geometry/pictures.ts';

const SIZE = 176;
const ZOOM = 8;

export function Loupe({ at, view: { bitmap, fine, frame } }: { at: Place; view: PictureView }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const span = SIZE / ZOOM;
  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    context.imageSmoothingEnabled = false;
    context.clearRect(0, 0, SIZE, SIZE);
    const size = span / frame.scale;
    const [x, y] = [(at.x - frame.x) / frame.scale - size / 2, (at.y - frame.y) / frame.scale - size / 2];
    context.drawImage(fine ?? bitmap, x, y, size, size, 0, 0, SIZE, SIZE);
  }, [at, bitmap, fine, frame, span]);
  return (
    <div
      className="pointer-events-none absolute bottom-4 left-4 z-10 overflow-hidden rounded-edge border-2 border-ink bg-sheet"
      style={{ width: SIZE, height: SIZE }}
    >
      <canvas ref={canvas} width={SIZE} height={SIZE} role="img" aria-label="Loupe" />
      <svg className="absolute inset-0" viewBox={`${at.x - span / 2} ${at.y - span / 2} ${span} ${span}`} aria-hidden>
        <g fillOpacity={0}>
          <use href="#traced" className="[&_path]:fill-none" />
        </g>
        <path
          d={`M${at.x - 1} ${at.y}h2M${at.x} ${at.y - 1}v2`}
          className="stroke-ember"
          strokeWidth={0.15}
          fill="none"
        />
      </svg>
    </div>
  );
}

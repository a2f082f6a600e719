// SplitHandle.tsx — the line between two halves of a view, dragged or moved by the arrow keys.
import { type PointerEvent, useRef } from 'react';

interface SplitHandleProps {
  label: string;
  /** Share of the view on the left, 0 … 1. */
  share: number;
  onChange: (share: number) => void;
}

const STEP = 0.05;

export function SplitHandle({ label, share, onChange }: SplitHandleProps) {
  const line = useRef<HTMLDivElement>(null);
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    event.stopPropagation();
    const box = line.current!.parentElement!.getBoundingClientRect();
    onChange((event.clientX - box.left) / box.width);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: an <hr> cannot be dragged or take keys
    <div
      ref={line}
      role="separator"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Math.round(share * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-orientation="vertical"
      className="absolute inset-y-0 z-10 flex w-6 cursor-col-resize touch-none items-center justify-center"
      style={{ left: `clamp(0px, calc(${share * 100}% - 12px), calc(100% - 24px))` }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={move}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') onChange(share - STEP);
        if (event.key === 'ArrowRight') onChange(share + STEP);
      }}
    >
      {share > 0 && share < 1 && <div className="absolute inset-y-0 w-px bg-ink" />}
      <div className="h-10 w-2 rounded-edge border border-ink/60 bg-sheet" />
    </div>
  );
}

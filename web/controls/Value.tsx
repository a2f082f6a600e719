// Value.tsx — a number that is part of a sentence: typed, dragged sideways, or stepped by the arrow keys.
import { useRef, useState } from 'react';
import { feetAndInches, parseMeasure, UNITS } from '../../core/index.ts';
import { formatNumber } from '../format.ts';

export interface ValueProps {
  /** What the number is, for those who cannot see the sentence. */
  label: string;
  value: number;
  /** @param gesture the same for all changes of one drag; null for a change by itself */
  onChange: (value: number, gesture: string | null) => void;
  /** Shown behind the number. A unit of length may also be typed, and is converted. */
  unit?: string;
  min?: number;
  max?: number;
  /** Change per arrow key and per few pixels of a drag. */
  step?: number;
  /** A value that means something, marked on a scale under the number. */
  mark?: number;
}

const PIXELS_PER_STEP = 4;
const DRAG_FROM = 3;

export function Value({ label, value, onChange, unit = '', min = 0, max = 1e6, step = 0.1, mark }: ValueProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const drag = useRef<{ x: number; from: number; gesture: string; moved: boolean } | null>(null);
  const clamped = (v: number) => Number(Math.min(max, Math.max(min, v)).toPrecision(8));
  const isFeet = unit === 'ft';
  const shown = draft ?? (isFeet ? feetAndInches(value) : formatNumber(value));

  const commit = () => {
    const typed = draft === null ? null : parseTyped(draft, unit);
    setDraft(null);
    if (typed !== null && clamped(typed) !== value) onChange(clamped(typed), null);
  };
  const nudge = (steps: number) => {
    setDraft(null);
    onChange(clamped(Math.round((value + steps * step) / step) * step), null);
  };

  return (
    <span className="whitespace-nowrap">
      <span className="relative inline-block">
        <input
          ref={input}
          role="spinbutton"
          aria-label={label}
          aria-valuenow={value}
          aria-valuemin={min}
          aria-valuemax={max}
          inputMode="decimal"
          value={shown}
          data-draft={draft ?? undefined}
          style={{ width: `${Math.max(2, shown.length) + 0.6}ch` }}
          className="figure cursor-ew-resize rounded-edge border-tide border-b bg-wash px-0.5 text-center text-tide leading-5 focus:cursor-text focus:bg-sheet"
          onChange={(event) => setDraft(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={commit}
          onKeyDown={(event) => {
            const times = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
            if (event.key === 'Enter') commit();
            else if (event.key === 'Escape') setDraft(null);
            else if (event.key === 'ArrowUp') nudge(times);
            else if (event.key === 'ArrowDown') nudge(-times);
            else return;
            event.preventDefault();
            event.stopPropagation();
          }}
          onPointerDown={(event) => {
            if (document.activeElement === input.current) return;
            event.preventDefault();
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, from: value, gesture: `${label} ${performance.now()}`, moved: false };
          }}
          onPointerMove={(event) => {
            const current = drag.current;
            if (!current) return;
            const distance = event.clientX - current.x;
            current.moved ||= Math.abs(distance) > DRAG_FROM;
            if (!current.moved) return;
            const scale = event.shiftKey ? 0.1 : 1;
            const next = clamped(
              Math.round((current.from + (distance / PIXELS_PER_STEP) * step * scale) / (step * scale)) * step * scale,
            );
            if (next !== value) onChange(next, current.gesture);
          }}
          onPointerUp={() => {
            if (drag.current && !drag.current.moved) input.current?.focus();
            drag.current = null;
          }}
          onPointerCancel={() => {
            drag.current = null;
          }}
        />
        {mark !== undefined && mark > 0 && <MarkScale share={value / mark} />}
      </span>
      {unit && !isFeet && <span className="figure ml-1 text-quiet">{unit}</span>}
    </span>
  );
}

/** Where the mark stands on its scale. */
const MARK_AT = 0.6;

/** @param share of the mark that the value is */
function MarkScale({ share }: { share: number }) {
  return (
    <span aria-hidden className="pointer-events-none absolute right-0 -bottom-1.5 left-0 block h-1">
      <span className="absolute top-px right-0 left-0 block h-px bg-rule" />
      <span
        className="absolute top-0 left-0 block h-[3px] bg-tide"
        style={{ width: `${100 * Math.min(1, share * MARK_AT)}%` }}
      />
      <span className="absolute -top-0.5 block h-[7px] w-px bg-ink" style={{ left: `${100 * MARK_AT}%` }} />
    </span>
  );
}

/** A number, perhaps with a unit of its own; null when it is neither. A comma counts as a decimal point. */
function parseTyped(text: string, unit: string): number | null {
  const target = UNITS.find((known) => known === unit);
  if (target) return parseMeasure(text, target);
  const match = /^\s*([+-]?(?:\d+[.,]?\d*|[.,]\d+))\s*%?°?\s*$/.exec(text);
  return match ? Number(match[1]!.replace(',', '.')) : null;
}

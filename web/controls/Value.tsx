// Value.tsx — a number that is part of a sentence: typed, also as a sum or a share, dragged sideways, or stepped by the arrow keys.
import { useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { calculate, feetAndInches, UNITS } from '../../core/index.ts';
import { exactNumber, formatNumber } from '../format.ts';
import { MIXED } from './shared.ts';

export interface ValueProps {
  /** What the number is, for those who cannot see the sentence. */
  label: string;
  value: number;
  /** Whether it stands for several that differ: what is typed then goes to all of them, also what it happens to be. */
  isMixed?: boolean;
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
  /** What 100 % is, where a share may be typed. */
  whole?: number;
  /** Values that may be called by a word in what is typed. */
  words?: Readonly<Record<string, number>>;
}

const PIXELS_PER_STEP = 4;
const DRAG_FROM = 3;
/** Room for a refusal beside the left end of the field. */
const REFUSAL_PX = 240;

export function Value(props: ValueProps) {
  const {
    label,
    value,
    isMixed = false,
    onChange,
    unit = '',
    min = 0,
    max = 1e6,
    step = 0.1,
    mark,
    whole,
    words,
  } = props;
  const [draft, setDraft] = useState<string | null>(null);
  /** Why what is typed was not taken; said to the left where there is no room to the right. */
  const [refusal, setRefusal] = useState<{ message: string; isLeft: boolean } | null>(null);
  const refusalId = useId();
  const input = useRef<HTMLInputElement>(null);
  const drag = useRef<{ x: number; from: number; gesture: string; moved: boolean } | null>(null);
  const clamped = (v: number) => Number(Math.min(max, Math.max(min, v)).toPrecision(8));
  const isFeet = unit === 'ft';
  const [isFocused, setFocused] = useState(false);
  // What is changed is shown as it is kept; beside it numbers are read, with no more digits than mean something.
  const number = isFocused ? exactNumber(value) : formatNumber(value);
  const shown = draft ?? (isMixed ? MIXED : isFeet ? feetAndInches(value) : number);

  const forget = () => {
    setDraft(null);
    setRefusal(null);
  };
  /** @returns whether there is nothing left to be taken */
  const commit = (): boolean => {
    if (draft === null) return true;
    const length = UNITS.find((known) => known === unit) ?? null;
    const answer = calculate(draft, { unit: length, whole: unit === '%' ? undefined : (whole ?? null), words });
    if (!answer.ok) {
      const isLeft = input.current!.getBoundingClientRect().left + REFUSAL_PX > window.innerWidth;
      setRefusal({ message: answer.message, isLeft });
      return false;
    }
    forget();
    if (isMixed || clamped(answer.value) !== value) onChange(clamped(answer.value), null);
    return true;
  };
  const nudge = (steps: number) => {
    forget();
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
          aria-valuetext={isMixed ? MIXED : undefined}
          aria-valuemin={min}
          aria-valuemax={max}
          inputMode="decimal"
          value={shown}
          data-draft={draft ?? undefined}
          style={{ width: `max(24px, ${shown.length + 0.6}ch)` }}
          className="figure cursor-ew-resize rounded-edge border-tide border-b bg-wash px-0.5 text-center text-tide leading-[23px] focus:cursor-text focus:bg-sheet"
          aria-invalid={refusal !== null}
          aria-describedby={refusal === null ? undefined : refusalId}
          onChange={(event) => {
            setDraft(event.target.value);
            setRefusal(null);
          }}
          onFocus={({ target }) => {
            flushSync(() => setFocused(true));
            target.select();
          }}
          onBlur={() => {
            setFocused(false);
            commit();
          }}
          onKeyDown={(event) => {
            const times = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
            // What was typed is taken or forgotten before the field is left, which would take it once more.
            if (event.key === 'Enter') {
              if (flushSync(commit)) event.currentTarget.blur();
            } else if (event.key === 'Escape') {
              flushSync(forget);
              event.currentTarget.blur();
            } else if (event.key === 'ArrowUp') nudge(times);
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
            if (isMixed || next !== value) onChange(next, current.gesture);
          }}
          onPointerUp={() => {
            if (drag.current && !drag.current.moved) input.current?.focus();
            drag.current = null;
          }}
          onPointerCancel={() => {
            drag.current = null;
          }}
        />
        {refusal !== null && (
          <span
            id={refusalId}
            role="alert"
            className={`absolute top-full z-20 mt-1 w-max max-w-56 whitespace-normal rounded-edge border border-ember bg-sheet px-2 py-1 text-left text-ember text-sm ${refusal.isLeft ? 'right-0' : 'left-0'}`}
          >
            {refusal.message}
          </span>
        )}
        {mark !== undefined && mark > 0 && !isMixed && <MarkScale share={value / mark} />}
      </span>
      {unit && !(isFeet && !isMixed) && <span className="figure ml-1 text-quiet">{unit}</span>}
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

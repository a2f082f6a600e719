// Tips.tsx — names of bare icons, with their keys, shown on hover and on focus. One of them is on the page at a time, above all else,
// so that no panel cuts it off.
import { useEffect, useState } from 'react';

/** What a control says of itself: spread onto it. @param keys as people write them */
export const tip = (label: string, keys?: string) => ({
  'data-tip': label,
  ...(keys ? { 'data-tip-keys': keys, 'aria-keyshortcuts': keys.replace('Ctrl', 'Control').replaceAll(' ', '+') } : {}),
});

interface Shown {
  readonly label: string;
  readonly keys: string | undefined;
  readonly x: number;
  readonly y: number;
  readonly isBelow: boolean;
}

const DELAY_MS = 350;
/** Room for a tip above what it is of. */
const ROOM = 34;

export function Tips() {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hide = () => {
      clearTimeout(timer);
      setShown(null);
    };
    const over = ({ target, type }: Event) => {
      hide();
      const element = target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null;
      if (!element || (type === 'focusin' && !element.matches(':focus-visible'))) return;
      const show = () => {
        if (!element.isConnected) return;
        const { left, width, top, bottom } = element.getBoundingClientRect();
        const isBelow = top < ROOM;
        const { tip: label = '', tipKeys: keys } = element.dataset;
        setShown({ label, keys, x: left + width / 2, y: isBelow ? bottom + 4 : top - 4, isBelow });
      };
      if (type === 'focusin') show();
      else timer = setTimeout(show, DELAY_MS);
    };
    const key = ({ key }: KeyboardEvent) => key === 'Escape' && hide();
    document.addEventListener('pointerover', over);
    document.addEventListener('focusin', over);
    document.addEventListener('focusout', hide);
    document.addEventListener('pointerdown', hide);
    document.addEventListener('keydown', key, true);
    return () => {
      hide();
      document.removeEventListener('pointerover', over);
      document.removeEventListener('focusin', over);
      document.removeEventListener('focusout', hide);
      document.removeEventListener('pointerdown', hide);
      document.removeEventListener('keydown', key, true);
    };
  }, []);
  if (!shown) return null;
  const { label, keys, x, y, isBelow } = shown;
  // Kept off the sides of the page by half of the widest there is.
  const middle = Math.min(window.innerWidth - 8, Math.max(8, x));
  const shift = x > window.innerWidth - 120 ? '-100%' : x < 120 ? '0%' : '-50%';
  return (
    // What it is of says the same by itself to those who do not see it.
    <div
      role="tooltip"
      aria-hidden
      className="pointer-events-none fixed z-[60] max-w-64 rounded-edge bg-ink px-2 py-0.5 text-paper text-sm"
      style={{
        left: shift === '-50%' ? x : middle,
        top: y,
        transform: `translate(${shift}, ${isBelow ? '0%' : '-100%'})`,
      }}
    >
      {label}
      {keys && <span className="figure ml-2 opacity-75">{keys}</span>}
    </div>
  );
}

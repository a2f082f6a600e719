// steering.ts — a flat view under the hand: wheel and two fingers zoom and move it, arrow keys and + and − while it has the focus.
// The page itself never zooms.
import { type RefObject, useEffect } from 'react';

/** Where a flat view looks. */
export interface Eye {
  /** Its middle, in units of what is shown. */
  readonly x: number;
  readonly y: number;
  /** Units per pixel of the screen. */
  readonly scale: number;
}

/** How the view is told. */
export type Look = (next: (eye: Eye | null) => Eye | null) => void;

interface Steering {
  /** @param factor below 1 comes nearer @param at a place on the screen, which stays */
  readonly zoom: (factor: number, at: { clientX: number; clientY: number }) => void;
  /** Moves what is shown along with the hand, pixels to the right and down. */
  readonly move: (right: number, down: number) => void;
}

/** Change of size per unit of the wheel; a pinch on a touchpad comes as a wheel with Ctrl, in finer units. */
const WHEEL = 1.0015;
const PAD = 1.01;
const KEY_PX = 40;
const KEY_ZOOM = 1.2;

const KEYS: Readonly<Record<string, readonly [right: number, down: number, zoom: number]>> = {
  ArrowLeft: [KEY_PX, 0, 1],
  ArrowRight: [-KEY_PX, 0, 1],
  ArrowUp: [0, KEY_PX, 1],
  ArrowDown: [0, -KEY_PX, 1],
  '+': [0, 0, 1 / KEY_ZOOM],
  '=': [0, 0, 1 / KEY_ZOOM],
  '-': [0, 0, KEY_ZOOM],
};

/** What makes such a view one that keys reach. */
export const STEERED = {
  role: 'application',
  tabIndex: 0,
  'aria-label': 'Flat view',
  'aria-description': 'Arrow keys move it, plus and minus come nearer and go further.',
} as const;

const never = () => false;

/** @param down 1 where y runs down the screen, −1 where it runs up @param areArrowsTaken whether arrow keys move something else */
export function useSteering(
  area: RefObject<HTMLElement | null>,
  look: Look,
  down: 1 | -1,
  areArrowsTaken: () => boolean = never,
): void {
  useEffect(() => {
    const element = area.current!;
    return steered(element, areArrowsTaken, {
      zoom(factor, { clientX, clientY }) {
        const { left, top, width, height } = element.getBoundingClientRect();
        const [right, below] = [clientX - left - width / 2, clientY - top - height / 2];
        look(
          (eye) =>
            eye && {
              x: eye.x + right * eye.scale * (1 - factor),
              y: eye.y + down * below * eye.scale * (1 - factor),
              scale: eye.scale * factor,
            },
        );
      },
      move: (right, below) =>
        look((eye) => eye && { ...eye, x: eye.x - right * eye.scale, y: eye.y - down * below * eye.scale }),
    });
  }, [area, look, down, areArrowsTaken]);
}

/** @returns what takes it back */
function steered(area: HTMLElement, areArrowsTaken: () => boolean, { zoom, move }: Steering): () => void {
  const fingers = new Map<number, PointerEvent>();
  /** While two fingers are down, and until both are up, nothing else is meant. */
  let isPinch = false;
  const wheel = (event: WheelEvent) => {
    event.preventDefault();
    zoom((event.ctrlKey ? PAD : WHEEL) ** event.deltaY, event);
  };
  const down = (event: PointerEvent) => {
    if (event.pointerType !== 'touch') return;
    fingers.set(event.pointerId, event);
    if (fingers.size < 2 || isPinch) return;
    // What the first finger began is called off.
    const [first] = fingers.values();
    first!.target!.dispatchEvent(new PointerEvent('pointercancel', { bubbles: true, pointerId: first!.pointerId }));
    isPinch = true;
    fingers.set(first!.pointerId, first!);
  };
  const slide = (event: PointerEvent) => {
    if (!isPinch) return;
    event.stopPropagation();
    if (!fingers.has(event.pointerId)) return;
    const before = spanOf(fingers);
    fingers.set(event.pointerId, event);
    const after = spanOf(fingers);
    if (!before || !after) return;
    move(after.clientX - before.clientX, after.clientY - before.clientY);
    zoom(before.length / Math.max(1, after.length), after);
  };
  const up = (event: PointerEvent) => {
    if (isPinch && event.isTrusted) event.stopPropagation();
    if (!event.isTrusted) return;
    fingers.delete(event.pointerId);
    if (fingers.size === 0) isPinch = false;
  };
  const press = (event: KeyboardEvent) => {
    const way = KEYS[event.key];
    if (event.target !== area || !way || event.ctrlKey || event.metaKey || event.altKey) return;
    const [right, downward, factor] = way;
    if (factor === 1 && areArrowsTaken()) return;
    event.preventDefault();
    event.stopPropagation();
    if (factor === 1) move(right, downward);
    else {
      const { left, top, width, height } = area.getBoundingClientRect();
      zoom(factor, { clientX: left + width / 2, clientY: top + height / 2 });
    }
  };
  const listeners = [
    ['wheel', wheel],
    ['pointerdown', down],
    ['pointermove', slide],
    ['pointerup', up],
    ['pointercancel', up],
  ] as const;
  for (const [name, listen] of listeners) {
    area.addEventListener(name, listen as EventListener, { capture: true, passive: false });
  }
  area.addEventListener('keydown', press);
  return () => {
    for (const [name, listen] of listeners) area.removeEventListener(name, listen as EventListener, { capture: true });
    area.removeEventListener('keydown', press);
  };
}

/** Middle and distance of the first two fingers. */
function spanOf(fingers: ReadonlyMap<number, PointerEvent>) {
  const [a, b] = fingers.values();
  if (!a || !b) return null;
  return {
    clientX: (a.clientX + b.clientX) / 2,
    clientY: (a.clientY + b.clientY) / 2,
    length: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
  };
}

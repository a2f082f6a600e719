// eye.ts — where a flat view looks: its middle and scale, framed when asked for, zoomed and moved by hand.
import { type RefObject, useEffect, useRef, useState } from 'react';
import { type Eye, useSteering } from '../controls/steering.ts';
import { useScreen } from '../store/screen.ts';
import type { Area, Place } from './choosing.ts';

const MARGIN = 1.1;
/** Screen pixels at the top that the tools cover. */
const TOOLS = 52;

export interface FlatEye {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly eye: Eye | null;
  /** All that is seen. */
  readonly frame: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly viewBox: string;
  readonly placeAt: (event: { clientX: number; clientY: number }) => Place;
  readonly lookAt: (eye: Eye) => void;
}

/** @param whole what is framed; null while there is nothing yet @param key framed anew when it changes */
export function useEye(whole: Area | null, key: string, areArrowsTaken?: () => boolean): FlatEye {
  const box = useRef<HTMLDivElement>(null);
  const look = useScreen((state) => state.look);
  const [size, setSize] = useState({ width: 1, height: 1 });
  const [eye, setEye] = useState<Eye | null>(null);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize(entry!.contentRect));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const hasAny = whole !== null;
  // Framed anew when asked for and for something else, not at every change of what is shown.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    if (whole && size.width > 1) setEye(framed(whole, size));
  }, [look.count, hasAny, size, key]);
  const { x, y, scale } = eye ?? { x: 0, y: 0, scale: 1 };
  const placeAt = ({ clientX, clientY }: { clientX: number; clientY: number }): Place => {
    const area = box.current!.getBoundingClientRect();
    return {
      x: x + (clientX - area.left - area.width / 2) * scale,
      y: y + (clientY - area.top - area.height / 2) * scale,
    };
  };
  useSteering(box, setEye, 1, areArrowsTaken);
  const frame = {
    x: x - (size.width / 2) * scale,
    y: y - (size.height / 2) * scale,
    width: size.width * scale,
    height: size.height * scale,
  };
  return {
    box,
    frame,
    eye,
    placeAt,
    viewBox: `${frame.x} ${frame.y} ${frame.width} ${frame.height}`,
    lookAt: setEye,
  };
}

function framed({ minX, minY, maxX, maxY }: Area, { width, height }: { width: number; height: number }): Eye {
  const [w, h] = [maxX - minX || 1, maxY - minY || 1];
  const scale = MARGIN * Math.max(w / width, h / Math.max(1, height - 2 * TOOLS));
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2, scale };
}

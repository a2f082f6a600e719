// PlaceRing.tsx — a place that is pointed at, on a flat drawing: a ring that shows on every colour.

/** Radius of the ring, and widths of its line and of what stands it off, in screen pixels. */
const [RADIUS, LINE, HALO] = [10, 2.25, 5];

/** @param pixel what a pixel of the screen is there */
export function PlaceRing({ x, y, pixel }: { x: number; y: number; pixel: number }) {
  const ring = { cx: x, cy: y, r: RADIUS * pixel, fill: 'none' };
  return (
    <g className="pointer-events-none" data-place-ring>
      <circle {...ring} className="stroke-sheet" strokeWidth={HALO * pixel} />
      <circle {...ring} className="stroke-ember" strokeWidth={LINE * pixel} />
    </g>
  );
}

// texels.ts — which triangle each pixel of the picture is on.
import type { Surface } from './surface.ts';

/** Pixels that nothing is on. */
export const NOTHING = 0;

/**
 * By pixel, row after row: 1 + the number of its triangle, {@link NOTHING} for none. A pixel belongs to the triangle that its
 * middle is on; pixels that are only touched, to one that touches them, so that no strip is too thin to have any.
 */
export function texelsOf({ count, places }: Surface, size: number): Uint32Array {
  const texels = new Uint32Array(size * size);
  for (let t = 0; t < count; t++) fill(texels, size, places, t);
  for (let t = 0; t < count; t++) trace(texels, size, places, t);
  return texels;
}

function fill(texels: Uint32Array, size: number, places: Float32Array, t: number): void {
  const at = 6 * t;
  const [ax, ay, bx, by, cx, cy] = places.subarray(at, at + 6) as unknown as Six;
  const turns = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  if (turns === 0) return;
  const sign = Math.sign(turns);
  const [top, bottom] = [Math.min(ay, by, cy), Math.max(ay, by, cy)];
  const [left, right] = [Math.min(ax, bx, cx), Math.max(ax, bx, cx)];
  for (let row = inSheet(top - 0.5, size, Math.ceil); row <= inSheet(bottom - 0.5, size, Math.floor); row++) {
    const y = row + 0.5;
    for (let column = inSheet(left - 0.5, size, Math.ceil); column <= right - 0.5 && column < size; column++) {
      const x = column + 0.5;
      const isInside =
        sign * ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) >= 0 &&
        sign * ((cx - bx) * (y - by) - (cy - by) * (x - bx)) >= 0 &&
        sign * ((ax - cx) * (y - cy) - (ay - cy) * (x - cx)) >= 0;
      if (isInside) texels[row * size + column] = t + 1;
    }
  }
}

type Six = readonly [number, number, number, number, number, number];

const inSheet = (v: number, size: number, round: (v: number) => number) => Math.min(size - 1, Math.max(0, round(v)));

/** Gives the pixels along the sides of a triangle that nobody has to it. */
function trace(texels: Uint32Array, size: number, places: Float32Array, t: number): void {
  for (let k = 0; k < 3; k++) {
    const [a, b] = [6 * t + 2 * k, 6 * t + 2 * ((k + 1) % 3)];
    const [dx, dy] = [places[b]! - places[a]!, places[b + 1]! - places[a + 1]!];
    const steps = Math.max(1, Math.ceil(2 * Math.max(Math.abs(dx), Math.abs(dy))));
    for (let i = 0; i <= steps; i++) {
      const column = inSheet(places[a]! + (dx * i) / steps, size, Math.floor);
      const row = inSheet(places[a + 1]! + (dy * i) / steps, size, Math.floor);
      if (texels[row * size + column] === NOTHING) texels[row * size + column] = t + 1;
    }
  }
}

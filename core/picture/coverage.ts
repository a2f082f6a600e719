// coverage.ts — outlines rendered with exact area coverage: what an ideal anti-aliasing renderer makes of them.
import type { Ring } from '../outline/types.ts';
import type { Grey } from './types.ts';

/**
 * Black outlines on white, filled by winding (outer rings one way, holes the other). Each edge adds, row by row, the
 * signed area to its right; a running sum along the row gives the coverage of every pixel exactly.
 * @param rings in pixels, y down
 */
export function renderCoverage(rings: readonly Ring[], width: number, height: number): Grey {
  const sums = new Float64Array((width + 2) * height);
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      addEdge(sums, width, height, ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!);
    }
  }
  const values = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += sums[y * (width + 2) + x]!;
      values[y * width + x] = 1 - Math.min(1, Math.abs(sum));
    }
  }
  return { width, height, values };
}

function addEdge(
  sums: Float64Array,
  width: number,
  height: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): void {
  if (y0 === y1) return;
  const direction = y1 > y0 ? 1 : -1;
  const [ax, ay, bx, by] = direction === 1 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
  const slope = (bx - ax) / (by - ay);
  for (let row = Math.max(0, Math.floor(ay)); row < Math.min(height, Math.ceil(by)); row++) {
    const top = Math.max(ay, row);
    const bottom = Math.min(by, row + 1);
    const clamp = (x: number) => Math.min(width, Math.max(0, x));
    const [p, q] = [clamp(ax + slope * (top - ay)), clamp(ax + slope * (bottom - ay))];
    const [left, right] = [Math.min(p, q), Math.max(p, q)];
    const rise = direction * (bottom - top);
    const at = row * (width + 2);
    // In column c the edge has passed a share of its run; the part of the pixel right of it is covered.
    let before = 0;
    for (let c = Math.floor(left); ; c++) {
      const covered = coveredUpTo(c + 1, left, right) * rise;
      sums[at + c]! += covered - before;
      before = covered;
      if (c + 1 >= right) {
        sums[at + c + 1]! += rise - covered;
        break;
      }
    }
  }
}

/** Mean of max(0, x − u) over u in [left, right], minus the same one pixel before: the share of column x − 1 right of the edge. */
function coveredUpTo(x: number, left: number, right: number): number {
  const ramp = (v: number) => {
    if (right - left < 1e-12) return Math.max(0, v - left);
    if (v <= left) return 0;
    if (v >= right) return v - (left + right) / 2;
    return (v - left) ** 2 / (2 * (right - left));
  };
  return ramp(x) - ramp(x - 1);
}

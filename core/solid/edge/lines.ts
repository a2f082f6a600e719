// lines.ts — the lines that outline edges lie on, as inner unit normals and distances from the origin.

/** Edge i consists of the points where nx·x + ny·y = offset; the inside is where it is more. */
export interface Lines {
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  readonly offset: Float64Array;
}

/** @param next the point that follows each one; edge i leaves point i with the inside on its left */
export function linesOf(points: Float64Array, next: Uint32Array): Lines {
  const n = next.length;
  const [nx, ny, offset] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const j = next[i]!;
    const [x, y] = [points[2 * i]!, points[2 * i + 1]!];
    const [dx, dy] = [points[2 * j]! - x, points[2 * j + 1]! - y];
    const length = Math.hypot(dx, dy);
    nx[i] = -dy / length;
    ny[i] = dx / length;
    offset[i] = nx[i]! * x + ny[i]! * y;
  }
  return { nx, ny, offset };
}

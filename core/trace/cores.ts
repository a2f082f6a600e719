// cores.ts — the flat places of a picture: pixels whose whole neighbourhood has one colour but for the noise.
import type { Planes } from './planes.ts';

/** How far, in bytes, the neighbours of a pixel in a flat place stray from their mean: at least, and by the noise. */
const [FLAT, FLAT_BY_NOISE] = [5, 3.5];

export interface Cores {
  /** Mean of the nine pixels around each, in which the noise is a third; only where `isCore` is 1. */
  readonly y: Float32Array;
  readonly u: Float32Array;
  readonly v: Float32Array;
  readonly isCore: Uint8Array;
}

/** @param noise of the picture, in bytes */
export function coresOf(planes: Planes, noise: number): Cores {
  const { width, height, y, u, v, isClear } = planes;
  const count = width * height;
  const row = () => new Float32Array(count);
  const cores: Cores = { y: row(), u: row(), v: row(), isCore: new Uint8Array(count) };
  const reach = Math.max(FLAT, FLAT_BY_NOISE * noise);
  const isSame = (i: number, j: number) => y[i] === y[j] && u[i] === u[j] && v[i] === v[j] && isClear[i] === isClear[j];
  const isLevel = new Uint8Array(count);
  for (let i = 1, run = 0; i < count; i++) {
    run = isSame(i, i - 1) ? run + 1 : 0;
    if (run > 1) isLevel[i - 1] = 1;
  }
  for (let line = width; line + width < count; line += width) {
    for (let i = line + 1; i + 1 < line + width; i++) {
      const [above, below] = [i - width, i + width];
      // The very same colour all around, which most of a drawing is, needs no sums.
      if (isLevel[above] && isLevel[i] && isLevel[below] && isSame(i, above) && isSame(i, below)) {
        if (!isClear[i]) setCore(cores, i, y[i]!, u[i]!, v[i]!);
        continue;
      }
      // Most that is not flat is not even along one side.
      if (Math.abs(y[i - 1]! - y[i + 1]!) > 2 * reach || Math.abs(y[above]! - y[below]!) > 2 * reach) continue;
      lookAround(planes, i, reach * reach, cores);
    }
  }
  return cores;
}

function setCore(cores: Cores, i: number, y: number, u: number, v: number): void {
  cores.isCore[i] = 1;
  cores.y[i] = y;
  cores.u[i] = u;
  cores.v[i] = v;
}

/** Notes a pixel whose nine stray from their mean by no more than a squared distance. */
function lookAround({ width, y, u, v, isClear }: Planes, i: number, limit: number, cores: Cores): void {
  const [first, last] = [i - width - 1, i + width - 1];
  let [sy, su, sv] = [0, 0, 0];
  for (let j = first; j <= last; j += width) {
    if (isClear[j] || isClear[j + 1] || isClear[j + 2]) return;
    sy += y[j]! + y[j + 1]! + y[j + 2]!;
    su += u[j]! + u[j + 1]! + u[j + 2]!;
    sv += v[j]! + v[j + 1]! + v[j + 2]!;
  }
  const [my, mu, mv] = [sy / 9, su / 9, sv / 9];
  for (let j = first; j <= last; j += width) {
    for (let k = j; k < j + 3; k++) {
      if ((y[k]! - my) ** 2 + (u[k]! - mu) ** 2 + (v[k]! - mv) ** 2 > limit) return;
    }
  }
  setCore(cores, i, my, mu, mv);
}

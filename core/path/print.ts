// print.ts — paths as SVG path data.
import type { Path } from './types.ts';

/** Path data with `digits` decimals at most. */
export function printPath(path: Path, digits = 4): string {
  const factor = 10 ** digits;
  const number = (v: number) => String(Math.round(v * factor) / factor);
  return path.map(([letter, ...values]) => letter + (values as number[]).map(number).join(' ')).join('');
}

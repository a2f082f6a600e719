// stopping.ts — how the page stops what the geometry worker is in the middle of, without ending the worker: a number that both see.
// Long steps look at it whenever they report how far they are.
import { GeometryError } from '../../core/index.ts';

/** How often something was stopped; null where threads cannot share memory. */
export type StopSign = Int32Array<SharedArrayBuffer> | null;

export const newStopSign = (): StopSign =>
  typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4));

export const raise = (sign: StopSign): void => {
  if (sign) Atomics.add(sign, 0, 1);
};

/** Reports until something is stopped; then it throws. */
export function stoppable(sign: StopSign, report: (share: number) => void): (share: number) => void {
  const before = sign && Atomics.load(sign, 0);
  return (share) => {
    if (sign && Atomics.load(sign, 0) !== before) throw new GeometryError('cancelled', 'Stopped.');
    report(share);
  };
}

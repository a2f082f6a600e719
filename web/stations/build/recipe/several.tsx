// several.tsx — several layers changed at once: one thing of all of them, and what is said of that.
import type { Layer } from '../../../../core/index.ts';
import { Note } from '../../../controls/Panel.tsx';
import type { Shared } from '../../../controls/shared.ts';

/** At least one. */
export type AtLeastOne<T> = readonly [T, ...T[]];

/** Reads one thing off all of some: the first one's is shown. */
export type Reading<T> = <V extends string | number | boolean>(read: (each: T) => V) => Shared<V>;

export function readingOf<T>([first, ...others]: AtLeastOne<T>): Reading<T> {
  return (read) => {
    const value = read(first);
    return { value, isMixed: others.some((other) => read(other) !== value) };
  };
}

/** That a change goes to all, and what is meant by “mixed”. */
export function SeveralNote({ layers }: { layers: AtLeastOne<Layer> }) {
  return (
    <Note>
      {layers.length} layers at once: what is changed here is changed in all of them. What differs between them is
      called mixed.
    </Note>
  );
}

/** A tenth of the value's own power of ten at most, so that steps suit both watch parts and shop signs. */
export const niceStep = (value: number): number => 10 ** (Math.floor(Math.log10(Math.abs(value) || 1)) - 1);

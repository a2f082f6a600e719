// references.ts — the parts of the reference libraries that the comparison uses; they bring no types.
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

export interface PotraceClass {
  new (): {
    loadImage(png: Uint8Array, done: (error: Error | null) => void): void;
    getPathTag(): string;
  };
}

export interface Imagetracer {
  imagedataToSVG(
    picture: { readonly width: number; readonly height: number; readonly data: Uint8ClampedArray },
    options: Readonly<Record<string, unknown>>,
  ): string;
}

/** A module of those that are installed for tests and benchmarks only: found when it is run, not when the bench is built. */
export const reference = (path: string): Promise<{ default: unknown }> =>
  import(/* @vite-ignore */ pathToFileURL(resolve('bench/sets/node_modules', path)).href);

export type Earcut = (vertices: ArrayLike<number>, holes?: ArrayLike<number>) => number[];

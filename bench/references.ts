// references.ts — the parts of the reference libraries that the comparison uses; they bring no types.

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

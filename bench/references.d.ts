// references.d.ts — the parts of the reference libraries that the comparison uses; they bring no types.
declare module 'potrace' {
  export class Potrace {
    loadImage(png: Uint8Array, done: (error: Error | null) => void): void;
    getPathTag(): string;
  }
}
declare module 'imagetracerjs' {
  interface Picture {
    readonly width: number;
    readonly height: number;
    readonly data: Uint8ClampedArray;
  }
  const tracer: { imagedataToSVG(picture: Picture, options: Readonly<Record<string, unknown>>): string };
  export default tracer;
}

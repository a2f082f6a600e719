// bidi-js.d.ts — the package has no types of its own.
/** The Unicode Bidirectional Algorithm; the package has no types of its own. */
declare module 'bidi-js' {
  export default function bidiFactory(): {
    getEmbeddingLevels(
      text: string,
      baseDirection?: 'ltr' | 'rtl' | 'auto',
    ): { levels: Uint8Array; paragraphs: { start: number; end: number; level: number }[] };
  };
}

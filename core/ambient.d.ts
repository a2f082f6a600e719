// ambient.d.ts — the one platform class the core uses that every runtime has and ES2023's library does not declare.
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(bytes: Uint8Array): string;
}

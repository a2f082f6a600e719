// reader.ts — how server and command line have the bytes of sources, and decode them.
import { createHash } from 'node:crypto';
import type { SourceReader } from '../core/index.ts';
import { decodeAsset } from './decode.ts';
import { bundledFonts, openFontFile } from './fonts.ts';

/** SHA-256 of some bytes, hex. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** @param bytesOf an asset, wherever it is kept */
export function readerOf(bytesOf: (asset: string, name: string) => Uint8Array | Promise<Uint8Array>): SourceReader {
  return {
    bytes: async (asset, name) => bytesOf(asset, name),
    picture: async (asset, name) => decodeAsset(await bytesOf(asset, name)),
    async fonts(choice) {
      if (choice.from === 'bundle') return bundledFonts(choice.name);
      return [await openFontFile(await bytesOf(choice.asset, choice.name), choice.name)];
    },
  };
}

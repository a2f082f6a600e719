// write.ts — files out, in folders that are made where they are not there.
import { closeSync, mkdirSync, openSync, writeFileSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';

export function writeBytes(path: string, bytes: Uint8Array | string): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, bytes);
}

/** Piece by piece, as they are made. */
export async function writeChunks(
  path: string,
  chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
): Promise<void> {
  mkdirSync(dirname(path), { recursive: true });
  const file = openSync(path, 'w');
  try {
    for await (const chunk of chunks) for (let at = 0; at < chunk.length; ) at += writeSync(file, chunk, at);
  } finally {
    closeSync(file);
  }
}

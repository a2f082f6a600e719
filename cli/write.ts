// write.ts — files out, in folders that are made where they are not there.
import { closeSync, mkdirSync, openSync, writeFileSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';
import { GeometryError } from '../core/index.ts';

/** @throws {GeometryError} 'bad-file' where a file has the folder's name */
function makeFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== 'EEXIST' && code !== 'ENOTDIR') throw error;
    throw new GeometryError('bad-file', `${folder} is a file, so nothing can be written in a folder of that name.`);
  }
}

export function writeBytes(path: string, bytes: Uint8Array | string): void {
  makeFolder(dirname(path));
  writeFileSync(path, bytes);
}

/** Piece by piece, as they are made. */
export async function writeChunks(
  path: string,
  chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
): Promise<void> {
  makeFolder(dirname(path));
  const file = openSync(path, 'w');
  try {
    for await (const chunk of chunks) for (let at = 0; at < chunk.length; ) at += writeSync(file, chunk, at);
  } finally {
    closeSync(file);
  }
}

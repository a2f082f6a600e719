// pictures.ts — pictures on the sides of layers, which settings name: files that lie beside the settings.
import { existsSync, readFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { z } from 'zod';
import type { PictureOn } from '../core/index.ts';
import { hashOf } from '../node/reader.ts';
import { UsageError } from './words.ts';

/** Paths of pictures by their assets. */
export type PathsOfPictures = Readonly<Record<string, string>>;

const NamedSchema = z.object({ name: z.string().min(1) });

/**
 * Settings from JSON, each picture known by its bytes, as it is in a document. What is no picture is left to the schema of the settings.
 * @param option and `file`: where the text is from, for messages
 * @throws {SyntaxError} for what is no JSON @throws {UsageError} for a picture that is not there
 */
export function parsedWithPictures(
  text: string,
  option: string,
  file: string,
): { value: unknown; pictures: PathsOfPictures } {
  const pictures: Record<string, string> = {};
  const found = ({ name }: z.infer<typeof NamedSchema>): PictureOn => {
    const path = resolve(dirname(file), name);
    if (!existsSync(path)) {
      throw new UsageError(`${option} ${file}: there is no picture ${name} beside it; put it there, or give its path`);
    }
    const asset = hashOf(readFileSync(path));
    pictures[asset] = path;
    return { asset, name };
  };
  const value = JSON.parse(text, (key, each) => {
    const named = key === 'picture' ? NamedSchema.safeParse(each) : null;
    return named?.success ? found(named.data) : each;
  });
  return { value, pictures };
}

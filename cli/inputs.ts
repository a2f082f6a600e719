// inputs.ts — INPUT words to files, and where each file's result goes.
import { existsSync, statSync } from 'node:fs';
import { basename, extname, join, relative, resolve } from 'node:path';
import { globSync } from 'tinyglobby';
import type { BuildTask } from './build-file.ts';
import { type BuildCommand, UsageError } from './options.ts';

/** What folders are searched for. */
const READABLE = ['.svg'];

interface Found {
  readonly file: string;
  /** Path below the folder that was named, or just the file's name. */
  readonly name: string;
}

/** @throws {UsageError} when a word names nothing */
export function tasksFor({ inputs, out, format, settings, report }: BuildCommand): BuildTask[] {
  const found = inputs.flatMap(find);
  const single = found.length === 1 && inputs.length === 1 && !isFolder(inputs[0]!);
  const asFile = single && !isFolder(out) && !/[\\/]$/.test(out);
  const taken = new Set<string>();
  return found.map(({ file, name }) => {
    const base = join(out, name.slice(0, -extname(name).length || undefined));
    let output = asFile ? out : `${base}.${format}`;
    for (let n = 2; taken.has(output); n++) output = `${base}-${n}.${format}`;
    taken.add(output);
    return { input: file, output, format, settings, crossings: report !== undefined };
  });
}

function find(word: string): Found[] {
  if (isFolder(word)) {
    const files = globSync(
      READABLE.map((ending) => `**/*${ending}`),
      { cwd: word, caseSensitiveMatch: false },
    ).sort();
    if (files.length === 0) throw new UsageError(`${word}: the folder holds no ${READABLE.join(' or ')} file`);
    return files.map((name) => ({ file: join(word, name), name }));
  }
  if (existsSync(word)) return [{ file: word, name: basename(word) }];
  const files = globSync(word.replaceAll('\\', '/'), { absolute: true }).sort();
  if (files.length === 0) throw new UsageError(`${word}: no such file`);
  return files.map((file) => ({ file: relative(resolve('.'), file), name: basename(file) }));
}

function isFolder(path: string): boolean {
  return existsSync(path) && statSync(path).isDirectory();
}

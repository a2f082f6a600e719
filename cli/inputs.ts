// inputs.ts — INPUT words to files, and where each file's result goes.
import { existsSync, statSync } from 'node:fs';
import { basename, extname, join, relative, resolve } from 'node:path';
import { globSync } from 'tinyglobby';
import type { BuildTask } from './build-file.ts';
import type { BuildCommand, ProofCommand, TraceCommand } from './options.ts';
import type { TraceTask } from './trace-file.ts';
import { UsageError } from './words.ts';

/** What folders are searched for. */
const PICTURES = ['.png', '.jpg', '.jpeg', '.webp', '.tif', '.tiff', '.gif', '.bmp'];
const DRAWINGS = ['.svg', '.dxf'];
const MESHES = ['.glb', '.obj', '.stl'];

interface Found {
  readonly file: string;
  /** Path below the folder that was named, or just the file's name. */
  readonly name: string;
}

/** @throws {UsageError} when a word names nothing */
export function buildTasks({ inputs, out, format, curves, bake, settings, report }: BuildCommand): BuildTask[] {
  const mesh = inputs.find((word) => MESHES.includes(extname(word).toLowerCase()));
  if (mesh !== undefined) {
    throw new UsageError(
      `${mesh} is a mesh, and build takes drawings and pictures; “outline-stack proof ${mesh}” checks it, and dropped on the page it is tidied and written in any format`,
    );
  }
  return pairs(inputs, out, format, [...DRAWINGS, ...PICTURES]).map((pair) => ({
    kind: 'build',
    ...pair,
    format,
    curves,
    bake,
    settings,
    crossings: report !== undefined,
  }));
}

/** @throws {UsageError} when a word names nothing */
export function traceTasks({ inputs, out, settings, isAsItCame, level }: TraceCommand): TraceTask[] {
  return pairs(inputs, out, 'svg', PICTURES).map((pair) => ({ kind: 'trace', ...pair, settings, isAsItCame, level }));
}

/** @throws {UsageError} when a word names nothing */
export function meshFiles({ inputs }: ProofCommand): string[] {
  return inputs.flatMap((word) => find(word, MESHES)).map(({ file }) => file);
}

/** Every file that the words name, and where its result goes; no two to the same place. */
function pairs(inputs: readonly string[], out: string, ending: string, readable: readonly string[]) {
  const found = inputs.flatMap((word) => find(word, readable));
  const single = found.length === 1 && inputs.length === 1 && !isFolder(inputs[0]!);
  const asFile = single && !isFolder(out) && !/[\\/]$/.test(out);
  if (!asFile && extname(out).slice(1).toLowerCase() === ending && !isFolder(out)) {
    throw new UsageError(`--out ${out} names a file, and ${found.length} files are to be made; name a folder`);
  }
  const taken = new Set<string>();
  return found.map(({ file, name }) => {
    const base = join(out, name.slice(0, -extname(name).length || undefined));
    let output = asFile ? out : `${base}.${ending}`;
    for (let n = 2; taken.has(output); n++) output = `${base}-${n}.${ending}`;
    taken.add(output);
    return { input: file, output };
  });
}

function find(word: string, readable: readonly string[]): Found[] {
  if (isFolder(word)) {
    const files = globSync(
      readable.map((ending) => `**/*${ending}`),
      { cwd: word, caseSensitiveMatch: false },
    ).sort();
    if (files.length === 0) throw new UsageError(`${word}: the folder holds no ${readable.join(', ')} file`);
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

// The house: inside core and inside web, imports run downward only. A folder may use those that stand before it in its list.
import { readFileSync } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import { globSync } from 'tinyglobby';
import { describe, expect, it } from 'vitest';

const FLOORS = {
  core: [
    'base',
    'geometry',
    'path',
    'drawing.ts',
    'outline',
    'mesh',
    'picture',
    'trace',
    'lettering',
    'plan',
    'materials',
    'edits',
    'check',
    'solid',
    'formats',
    'builds',
    'sources',
    'bake',
    'stage',
    'motion',
    'rules',
    'document',
    'evaluate',
    'views',
    'protocol',
    'index.ts',
  ],
  web: [
    'format.ts',
    'controls',
    'worker',
    'requests',
    'store',
    'help',
    'find',
    'scene',
    'picture',
    'outline',
    'stations',
    'workplace',
    'projects',
    'app',
    'main.tsx',
  ],
} as const;

const IMPORT = /(?:from|import)\s*\(?\s*'(\.[^'?]+)[^']*'/g;

/** The floor that a file below `root` stands on: its folder there, or itself. */
const floorOf = (root: string, file: string) => relative(root, file).split(sep)[0]!;

/** Imports of a file that stay below `root`, as paths from where the tests run. */
function importsOf(root: string, file: string): string[] {
  const found = [...readFileSync(file, 'utf8').matchAll(IMPORT)].map(([, path]) => join(dirname(file), path!));
  return found.filter((path) => path.startsWith(`${root}${sep}`));
}

/** What climbs among the imports of a file. */
function climbs(root: keyof typeof FLOORS, file: string, imports: readonly string[]): string[] {
  const floors: readonly string[] = FLOORS[root];
  const own = floors.indexOf(floorOf(root, file));
  return imports.filter((path) => floors.indexOf(floorOf(root, path)) > own).map((path) => `${file} → ${path}`);
}

describe.each(['core', 'web'] as const)('floors of %s', (root) => {
  const files = globSync([`${root}/**/*.{ts,tsx}`, `!**/*.{test,d}.ts`, '!core/testing/**']);

  it('lists every folder and nothing else', () => {
    const found = new Set(files.map((file) => floorOf(root, file)));
    expect([...found].sort()).toEqual([...FLOORS[root]].sort());
  });

  it('imports downward only', () => {
    expect(files.flatMap((file) => climbs(root, file, importsOf(root, file)))).toEqual([]);
  });
});

it('sees an import that climbs', () => {
  expect(climbs('core', 'core/base/memo.ts', ['core/base/bytes.ts', 'core/mesh/types.ts'])).toEqual([
    'core/base/memo.ts → core/mesh/types.ts',
  ]);
});

// The documents: links lead somewhere, the README stays short, and what ships is listed with its licences. `npx vitest run docs -u`
// writes docs/ships.md anew.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';

const MOST_WORDS = 900;
const pages = [
  'README.md',
  'CONTRIBUTING.md',
  'CHANGELOG.md',
  ...['docs', 'docs/guide', 'docs/decisions'].flatMap((folder) =>
    readdirSync(folder)
      .filter((name) => name.endsWith('.md'))
      .map((name) => join(folder, name)),
  ),
];

describe('documents', () => {
  it.each(pages)('%s links only to what is there', (page) => {
    const links = [...readFileSync(page, 'utf8').matchAll(/\]\(([^)#\s]+)/g)].map(([, link]) => link!);
    const dead = links.filter((link) => !/^https?:/.test(link) && !existsSync(join(dirname(page), link)));
    expect(dead).toEqual([]);
  });

  it('begin with one that is read in a few minutes', () => {
    expect(readFileSync('README.md', 'utf8').split(/\s+/).length).toBeLessThan(MOST_WORDS);
  });

  it('have a page of the guide for every station and every job', () => {
    const guide = readFileSync('docs/guide/index.md', 'utf8');
    for (const name of readdirSync('docs/guide')) if (name !== 'index.md') expect(guide).toContain(`(${name})`);
  });
});

interface Package {
  readonly version: string;
  readonly license?: string;
  readonly dev?: boolean;
  readonly optional?: boolean;
}

/** Of what may be passed on with the application without passing on its own source. */
const ALLOWED =
  /^(\(?(MIT|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|OFL-1\.1|Unlicense|BSL-1\.0|MIT-0|CC0-1\.0|Zlib)( (OR|AND) )?)+\)?/;

describe('what ships', () => {
  const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, Package> };
  const shipped = Object.entries(packages)
    .filter(([path, { dev, optional }]) => path !== '' && !dev && !optional)
    .map(([path, { version, license = 'not stated' }]) => ({
      name: path.replace(/^.*node_modules\//, ''),
      version,
      license,
    }))
    .sort((a, b) => a.name.localeCompare(b.name));

  it('has licences that allow it', () => {
    expect(shipped.filter(({ license }) => !ALLOWED.test(license))).toEqual([]);
  });

  it('is listed in docs/ships.md', async () => {
    const rows = shipped.map(({ name, version, license }) => `| ${name} | ${version} | ${license} |`);
    await expect(`# Browsers, and licences of what ships

## Browsers

Current versions of Chromium, Firefox and Safari, and those of the two years before: modules in workers, WebAssembly and WebGL 2 are needed for all of it. Without WebGL 2 everything but the solid on screen works. Tests drive Debian's Chromium.

## Packages

Written from package-lock.json by a test, which fails when it is out of date. What only tests and benchmarks use is not listed.

| package | version | licence |
|---|---|---|
${rows.join('\n')}
`).toMatchFileSnapshot('ships.md');
  });
});

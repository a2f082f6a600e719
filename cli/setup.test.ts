// What is set up before anything runs, in folders made for it: only what is asked to installs, and nothing through a link.
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';

const FOLDER = mkdtempSync(join(tmpdir(), 'setup-'));
afterAll(() => rmSync(FOLDER, { recursive: true }));

const LOCK = {
  '': { name: 'house' },
  'node_modules/brick': { version: '2.0.0' },
  'node_modules/brick/node_modules/clay': { version: '1.0.0' },
  'node_modules/brick-other-machine': { version: '2.0.0', optional: true },
};

/** A house of its own whose packages are these, and a neighbour's that its node_modules leads to if `isLinked`. */
function houseWith(name: string, installed: object | null, isLinked = false): string {
  const root = join(FOLDER, name);
  const packages = isLinked ? join(FOLDER, `${name}-neighbour`) : join(root, 'node_modules');
  for (const path of ['scripts', 'cli']) mkdirSync(join(root, path), { recursive: true });
  mkdirSync(packages, { recursive: true });
  cpSync('scripts/setup.mjs', join(root, 'scripts', 'setup.mjs'));
  cpSync('cli/bin.js', join(root, 'cli', 'bin.js'));
  writeFileSync(join(root, 'package.json'), '{ "name": "house", "type": "module" }');
  writeFileSync(join(root, 'package-lock.json'), JSON.stringify({ lockfileVersion: 3, packages: LOCK }));
  writeFileSync(join(packages, 'marker'), 'still there');
  if (installed) writeFileSync(join(packages, '.package-lock.json'), JSON.stringify({ packages: installed }));
  if (isLinked) symlinkSync(packages, join(root, 'node_modules'));
  return root;
}

const { 'node_modules/brick-other-machine': _, ...RIGHT } = LOCK;

/** Names of the packages that are not those of the lock file. */
function wrongIn(root: string): string[] {
  const code = `import { wrongPackages } from './scripts/setup.mjs'; console.log(JSON.stringify(wrongPackages()));`;
  const { stdout } = spawnSync(process.execPath, ['--input-type=module', '-e', code], { cwd: root, encoding: 'utf8' });
  return JSON.parse(stdout);
}

describe('packages', () => {
  it('are right when those that this machine needs have the versions of the lock file', () => {
    expect(wrongIn(houseWith('right', RIGHT))).toEqual([]);
  });

  it.each([
    ['nothing', null, ['brick', 'clay']],
    ['an old version', { ...RIGHT, 'node_modules/brick': { version: '1.9.0' } }, ['brick']],
    ['one too few', { 'node_modules/brick': { version: '2.0.0' } }, ['clay']],
  ])('are wrong when %s is installed', (what, installed, wrong) => {
    expect(wrongIn(houseWith(what, installed))).toEqual(wrong);
  });
});

describe('a command', () => {
  it.each([
    ['its own packages', false, 'nothing is installed by this command'],
    ['those of a neighbour', true, 'node_modules is a link'],
  ])('leaves %s alone when they are wrong', (what, isLinked, why) => {
    const root = houseWith(what, {}, isLinked);
    const { status, stderr } = spawnSync(process.execPath, ['cli/bin.js'], { cwd: root, encoding: 'utf8' });
    expect(status).toBe(1);
    expect(stderr).toContain(why);
    expect(stderr).toContain('Run “npm ci”');
    expect(existsSync(join(root, 'node_modules', 'marker'))).toBe(true);
  });
});

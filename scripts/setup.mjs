// setup.mjs — what must be there before anything runs: packages, the build, a browser for the tests. Plain JavaScript,
// because it runs before packages are installed; scripts of the package manager are switched off, so everyone calls this.
import { spawnSync } from 'node:child_process';
import { existsSync, lstatSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, extname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants } from 'node:zlib';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const STAMPS = join(ROOT, '.setup');
/** What the built files are made from. */
const BUILD_INPUTS = [
  'core',
  'server',
  'web',
  'cli',
  'node',
  'bench',
  'vite.config.ts',
  'vite.node.config.ts',
  'docs/guide',
  'package.json',
  'package-lock.json',
];

/**
 * Runs a command in the project's root and ends the process with its exit code when it fails. A quiet one is heard only
 * then.
 */
export function run(command, args, { quiet = false, env = {} } = {}) {
  const stdio = quiet ? 'pipe' : 'inherit';
  const { status, error, stderr } = spawnSync(command, args, { cwd: ROOT, stdio, env: { ...process.env, ...env } });
  if (error) throw error;
  if (status === 0) return;
  if (quiet) process.stderr.write(stderr);
  process.exit(status ?? 1);
}

/** The path of a program that a package installed. */
export const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

/**
 * What is installed that is not what the lock file asks for: names of packages, empty when all are as they should be. Read
 * from the list that npm keeps of what it installed, so that no note of ours can differ from what is there.
 */
export function wrongPackages(folder = ROOT) {
  const kept = join(folder, 'node_modules', '.package-lock.json');
  const wanted = JSON.parse(readFileSync(join(folder, 'package-lock.json'), 'utf8')).packages;
  const installed = existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')).packages : {};
  return Object.entries(wanted)
    .filter(([path, { version, optional }]) => {
      const found = installed[path]?.version;
      // Optional ones are for other machines.
      return path !== '' && found !== version && !(optional && found === undefined);
    })
    .map(([path]) => path.replace(/^.*node_modules\//, ''));
}

/**
 * Installs packages when those there are not those of the lock file.
 * @param install false where nobody expects that: what runs a command must not change what it runs on
 */
export function ensureInstalled({ install = true, folder = ROOT, ...options } = {}) {
  const wrong = wrongPackages(folder);
  if (wrong.length === 0) return;
  const packages = join(folder, 'node_modules');
  const isLink = lstatSync(packages, { throwIfNoEntry: false })?.isSymbolicLink();
  if (install && !isLink) {
    say(options, `Installing ${wrong.length} packages, which takes a minute or two…`);
    return run('npm', ['ci', '--prefix', folder, '--no-audit', '--no-fund'], options);
  }
  // Installing would empty the folder that the link leads to, which is somebody else's.
  const why = isLink ? 'node_modules is a link, which is left alone' : 'nothing is installed by this command';
  process.stderr.write(
    `${wrong.length} packages are not those of package-lock.json (${wrong.slice(0, 3).join(', ')}); ${why}. Run “npm ci”.\n`,
  );
  process.exit(1);
}

/** Open drawings and other programs, which only tests and benchmarks measure with. */
export const ensureSets = (options = {}) => ensureInstalled({ folder: join(ROOT, 'bench', 'sets'), ...options });

/** Builds the application when a source is newer than the last build. */
export async function ensureBuilt(options = {}) {
  ensureInstalled(options);
  const newest = String(Math.max(...BUILD_INPUTS.map((input) => newestChange(join(ROOT, input)))));
  if (existsSync(join(ROOT, 'dist', 'node', 'server.js')) && readStamp('built') === newest) return;
  say(options, 'Building the application, which takes about half a minute…');
  for (const config of ['vite.config.ts', 'vite.node.config.ts']) {
    // Test runners set another mode, in which React builds its elements slowly.
    run(bin('vite'), ['build', '-c', config, '--logLevel', 'warn'], { ...options, env: { NODE_ENV: 'production' } });
  }
  compress(join(ROOT, 'dist', 'web'));
  writeStamp('built', newest);
}

/** The path of a Chromium, installed from Debian's packages when the machine has none. */
export function ensureChromium() {
  const found = () => ['chromium', 'chromium-browser'].map((name) => join('/usr/bin', name)).find(existsSync);
  const own = process.env.CHROMIUM ?? found();
  if (own) return own;
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
    env: { DEBIAN_FRONTEND: 'noninteractive' },
  });
  const installed = found();
  if (!installed) throw new Error('Chromium could not be installed; set CHROMIUM to the path of one.');
  return installed;
}

/** Tells what takes a while before it is begun. */
function say({ quiet = false }, what) {
  if (!quiet) console.log(what);
}

const COMPRESSED = ['.js', '.css', '.html', '.svg', '.wasm', '.json'];

/** Beside each file that shrinks, itself compressed: browsers are sent that. */
function compress(folder) {
  for (const entry of readdirSync(folder, { recursive: true })) {
    const path = join(folder, entry);
    if (!COMPRESSED.includes(extname(path))) continue;
    const bytes = readFileSync(path);
    writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } }));
  }
}

function newestChange(path) {
  if (path.endsWith('node_modules')) return 0;
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newestChange(join(path, name))));
}

function readStamp(name) {
  const file = join(STAMPS, name);
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

function writeStamp(name, value) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(join(STAMPS, name), value);
}

// options.ts — the words of the command line, checked and turned into settings.
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import { EXPORT_FORMATS, type ExportFormat, PROFILES, type Recipe, RecipeSchema } from '../core/index.ts';

export class UsageError extends Error {}

export const USAGE = `outline-stack build INPUT… --out PATH [options]    vector files → meshes

  INPUT                 SVG files, folders or globs; with several, PATH is a folder
  --out PATH            file or folder to write
  --format F            glb, obj or stl (otherwise from PATH's ending, else glb)
  --depth 4             total thickness, edges included
  --edge E              none, chamfer or round (default: round when --reach is given, else none)
  --reach 0.5           how far in the edge reaches
  --rise 0.5            how far down it comes (default: reach)
  --steps 3             strips across the edge
  --edge-on both        both, front or back
  --faces fewest        fewest or even
  --cell 1              target edge length of even faces
  --tolerance 0.01      largest distance between a curve and its chords
  --size N              fit the longest side to N
  --recipe FILE.json    the same settings from a file; options here win
  --report FILE.json    write counts, checks and times
  --jobs N              files worked on at a time

Lengths are in the drawing's units: one user unit is one unit unless --size or a physical unit says otherwise.
`;

export interface BuildSettings {
  readonly depth: number;
  readonly edge: {
    readonly profile: (typeof PROFILES)[number];
    readonly on: 'none' | 'front' | 'back' | 'both';
    readonly reach: number;
    readonly rise: number;
    readonly steps: number;
  };
  readonly faces: 'fewest' | 'even';
  readonly cell: number;
  readonly tolerance: number;
  readonly size: number | undefined;
}

export interface BuildCommand {
  readonly inputs: readonly string[];
  readonly out: string;
  readonly format: ExportFormat;
  readonly settings: BuildSettings;
  readonly report: string | undefined;
  readonly jobs: number;
}

const OPTIONS = {
  out: { type: 'string' },
  format: { type: 'string' },
  depth: { type: 'string' },
  edge: { type: 'string' },
  reach: { type: 'string' },
  rise: { type: 'string' },
  steps: { type: 'string' },
  'edge-on': { type: 'string' },
  faces: { type: 'string' },
  cell: { type: 'string' },
  tolerance: { type: 'string' },
  size: { type: 'string' },
  recipe: { type: 'string' },
  report: { type: 'string' },
  jobs: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseBuild(words: readonly string[]): BuildCommand | null {
  const { values, positionals } = parse(words);
  if (values.help) return null;
  if (positionals.length === 0) throw new UsageError('build needs at least one INPUT; see outline-stack --help');
  if (!values.out) throw new UsageError('build needs --out PATH; see outline-stack --help');
  const recipe = values.recipe === undefined ? {} : readRecipe(values.recipe);
  const number = (name: 'depth' | 'reach' | 'rise' | 'steps' | 'cell' | 'tolerance' | 'size' | 'jobs') => {
    const text = values[name];
    if (text === undefined) return undefined;
    const value = Number(text);
    if (text.trim() === '' || !Number.isFinite(value)) throw new UsageError(`--${name} needs a number, not “${text}”`);
    return value;
  };
  const reach = number('reach') ?? recipe.edge?.reach;
  const profile =
    choice('edge', values.edge, ['none', ...PROFILES]) ??
    (recipe.edge?.profile || (reach === undefined ? 'none' : 'round'));
  const on = choice('edge-on', values['edge-on'], ['both', 'front', 'back']) ?? recipe.edge?.on ?? 'both';
  const settings: BuildSettings = {
    depth: positive('depth', number('depth') ?? recipe.depth ?? 4),
    edge: {
      profile: profile === 'none' ? 'chamfer' : profile,
      on: profile === 'none' ? 'none' : on,
      reach: notNegative('reach', reach ?? 0.5),
      rise: notNegative('rise', number('rise') ?? recipe.edge?.rise ?? reach ?? 0.5),
      steps: whole('steps', number('steps') ?? recipe.edge?.steps ?? 3, 1, 32),
    },
    faces: choice('faces', values.faces, ['fewest', 'even']) ?? recipe.faces ?? 'fewest',
    cell: positive('cell', number('cell') ?? recipe.cell ?? 1),
    tolerance: positive('tolerance', number('tolerance') ?? recipe.tolerance ?? 0.01),
    size: optionalPositive('size', number('size') ?? recipe.size),
  };
  return {
    inputs: positionals,
    out: values.out,
    format: choice('format', values.format, EXPORT_FORMATS) ?? formatOf(values.out),
    settings,
    report: values.report,
    jobs: whole('jobs', number('jobs') ?? availableParallelism(), 1, 64),
  };
}

function parse(words: readonly string[]) {
  try {
    return parseArgs({ args: [...words], options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageError((error as Error).message.split('\n')[0]!.replace(/\. To specify.*$/, ''));
  }
}

function readRecipe(file: string): Recipe {
  let value: unknown;
  try {
    value = JSON.parse(readFileSync(file, 'utf8'));
  } catch (error) {
    throw new UsageError(`--recipe ${file} cannot be read: ${(error as Error).message}`);
  }
  const result = RecipeSchema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  throw new UsageError(`--recipe ${file}: ${issue.path.join('.') || 'recipe'}: ${issue.message}`);
}

function formatOf(out: string): ExportFormat {
  const ending = extname(out).slice(1).toLowerCase();
  const known = EXPORT_FORMATS.find((format) => format === ending);
  if (!known && ending !== '')
    throw new UsageError(`--out ends in .${ending}; known formats are ${EXPORT_FORMATS.join(', ')}`);
  return known ?? 'glb';
}

function choice<T extends string>(name: string, value: string | undefined, choices: readonly T[]): T | undefined {
  if (value === undefined) return undefined;
  const found = choices.find((candidate) => candidate === value);
  if (!found) throw new UsageError(`--${name} is “${value}”; it can be ${choices.join(', ')}`);
  return found;
}

function positive(name: string, value: number): number {
  if (!(value > 0 && value <= 1e6)) throw new UsageError(`--${name} must be more than 0 and at most 1000000`);
  return value;
}

const optionalPositive = (name: string, value: number | undefined) =>
  value === undefined ? undefined : positive(name, value);

function notNegative(name: string, value: number): number {
  if (!(value >= 0 && value <= 1e6)) throw new UsageError(`--${name} must be between 0 and 1000000`);
  return value;
}

function whole(name: string, value: number, least: number, most: number): number {
  if (!(Number.isInteger(value) && value >= least && value <= most)) {
    throw new UsageError(`--${name} must be a whole number from ${least} to ${most}`);
  }
  return value;
}

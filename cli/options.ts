// options.ts — the words of the command line, checked and turned into settings.

import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { extname } from 'node:path';
import { type ParseArgsConfig, parseArgs } from 'node:util';
import type { z } from 'zod';
import {
  ALIGNMENTS,
  BAKE_DEFAULTS,
  BAKE_SIZES,
  type BakeWishes,
  BEYOND,
  BLENDS,
  CAPPED,
  CORNERS,
  CURVES,
  type Curves,
  type DrawnProfile,
  type Edge,
  type EdgeShape,
  FACE_MESHES,
  FINISH_DEFAULTS,
  FORMAT_IDS,
  type FormatId,
  INKS,
  LAYERINGS,
  type LayerWishes,
  LETTERING_DEFAULTS,
  type Lettering,
  LIBRARY,
  LIMITS,
  type NamedMaterial,
  OUTLINE_FORMATS,
  type OutlineFormatId,
  PROFILES,
  type Recipe,
  RecipeSchema,
  RULED,
  SHADING,
  type SideMaterials,
  type TidySettings,
  TRACE_MODES,
  type TraceSettings,
  UV_LAYOUTS,
  WAYS,
} from '../core/index.ts';
import { type PathsOfPictures, parsedWithPictures } from './pictures.ts';
import { type RuleWish, ruleFrom } from './rules.ts';
import {
  choice,
  meant,
  notNegative,
  notNegativeOrNull,
  numberFrom,
  optionalPositive,
  positive,
  UsageError,
  whole,
  within,
} from './words.ts';

export interface MaterialWish {
  /** In place of all that a layer was made of; by default keeps its colour. */
  readonly whole?: NamedMaterial;
  readonly change?: Recipe['material'];
  readonly sides?: SideMaterials | undefined;
  /** Paths of the pictures on them, by asset. */
  readonly pictures: PathsOfPictures;
}

export interface BuildSettings {
  /** What layers are to be like. */
  readonly wishes: Omit<LayerWishes, 'newId'>;
  readonly profiles: DrawnProfile[];
  /** What all layers are made of, where something is said of it: a material whole, or what a recipe changes of it. */
  readonly material: MaterialWish | null;
  /** Whether each outline becomes a layer of its own. */
  readonly isSplit: boolean;
  /** Given to what is built, one after another. */
  readonly rules: readonly RuleWish[];
}

export interface BuildCommand {
  readonly inputs: readonly string[];
  readonly out: string;
  readonly format: FormatId;
  readonly curves: Curves;
  readonly bake: BakeWishes | undefined;
  readonly settings: BuildSettings;
  readonly report: string | undefined;
  readonly jobs: number;
}

const COMMON = {
  out: { type: 'string' },
  report: { type: 'string' },
  jobs: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

const BUILD_OPTIONS = {
  ...COMMON,
  format: { type: 'string' },
  depth: { type: 'string' },
  edge: { type: 'string' },
  reach: { type: 'string' },
  rise: { type: 'string' },
  steps: { type: 'string' },
  'edge-on': { type: 'string' },
  way: { type: 'string' },
  beyond: { type: 'string' },
  corners: { type: 'string' },
  'mitre-limit': { type: 'string' },
  faces: { type: 'string' },
  caps: { type: 'string' },
  crease: { type: 'string' },
  blend: { type: 'string' },
  uv: { type: 'string' },
  weld: { type: 'string' },
  straight: { type: 'string' },
  merge: { type: 'string' },
  close: { type: 'boolean' },
  cell: { type: 'string' },
  'wall-rows': { type: 'string' },
  tolerance: { type: 'string' },
  size: { type: 'string' },
  recipe: { type: 'string' },
  material: { type: 'string' },
  curves: { type: 'string' },
  bake: { type: 'string' },
  split: { type: 'boolean' },
  'depth-by': { type: 'string' },
  'base-by': { type: 'string' },
  'reach-by': { type: 'string' },
} as const;

export interface TraceCommand {
  readonly inputs: readonly string[];
  readonly out: string;
  readonly settings: Partial<TraceSettings>;
  readonly isAsItCame: boolean;
  readonly level: number | null;
  readonly report: string | undefined;
  readonly jobs: number;
}

const TRACE_OPTIONS = {
  ...COMMON,
  mode: { type: 'string' },
  count: { type: 'string' },
  layering: { type: 'string' },
  ink: { type: 'string' },
  level: { type: 'string' },
  detail: { type: 'string' },
  corner: { type: 'string' },
  smooth: { type: 'string' },
  'as-it-came': { type: 'boolean' },
} as const;

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseBuild(words: readonly string[]): BuildCommand | null {
  const { values, positionals } = parse(words, BUILD_OPTIONS);
  if (values.help) return null;
  const out = checkedOut('build', positionals, values.out);
  const { value: recipe, pictures } =
    values.recipe === undefined ? NO_RECIPE : readJson('--recipe', values.recipe, RecipeSchema);
  const number = (
    name:
      | ('depth' | 'reach' | 'rise' | 'steps' | 'cell' | 'wall-rows' | 'mitre-limit' | 'tolerance' | 'size' | 'jobs')
      | ('crease' | 'weld' | 'straight' | 'merge'),
  ) => numberFrom(name, values[name]);
  const reach = number('reach') ?? recipe.edge?.reach;
  const drawn = recipe.profiles?.find(({ name }) => name === values.edge);
  const profile =
    (drawn ? { drawn: drawn.name } : choice('edge', values.edge, ['none', ...PROFILES])) ??
    (recipe.edge?.profile || (reach === undefined ? 'none' : 'round'));
  const on = choice('edge-on', values['edge-on'], ['both', 'front', 'back']) ?? recipe.edge?.on ?? 'both';
  const edge: Edge = {
    profile: profile === 'none' ? 'chamfer' : profile,
    on: profile === 'none' ? 'none' : on,
    reach: notNegative('reach', reach ?? 0.5),
    rise: notNegativeOrNull('rise', number('rise') ?? recipe.edge?.rise),
    steps: whole('steps', number('steps') ?? recipe.edge?.steps ?? 3, 1, LIMITS.steps),
    way: choice('way', values.way, WAYS) ?? recipe.edge?.way ?? 'in',
    beyond: choice('beyond', values.beyond, BEYOND) ?? recipe.edge?.beyond ?? 'ridge',
    corners: choice('corners', values.corners, CORNERS) ?? recipe.edge?.corners ?? 'mitred',
    mitreLimit: within('mitre-limit', number('mitre-limit') ?? recipe.edge?.mitreLimit ?? 5, 1, 100),
  };
  const { on: _, ...shape } = edge;
  const backEdge: EdgeShape | null = recipe.backEdge ? { ...shape, ...recipe.backEdge } : null;
  const wishes: BuildSettings['wishes'] = {
    unit: 'mm',
    tolerance: positive('tolerance', number('tolerance') ?? recipe.tolerance ?? 0.01),
    size: optionalPositive('size', number('size') ?? recipe.size),
    depth: positive('depth', number('depth') ?? recipe.depth ?? 4),
    build: {
      edge,
      backEdge,
      faces: choice('faces', values.faces, FACE_MESHES) ?? recipe.faces ?? 'fewest',
      cell: positive('cell', number('cell') ?? recipe.cell ?? 1),
      wallRows: whole('wall-rows', number('wall-rows') ?? recipe.wallRows ?? 1, 1, LIMITS.wallRows),
      caps: choice('caps', values.caps, CAPPED) ?? recipe.caps ?? 'both',
    },
    finish: {
      shading: {
        crease: within('crease', number('crease') ?? recipe.shading?.crease ?? SHADING.crease, 0, 180),
        blend: choice('blend', values.blend, BLENDS) ?? recipe.shading?.blend ?? SHADING.blend,
      },
      uv: choice('uv', values.uv, ['none', ...UV_LAYOUTS]) ?? recipe.uv ?? FINISH_DEFAULTS.uv,
      tidy: tidyFrom({
        weld: number('weld') ?? recipe.tidy?.weld,
        straight: number('straight') ?? recipe.tidy?.straight,
        flat: number('merge') ?? recipe.tidy?.flat,
        close: values.close ?? recipe.tidy?.close,
      }),
    },
  };
  return {
    inputs: positionals,
    out,
    format: choice('format', values.format, FORMAT_IDS) ?? formatFor(out, FORMAT_IDS) ?? 'glb',
    curves: choice('curves', values.curves, CURVES) ?? 'splines',
    bake: bakeFrom(values.bake),
    settings: {
      wishes,
      profiles: recipe.profiles ?? [],
      material: materialFrom(values.material, recipe, pictures),
      isSplit: values.split === true,
      rules: RULED.flatMap((what) => ruleFrom(what, values[`${what}-by`]) ?? []),
    },
    report: values.report,
    jobs: whole('jobs', number('jobs') ?? availableParallelism(), 1, 64),
  };
}

/** Nothing is tidied unless something is asked for; then points in one place are welded in any case. */
function tidyFrom({ weld, straight, flat, close }: Partial<TidySettings>): TidySettings | null {
  if (weld === undefined && straight === undefined && flat === undefined && !close) return null;
  return { weld: notNegative('weld', weld ?? 0), straight: straight ?? -1, flat: flat ?? -1, close: close === true };
}

export interface ProofCommand {
  readonly inputs: readonly string[];
  readonly isJson: boolean;
}

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseProof(words: readonly string[]): ProofCommand | null {
  const { values, positionals } = parse(words, { help: COMMON.help, json: { type: 'boolean' } });
  if (values.help) return null;
  if (positionals.length === 0) throw new UsageError('proof needs at least one MESH; see outline-stack proof --help');
  return { inputs: positionals, isJson: values.json === true };
}

/** Everything in one picture of so many pixels a side; all else of it as by default. */
function bakeFrom(size: string | undefined): BakeWishes | undefined {
  const chosen = choice('bake', size, BAKE_SIZES.map(String));
  return chosen === undefined ? undefined : { ...BAKE_DEFAULTS, size: Number(chosen) as BakeWishes['size'] };
}

const PROJECT_OPTIONS = {
  ...COMMON,
  format: { type: 'string' },
  lengths: { type: 'string' },
  bake: { type: 'string' },
} as const;

export interface ProjectCommand {
  readonly input: string;
  readonly out: string;
  readonly format: FormatId;
  readonly lengths: 'metres' | 'units';
  readonly bake: BakeWishes | undefined;
  readonly report: string | undefined;
}

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseProject(words: readonly string[]): ProjectCommand | null {
  const { values, positionals } = parse(words, PROJECT_OPTIONS);
  if (values.help) return null;
  const out = checkedOut('project', positionals, values.out);
  const [input, ...more] = positionals;
  if (more.length > 0) throw new UsageError('project needs one FILE; see outline-stack project --help');
  return {
    input: input!,
    out,
    format: choice('format', values.format, FORMAT_IDS) ?? formatFor(out, FORMAT_IDS) ?? 'glb',
    lengths: choice('lengths', values.lengths, ['metres', 'units']) ?? 'metres',
    bake: bakeFrom(values.bake),
    report: values.report,
  };
}

export interface LettersCommand {
  readonly text: string;
  readonly font: string;
  readonly out: string;
  readonly format: OutlineFormatId;
  readonly settings: Omit<Lettering, 'text' | 'font'>;
  readonly report: string | undefined;
}

const LETTERS_OPTIONS = {
  out: COMMON.out,
  report: COMMON.report,
  help: COMMON.help,
  font: { type: 'string' },
  size: { type: 'string' },
  tracking: { type: 'string' },
  'line-spacing': { type: 'string' },
  align: { type: 'string' },
  'no-kerning': { type: 'boolean' },
  'no-ligatures': { type: 'boolean' },
} as const;

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseLetters(words: readonly string[]): LettersCommand | null {
  const { values, positionals } = parse(words, LETTERS_OPTIONS);
  if (values.help) return null;
  const [text, ...more] = positionals;
  if (text === undefined || more.length > 0) throw new UsageError('letters needs one TEXT; put it in quotes');
  if (!values.out) throw new UsageError('letters needs --out PATH; see outline-stack letters --help');
  if (!values.font) throw new UsageError('letters needs --font; see outline-stack letters --help');
  const number = (name: 'size' | 'tracking' | 'line-spacing') => numberFrom(name, values[name]);
  const format = choice('out', extname(values.out).slice(1).toLowerCase() || 'svg', OUTLINE_FORMATS)!;
  return {
    text: text.replaceAll('\\n', '\n'),
    font: values.font,
    out: values.out,
    format,
    settings: {
      ...LETTERING_DEFAULTS,
      size: positive('size', number('size') ?? LETTERING_DEFAULTS.size),
      tracking: within('tracking', number('tracking') ?? 0, -1000, 10_000),
      lineSpacing: within('line-spacing', number('line-spacing') ?? LETTERING_DEFAULTS.lineSpacing, 0, 100),
      align: choice('align', values.align, ALIGNMENTS) ?? 'start',
      kerning: !values['no-kerning'],
      ligatures: !values['no-ligatures'],
    },
    report: values.report,
  };
}

/** @returns null when help was asked for @throws {UsageError} for words that make no sense, in one line */
export function parseTrace(words: readonly string[]): TraceCommand | null {
  const { values, positionals } = parse(words, TRACE_OPTIONS);
  if (values.help) return null;
  const out = checkedOut('trace', positionals, values.out);
  const number = (name: 'count' | 'level' | 'detail' | 'corner' | 'smooth' | 'jobs') => numberFrom(name, values[name]);
  const level = number('level');
  if (level !== undefined && !(level >= 0 && level <= 1)) throw new UsageError('--level must be between 0 and 1');
  const [detail, corner] = [number('detail'), number('corner')];
  const count = number('count');
  const given: Partial<TraceSettings> = {
    mode: choice('mode', values.mode, TRACE_MODES),
    layering: choice('layering', values.layering, LAYERINGS),
    ink: choice('ink', values.ink, INKS),
    count: count === undefined ? undefined : whole('count', count, 2, 32),
    detail: detail === undefined ? undefined : notNegative('detail', detail),
    corner: corner === undefined ? undefined : within('corner', corner, 5, 120),
    smooth: optionalPositive('smooth', number('smooth')),
  };
  return {
    inputs: positionals,
    out,
    settings: Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)),
    isAsItCame: values['as-it-came'] ?? false,
    level: level ?? null,
    report: values.report,
    jobs: whole('jobs', number('jobs') ?? availableParallelism(), 1, 64),
  };
}

function parse<T extends NonNullable<ParseArgsConfig['options']>>(words: readonly string[], options: T) {
  try {
    return parseArgs({ args: numbersJoined(words), options, allowPositionals: true });
  } catch (error) {
    const { code, message } = error as Error & { code?: string };
    const unknown = code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION' ? /'(-[^'= ]*)/.exec(message)?.[1] : undefined;
    if (!unknown) throw new UsageError(message.split('\n')[0]!.replace(/\. To specify.*$/, ''));
    const known = Object.keys(options).map((name) => `--${name}`);
    throw new UsageError(`there is no option ${unknown}${meant(unknown, known)}`);
  }
}

/** A number below 0 behind an option is its value, not another option. */
function numbersJoined(words: readonly string[]): string[] {
  const joined: string[] = [];
  for (const word of words) {
    const before = joined.at(-1);
    if (/^-[\d.]/.test(word) && before?.startsWith('--') && !before.includes('='))
      joined[joined.length - 1] = `${before}=${word}`;
    else joined.push(word);
  }
  return joined;
}

function checkedOut(verb: string, inputs: readonly string[], out: string | undefined): string {
  if (inputs.length === 0) throw new UsageError(`${verb} needs at least one INPUT; see outline-stack ${verb} --help`);
  if (!out) throw new UsageError(`${verb} needs --out PATH; see outline-stack ${verb} --help`);
  return out;
}

/** @param name of the library, or a file; the recipe's where there is none */
function materialFrom(name: string | undefined, recipe: Recipe, pictures: PathsOfPictures): MaterialWish | null {
  const { material: change, sideMaterials: sides } = recipe;
  if (name === undefined) return change || sides ? { ...(change ? { change } : {}), sides, pictures } : null;
  const known = LIBRARY.find(({ id }) => id === name);
  if (known) return { whole: known, pictures: {} };
  if (!name.endsWith('.json')) {
    const names = LIBRARY.map(({ id }) => id).join(', ');
    throw new UsageError(
      `--material ${name}: there is no such material; known are ${names}, or give a file that ends in .json`,
    );
  }
  const { value, pictures: own } = readJson('--material', name, RecipeSchema.shape.material.unwrap());
  return { change: value, pictures: own };
}

interface Read<T> {
  readonly value: T;
  /** Those that it names. */
  readonly pictures: PathsOfPictures;
}

const NO_RECIPE: Read<Recipe> = { value: {}, pictures: {} };

/** @throws {UsageError} that names the option, the file and the first field that does not fit */
function readJson<T>(option: string, file: string, schema: z.ZodType<T>): Read<T> {
  let read: Read<unknown>;
  try {
    read = parsedWithPictures(readFileSync(file, 'utf8'), option, file);
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${option} ${file} cannot be read: ${(error as Error).message}`);
  }
  const result = schema.safeParse(read.value);
  if (result.success) return { ...read, value: result.data };
  const issue = result.error.issues[0]!;
  throw new UsageError(`${option} ${file}: ${issue.path.join('.') || 'all of it'}: ${issue.message}`);
}

/** The format that the ending of a path names; undefined where it has none. */
function formatFor<T extends string>(out: string, known: readonly T[]): T | undefined {
  const ending = extname(out).slice(1).toLowerCase();
  const found = known.find((format) => format === ending);
  if (!found && ending !== '') throw new UsageError(`--out ends in .${ending}; known formats are ${known.join(', ')}`);
  return found;
}

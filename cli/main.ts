// main.ts — the command line: words in, files out, exit codes 0 (all made), 1 (some failed), 2 (wrong usage).
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { version } from '../package.json' with { type: 'json' };
import type { FileReport } from './build-file.ts';
import { buildTasks, meshFiles, traceTasks } from './inputs.ts';
import { type LettersReport, setLetters } from './letters.ts';
import {
  type BuildCommand,
  type LettersCommand,
  type ProjectCommand,
  type ProofCommand,
  parseBuild,
  parseLetters,
  parseProject,
  parseProof,
  parseTrace,
  type TraceCommand,
} from './options.ts';
import { workAll } from './pool.ts';
import { exportProjectFile, type ProjectReport } from './project-file.ts';
import { type MeshReport, printed, proveFile } from './prove-file.ts';
import type { TraceReport } from './trace-file.ts';
import { HELP, helpOf, USAGE, type Verb } from './usage.ts';
import { meant, UsageError } from './words.ts';

/** Raised when a field of the report changes meaning. */
const REPORT_VERSION = 1;

process.exitCode = await main(process.argv.slice(2));

async function main([verb, ...words]: string[]): Promise<number> {
  if (verb === undefined || verb === '--help' || verb === '-h' || verb === 'help') {
    process.stdout.write(USAGE);
    return verb === undefined ? 2 : 0;
  }
  if (verb === '--version') {
    process.stdout.write(`${version}\n`);
    return 0;
  }
  try {
    const run = {
      build: () => build(parseBuild(words)),
      trace: () => trace(parseTrace(words)),
      letters: () => letters(parseLetters(words)),
      proof: () => proof(parseProof(words)),
      project: () => project(parseProject(words)),
    }[verb];
    if (!run)
      throw new UsageError(
        `there is no command “${verb}”${meant(verb, Object.keys(HELP)) || '; see outline-stack --help'}`,
      );
    return await run();
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    process.stderr.write(`outline-stack: ${error.message}\n`);
    return 2;
  }
}

async function build(command: BuildCommand | null): Promise<number> {
  if (!command) return help('build');
  const reports = await workAll(buildTasks(command), command.jobs, say);
  const triangles = reports.reduce((sum, report) => sum + report.counts.triangles, 0);
  return finish(reports, command.report, `built, ${triangles} triangles`);
}

async function trace(command: TraceCommand | null): Promise<number> {
  if (!command) return help('trace');
  const reports = await workAll(traceTasks(command), command.jobs, sayError);
  const curves = reports.reduce((sum, report) => sum + report.counts.curves, 0);
  return finish(reports, command.report, `traced, ${curves} lines and curves`);
}

async function letters(command: LettersCommand | null): Promise<number> {
  if (!command) return help('letters');
  const report = await setLetters(command);
  if (report.error) process.stderr.write(`outline-stack: ${report.error.message}\n`);
  for (const { message } of report.warnings) process.stderr.write(`outline-stack: ${message}\n`);
  return finish([report], command.report, `set, ${report.counts.shapes} shapes`);
}

async function proof(command: ProofCommand | null): Promise<number> {
  if (!command) return help('proof');
  const reports: MeshReport[] = [];
  for (const file of meshFiles(command)) {
    const report = await proveFile(file);
    reports.push(report);
    if (command.isJson) sayError(report);
    else process.stdout.write(printed(report));
  }
  if (command.isJson) process.stdout.write(`${JSON.stringify({ version: REPORT_VERSION, files: reports }, null, 2)}\n`);
  return reports.every(({ ok }) => ok) ? 0 : 1;
}

async function project(command: ProjectCommand | null): Promise<number> {
  if (!command) return help('project');
  const report = await exportProjectFile(command);
  sayError(report);
  return finish([report], command.report, 'written');
}

function help(verb: Verb): number {
  process.stdout.write(helpOf(verb));
  return 0;
}

/** What went wrong, and what was made otherwise than it was asked for. */
function say(report: FileReport): void {
  sayError(report);
  // Several layers say the same.
  const said = new Set(report.warnings.map(({ message }) => message));
  for (const message of said) process.stderr.write(`outline-stack: ${report.input}: ${message}\n`);
}

function sayError({ input, error }: Pick<FileReport, 'input' | 'error'>): void {
  if (error) process.stderr.write(`outline-stack: ${input}: ${error.message}\n`);
}

function finish(
  reports: readonly (FileReport | TraceReport | LettersReport | ProjectReport)[],
  file: string | undefined,
  summary: string,
): number {
  if (file) {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, `${JSON.stringify({ version: REPORT_VERSION, files: reports }, null, 2)}\n`);
  }
  const made = reports.filter((report) => report.ok).length;
  process.stdout.write(`${made} of ${reports.length} ${summary}\n`);
  return made === reports.length ? 0 : 1;
}

// main.ts — the command line: words in, files out, exit codes 0 (all made), 1 (some failed), 2 (wrong usage).
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { tasksFor } from './inputs.ts';
import { type BuildCommand, parseBuild, USAGE, UsageError } from './options.ts';
import { buildAll } from './pool.ts';

/** Raised when a field of the report changes meaning. */
const REPORT_VERSION = 1;

process.exitCode = await main(process.argv.slice(2));

async function main([verb, ...words]: string[]): Promise<number> {
  if (verb === undefined || verb === '--help' || verb === '-h' || verb === 'help') {
    process.stdout.write(USAGE);
    return verb === undefined ? 2 : 0;
  }
  try {
    if (verb !== 'build') throw new UsageError(`there is no command “${verb}”; see outline-stack --help`);
    const command = parseBuild(words);
    if (command) return await build(command);
    process.stdout.write(USAGE);
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    process.stderr.write(`outline-stack: ${error.message}\n`);
    return 2;
  }
}

async function build(command: BuildCommand): Promise<number> {
  const tasks = tasksFor(command);
  const reports = await buildAll(tasks, command.jobs, ({ input, error }) => {
    if (error) process.stderr.write(`outline-stack: ${input}: ${error.message}\n`);
  });
  if (command.report) {
    mkdirSync(dirname(command.report), { recursive: true });
    writeFileSync(command.report, `${JSON.stringify({ version: REPORT_VERSION, files: reports }, null, 2)}\n`);
  }
  const made = reports.filter((report) => report.ok).length;
  const triangles = reports.reduce((sum, report) => sum + report.counts.triangles, 0);
  process.stdout.write(`${made} of ${reports.length} built, ${triangles} triangles\n`);
  return made === reports.length ? 0 : 1;
}

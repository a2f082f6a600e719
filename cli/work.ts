// work.ts — what a file is worked on for: the one place that tells the commands' tasks apart.
import { type BuildTask, buildFile, type FileReport, failedReport } from './build-file.ts';
import { failedTrace, type TraceReport, type TraceTask, traceFile } from './trace-file.ts';

export type Task = BuildTask | TraceTask;
/** The report that a task ends in. */
export type ReportOf<T extends Task> = T extends BuildTask ? FileReport : TraceReport;

export function work<T extends Task>(task: T): Promise<ReportOf<T>> {
  return (task.kind === 'build' ? buildFile(task) : traceFile(task)) as Promise<ReportOf<T>>;
}

export function failed<T extends Task>(task: T, message: string): ReportOf<T> {
  return (
    task.kind === 'build' ? failedReport(task, 'unexpected', message) : failedTrace(task, 'unexpected', message)
  ) as ReportOf<T>;
}

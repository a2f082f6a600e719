// arrivals.ts — files on their way into a project: what a paste brings, and what waits until its project is open. The list of
// projects needs no more of bringing in than this.
import { PROJECT_FILE } from '../../core/index.ts';

let waiting: { readonly project: string; readonly files: readonly File[] } | null = null;

/** Brings files in as soon as the project is open. */
export function bringInLater(project: string, files: readonly File[]): void {
  waiting = { project, files };
}

/** @returns those that wait for the project, once */
export function takeWaiting(project: string): readonly File[] | null {
  if (waiting?.project !== project) return null;
  const { files } = waiting;
  waiting = null;
  return files;
}

/** By its name: a damaged one is still to be refused as a project. */
export const isNamedAsProject = ({ name }: File) => name.toLowerCase().endsWith(`.${PROJECT_FILE.extension}`);

/** What a paste brings: files, pictures, and the text of a drawing. */
export function pastedFiles(data: DataTransfer | null): readonly File[] {
  if (!data) return [];
  if (data.files.length > 0) return [...data.files].map(named);
  const text = data.getData('text/plain').trim();
  return /^(<\?xml[^>]*>|<!--[\s\S]*?-->|<!DOCTYPE[^>]*>|\s)*<svg[\s>]/i.test(text)
    ? [new File([text], 'pasted drawing.svg', { type: 'image/svg+xml' })]
    : [];
}

/** Browsers call every copied picture the same. */
function named(file: File): File {
  const [kind, type] = file.type.split('/');
  return kind === 'image' && /^image\.\w+$/.test(file.name)
    ? new File([file], `pasted picture.${type}`, { type: file.type })
    : file;
}

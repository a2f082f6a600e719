// file.ts — a project as a file of its own, `.outline`: a zip with the document and the bytes of everything it is made from, each
// under its hash. What comes in is not trusted.
import { unzipSync, type Zippable, zipSync } from 'fflate';
import { GeometryError } from '../base/errors.ts';
import { readProject } from './migrate.ts';
import { assetsOf, type Project } from './schema.ts';

export const PROJECT_FILE = { extension: 'outline', mime: 'application/vnd.outline-stack.project+zip' } as const;

/** Of the file, and of what it unpacks to. */
export const PROJECT_FILE_LIMITS = { bytes: 256 * 2 ** 20, unpacked: 512 * 2 ** 20, entries: 200 } as const;

const DOCUMENT = 'project.json';
const ASSETS = 'assets/';

export interface ProjectFile {
  readonly document: Project;
  /** Bytes by their SHA-256, hex. */
  readonly assets: Readonly<Record<string, Uint8Array>>;
}

/** Equal projects give equal files. */
export function writeProjectFile({ document, assets }: ProjectFile): Uint8Array {
  const entries: Zippable = { [DOCUMENT]: new TextEncoder().encode(JSON.stringify(document, null, 1)) };
  // Sorted, and pictures and fonts as they are: they are packed already.
  for (const asset of assetsOf(document).sort())
    entries[ASSETS + asset] = [assets[asset]!, { level: isText(assets[asset]!) ? 6 : 0 }];
  return zipSync(entries, { mtime: '2000-01-01' });
}

const isText = (bytes: Uint8Array) => !bytes.subarray(0, 512).includes(0);

/** Whether a file begins as a project file does: a zip, whose first entry is the document. */
export function isProjectFile(head: Uint8Array): boolean {
  const text = String.fromCharCode(...head.subarray(0, 30 + DOCUMENT.length));
  return text.startsWith('PK\x03\x04') && text.slice(30) === DOCUMENT;
}

/**
 * @param hashOf SHA-256 of bytes, hex: what is in the file must be what it says
 * @throws {GeometryError} 'bad-file' for what is damaged or something else · 'too-large'
 */
export async function readProjectFile(
  bytes: Uint8Array,
  hashOf: (bytes: Uint8Array) => string | Promise<string>,
): Promise<ProjectFile> {
  const entries = unpacked(bytes);
  const text = entries[DOCUMENT];
  if (!text) throw broken('it holds no project');
  const document = readProject(parsed(text));
  const assets: Record<string, Uint8Array> = {};
  for (const asset of assetsOf(document)) {
    const found = entries[ASSETS + asset];
    if (!found) throw broken(`the bytes of ${asset.slice(0, 8)}… are missing`);
    if ((await hashOf(found)) !== asset) throw broken(`the bytes of ${asset.slice(0, 8)}… are not what they were`);
    assets[asset] = found;
  }
  return { document, assets };
}

function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  if (bytes.length > PROJECT_FILE_LIMITS.bytes) throw tooLarge();
  if (!isProjectFile(bytes)) throw new GeometryError('bad-file', 'This is not a project file (.outline).');
  let [total, count] = [0, 0];
  try {
    return unzipSync(bytes, {
      // What each unpacks to is stated beforehand, and nothing unpacks to more than that.
      filter({ name, originalSize }) {
        total += originalSize;
        count++;
        if (total > PROJECT_FILE_LIMITS.unpacked || count > PROJECT_FILE_LIMITS.entries) throw tooLarge();
        return name === DOCUMENT || name.startsWith(ASSETS);
      },
    });
  } catch (error) {
    throw error instanceof GeometryError ? error : broken((error as Error).message);
  }
}

function parsed(text: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(text));
  } catch {
    throw broken('its project cannot be read');
  }
}

const broken = (why: string) =>
  new GeometryError('bad-file', `The project file is damaged: ${why}. Save it again from where it was made.`);

const tooLarge = () =>
  new GeometryError(
    'too-large',
    `The project file unpacks to more than ${PROJECT_FILE_LIMITS.unpacked / 2 ** 20} MB, the most for a project.`,
  );

// tags.ts — the group codes and values that a DXF file is a list of (DXF Reference, "DXF Format" and "Group Codes").
import { GeometryError } from '../../base/errors.ts';

export interface Tag {
  readonly code: number;
  readonly value: string;
}

/** Everything from one group code 0 to the next: an entity, a table entry, a section mark. */
export interface Item {
  readonly type: string;
  readonly tags: readonly Tag[];
}

export const DXF_LIMITS = { bytes: 160 * 2 ** 20, items: 2_000_000, instances: 200_000, depth: 24 } as const;

/** Items between two reports. */
const REPORTED = 5000;
/** How the binary form begins. */
const BINARY = 'AutoCAD Binary DXF';

/** Whether a text looks like DXF: a group code 0 or 999 first, and a section. */
export function isDxf(text: string): boolean {
  return text.startsWith(BINARY) || /^\s*(999\r?\n.*\r?\n\s*)*0\r?\n\s*SECTION\s*\r?\n/.test(text.slice(0, 4096));
}

/** @param report is called with the share read @throws {GeometryError} 'bad-file' with the line where reading stopped · 'too-large' */
export function readItems(text: string, report: (share: number) => void = () => {}): Item[] {
  if (text.startsWith(BINARY)) {
    throw new GeometryError('bad-file', 'This is a binary DXF file, which is not supported; save it as ASCII DXF.');
  }
  if (text.length > DXF_LIMITS.bytes) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    const message = `The file holds ${mb(text.length)} MB of drawing; ${mb(DXF_LIMITS.bytes)} MB is the most.`;
    throw new GeometryError('too-large', `${message} Save the part you need as a file of its own.`);
  }
  const items: { type: string; tags: Tag[] }[] = [];
  let line = 0;
  let at = 0;
  const next = (): string | null => {
    if (at >= text.length) return null;
    const end = text.indexOf('\n', at);
    const found = text.slice(at, end < 0 ? text.length : end);
    at = end < 0 ? text.length : end + 1;
    line++;
    return found.endsWith('\r') ? found.slice(0, -1) : found;
  };
  for (let head = next(); head !== null; head = next()) {
    if (head.trim() === '' && at >= text.length) break;
    const code = Number(head);
    const value = next();
    if (!Number.isInteger(code) || head.trim() === '' || value === null) {
      const message =
        value === null ? 'the file ends in the middle of it' : `“${head.trim().slice(0, 20)}” is no group code`;
      throw new GeometryError('bad-file', `The DXF file cannot be read beyond line ${line}: ${message}.`);
    }
    if (code === 999) continue;
    if (code !== 0) items.at(-1)?.tags.push({ code, value: value.trim() });
    else if (value.trim() === 'EOF') break;
    else items.push({ type: value.trim(), tags: [] });
    if (code === 0 && items.length % REPORTED === 0) report(at / text.length);
    if (items.length > DXF_LIMITS.items) {
      throw new GeometryError('too-large', `The file has more than ${DXF_LIMITS.items} entities; save a part of it.`);
    }
  }
  return items;
}

/** Values of an item by group code. */
export class Fields {
  readonly item: Item;

  constructor(item: Item) {
    this.item = item;
  }

  text(code: number, otherwise = ''): string {
    return this.item.tags.find((tag) => tag.code === code)?.value ?? otherwise;
  }

  /** NaN for what is no number. */
  number(code: number, otherwise = 0): number {
    const found = this.item.tags.find((tag) => tag.code === code);
    return found ? numberOf(found.value) : otherwise;
  }

  has(code: number): boolean {
    return this.item.tags.some((tag) => tag.code === code);
  }

  numbers(code: number): number[] {
    return this.item.tags.flatMap((tag) => (tag.code === code ? [numberOf(tag.value)] : []));
  }

  /** Points whose x has this code: y has 10 more. */
  points(code: number): [number, number][] {
    const [xs, ys] = [this.numbers(code), this.numbers(code + 10)];
    return xs.map((x, i) => [x, ys[i] ?? 0]);
  }
}

/** A number may be written with a comma by careless programs; anything else is none. */
export const numberOf = (value: string): number => (value.trim() === '' ? Number.NaN : Number(value.replace(',', '.')));

// pages.ts — the guide as it is in docs/guide: pages, their headings, and their text to be searched.
const TEXTS = import.meta.glob<string>('../../docs/guide/*.md', { query: '?raw', import: 'default', eager: true });
const PICTURES = import.meta.glob<string>('../../docs/screenshots/*.png', {
  query: '?url',
  import: 'default',
  eager: true,
});

export interface Page {
  /** As in its address. */
  readonly name: string;
  readonly title: string;
  readonly headings: readonly string[];
  /** Markdown. */
  readonly text: string;
}

const nameOf = (path: string) => /([^/]+)\.\w+$/.exec(path)![1]!;

/** As they are read: what there is first, then the stations on their way, then jobs. */
const ORDER = ['index', 'source', 'outline', 'build', 'proof', 'export'];
const placeOf = (name: string) => (ORDER.includes(name) ? ORDER.indexOf(name) : ORDER.length);

export const PAGES: readonly Page[] = Object.entries(TEXTS)
  .map(([path, text]) => ({
    name: nameOf(path),
    title: /^# (.*)$/m.exec(text)![1]!,
    headings: [...text.matchAll(/^## (.*)$/gm)].map(([, heading]) => heading!),
    text,
  }))
  .sort((a, b) => placeOf(a.name) - placeOf(b.name) || a.title.localeCompare(b.title));

const pictures = new Map(Object.entries(PICTURES).map(([path, url]) => [nameOf(path), url]));

/** The address of a picture that a page names. */
export const pictureUrl = (path: string): string => pictures.get(nameOf(path)) ?? path;

/** The address of a page that another one links to. */
export const pageUrl = (path: string): string => (path.endsWith('.md') ? `/help/${path.slice(0, -3)}` : path);

/** What a heading is called in an address. */
export const anchorOf = (heading: string): string => heading.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');

/** Pages that have every word of what is typed. */
export function pagesWith(typed: string): readonly Page[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return PAGES.filter(({ text }) => words.every((word) => text.toLowerCase().includes(word)));
}

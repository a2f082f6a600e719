// xml.ts — SVG text to a plain element tree. Nothing is fetched or expanded: entities of a DOCTYPE stay unread,
// because expanding them is how a small file becomes a huge one.
import { SaxesParser } from 'saxes';
import { GeometryError, type Warning } from '../../base/errors.ts';

export interface XmlElement {
  /** Local name, without an `svg:` prefix. */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: XmlElement[];
  readonly parent: XmlElement | null;
  /** Text directly inside, for `<style>` and `<title>`. */
  text: string;
}

/** Elements at the most, and how deep they may nest. */
const MAX_ELEMENTS = 250_000;
const MAX_DEPTH = 512;

/** @throws {GeometryError} 'bad-file' with line and column when the text is not well formed */
export function parseXml(text: string, warnings: Warning[]): XmlElement {
  // A declared encoding was settled when the bytes became text.
  const parser = new SaxesParser({ xmlns: false, position: true });
  let root: XmlElement | null = null;
  let current: XmlElement | null = null;
  let elements = 0;
  let depth = 0;
  let entities = 0;
  parser.on('error', (error) => {
    if (/undefined entity/.test(error.message)) {
      entities++;
      return;
    }
    const reason = error.message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
    throw new GeometryError(
      'bad-file',
      `The file is not well-formed XML: line ${parser.line}, column ${parser.column}: ${reason}.`,
    );
  });
  parser.on('opentag', (tag) => {
    if (++elements > MAX_ELEMENTS) throw tooLarge(`more than ${MAX_ELEMENTS} elements`);
    if (++depth > MAX_DEPTH) throw tooLarge(`elements nested deeper than ${MAX_DEPTH}`);
    const element: XmlElement = {
      name: tag.name.replace(/^svg:/, ''),
      attributes: tag.attributes as Record<string, string>,
      children: [],
      parent: current,
      text: '',
    };
    current?.children.push(element);
    root ??= element;
    current = element;
  });
  parser.on('closetag', () => {
    depth--;
    current = current?.parent ?? null;
  });
  const addText = (part: string) => {
    if (current) current.text += part;
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.write(text).close();
  if (entities > 0) {
    const message = `${entities} entity references were left unread: entities declared in a file are not expanded.`;
    warnings.push({ code: 'entities', message });
  }
  if (!root) throw new GeometryError('bad-file', 'The file is empty.');
  return root;
}

function tooLarge(what: string): GeometryError {
  return new GeometryError('too-large', `The drawing has ${what}; simplify it or bring it in as several files.`);
}

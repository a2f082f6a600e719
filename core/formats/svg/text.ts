// text.ts — bytes of an XML file to text: byte order mark first, then the declared encoding, else UTF-8 (XML 1.0 App. F).
import { GeometryError } from '../../base/errors.ts';

/** @throws {GeometryError} 'bad-file' when the bytes do not fit their encoding or it is unknown */
export function decodeXml(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const marked = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : null;
  const head = String.fromCharCode(...bytes.subarray(0, 200));
  const declared = /^(?:\xEF\xBB\xBF)?<\?xml[^>]*encoding\s*=\s*["']([\w.-]+)["']/.exec(head)?.[1];
  const label = marked ?? declared ?? 'utf-8';
  try {
    return new TextDecoder(label, { fatal: true }).decode(bytes);
  } catch {
    throw new GeometryError('bad-file', `This is not an SVG file: its bytes are not text in ${label.toUpperCase()}.`);
  }
}
